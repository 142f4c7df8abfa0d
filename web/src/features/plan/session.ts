import { asked, client, type Plan, type Sheet, type System } from "@/api/client";
import { ComputedSession, type ComputedState } from "@/lib/computedSession";
import { opened, type Kept } from "@/lib/documentSession";
import { draftOf, Drafts } from "@/lib/drafts";

export interface SessionState extends ComputedState<Plan, Sheet> {
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
export class PlanSession extends ComputedSession<Plan, Sheet, SessionState> {
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

  /** Look at the animals at another size: in so many months, or full grown. */
  lookAhead(monthsAhead: number | null): void {
    this.set({ monthsAhead });
    void this.compute();
  }

  protected ask(plan: Plan, signal: AbortSignal): Promise<Sheet> {
    return this.server.sheet(plan, this.state.monthsAhead, signal);
  }

  protected computed(): void {
    this.sheetAhead = this.state.monthsAhead;
  }

  protected saved(): void {
    const { sheetOf, content, monthsAhead } = this.state;
    if (sheetOf !== content || this.sheetAhead !== monthsAhead) void this.compute();
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
