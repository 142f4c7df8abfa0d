import { Link, useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import type { RoundLine, RoundStop, TickIn } from "@/api/client";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { useInView } from "@/ui/useInView";
import { DutyLine } from "./DutyLine";

interface StopProps {
  stop: RoundStop;
  done: (line: RoundLine, how?: Partial<TickIn>) => void;
  skip: (line: RoundLine) => void;
  back: (line: RoundLine) => void;
}

/** One system on the round: its small section, what it wants, and what is done, folded away. */
export function StopLines({ stop, done, skip, back }: StopProps) {
  const [element, inView, height] = useInView<HTMLLIElement>();
  const [shown, setShown] = useState(false);
  const navigate = useNavigate();
  const open = stop.lines.filter(({ tick }) => tick === null);
  const ticked = stop.lines.filter(({ tick }) => tick !== null);
  const openFigure = () =>
    void navigate({ to: "/systems/$id/$stage", params: { id: String(stop.system_id), stage: "care" } });
  const line = (row: RoundLine) => (
    <DutyLine
      system={stop.system_id}
      key={`${row.key} ${row.due}`}
      line={row}
      done={(how) => done(row, how)}
      skip={() => skip(row)}
      back={() => back(row)}
      openFigure={openFigure}
    />
  );
  return (
    <li
      ref={element}
      style={inView ? undefined : { minHeight: height }}
      className="grid gap-x-6 border-t border-line pt-3 pb-2 sm:grid-cols-[150px_minmax(0,1fr)]"
    >
      <div className="flex items-start gap-3 sm:block">
        {stop.section && inView && (
          <SectionDrawing section={stop.section} className="h-10 w-20 shrink-0 sm:h-16 sm:w-full" />
        )}
        <h2 className="text-lg leading-tight font-semibold sm:mt-1">
          <Link
            to="/systems/$id/$stage"
            params={{ id: String(stop.system_id), stage: "care" }}
            className="hover:text-edge-deep hover:underline"
          >
            {stop.name}
          </Link>
        </h2>
      </div>
      <div className="min-w-0">
        <ul aria-label={stop.name}>{open.map(line)}</ul>
        {ticked.length > 0 && (
          <>
            <button
              type="button"
              aria-expanded={shown}
              onClick={() => setShown(!shown)}
              className="min-h-9 text-sm text-quiet hover:text-ink pointer-coarse:min-h-11"
            >
              {open.length === 0 ? "All done here: " : ""}
              {ticked.length} ticked
            </button>
            {shown && <ul aria-label={`Ticked in ${stop.name}`}>{ticked.map(line)}</ul>}
          </>
        )}
      </div>
    </li>
  );
}
