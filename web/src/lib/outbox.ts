/** What was done here and still has to be told the server: kept in the browser, sent in order, each once. */

export interface Waiting {
  id: string;
}

export interface OutboxKeeper {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
}

/** Which of what was sent is settled, kept or refused; the rest is sent again. */
export type Send<Item> = (items: Item[]) => Promise<string[]>;

const FIRST_WAIT_MS = 1500;
const LONGEST_WAIT_MS = 30_000;
const AT_ONCE = 100;

export class Outbox<Item extends Waiting> {
  private readonly listeners = new Set<() => void>();
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private wait = FIRST_WAIT_MS;
  private snapshot: Item[];

  constructor(
    private readonly key: string,
    private readonly send: Send<Item>,
    private readonly keeper: OutboxKeeper = localStorage,
  ) {
    this.snapshot = this.read();
  }

  /** What waits, oldest first; the same list until it changes. */
  get items(): Item[] {
    return this.snapshot;
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  add(item: Item): void {
    this.write([...this.read(), item]);
    void this.flush();
  }

  /** Take back what was not sent yet; false when it was. */
  withdraw(id: string): boolean {
    const items = this.read();
    if (this.sending || !items.some((item) => item.id === id)) return false;
    this.write(items.filter((item) => item.id !== id));
    return true;
  }

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
    for (let items = this.read(); items.length > 0; items = this.read()) {
      try {
        const settled = new Set(await this.send(items.slice(0, AT_ONCE)));
        if (settled.size === 0) throw new Error("nothing was settled");
        this.write(this.read().filter(({ id }) => !settled.has(id)));
        this.wait = FIRST_WAIT_MS;
      } catch {
        this.timer = setTimeout(() => void this.flush(), this.wait);
        this.wait = Math.min(2 * this.wait, LONGEST_WAIT_MS);
        return;
      }
    }
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
    this.keeper.setItem(this.key, JSON.stringify(items));
    this.snapshot = items;
    for (const listener of this.listeners) listener();
  }
}
