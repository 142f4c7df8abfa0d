import { expect, it } from "vitest";
import type { Known, LogEntry, Logged } from "@/api/client";
import type { Units } from "@/lib/shown/quantity";
import { whole } from "./log";
import { entryWords } from "./words";

const KNOWN = {
  measures: [{ key: "nitrate", label: "Nitrate", kind: "nitrate", ion: 4.4, unit: "mg/L NO₃" }],
  kits: [
    {
      key: "drops",
      label: "Drops",
      measure: "nitrate",
      steps: [],
      reads: "",
      unit: "mg/L NO₃-N",
      interferes: "",
      expires: "",
    },
  ],
  kinds: {
    change: "water changed",
    dose: "dosed",
    filter: "filter cleaned",
    feed: "fed, or fasted",
    death: "an animal died",
  },
  not_here: ["move"],
  units: {},
  doses: { ammonia: "ammonia" },
  cleaned: { tank: "in tank water" },
} satisfies Known;
const UNITS = {
  text: (value: number, kind: string) => (kind === "share" ? `${value * 100} %` : `${value} ${kind}`),
} as unknown as Units;

function line(entry: Partial<LogEntry> & Pick<LogEntry, "kind">, more: Partial<Logged> = {}): string {
  const row = {
    id: 1,
    system_id: 1,
    at: "",
    revision: 1,
    low: null,
    high: null,
    who: "",
    length_cm: null,
    left: "",
    went_to: "",
  };
  return entryWords({ ...row, whole_day: false, ...more, entry: whole(entry) }, KNOWN, UNITS);
}

it.each([
  [line({ kind: "change", litres: 20, note: "hose" }), "water changed 20 volume: hose"],
  [
    line({ kind: "dose", what: "ammonia", amount: 2.5, unit: "g", product: "chloride" }),
    "dosed ammonia, 2.5 g, chloride",
  ],
  [line({ kind: "dose", what: "ammonia", amount: 2 }), "dosed ammonia, 2 g or mL"],
  [
    line({ kind: "filter", what: "tank", share: 0.5, filter: "1" }),
    "filter cleaned in tank water, 50 %, filter 2",
  ],
  [line({ kind: "filter", what: "tank", filter: "sump" }), "filter cleaned in tank water, the sump"],
  [line({ kind: "feed", what: "much", amount: 1.234 }), "fed 1.23 g, much left"],
  [line({ kind: "feed" }), "fed"],
  [line({ kind: "feed", what: "eaten" }), "fed, all eaten"],
  [line({ kind: "feed", amount: 0 }), "fasted"],
  [
    line({ kind: "reading", what: "nitrate", value: "between 10 and 20" }),
    "Nitrate between 10 and 20 mg/L NO₃",
  ],
  [
    line({ kind: "reading", what: "nitrate", value: "20", kit: "drops", when: "before" }),
    "Nitrate 20 mg/L NO₃-N (drops), before the change",
  ],
  [line({ kind: "death", amount: 1, note: "fluff" }), "an animal died 1: fluff"],
  [line({ kind: "death", amount: 2, note: "fluff" }, { who: "Neon tetra" }), "2 Neon tetra died: fluff"],
  [line({ kind: "signs", amount: 1, note: "fluff" }, { who: "Otto" }), "Otto signs seen: fluff"],
  [line({ kind: "measured", amount: 1 }, { who: "Otto", length_cm: 4 }), "1 Otto measured 4 length"],
  [
    line({ kind: "arrival", amount: 10 }, { who: "Neon tetra", length_cm: 2 }),
    "10 Neon tetra arrived, 2 length",
  ],
  [
    line({ kind: "move", amount: 3 }, { who: "Neon tetra", left: "Tub", went_to: "Hall" }),
    "3 Neon tetra moved from Tub to Hall",
  ],
])("tells it: %s", (told, expected) => {
  expect(told).toBe(expected);
});
