import { memo, type ComponentType } from "react";
import { AnimalsStage } from "./AnimalsStage";
import { ArrivalsStage } from "./ArrivalsStage";
import { ChangesStage } from "./ChangesStage";
import { FilterStage } from "./FilterStage";
import { FlowStage } from "./FlowStage";
import { HeatStage } from "./HeatStage";
import { SourceStage } from "./SourceStage";
import { TankStage } from "./TankStage";

interface StagePage {
  key: string;
  label: string;
  Stage: ComponentType;
}

/** The stages in the job's order; each draws itself anew only when what it shows changes. */
export const STAGES: StagePage[] = [
  { key: "animals", label: "Animals", Stage: memo(AnimalsStage) },
  { key: "tank", label: "Tank", Stage: memo(TankStage) },
  { key: "filter", label: "Filter", Stage: memo(FilterStage) },
  { key: "flow", label: "Flow", Stage: memo(FlowStage) },
  { key: "heat", label: "Heat and light", Stage: memo(HeatStage) },
  { key: "source", label: "Source", Stage: memo(SourceStage) },
  { key: "changes", label: "Changes", Stage: memo(ChangesStage) },
  { key: "arrivals", label: "Arrivals", Stage: memo(ArrivalsStage) },
];
