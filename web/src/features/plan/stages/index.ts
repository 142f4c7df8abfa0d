import { memo, type ComponentType } from "react";
import { AnimalsStage } from "./AnimalsStage";
import { ArrivalsStage } from "./ArrivalsStage";
import { ChangesStage } from "./ChangesStage";
import { FilterStage } from "./FilterStage";
import { FlowStage } from "./FlowStage";
import { HeatStage } from "./HeatStage";
import { SourceStage } from "./SourceStage";
import { TankStage } from "./TankStage";

export interface StagePage {
  key: string;
  label: string;
  /** The parts of the plan that are entered there. */
  parts: string[];
  Stage: ComponentType;
}

/** The stages in the job's order; each draws itself anew only when what it shows changes. */
export const STAGES: StagePage[] = [
  { key: "animals", label: "Animals", parts: ["animals"], Stage: memo(AnimalsStage) },
  { key: "tank", label: "Tank", parts: ["tank"], Stage: memo(TankStage) },
  { key: "filter", label: "Filter", parts: ["filters"], Stage: memo(FilterStage) },
  {
    key: "flow",
    label: "Flow",
    parts: ["flow", "run", "returns", "chambers", "sump"],
    Stage: memo(FlowStage),
  },
  { key: "heat", label: "Heat and light", parts: ["heat", "air", "light"], Stage: memo(HeatStage) },
  { key: "source", label: "Source", parts: ["water", "sources"], Stage: memo(SourceStage) },
  { key: "changes", label: "Changes", parts: ["changes"], Stage: memo(ChangesStage) },
  { key: "arrivals", label: "Arrivals", parts: ["bags", "quarantine"], Stage: memo(ArrivalsStage) },
];
