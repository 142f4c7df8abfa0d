import type { ComponentType } from "react";
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

/** The stages in the job's order. */
export const STAGES: StagePage[] = [
  { key: "animals", label: "Animals", Stage: AnimalsStage },
  { key: "tank", label: "Tank", Stage: TankStage },
  { key: "filter", label: "Filter", Stage: FilterStage },
  { key: "flow", label: "Flow", Stage: FlowStage },
  { key: "heat", label: "Heat and light", Stage: HeatStage },
  { key: "source", label: "Source", Stage: SourceStage },
  { key: "changes", label: "Changes", Stage: ChangesStage },
  { key: "arrivals", label: "Arrivals", Stage: ArrivalsStage },
];
