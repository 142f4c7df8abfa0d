import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { patiently } from "./client";

const busy = () => new Response("{}", { status: 503, headers: { "Retry-After": "2" } });
const answers = (...given: Response[]) => {
  const bodies: string[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    bodies.push(await request.text());
    return given.shift()!;
  });
  return bodies;
};

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test("a busy server is asked again when it said, with the same words", async () => {
  const bodies = answers(busy(), new Response("ok"));
  const answer = patiently(new Request("http://x.test/", { method: "POST", body: "one" }));
  await vi.advanceTimersByTimeAsync(1900);
  expect(bodies).toEqual(["one"]);
  await vi.advanceTimersByTimeAsync(200);
  expect((await answer).status).toBe(200);
  expect(bodies).toEqual(["one", "one"]);
});

test("it is not asked for ever, nor where it does not say when, nor when nobody waits", async () => {
  const bodies = answers(busy(), busy(), busy(), new Response("late"));
  const answer = patiently(new Request("http://x.test/"));
  await vi.runAllTimersAsync();
  expect((await answer).status).toBe(503);
  expect(bodies).toHaveLength(3);
  answers(new Response("{}", { status: 503 }));
  expect((await patiently(new Request("http://x.test/"))).status).toBe(503);
  const letGo = new AbortController();
  const once = answers(busy(), busy());
  const gone = patiently(new Request("http://x.test/", { signal: letGo.signal }));
  const refused = expect(gone).rejects.toThrow("let go");
  await vi.advanceTimersByTimeAsync(10);
  letGo.abort();
  await refused;
  expect(once).toHaveLength(1);
});
