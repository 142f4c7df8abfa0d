/** What was done here and still has to be told the server: kept in the browser, sent in order, each once. */
import { browserStore, type Keeper } from "./browserStore";

export interface Waiting {
  id: string;
}

/** What the server said: settled (kept, or there already), or refused with a sentence; the rest is sent again. */
export interface Said<Sentence> {
  settled: string[];
  refused: Record<string, Sentence>;
}

/** Sends some; a `Final` thrown for one alone is its refusal. */
export type Send<Item, Sentence> = (items: Item[]) => Promise<Said<Sentence>>;

/** The server will never take it, and why. */
export class Final<Sentence> extends Error {
  constructor(readonly sentence: Sentence) {
    super("refused");
  }
}

export interface SetAside<Item, Sentence> {
  item: Item;
  why: Sentence;
}

const FIRST_WAIT_MS = 1500;
const LONGEST_WAIT_MS = 30_000;
const AT_ONCE = 100;

export class Outbox<Item extends Waiting, Sentence> {
  private readonly listeners = new Set<() => void>();
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private wait = FIRST_WAIT_MS;
  private snapshot: Item[];
  private aside: SetAside<Item, Sentence>[] = [];

  /** Whether the browser keeps what waits; otherwise it lives as long as this page. */
  lasts = true;

  constructor(
    private readonly key: string,
    private readonly send: Send<Item, Sentence>,
    private readonly keeper: Keeper = browserStore,
  ) {
    this.snapshot = this.read();
  }

  /** What waits, oldest first; the same list until it changes. */
  get items(): Item[] {
    return this.snapshot;
  }

  /** What the server refused, until somebody has seen it. */
  get refused(): SetAside<Item, Sentence>[] {
    return this.aside;
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  add(item: Item): void {
    this.write([...this.read(), item]);
    void this.flush();
  }

  /** Take back what was not sent yet; false when it was, or is on its way. */
  withdraw(id: string): boolean {
    const items = this.read();
    if (this.sending || !items.some((item) => item.id === id)) return false;
    this.write(items.filter((item) => item.id !== id));
    return true;
  }

  /** What was refused has been seen. */
  seen = (): void => {
    this.aside = [];
    this.tell();
  };

  /** Send what waits; try again later where nobody answers. */
  flush(): Promise<void> {
    this.sending ??= this.sendAll().finally(() => (this.sending = null));
    return this.sending;
  }

  stop(): void {
    clearTimeout(this.timer);
  }

  private async sendAll(): Promise<void> {
    clearTimeout(this.timer);
    let most = AT_ONCE;
    for (let items = this.read(); items.length > 0; items = this.read()) {
      const part = items.slice(0, most);
      try {
        this.settle(await this.send(part));
        this.wait = FIRST_WAIT_MS;
      } catch (cause) {
        if (cause instanceof Final) {
          // One of them spoils the whole: each goes alone, so that it alone is set aside.
          if (part.length > 1) most = 1;
          else this.settle({ settled: [], refused: { [part[0]!.id]: cause.sentence as Sentence } });
          continue;
        }
        this.timer = setTimeout(() => void this.flush(), this.wait);
        this.wait = Math.min(2 * this.wait, LONGEST_WAIT_MS);
        return;
      }
    }
  }

  private settle({ settled, refused }: Said<Sentence>): void {
    const done = new Set([...settled, ...Object.keys(refused)]);
    if (done.size === 0) throw new Error("nothing was settled");
    const items = this.read();
    const fresh = items.filter(({ id }) => id in refused).map((item) => ({ item, why: refused[item.id]! }));
    if (fresh.length) this.aside = [...this.aside, ...fresh];
    this.write(items.filter(({ id }) => !done.has(id)));
  }

  private read(): Item[] {
    try {
      const found: unknown = JSON.parse(this.keeper.getItem(this.key) ?? "[]");
      return Array.isArray(found) ? (found as Item[]) : [];
    } catch {
      return [];
    }
  }

  private write(items: Item[]): void {
    this.lasts = this.keeper.setItem(this.key, JSON.stringify(items));
    this.snapshot = items;
    this.tell();
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}
