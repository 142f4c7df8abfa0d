import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Outbox } from "./outbox";

const kept = new Map<string, string>();
const keeper = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
};

beforeEach(() => {
  kept.clear();
  vi.useFakeTimers();
});
afterEach(() => vi.useRealTimers());

test("what is added is sent in order and let go of once it is settled", async () => {
  const sent: string[][] = [];
  const box = new Outbox<{ id: string }>(
    "box",
    (items) => {
      sent.push(items.map(({ id }) => id));
      return Promise.resolve(items.map(({ id }) => id));
    },
    keeper,
  );
  box.add({ id: "a" });
  box.add({ id: "b" });
  await vi.runAllTimersAsync();
  expect(sent.flat()).toEqual(["a", "b"]);
  expect(box.items).toEqual([]);
});

test("with nobody there it waits, is kept, and goes out once when somebody is again", async () => {
  let there = false;
  const sent: string[] = [];
  const send = (items: { id: string }[]) => {
    if (!there) return Promise.reject(new Error("away"));
    sent.push(...items.map(({ id }) => id));
    return Promise.resolve(items.map(({ id }) => id));
  };
  const box = new Outbox<{ id: string }>("box", send, keeper);
  box.add({ id: "a" });
  box.add({ id: "b" });
  await vi.advanceTimersByTimeAsync(5000);
  expect(box.items.map(({ id }) => id)).toEqual(["a", "b"]);
  box.stop();
  const later = new Outbox<{ id: string }>("box", send, keeper);
  there = true;
  await later.flush();
  await vi.runAllTimersAsync();
  expect(sent).toEqual(["a", "b"]);
  expect(later.items).toEqual([]);
});

test("what was not sent yet can be taken back", async () => {
  const box = new Outbox<{ id: string }>("box", () => Promise.reject(new Error("away")), keeper);
  box.add({ id: "a" });
  await vi.advanceTimersByTimeAsync(10);
  expect(box.withdraw("a")).toBe(true);
  expect(box.withdraw("b")).toBe(false);
  expect(box.items).toEqual([]);
  box.stop();
});
