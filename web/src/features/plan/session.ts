import { asked, client, type More, type Plan, type Sheet, type System } from "@/api/client";
import { ComputedSession, type ComputedState } from "@/lib/document/computedSession";
import { opened } from "@/lib/document/documentSession";
import { draftOf, Drafts } from "@/lib/document/drafts";
import { documentOf, documentsOf, keeperOf, keptOf, type Root } from "@/lib/document/rootSession";
import { patched, type Patch } from "@/lib/document/patch";
import { replaceEqualDeep } from "@tanstack/react-query";

export const SYSTEM: Root = { name: "system", part: "plan", at: "/api/systems", draftsAt: "/api" };

/** So long after an edit its remedies and charts are asked for. */
const REST_MS = 220;

export interface SessionState extends ComputedState<Plan, Sheet> {
  /** How far ahead the animals' size is planned for; null is full grown. A way of looking, never saved. */
  monthsAhead: number | null;
}

/** What the session asks of the server; a test gives its own. */
export interface PlanServer {
  sheet(plan: Plan, monthsAhead: number | null, signal: AbortSignal): Promise<Sheet>;
  /** What takes longer than a keystroke may: asked when the keys rest. */
  more(plan: Plan, monthsAhead: number | null, signal: AbortSignal): Promise<More>;
  read(id: number): Promise<System>;
  save(id: number, base: number, plan: Plan): Promise<System>;
  step(id: number, base: number, direction: "undo" | "redo"): Promise<System>;
}

/** The last answer to an edit: the next is told as what differs from it. */
let last: { version: string; sheet: Sheet } | null = null;

export const planServer: PlanServer = {
  sheet: async (plan, monthsAhead, signal) => {
    const known = last;
    const body = { plan, months_ahead: monthsAhead, known: known?.version ?? null };
    const { version, whole, patch } = await asked(client.POST("/api/edit", { body, signal }));
    const sheet = whole ?? (patched(known?.sheet, patch as Patch | null) as Sheet);
    last = { version, sheet };
    return sheet;
  },
  more: (plan, monthsAhead, signal) =>
    asked(client.POST("/api/more", { body: { plan, months_ahead: monthsAhead }, signal })),
  ...documentsOf<Plan, System>(SYSTEM),
};

/** One plan being edited: every edit is computed at once. */
export class PlanSession extends ComputedSession<Plan, Sheet, SessionState> {
  /** How far ahead the last good figures look. */
  private sheetAhead: number | null = null;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private askingMore: AbortController | null = null;
  /** What followed the last figures: its lists stand until the next are there. */
  private followed: More | null = null;

  constructor(
    system: System,
    private readonly server: PlanServer = planServer,
    drafts = new Drafts<Plan>(draftOf("system", system.id, system.created)),
  ) {
    const state = {
      ...opened(keptOf<Plan>(SYSTEM, system), drafts),
      sheet: null,
      sheetOf: null,
      monthsAhead: null,
    };
    super(state, documentOf(SYSTEM, system.id), keeperOf<Plan>(SYSTEM, server), drafts);
  }

  /** Look at the animals at another size: in so many months, or full grown. */
  lookAhead(monthsAhead: number | null): void {
    this.set({ monthsAhead });
    void this.compute();
  }

  protected async ask(plan: Plan, signal: AbortSignal): Promise<Sheet> {
    clearTimeout(this.resting);
    this.askingMore?.abort();
    const sheet = await this.server.sheet(plan, this.state.monthsAhead, signal);
    return this.followed ? withLists(sheet, this.followed) : sheet;
  }

  protected computed(): void {
    this.sheetAhead = this.state.monthsAhead;
    this.resting = setTimeout(() => void this.askMore(), this.followed ? REST_MS : 0);
  }

  /** Remedies, ranges, charts and what looks ahead, for the figures that are shown. */
  private async askMore(): Promise<void> {
    const asking = (this.askingMore = new AbortController());
    const { sheetOf, monthsAhead } = this.state;
    if (!sheetOf) return;
    try {
      const more = await this.server.more(sheetOf, monthsAhead, asking.signal);
      const { sheet } = this.state;
      if (asking.signal.aborted || !sheet || this.state.sheetOf !== sheetOf) return;
      this.followed = more;
      this.set({ sheet: replaceEqualDeep(sheet, withMore(sheet, more)) });
    } catch {
      // The figures stand without it; the next edit asks again.
    }
  }

  close(): void {
    clearTimeout(this.resting);
    this.askingMore?.abort();
    super.close();
  }

  protected saved(): void {
    const { sheetOf, content, monthsAhead } = this.state;
    if (sheetOf !== content || this.sheetAhead !== monthsAhead) void this.compute();
  }
}

/** The figures with the lists of before, until theirs are there: a chart does not blink at every key. */
function withLists(
  sheet: Sheet,
  { settlings, failures, least_regime, regimes, salt_days, saw_tooth, outgrown, assumed }: More,
): Sheet {
  return { ...sheet, settlings, failures, least_regime, regimes, salt_days, saw_tooth, outgrown, assumed };
}

function withMore(sheet: Sheet, more: More): Sheet {
  const figures = { ...sheet.figures };
  for (const [key, { low, high }] of Object.entries(more.ranges)) {
    const figure = figures[key];
    if (figure) figures[key] = { ...figure, low, high };
  }
  const checks = sheet.checks.map((check) => ({
    ...check,
    remedies: more.remedies[check.key] ?? [],
    reason: more.reasons[check.key] ?? check.reason,
  }));
  return { ...withLists(sheet, more), figures, checks };
}
