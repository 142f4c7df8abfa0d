import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refused, type Fault, type Plan, type Sheet, type System } from "@/api/client";
import { left } from "@/lib/document/documentSession";
import { documentOf } from "@/lib/document/rootSession";
import { PlanSession, SYSTEM, type PlanServer } from "./session";

const plan = { name: "Tank", tank: { pane_mm: 8 }, heat: { target_c: 25 } } as unknown as Plan;
const system = (revision: number, name = "Tank"): System => ({
  id: 1,
  created: "2026-01-01T00:00:00Z",
  revision,
  saved: "2026-01-01T00:00:00Z",
  can_undo: revision > 1,
  can_redo: false,
  plan: { ...plan, name },
});
const fault: Fault = {
  code: "invalid",
  sentence: { text: "1 to mend", terms: {} },
  fields: [{ path: "tank.pane_mm", sentence: { text: "not a number", terms: {} } }],
};

/** A server in memory: saves count up, can be told to be away, to refuse, or to have moved on. */
function server() {
  const state = {
    revision: 1,
    away: false,
    saved: [] as Plan[],
    /** What the server answers instead, to a save and to a sheet. */
    refusing: null as unknown,
    failing: null as unknown,
    asked: 0,
  };
  const reach = () => {
    if (state.away) throw new Refused(0);
  };
  const api: PlanServer = {
    async sheet(draft, monthsAhead) {
      reach();
      if (state.failing) throw state.failing;
      if (typeof draft.tank?.pane_mm !== "number") throw new Refused(422, fault);
      return { of: structuredClone(draft), monthsAhead } as unknown as Sheet;
    },
    async more() {
      reach();
      return {
        remedies: {},
        reasons: {},
        ranges: {},
        outgrown: [],
        settlings: [],
        failures: [],
        least_regime: null,
        regimes: [],
        salt_days: [],
        saw_tooth: null,
        assumed: [],
      };
    },
    async read() {
      reach();
      return system(state.revision, "theirs");
    },
    async save(_id, base, saved) {
      reach();
      state.asked++;
      if (state.refusing) throw state.refusing;
      if (base !== state.revision) throw new Refused(409, { ...fault, code: "stale_revision" });
      state.saved.push(saved);
      return { ...system(++state.revision), plan: saved };
    },
    async step() {
      reach();
      return system(++state.revision, "stepped");
    },
  };
  return { state, api };
}

const settle = () => vi.advanceTimersByTimeAsync(2000);

