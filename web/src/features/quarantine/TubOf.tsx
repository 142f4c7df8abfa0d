import { Link } from "@tanstack/react-router";
import type { CourseOut, TubOut } from "@/api/client";
import { shortDay } from "@/lib/shown/days";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { stateWord, Tube } from "@/ui/figures/Tube";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { useUnits } from "@/ui/units";
import { CourseOf } from "./CourseOf";

interface TubProps {
  tub: TubOut;
  settings: () => void;
  release: () => void;
  course: (row?: CourseOut) => void;
}

/** One tub: who waits in it until when, what it asks each day, what makes that less, and its courses. */
export function TubOf({ tub, settings, release, course }: TubProps) {
  const units = useUnits();
  const { asks } = tub;
  return (
    <section
      aria-label={tub.name}
      className="mt-5 grid gap-x-8 gap-y-2 border-t border-line pt-4 sm:grid-cols-[160px_minmax(0,1fr)]"
    >
      <div>
        <h2 className="mb-2 text-lg leading-tight font-semibold">
          <Link
            to="/systems/$id/$stage"
            params={{ id: String(tub.system_id), stage: "tank" }}
            className="hover:text-edge-deep hover:underline"
          >
            {tub.name}
          </Link>
        </h2>
        {tub.section && tub.waits.length > 0 && (
          <SectionDrawing section={tub.section} className="h-20 w-full" />
        )}
        <p className="mt-1 text-sm text-quiet">
          {units.text(tub.litres, "volume")} of water, each waits {tub.tub.wait_d} days
        </p>
      </div>
      <div className="min-w-0">
        {tub.waits.length === 0 ? (
          <p className="text-quiet">Empty: dry it before the next.</p>
        ) : (
          <>
            <p className={tub.ready ? "font-semibold text-edge-deep" : ""}>
              {tub.ready ? "The wait is over." : `Until ${shortDay(tub.release ?? "")}.`}{" "}
              {tub.because && (
                <span className="font-normal text-quiet">
                  <Says sentence={tub.because} />
                </span>
              )}
            </p>
            <ul aria-label={`In ${tub.name}`}>
              {tub.waits.map((row) => (
                <li key={row.resident_id} className="border-b border-line/60 py-1">
                  <span className="num">{row.count}</span> <span className="font-semibold">{row.common}</span>{" "}
                  <span className="text-sm text-quiet">
                    since {shortDay(row.since)}
                    {row.goes_to_name && `, for ${row.goes_to_name}`}
                  </span>
                </li>
              ))}
            </ul>
          </>
        )}
        {asks && (
          <div className="mt-2 flex items-start gap-2">
            <Tube
              height={30}
              state={asks.state}
              gauge={{ value: Math.min(asks.change_frac, 1), top: 1, kind: "share", low: null, high: 0.5 }}
            />
            <p className="min-w-0">
              <span className={`font-semibold ${asks.state === "short" ? "text-short" : ""}`}>
                {stateWord(asks.state)}
              </span>
              {". "}
              <Says sentence={asks.words} />
              {asks.hours !== null &&
                ` Nothing done, it is reached after ${asks.hours > 72 ? units.text(asks.hours / 24, "days") : units.text(asks.hours, "hours")}.`}
              {asks.against.map((sentence, i) => (
                <span
                  key={i}
                  className={`block text-sm ${asks.state === "short" ? "text-short" : "text-brass"}`}
                >
                  <Says sentence={sentence} />
                </span>
              ))}
              {asks.shock && (
                <span className="block text-sm text-short">
                  <Says sentence={asks.shock} />
                </span>
              )}
            </p>
          </div>
        )}
        {asks && asks.ways.length > 0 && (
          <ul aria-label={`What makes it less in ${tub.name}`} className="mt-1 ml-8 list-disc text-sm">
            {asks.ways.map((way, i) => (
              <li key={i}>
                <Says sentence={way} />
              </li>
            ))}
          </ul>
        )}
        {tub.copper && (
          <p className="mt-2 border-l-3 border-short pl-3 text-sm">
            It held “{tub.copper}”: no invertebrates in it until its seams, hose and sponge are renewed. How
            long copper lingers is disputed.
          </p>
        )}
        {tub.courses.map((row) => (
          <CourseOf key={row.id} row={row} change={() => course(row)} />
        ))}
        <p className="mt-2 flex flex-wrap gap-1">
          {tub.waits.length > 0 && (
            <Button look={tub.ready ? "strong" : "plain"} onClick={release}>
              Bring across
            </Button>
          )}
          <Button look="word" onClick={() => course()}>
            Begin a course
          </Button>
          <Button look="word" onClick={settings} aria-label={`Settings of ${tub.name}`}>
            Settings
          </Button>
        </p>
      </div>
    </section>
  );
}
