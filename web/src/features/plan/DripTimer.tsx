import { useEffect, useState } from "react";
import { Link } from "@tanstack/react-router";
import { Button, buttonLook } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { useFigure } from "./context";

const MINUTE = 60_000;

/** Counts down an arrival's float and drip while the page is open. */
export function DripTimer({ index }: { index: number }) {
  const [running, setRunning] = useState<{ what: string; ends: number } | null>(null);
  const [now, setNow] = useState(() => Date.now());
  const units = useUnits();
  useEffect(() => {
    if (!running) return;
    const tick = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(tick);
  }, [running]);
  const start = (what: string, minutes: number) => {
    setNow(Date.now());
    setRunning({ what, ends: Date.now() + minutes * MINUTE });
  };
  const float = useFigure(`bags.${index}.floating_min`)?.value ?? 0;
  const drip = useFigure(`bags.${index}.dripped_for_min`)?.value ?? 0;
  const inTub = useFigure(`bags.${index}.in_tub_d`)?.value ?? 0;
  const left = running ? Math.max(0, running.ends - now) : 0;
  if (inTub > 0)
    return (
      <section aria-label={`Timer of arrival ${index + 1}`} className="mb-5">
        <Link to="/register/quarantine" className={buttonLook("strong")}>
          Start it in a tub, {units.text(inTub, "days")}
        </Link>
      </section>
    );
  return (
    <section aria-label={`Timer of arrival ${index + 1}`} className="mb-5 flex flex-wrap items-center gap-3">
      <Button disabled={float <= 0} onClick={() => start("Float", float)}>
        Start floating, {units.text(float, "minutes")}
      </Button>
      <Button disabled={drip <= 0} onClick={() => start("Drip", drip)}>
        Start dripping, {units.text(drip, "minutes")}
      </Button>
      {running && (
        <>
          <span role="timer" className="num text-xl">
            {running.what} {clock(left)}
          </span>
          {left === 0 && <span role="status">done</span>}
          <Button look="word" onClick={() => setRunning(null)}>
            stop
          </Button>
        </>
      )}
    </section>
  );
}

function clock(ms: number): string {
  const seconds = Math.ceil(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}
