import { memo } from "react";
import type { BenchStage } from "@/ui/editing/Bench";
import { AirStage } from "./AirStage";
import { ChangerStage } from "./ChangerStage";
import { ControllerStage } from "./ControllerStage";
import { DrainStage } from "./DrainStage";
import { HoursStage } from "./HoursStage";
import { PartsStage } from "./PartsStage";
import { PurifiedStage } from "./PurifiedStage";
import { RacksStage } from "./RacksStage";
import { TanksStage } from "./TanksStage";
import { TimetableStage } from "./TimetableStage";

/** The stages of a room, in the order in which it is built. */
export const STAGES: BenchStage[] = [
  { key: "racks", label: "Racks", Stage: memo(RacksStage) },
  { key: "changer", label: "Changer", Stage: memo(ChangerStage) },
  { key: "timetable", label: "Timetable", Stage: memo(TimetableStage) },
  { key: "tanks", label: "Tanks", Stage: memo(TanksStage) },
  { key: "purified", label: "Purified", Stage: memo(PurifiedStage) },
  { key: "drain", label: "Drain", Stage: memo(DrainStage) },
  { key: "air", label: "Air and power", Stage: memo(AirStage) },
  { key: "hours", label: "Hours", Stage: memo(HoursStage) },
  { key: "parts", label: "Parts", Stage: memo(PartsStage), wide: true },
  { key: "controller", label: "Controller", Stage: memo(ControllerStage) },
];
