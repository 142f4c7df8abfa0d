import { memo, type ComponentType } from "react";
import { STAGE_KEYS, type StageKey } from "@/lib/document/stages";
import { AnimalsStage } from "./animals/AnimalsStage";
import { ArrivalsStage } from "./ArrivalsStage";
import { CareStage } from "./care/CareStage";
import { CycleStage } from "./cycle/CycleStage";
import { LogStage } from "./LogStage";
import { NitrateStage } from "./nitrate/NitrateStage";
import { ChangesStage } from "./changes/ChangesStage";
import { FilterStage } from "./FilterStage";
import { FlowStage } from "./flow/FlowStage";
import { HeatStage } from "./heat/HeatStage";
import { SourceStage } from "./source/SourceStage";
import { TankStage } from "./tank/TankStage";
import { VariantsStage } from "./variants/VariantsStage";

export interface StagePage {
  key: StageKey;
  label: string;
  /** The parts of the plan that are entered there. */
  parts: string[];
  Stage: ComponentType;
}

/** Each stage draws itself anew only when what it shows changes. */
const PAGES: Record<StageKey, Omit<StagePage, "key">> = {
  animals: { label: "Animals", parts: ["animals", "stocking"], Stage: memo(AnimalsStage) },
  tank: { label: "Tank", parts: ["tank", "patches", "planting"], Stage: memo(TankStage) },
  filter: { label: "Filter", parts: ["filters", "run_in"], Stage: memo(FilterStage) },
  flow: {
    label: "Flow",
    parts: ["flow", "run", "returns", "chambers", "sump"],
    Stage: memo(FlowStage),
  },
  heat: { label: "Heat and light", parts: ["heat", "air", "light", "lamps"], Stage: memo(HeatStage) },
  source: { label: "Source", parts: ["water", "sources", "recipe"], Stage: memo(SourceStage) },
  changes: { label: "Changes", parts: ["changes"], Stage: memo(ChangesStage) },
  cycle: { label: "Cycle", parts: ["cycle"], Stage: memo(CycleStage) },
  nitrate: { label: "Nitrate", parts: [], Stage: memo(NitrateStage) },
  care: { label: "Care", parts: [], Stage: memo(CareStage) },
  variants: { label: "Variants", parts: [], Stage: memo(VariantsStage) },
  log: { label: "Log", parts: [], Stage: memo(LogStage) },
  arrivals: { label: "Arrivals", parts: ["bags", "quarantine"], Stage: memo(ArrivalsStage) },
};

/** The stages in the job's order. */
export const STAGES: StagePage[] = STAGE_KEYS.map((key) => ({ key, ...PAGES[key] }));
