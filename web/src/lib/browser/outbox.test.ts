import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Final, Outbox } from "./outbox";

const kept = new Map<string, string>();
const keeper = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => (kept.set(key, value), true),
  removeItem: (key: string) => void kept.delete(key),
  keys: () => [...kept.keys()],
};
type Sent = { id: string };
const said = (settled: Sent[]) => ({ settled: settled.map(({ id }) => id), refused: {} });

beforeEach(() => {
  kept.clear();
  vi.useFakeTimers();
});
afterEach(() => vi.useRealTimers());

test("what is added is sent in order and let go of once it is settled", async () => {
  const sent: string[][] = [];
  const box = new Outbox<Sent, string>(
    "box",
    (items) => {
      sent.push(items.map(({ id }) => id));
      return Promise.resolve(said(items));
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
  const send = (items: Sent[]) => {
    if (!there) return Promise.reject(new Error("away"));
    sent.push(...items.map(({ id }) => id));
    return Promise.resolve(said(items));
  };
  const box = new Outbox<Sent, string>("box", send, keeper);
  box.add({ id: "a" });
  box.add({ id: "b" });
  await vi.advanceTimersByTimeAsync(5000);
  expect(box.items.map(({ id }) => id)).toEqual(["a", "b"]);
  box.stop();
  const later = new Outbox<Sent, string>("box", send, keeper);
  there = true;
  await later.flush();
  await vi.runAllTimersAsync();
  expect(sent).toEqual(["a", "b"]);
  expect(later.items).toEqual([]);
});

test("what was not sent yet can be taken back", async () => {
  const box = new Outbox<Sent, string>("box", () => Promise.reject(new Error("away")), keeper);
  box.add({ id: "a" });
  await vi.advanceTimersByTimeAsync(10);
  expect(box.withdraw("a")).toBe(true);
  expect(box.withdraw("b")).toBe(false);
  expect(box.items).toEqual([]);
  box.stop();
});

test("what is refused is set aside with its word, and the rest goes on", async () => {
  const sent: string[] = [];
  const box = new Outbox<Sent, string>(
    "box",
    async (items) => {
      if (items.some(({ id }) => id === "bad")) throw new Final("no such day");
      sent.push(...items.map(({ id }) => id));
      const refused: Record<string, string> = {};
      for (const { id } of items) if (id === "gone") refused[id] = "not kept any more";
      return { settled: items.map(({ id }) => id).filter((id) => !(id in refused)), refused };
    },
    keeper,
  );
  kept.set("box", JSON.stringify(["a", "bad", "gone", "b"].map((id) => ({ id }))));
  await box.flush();
  expect(sent).toEqual(["a", "gone", "b"]);
  expect(box.items).toEqual([]);
  expect(box.refused).toEqual([
    { item: { id: "bad" }, why: "no such day" },
    { item: { id: "gone" }, why: "not kept any more" },
  ]);
  box.seen();
  expect(box.refused).toEqual([]);
});

test("with no room in the browser it is sent all the same, and says that only this page has it", async () => {
  const sent: string[] = [];
  let there = false;
  const memory = new Map<string, string>();
  const full = { ...keeper, getItem: (key: string) => memory.get(key) ?? null, setItem: (key: string, value: string) => (memory.set(key, value), false) }; // prettier-ignore
  const box = new Outbox<Sent, string>(
    "box",
    async (items) => {
      if (!there) throw new Error("away");
      sent.push(...items.map(({ id }) => id));
      return said(items);
    },
    full,
  );
  box.add({ id: "a" });
  await vi.advanceTimersByTimeAsync(10);
  expect(box.lasts).toBe(false);
  there = true;
  await vi.runAllTimersAsync();
  expect(sent).toEqual(["a"]);
});
