import { asked, client, type Venture, type VentureKept, type VentureSheet } from "@/api/client";
import { ComputedSession, type ComputedState } from "@/lib/document/computedSession";
import { isoDay } from "@/lib/shown/days";
import { opened, type Kept } from "@/lib/document/documentSession";
import { draftOf, Drafts } from "@/lib/document/drafts";

export type VentureState = ComputedState<Venture, VentureSheet>;

const at = (id: number) => ({ path: { venture_id: id } });

export const readVenture = (id: number): Promise<VentureKept> =>
  asked(client.GET("/api/ventures/{venture_id}", { params: at(id) }));

const keeper = {
  read: async (id: number) => kept(await readVenture(id)),
  save: async (id: number, base: number, venture: Venture) =>
    kept(await asked(client.PUT("/api/ventures/{venture_id}", { params: at(id), body: { base, venture } }))),
  step: async (id: number, base: number, direction: "undo" | "redo") => {
    const given = { params: at(id), body: { base } };
    const asking =
      direction === "undo"
        ? client.POST("/api/ventures/{venture_id}/undo", given)
        : client.POST("/api/ventures/{venture_id}/redo", given);
    return kept(await asked(asking));
  },
};

export const documentOf = (id: number): string => `venture.${id}`;

/** One venture being edited: every edit is computed at once, in the tank that it stands in. */
export class VentureSession extends ComputedSession<Venture, VentureSheet, VentureState> {
  constructor(venture: VentureKept) {
    const drafts = new Drafts<Venture>(draftOf("venture", venture.id, venture.created));
    super(
      { ...opened(kept(venture), drafts), sheet: null, sheetOf: null },
      documentOf(venture.id),
      keeper,
      drafts,
    );
  }

  protected ask(venture: Venture, signal: AbortSignal): Promise<VentureSheet> {
    const body = { venture, today: isoDay(new Date()) };
    return asked(client.POST("/api/breeding/sheet", { body, signal }));
  }
}

function kept(venture: VentureKept): Kept<Venture> {
  return {
    id: venture.id,
    content: venture.venture,
    revision: venture.revision,
    savedAt: venture.saved,
    canUndo: venture.can_undo,
    canRedo: venture.can_redo,
  };
}