describe("a plan being edited", () => {
  beforeEach(() => {
    localStorage.clear();
    vi.useFakeTimers();
  });
  afterEach(() => void vi.useRealTimers());

  async function opened() {
    const { state, api } = server();
    const session = new PlanSession(system(1), api);
    session.open();
    await vi.advanceTimersByTimeAsync(0);
    return { state, session };
  }

  it("computes at once and saves after a quiet moment, once", async () => {
    const { state, session } = await opened();
    session.edit({ "tank.pane_mm": 9 });
    session.edit({ "tank.pane_mm": 10 });
    await vi.advanceTimersByTimeAsync(1);
    expect(session.state.sheetOf?.tank?.pane_mm).toBe(10);
    expect(session.state.saving).toBe("unsaved");
    await settle();
    expect(session.state.saving).toBe("saved");
    expect(state.saved.map((saved) => saved.tank?.pane_mm)).toEqual([10]);
    expect(session.state.revision).toBe(2);
  });

  it("keeps what a new sheet says unchanged as the same objects, so that it is not drawn again", async () => {
    const { session } = await opened();
    const part = (name: "tank" | "heat") => (session.state.sheet as unknown as { of: Plan }).of[name];
    const [tank, heat] = [part("tank"), part("heat")];
    session.edit({ "tank.pane_mm": 9 });
    await settle();
    expect(part("tank")).not.toBe(tank);
    expect(part("heat")).toBe(heat);
  });

  it("keeps the last good figures and saves nothing while a field is wrong", async () => {
    const { state, session } = await opened();
    const good = session.state.sheet;
    session.edit({ "tank.pane_mm": "abc" });
    await settle();
    expect(session.state.sheet).toBe(good);
    expect(session.state.faults["tank.pane_mm"]?.sentence.text).toBe("not a number");
    expect([session.state.saving, state.saved.length]).toEqual(["waiting", 0]);
    session.edit({ "tank.pane_mm": 12 });
    await settle();
    expect([session.state.saving, session.state.problem]).toEqual(["saved", null]);
  });

  it("keeps edits while the server is away and saves them when it is back", async () => {
    const { state, session } = await opened();
    state.away = true;
    session.edit({ "tank.pane_mm": 10 });
    await settle();
    expect(session.state.saving).toBe("away");
    session.edit({ "tank.pane_mm": 11 });
    await settle();
    state.away = false;
    await settle();
    await settle();
    expect(session.state.saving).toBe("saved");
    expect(state.saved.at(-1)?.tank?.pane_mm).toBe(11);
    expect(session.state.sheetOf?.tank?.pane_mm).toBe(11);
  });

  it("looks ahead once the server is back", async () => {
    const { state, session } = await opened();
    state.away = true;
    session.lookAhead(12);
    await settle();
    state.away = false;
    await settle();
    expect((session.state.sheet as unknown as { monthsAhead: number }).monthsAhead).toBe(12);
  });

  it("is told when another tab was faster, and can take over or discard", async () => {
    for (const way of ["takeOver", "reload"] as const) {
      const { state, session } = await opened();
      state.revision = 5;
      session.edit({ "tank.pane_mm": 10 });
      await settle();
      expect([session.state.saving, state.saved.length]).toEqual(["stale", 0]);
      await session[way]();
      expect(session.state.saving).toBe("saved");
      expect(session.state.content.name).toBe(way === "takeOver" ? "Tank" : "theirs");
      expect(state.saved.length).toBe(way === "takeOver" ? 1 : 0);
    }
  });

  it("saves an edit on its way before it undoes", async () => {
    const { state, session } = await opened();
    session.edit({ "tank.pane_mm": 10 });
    await session.step("undo");
    expect(state.saved.length).toBe(1);
    expect(session.state.content.name).toBe("stepped");
  });

  it("undoes what can not be saved by going back to what is", async () => {
    const { session } = await opened();
    session.edit({ "tank.pane_mm": "abc" });
    await settle();
    await session.step("undo");
    expect(session.state.content.tank?.pane_mm).toBe(8);
    expect(session.state.faults).toEqual({});
  });

  const told = (code: string): Fault => ({
    code,
    sentence: { text: `told: ${code}`, terms: {} },
    fields: [],
  });

  it.each([
    [503, "busy", 1500],
    [507, "full", 15_000],
  ])(
    "keeps edits that the server can not keep now (%d), says why, and tries again",
    async (status, code, wait) => {
      const { state, session } = await opened();
      state.refusing = new Refused(status, told(code));
      session.edit({ "tank.pane_mm": 10 });
      await vi.advanceTimersByTimeAsync(600);
      expect([session.state.saving, session.state.trouble?.text]).toEqual(["refused", `told: ${code}`]);
      state.refusing = null;
      await vi.advanceTimersByTimeAsync(wait);
      expect([session.state.saving, session.state.trouble, state.saved.length]).toEqual(["saved", null, 1]);
    },
  );

  it("does not ask a server that failed again and again, and goes on after a stray throw", async () => {
    const { state, session } = await opened();
    vi.spyOn(console, "error").mockImplementation(() => undefined);
    for (const cause of [new Refused(500, told("server_fault")), new TypeError("stray")]) {
      state.refusing = cause;
      state.asked = 0;
      session.edit({ "tank.pane_mm": 10 });
      await vi.advanceTimersByTimeAsync(60_000);
      expect([session.state.saving, state.asked]).toEqual(["refused", 1]);
    }
    state.refusing = null;
    await session.save();
    expect(session.state.saving).toBe("saved");
  });

  it("saves a sound plan of which no sheet can be made, and says so", async () => {
    const { state, session } = await opened();
    state.failing = new Refused(500, told("server_fault"));
    session.edit({ "tank.pane_mm": 10 });
    await settle();
    expect([session.state.saving, session.state.problem?.text]).toEqual(["saved", "told: server_fault"]);
  });

  it("keeps what is wrong in the browser and offers it to the next page", async () => {
    const { state, session } = await opened();
    session.edit({ "tank.pane_mm": "abc", "heat.target_c": 22 });
    await settle();
    session.close();
    await settle();
    const next = new PlanSession(system(1), server().api);
    const [draft] = next.state.drafts;
    expect([draft?.base, draft?.content.heat?.target_c, state.saved.length]).toEqual([1, 22, 0]);
    next.takeUp(draft!);
    expect([next.state.content.heat?.target_c, next.state.drafts]).toEqual([22, []]);
    next.edit({ "tank.pane_mm": 9 });
    await settle();
    expect(next.state.saving).toBe("saved");
    expect(new PlanSession(system(2), server().api).state.drafts).toEqual([]);
  });

  it("offers no draft that says what is saved, and lets go of one", async () => {
    const { session } = await opened();
    session.edit({ "tank.pane_mm": "abc" });
    const same = { ...system(2), plan: session.state.content };
    expect(new PlanSession(same, server().api).state.drafts).toEqual([]);
    session.edit({ "tank.pane_mm": "abcd" });
    const other = new PlanSession(system(1), server().api);
    other.forget(other.state.drafts[0]!);
    expect(new PlanSession(system(1), server().api).state.drafts).toEqual([]);
  });

  it("is waited for by whoever opens the system again", async () => {
    const { state, session } = await opened();
    session.edit({ "tank.pane_mm": 10 });
    session.close();
    const saved = left(documentOf(SYSTEM, 1)).then(() => state.saved.length);
    await vi.advanceTimersByTimeAsync(0);
    expect(await saved).toBe(1);
  });

  it("is not stale when there is nothing to undo", async () => {
    const { session } = await opened();
    const { api } = server();
    const next = new PlanSession(
      { ...system(2), can_undo: true },
      {
        ...api,
        step: () => Promise.reject(new Refused(422, told("unreadable"))),
      },
    );
    await next.step("undo");
    expect([next.state.saving, next.state.trouble?.text]).toEqual(["saved", "told: unreadable"]);
    expect(session.state.saving).toBe("saved");
  });

  it("leaves nothing unsaved behind when it is closed", async () => {
    const { state, session } = await opened();
    session.edit({ "tank.pane_mm": 10 });
    session.close();
    await vi.advanceTimersByTimeAsync(0);
    expect(state.saved.length).toBe(1);
  });
});
