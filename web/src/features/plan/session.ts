import { replaceEqualDeep } from "@tanstack/react-query";
import {
  asked,
  client,
  Refused,
  type Fault,
  type FieldFault,
  type Plan,
  type Sentence,
  type Sheet,
  type System,
} from "@/api/client";
import { draftOf, Drafts, type Draft } from "@/lib/drafts";
import { withValue } from "@/lib/paths";

/**
 * away: no server answers, it is tried again. waiting: something is to be mended first. stale: another tab was faster.
 * refused: the server says that it can not keep it now, and why.
 */
export type Saving = "saved" | "unsaved" | "saving" | "away" | "waiting" | "stale" | "refused";

export interface SessionState {
  id: number;
  plan: Plan;
  revision: number;
  savedAt: string;
  canUndo: boolean;
  canRedo: boolean;
  /** The last good figures; `sheetOf` is the plan they belong to. */
  sheet: Sheet | null;
  sheetOf: Plan | null;
  /** How far ahead the animals' size is planned for; null is full grown. A way of looking, never saved. */
  monthsAhead: number | null;
  faults: Record<string, FieldFault>;
  problem: Sentence | null;
  saving: Saving;
  /** Why the server does not keep what was edited, while `saving` says that it refused. */
  trouble: Sentence | null;
  /** Edits that an earlier page left unsaved, the newest first. */
  drafts: Draft<Plan>[];
}

/** What the session asks of the server; a test gives its own. */
export interface PlanServer {
  sheet(plan: Plan, monthsAhead: number | null, signal: AbortSignal): Promise<Sheet>;
  read(id: number): Promise<System>;
  save(id: number, base: number, plan: Plan): Promise<System>;
  step(id: number, base: number, direction: "undo" | "redo"): Promise<System>;
}

export const planServer: PlanServer = {
  sheet: (plan, monthsAhead, signal) =>
    asked(client.POST("/api/sheet", { body: { plan, months_ahead: monthsAhead }, signal })),
  read: (id) => asked(client.GET("/api/systems/{system_id}", { params: { path: { system_id: id } } })),
  save: (id, base, plan) =>
    asked(
      client.PUT("/api/systems/{system_id}", { params: { path: { system_id: id } }, body: { base, plan } }),
    ),
  step: (id, base, direction) => {
    const params = { path: { system_id: id } };
    const body = { base };
    return direction === "undo"
      ? asked(client.POST("/api/systems/{system_id}/undo", { params, body }))
      : asked(client.POST("/api/systems/{system_id}/redo", { params, body }));
  },
};

const QUIET_MS = 500;
const RETRY_MS = 1500;
const FULL_RETRY_MS = 15_000;
const BUSY = 503;
const NOT_KEPT = 507;
const UNSAVED: Saving[] = ["unsaved", "away", "refused"];
const NO_FAULTS: SessionState["faults"] = {};

/** Saves of sessions that were left, by system: who opens it again waits for them. */
const leaving = new Map<number, Promise<void>>();

/** Resolves when nothing of an earlier session of this system is on its way any more. */
export const left = (id: number): Promise<void> => leaving.get(id) ?? Promise.resolve();

/** One plan being edited: every edit is computed at once, saved when it makes sense, and never lost. */
export class PlanSession {
  private listeners = new Set<() => void>();
  private asking: AbortController | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private busy: Promise<void> = Promise.resolve();
  /** How far ahead the last good figures look. */
  private sheetAhead: number | null = null;
  state: SessionState;

  constructor(
    system: System,
    private readonly server: PlanServer = planServer,
    private readonly drafts = new Drafts<Plan>(draftOf("system", system.id, system.created)),
  ) {
    this.state = {
      ...settled(system),
      sheet: null,
      sheetOf: null,
      monthsAhead: null,
      faults: NO_FAULTS,
      problem: null,
      saving: "saved",
      trouble: null,
      drafts: [],
    };
    const plan = JSON.stringify(system.plan);
    for (const draft of this.drafts.left()) {
      if (JSON.stringify(draft.content) === plan) this.drafts.forget(draft.key);
      else this.state.drafts.push(draft);
    }
  }

