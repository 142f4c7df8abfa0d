import type { Venture, VentureKept, VentureSheet } from "@/api/client";
import type { ComputedState } from "@/lib/document/computedSession";
import { documentsOf, RootSession, type Root } from "@/lib/document/rootSession";
import { isoDay } from "@/lib/shown/days";

export const VENTURE: Root = {
  name: "venture",
  part: "venture",
  at: "/api/ventures",
  draftsAt: "/api/breeding",
  beside: () => ({ today: isoDay(new Date()) }),
};

export const keptVentures = documentsOf<Venture, VentureKept>(VENTURE);

export type VentureState = ComputedState<Venture, VentureSheet>;
export type VentureSession = RootSession<Venture, VentureSheet>;
