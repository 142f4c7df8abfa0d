import type { ComponentType } from "react";
import { AnimalsStage } from "./AnimalsStage";
import { ChangesStage } from "./ChangesStage";
import { FilterStage } from "./FilterStage";
import { FlowStage } from "./FlowStage";
import { HeatStage } from "./HeatStage";
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
  { key: "changes", label: "Changes", Stage: ChangesStage },
];
