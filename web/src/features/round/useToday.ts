import { useEffect, useState } from "react";
import { isoDay } from "@/lib/shown/days";

const A_MINUTE = 60_000;

/** Today, also past midnight. */
export function useToday(): string {
  const [today, setToday] = useState(() => isoDay(new Date()));
  useEffect(() => {
    const timer = setInterval(() => setToday(isoDay(new Date())), A_MINUTE);
    return () => clearInterval(timer);
  }, []);
  return today;
}
