import { Link } from "@tanstack/react-router";
import { Check, RotateCcw } from "lucide-react";
import { useState } from "react";
import type { RoundLine } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says, useSentenceText, type OpenFigure } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { shortDay } from "@/lib/shown/days";

type Left = "eaten" | "some" | "much";
const LEFT: [Left, string][] = [
  ["eaten", "all eaten"],
  ["some", "some left"],
  ["much", "much left"],
];

interface LineProps {
  line: RoundLine;
  system: number;
  done: (how?: { left: Left }) => void;
  skip: () => void;
  back: () => void;
  openFigure: OpenFigure;
}

/** One thing to do: what with amount, what waiting costs, and its tick at the thumb's side. */
export function DutyLine({ line, system, done, skip, back, openFigure }: LineProps) {
  const [open, setOpen] = useState(false);
  const text = useSentenceText();
  const units = useUnits();
  const words = text(line.words);
  if (line.tick !== null)
    return (
      <li className="flex min-h-11 items-center gap-3 border-b border-line/60 text-quiet">
        <span className="min-w-0 flex-1">
          {line.skipped ? "Skipped" : "Done"}
          {line.done_by && ` by ${line.done_by}`}: {words}
          {line.skipped && ` (${line.skipped})`}
        </span>
        <button
          type="button"
          aria-label={`Take back: ${words}`}
          onClick={back}
          className="grid size-11 shrink-0 place-items-center hover:text-ink"
        >
          <RotateCcw size={16} />
        </button>
      </li>
    );
  return (
    <li className="flex items-start gap-3 border-b border-line/60 py-1.5">
      <div className="min-w-0 flex-1 pt-1.5">
        <p className="leading-snug">
          <Says sentence={line.words} open={openFigure} />
        </p>
        <p className="text-sm leading-snug text-quiet">
          {line.late_d > 0 && (
            <span className="text-short">{`${line.late_d === 1 ? "a day" : units.text(line.late_d, "days")} late (${shortDay(line.due)}) · `}</span>
          )}
          {line.cost && (
            <span className={line.late_d > 0 ? "text-short" : ""}>
              <Says sentence={line.cost} />
              {" · "}
            </span>
          )}
          <button
            type="button"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
            className="font-semibold text-edge-deep underline-offset-4 hover:underline pointer-coarse:min-h-11"
          >
            {line.steps.length > 0 ? "how, and why" : "why"}
          </button>
          {line.page && (
            <>
              {" · "}
              <Link
                to="/systems/$id/$stage"
                params={{ id: String(system), stage: line.page }}
                className="font-semibold text-edge-deep underline-offset-4 hover:underline"
              >
                {line.kind === "read" ? "enter it" : "go there"}
              </Link>
            </>
          )}
          {line.grams != null && (
            <span className="inline-flex flex-wrap items-center">
              {" · after five minutes"}
              {LEFT.map(([left, said]) => (
                <Button key={left} look="word" onClick={() => done({ left })}>
                  {said}
                </Button>
              ))}
            </span>
          )}
        </p>
        {open && (
          <div className="mt-1 mb-2 border-l-2 border-line pl-3 text-sm">
            {line.steps.length > 0 && (
              <ol className="mb-1">
                {line.steps.map((step, i) => (
                  <li key={i}>
                    <Says sentence={step} open={openFigure} />
                  </li>
                ))}
              </ol>
            )}
            <p className="text-quiet">
              <Says sentence={line.why} open={openFigure} /> Comes <Says sentence={line.often} />,{" "}
              {units.text(line.minutes, "minutes")}.
            </p>
            {line.caution && <p className="mt-1 text-brass">{line.caution}</p>}
            <Button look="word" className="-ml-1.5" onClick={skip}>
              Skip it…
            </Button>
          </div>
        )}
      </div>
      <button
        type="button"
        aria-label={`${line.measure ? "Enter" : "Done"}: ${words}`}
        onClick={() => done()}
        className="grid size-12 shrink-0 place-items-center rounded-sm border border-mark text-quiet hover:border-edge hover:bg-water hover:text-edge-deep"
      >
        <Check size={22} />
      </button>
    </li>
  );
}