  /** Compute the first sheet. */
  open(): void {
    void this.compute();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Leave nothing behind that can be saved; what can not be is kept in the browser. */
  close(): void {
    const { id } = this.state;
    const saved = this.save().finally(() => {
      clearTimeout(this.timer);
      if (leaving.get(id) === saved) leaving.delete(id);
    });
    leaving.set(id, saved);
  }

  /** Go on with edits that an earlier page left, on top of what is saved. */
  takeUp(draft: Draft<Plan>): void {
    this.replace(draft.content);
    this.forget(draft);
  }

  /** Let go of edits that an earlier page left. */
  forget(draft: Draft<Plan>): void {
    this.drafts.forget(draft.key);
    this.set({ drafts: this.state.drafts.filter(({ key }) => key !== draft.key) });
  }

  /** Change values by path; text that is no number is kept too, and told about. */
  edit(changes: Record<string, unknown>): void {
    let plan = this.state.plan;
    for (const [path, value] of Object.entries(changes)) plan = withValue(plan, path, value);
    this.replace(plan);
  }

  /** Put a whole changed plan in place: rows added or taken away. */
  replace(plan: Plan): void {
    this.set({ plan, saving: this.state.saving === "stale" ? "stale" : "unsaved", trouble: null });
    this.drafts.keep(this.state.revision, plan);
    void this.compute();
    if (this.state.saving !== "stale") this.later(QUIET_MS);
  }

  /** Look at the animals at another size: in so many months, or full grown. */
  lookAhead(monthsAhead: number | null): void {
    this.set({ monthsAhead });
    void this.compute();
  }

  private async compute(): Promise<void> {
    this.asking?.abort();
    const asking = (this.asking = new AbortController());
    const { plan, monthsAhead } = this.state;
    try {
      const sheet = await this.server.sheet(plan, monthsAhead, asking.signal);
      if (asking.signal.aborted) return;
      this.sheetAhead = monthsAhead;
      // What came out the same stays the same object, so that only what changed is drawn anew.
      this.set({
        sheet: replaceEqualDeep(this.state.sheet, sheet),
        sheetOf: plan,
        faults: NO_FAULTS,
        problem: null,
      });
    } catch (cause) {
      if (!asking.signal.aborted) this.notComputed(refusal(cause));
    }
  }

  private notComputed({ status, fault, sentence }: Refused): void {
    if (status === 0) {
      if (this.state.saving !== "stale") this.set({ saving: "away" });
      this.later(RETRY_MS);
    } else if (fault && status < 500) {
      clearTimeout(this.timer);
      const saving = this.state.saving === "unsaved" ? "waiting" : this.state.saving;
      this.set({ faults: byPath(fault), problem: sentence, saving });
    } else {
      // The plan may be sound: it is saved all the same, and its fields stay in reach.
      this.set({ faults: NO_FAULTS, problem: sentence });
      if (status === BUSY) setTimeout(() => void this.compute(), RETRY_MS);
    }
  }

  private later(wait: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), wait);
  }

  /** Save what is unsaved, one save after another; resolves when there is nothing left to do now. */
  save(): Promise<void> {
    clearTimeout(this.timer);
    this.busy = this.busy.then(() => this.saveNow());
    return this.busy;
  }

  private async saveNow(): Promise<void> {
    if (!UNSAVED.includes(this.state.saving)) return;
    const plan = this.state.plan;
    if (this.state.saving === "unsaved") this.set({ saving: "saving" });
    try {
      const system = await this.server.save(this.state.id, this.state.revision, plan);
      const kept = settled(system);
      const same = this.state.plan === plan;
      if (same) this.drafts.drop();
      this.set({ ...kept, plan: this.state.plan, saving: same ? "saved" : "unsaved", trouble: null });
      if (this.state.sheetOf !== this.state.plan || this.sheetAhead !== this.state.monthsAhead)
        void this.compute();
      if (!same) this.later(QUIET_MS);
    } catch (cause) {
      this.refuse(refusal(cause));
    }
  }

  private refuse({ status, fault, sentence }: Refused): void {
    if (status === 409 && fault?.code === "stale_revision") this.set({ saving: "stale" });
    else if (status === 422 && fault)
      this.set({ saving: "waiting", faults: byPath(fault), problem: sentence });
    else if (status === 0) {
      this.set({ saving: "away" });
      this.later(RETRY_MS);
    } else {
      this.set({ saving: "refused", trouble: sentence });
      if (status === BUSY) this.later(RETRY_MS);
      if (status === NOT_KEPT) this.later(FULL_RETRY_MS);
    }
  }

  /** Undo or redo one saved step; an edit still on its way is saved first. */
  async step(direction: "undo" | "redo"): Promise<void> {
    await this.save();
    if (this.state.saving === "waiting") {
      // What was typed can not be saved: undoing it means going back to what is.
      await this.reload();
      return;
    }
    if (this.state.saving !== "saved" || !(direction === "undo" ? this.state.canUndo : this.state.canRedo))
      return;
    try {
      this.take(await this.server.step(this.state.id, this.state.revision, direction));
    } catch (cause) {
      const refused = refusal(cause);
      // Nothing is unsaved: that the revision before can not be read (say) is told, and nothing else changes.
      if (refused.fault && refused.fault.code !== "stale_revision") this.set({ trouble: refused.sentence });
      else this.refuse(refused);
    }
  }

  /** Leave what was edited here and take what is saved. */
  async reload(): Promise<void> {
    try {
      this.take(await this.server.read(this.state.id));
    } catch (cause) {
      this.refuse(refusal(cause));
    }
  }

  /** Save what was edited here on top of what somebody else saved meanwhile. */
  async takeOver(): Promise<void> {
    try {
      const { revision } = await this.server.read(this.state.id);
      this.set({ revision, saving: "unsaved" });
      await this.save();
    } catch (cause) {
      this.refuse(refusal(cause));
    }
  }

  private take(system: System): void {
    this.drafts.drop();
    this.set({ ...settled(system), saving: "saved", faults: NO_FAULTS, problem: null, trouble: null });
    void this.compute();
  }

  private set(part: Partial<SessionState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}

/** What went wrong, whatever was thrown: a stray throw must not stop the saves that follow. */
function refusal(cause: unknown): Refused {
  if (cause instanceof Refused) return cause;
  console.error(cause);
  return new Refused(500);
}

function settled(system: System) {
  return {
    id: system.id,
    plan: system.plan,
    revision: system.revision,
    savedAt: system.saved,
    canUndo: system.can_undo,
    canRedo: system.can_redo,
  };
}

function byPath(fault: Fault): Record<string, FieldFault> {
  return Object.fromEntries((fault.fields ?? []).map((field) => [field.path, field]));
}
