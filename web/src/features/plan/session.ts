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
import { withValue } from "@/lib/paths";

export type Saving = "saved" | "unsaved" | "saving" | "away" | "waiting" | "stale";

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
const NO_FAULTS: SessionState["faults"] = {};

/** One plan being edited: every edit is computed at once, saved when it makes sense, and never lost. */
export class PlanSession {
  private listeners = new Set<() => void>();
  private asking: AbortController | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private busy: Promise<void> = Promise.resolve();
  state: SessionState;

  constructor(
    system: System,
    private readonly server: PlanServer = planServer,
  ) {
    this.state = {
      ...settled(system),
      sheet: null,
      sheetOf: null,
      monthsAhead: null,
      faults: NO_FAULTS,
      problem: null,
      saving: "saved",
    };
  }

  /** Compute the first sheet. */
  open(): void {
    void this.compute();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Leave nothing unsaved behind. */
  close(): void {
    clearTimeout(this.timer);
    if (this.state.saving === "unsaved") void this.save();
  }

  /** Change values by path; text that is no number is kept too, and told about. */
  edit(changes: Record<string, unknown>): void {
    let plan = this.state.plan;
    for (const [path, value] of Object.entries(changes)) plan = withValue(plan, path, value);
    this.replace(plan);
  }

  /** Put a whole changed plan in place: rows added or taken away. */
  replace(plan: Plan): void {
    this.set({ plan, saving: this.state.saving === "stale" ? "stale" : "unsaved" });
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
    const plan = this.state.plan;
    try {
      const sheet = await this.server.sheet(plan, this.state.monthsAhead, asking.signal);
      if (asking.signal.aborted) return;
      // What came out the same stays the same object, so that only what changed is drawn anew.
      this.set({
        sheet: replaceEqualDeep(this.state.sheet, sheet),
        sheetOf: plan,
        faults: NO_FAULTS,
        problem: null,
      });
    } catch (cause) {
      if (asking.signal.aborted || !(cause instanceof Refused)) return;
      if (cause.fault) {
        clearTimeout(this.timer);
        const saving = this.state.saving === "unsaved" ? "waiting" : this.state.saving;
        this.set({ faults: byPath(cause.fault), problem: cause.fault.sentence, saving });
      } else {
        if (this.state.saving !== "stale") this.set({ saving: "away" });
        this.later(RETRY_MS);
      }
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
    if (!["unsaved", "away"].includes(this.state.saving)) return;
    const plan = this.state.plan;
    if (this.state.saving === "unsaved") this.set({ saving: "saving" });
    try {
      const system = await this.server.save(this.state.id, this.state.revision, plan);
      const kept = settled(system);
      const same = this.state.plan === plan;
      this.set({ ...kept, plan: this.state.plan, saving: same ? "saved" : "unsaved" });
      if (this.state.sheetOf !== this.state.plan) void this.compute();
      if (!same) this.later(QUIET_MS);
    } catch (cause) {
      this.refuse(cause);
    }
  }

  private refuse(cause: unknown): void {
    if (!(cause instanceof Refused)) throw cause;
    if (cause.status === 409) this.set({ saving: "stale" });
    else if (cause.fault)
      this.set({ saving: "waiting", faults: byPath(cause.fault), problem: cause.fault.sentence });
    else {
      this.set({ saving: "away" });
      this.later(RETRY_MS);
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
      this.refuse(cause);
    }
  }

  /** Leave what was edited here and take what is saved. */
  async reload(): Promise<void> {
    try {
      this.take(await this.server.read(this.state.id));
    } catch (cause) {
      this.refuse(cause);
    }
  }

  /** Save what was edited here on top of what somebody else saved meanwhile. */
  async takeOver(): Promise<void> {
    try {
      const { revision } = await this.server.read(this.state.id);
      this.set({ revision, saving: "unsaved" });
      await this.save();
    } catch (cause) {
      this.refuse(cause);
    }
  }

  private take(system: System): void {
    this.set({ ...settled(system), saving: "saved", faults: NO_FAULTS, problem: null });
    void this.compute();
  }

  private set(part: Partial<SessionState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
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
