import { replaceEqualDeep } from "@tanstack/react-query";
import { asked, client, type Plan, type Refused, type Sheet, type System } from "@/api/client";
import {
  BUSY,
  DocumentSession,
  NO_FAULTS,
  opened,
  refusal,
  RETRY_MS,
  type DocumentState,
  type Kept,
} from "@/lib/documentSession";
import { draftOf, Drafts } from "@/lib/drafts";
import { withValue } from "@/lib/paths";

export interface SessionState extends DocumentState<Plan> {
  /** The last good figures; `sheetOf` is the plan they belong to. */
  sheet: Sheet | null;
  sheetOf: Plan | null;
  /** How far ahead the animals' size is planned for; null is full grown. A way of looking, never saved. */
  monthsAhead: number | null;
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

export const documentOf = (id: number): string => `system.${id}`;

/** One plan being edited: every edit is computed at once. */
export class PlanSession extends DocumentSession<Plan, SessionState> {
  private asking: AbortController | null = null;
  /** How far ahead the last good figures look. */
  private sheetAhead: number | null = null;

  constructor(
    system: System,
    private readonly server: PlanServer = planServer,
    drafts = new Drafts<Plan>(draftOf("system", system.id, system.created)),
  ) {
    const keeper = {
      read: async (id: number) => kept(await server.read(id)),
      save: async (id: number, base: number, plan: Plan) => kept(await server.save(id, base, plan)),
      step: async (id: number, base: number, direction: "undo" | "redo") =>
        kept(await server.step(id, base, direction)),
    };
    const state = { ...opened(kept(system), drafts), sheet: null, sheetOf: null, monthsAhead: null };
    super(state, documentOf(system.id), keeper, drafts);
  }

  /** Compute the first sheet. */
  open(): void {
    void this.compute();
  }

  /** Change values by path; text that is no number is kept too, and told about. */
  edit(changes: Record<string, unknown>): void {
    let plan = this.state.content;
    for (const [path, value] of Object.entries(changes)) plan = withValue(plan, path, value);
    this.replace(plan);
  }

  /** Look at the animals at another size: in so many months, or full grown. */
  lookAhead(monthsAhead: number | null): void {
    this.set({ monthsAhead });
    void this.compute();
  }

  protected changed(): void {
    void this.compute();
  }

  protected saved(): void {
    const { sheetOf, content, monthsAhead } = this.state;
    if (sheetOf !== content || this.sheetAhead !== monthsAhead) void this.compute();
  }

  private async compute(): Promise<void> {
    this.asking?.abort();
    const asking = (this.asking = new AbortController());
    const { content, monthsAhead } = this.state;
    try {
      const sheet = await this.server.sheet(content, monthsAhead, asking.signal);
      if (asking.signal.aborted) return;
      this.sheetAhead = monthsAhead;
      // What came out the same stays the same object, so that only what changed is drawn anew.
      this.set({
        sheet: replaceEqualDeep(this.state.sheet, sheet),
        sheetOf: content,
        faults: NO_FAULTS,
        problem: null,
      });
    } catch (cause) {
      if (!asking.signal.aborted) this.notComputed(refusal(cause));
    }
  }

  private notComputed({ status, fault, sentence }: Refused): void {
    if (status === 0) this.away();
    else if (fault && status < 500) this.toMend(fault, sentence);
    else {
      // The plan may be sound: it is saved all the same, and its fields stay in reach.
      this.set({ faults: NO_FAULTS, problem: sentence });
      if (status === BUSY) setTimeout(() => void this.compute(), RETRY_MS);
    }
  }
}

function kept(system: System): Kept<Plan> {
  return {
    id: system.id,
    content: system.plan,
    revision: system.revision,
    savedAt: system.saved,
    canUndo: system.can_undo,
    canRedo: system.can_redo,
  };
}
