import { memo } from "react";
import type { BenchStage } from "@/ui/editing/Bench";
import { BroodsStage } from "./BroodsStage";
import { ColonyStage } from "./ColonyStage";
import { SaleStage } from "./SaleStage";
import { WorthStage } from "./WorthStage";

/** The stages of a venture, in the order in which a breeder reckons. */
export const STAGES: BenchStage[] = [
  { key: "colony", label: "Colony", Stage: memo(ColonyStage) },
  { key: "broods", label: "Broods", Stage: memo(BroodsStage) },
  { key: "sale", label: "Sale", Stage: memo(SaleStage) },
  { key: "worth", label: "Worth", Stage: memo(WorthStage) },
];
