import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from "react";
import type { Kind, Unit } from "@/api/client";
import { browserStore } from "@/lib/browser/browserStore";
import { Units, type UnitChoice } from "@/lib/shown/quantity";

const STORED = "loquen.units";

interface UnitsInUse {
  units: Units;
  kinds: Kind[];
  choose: (choice: UnitChoice) => void;
}

const Context = createContext<UnitsInUse | null>(null);

function remembered(): UnitChoice {
  try {
    return JSON.parse(browserStore.getItem(STORED) ?? "{}") as UnitChoice;
  } catch {
    return {};
  }
}

/** The units that this browser's person reads, kept between visits. */
export function UnitsProvider({ kinds, children }: { kinds: Kind[]; children: ReactNode }) {
  const [choice, setChoice] = useState(remembered);
  const choose = useCallback((next: UnitChoice) => {
    browserStore.setItem(STORED, JSON.stringify(next));
    setChoice(next);
  }, []);
  const value = useMemo(() => ({ units: new Units(kinds, choice), kinds, choose }), [kinds, choice, choose]);
  return <Context value={value}>{children}</Context>;
}

export function useUnitsInUse(): UnitsInUse {
  const value = useContext(Context);
  if (!value) throw new Error("UnitsProvider is missing");
  return value;
}

export const useUnits = (): Units => useUnitsInUse().units;

export const unitName = (unit: Unit): string => unit.label || "number";
