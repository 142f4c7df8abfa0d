import type { Venture, VentureSheet } from "@/api/client";
import { computedContext } from "@/ui/editing/computed";
import type { VentureSession, VentureState } from "./session";

export const {
  Context: VentureContext,
  useInUse: useVentureInUse,
  useState: useVentureState,
  useSheet: useVentureSheet,
  useDocument: useVenture,
} = computedContext<Venture, VentureSheet, VentureState, VentureSession>();
