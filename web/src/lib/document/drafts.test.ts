import { beforeEach, describe, expect, it } from "vitest";
import { BrowserStore, browserStore } from "@/lib/browser/browserStore";
import { draftOf, Drafts, draftsKept } from "./drafts";

const WHAT = draftOf("system", 3, "2026-01-01T00:00:00Z");
const page = (name: string, what = WHAT) => new Drafts<{ name: string }>(what, browserStore, name);

describe("edits kept in the browser", () => {
  beforeEach(() => localStorage.clear());

  it("are left for the next page, the newest first, and the page's own are not offered to it", () => {
    const one = page("one");
    one.keep(2, { name: "first" });
    one.keep(2, { name: "later" });
    expect(one.left()).toEqual([]);
    expect(page("two").left()).toMatchObject([{ base: 2, content: { name: "later" } }]);
    localStorage.setItem(
      `loquen.draft.${WHAT}#zero`,
      JSON.stringify({ base: 1, at: "2020-01-01T00:00:00Z", content: { name: "old" } }),
    );
    expect(
      page("two")
        .left()
        .map(({ content }) => content.name),
    ).toEqual(["later", "old"]);
  });

  it("go when they are saved or let go of", () => {
    page("one").keep(2, { name: "a" });
    page("two").keep(2, { name: "b" });
    page("one").drop();
    const [left] = page("three").left();
    expect(left?.content.name).toBe("b");
    page("three").forget(left!.key);
    expect(page("three").left()).toEqual([]);
  });

  it("belong to one document of one database", () => {
    page("one").keep(2, { name: "a" });
    page("one", draftOf("system", 30, "2026-01-01T00:00:00Z")).keep(2, { name: "c" });
    expect(page("two", draftOf("system", 3, "2027-01-01T00:00:00Z")).left()).toEqual([]);
    expect(draftsKept()).toEqual(new Set([WHAT, draftOf("system", 30, "2026-01-01T00:00:00Z")]));
  });

  it("that can not be read are passed over", () => {
    localStorage.setItem(`loquen.draft.${WHAT}#one`, "{");
    localStorage.setItem(`loquen.draft.${WHAT}#two`, '{"base":"x"}');
    expect(page("three").left()).toEqual([]);
  });

  it("say when the browser has no room", () => {
    const full = new BrowserStore(() => {
      throw new Error("full");
    });
    expect(new Drafts(WHAT, full, "one").keep(1, {})).toBe(false);
    expect(page("one").keep(1, { name: "a" })).toBe(true);
  });
});
