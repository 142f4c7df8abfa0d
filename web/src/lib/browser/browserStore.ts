/** What this browser keeps for these pages. Where it refuses (private windows) or is full, the page's own memory stands in. */

export interface Keeper {
  getItem(key: string): string | null;
  /** Whether the browser keeps it, or this page alone. */
  setItem(key: string, value: string): boolean;
  removeItem(key: string): void;
  keys(): string[];
}

export class BrowserStore implements Keeper {
  private readonly here = new Map<string, string>();

  /** `browser` may throw: a browser that keeps nothing refuses to be asked at all. */
  constructor(private readonly browser: () => Storage | undefined) {}

  getItem(key: string): string | null {
    return this.here.get(key) ?? this.tried((storage) => storage.getItem(key)) ?? null;
  }

  setItem(key: string, value: string): boolean {
    const kept = this.tried((storage) => (storage.setItem(key, value), true)) ?? false;
    if (kept) this.here.delete(key);
    else this.here.set(key, value);
    return kept;
  }

  removeItem(key: string): void {
    this.here.delete(key);
    this.tried((storage) => storage.removeItem(key));
  }

  keys(): string[] {
    const kept = this.tried((storage) =>
      Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? ""),
    );
    return [...new Set([...(kept ?? []), ...this.here.keys()])];
  }

  private tried<Found>(act: (storage: Storage) => Found): Found | undefined {
    try {
      const storage = this.browser();
      return storage && act(storage);
    } catch {
      return undefined;
    }
  }
}

export const browserStore = new BrowserStore(() => globalThis.localStorage);
