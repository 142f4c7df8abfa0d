import { expect, test } from "vitest";
import { BrowserStore } from "./browserStore";

/** A browser's storage with room for so many letters. */
function storage(room: number): Storage {
  const kept = new Map<string, string>();
  return {
    get length() {
      return kept.size;
    },
    key: (i) => [...kept.keys()][i] ?? null,
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => {
      if (value.length > room) throw new DOMException("full", "QuotaExceededError");
      kept.set(key, value);
    },
    removeItem: (key) => void kept.delete(key),
    clear: () => kept.clear(),
  };
}

test("what the browser has no room for, or refuses, this page remembers, and says so", () => {
  const refusing = () => {
    throw new DOMException("denied", "SecurityError");
  };
  for (const browser of [() => storage(3), () => undefined, refusing as () => Storage]) {
    const store = new BrowserStore(browser);
    expect(store.setItem("a", "long enough")).toBe(false);
    expect(store.getItem("a")).toBe("long enough");
    expect(store.keys()).toEqual(["a"]);
    store.removeItem("a");
    expect(store.getItem("a")).toBeNull();
  }
});

test("what it keeps is kept, also over what this page remembered of it", () => {
  const browser = storage(3);
  const store = new BrowserStore(() => browser);
  store.setItem("a", "too long");
  expect(store.setItem("a", "b")).toBe(true);
  expect(browser.getItem("a")).toBe("b");
  expect(store.getItem("a")).toBe("b");
  expect(store.keys()).toEqual(["a"]);
});
