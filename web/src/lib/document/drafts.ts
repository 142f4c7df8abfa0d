/** Edits that are not saved: kept in this browser, so that leaving, closing or a crash loses none of them. */

import { browserStore, type Keeper } from "@/lib/browser/browserStore";

export interface Draft<T> {
  key: string;
  /** The revision that they were made on. */
  base: number;
  /** When the last of them was made. */
  at: string;
  content: T;
}

const PREFIX = "loquen.draft.";

/** What a draft belongs to; the moment of its making tells systems of two databases apart. */
export const draftOf = (what: "system" | "room" | "water" | "venture", id: number, created: string) =>
  `${what}.${id}@${created}`;

/** The drafts of one document: this page's own, and those that other pages left. */
export class Drafts<T> {
  private readonly own: string;

  constructor(
    private readonly what: string,
    private readonly storage: Keeper = browserStore,
    page: string = crypto.randomUUID(),
  ) {
    this.own = `${PREFIX}${what}#${page}`;
  }

  /** Keep what is not saved; false when the browser has no room for it. */
  keep(base: number, content: T): boolean {
    return this.storage.setItem(this.own, JSON.stringify({ base, at: new Date().toISOString(), content }));
  }

  drop(): void {
    this.forget(this.own);
  }

  /** Let go of a draft that another page left. */
  forget(key: string): void {
    this.storage.removeItem(key);
  }

  /** What other pages left of this document, the newest first. */
  left(): Draft<T>[] {
    return keysOf(this.storage)
      .filter((key) => key.startsWith(`${PREFIX}${this.what}#`) && key !== this.own)
      .flatMap((key) => {
        const draft = read<T>(this.storage, key);
        return draft ? [{ ...draft, key }] : [];
      })
      .sort((one, other) => other.at.localeCompare(one.at));
  }
}

/** Every document of which this browser keeps edits that are not saved. */
export function draftsKept(storage: Keeper = browserStore): Set<string> {
  return new Set(keysOf(storage).map((key) => key.slice(PREFIX.length).split("#")[0]!));
}

const keysOf = (storage: Keeper): string[] => storage.keys().filter((key) => key.startsWith(PREFIX));

function read<T>(storage: Keeper, key: string): Omit<Draft<T>, "key"> | null {
  try {
    const found = JSON.parse(storage.getItem(key) ?? "null") as Partial<Omit<Draft<T>, "key">> | null;
    const { base, at, content } = found ?? {};
    return typeof base === "number" && typeof at === "string" && content ? { base, at, content } : null;
  } catch {
    return null;
  }
}
