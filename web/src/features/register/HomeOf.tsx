import { wholeMonth } from "@/lib/shown/days";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client, Refused, type Home, type ResidentOut } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { stateWord } from "@/ui/figures/Tube";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { useUnits } from "@/ui/units";
import { today } from "./register";

interface HomeProps {
  home: Home;
  open: (resident: ResidentOut) => void;
  note: (resident: ResidentOut) => void;
  taken: (words?: string) => void;
}

/** One system as it lives: today and full grown at one scale, who is in it, and what that changes. */
export function HomeOf({ home, open, note, taken }: HomeProps) {
  const units = useUnits();
  const [fault, setFault] = useState("");
  const growing = home.residents.some((row) => row.length_cm < 0.95 * row.adult_cm);
  const take = () =>
    void asked(
      client.POST("/api/register/take/{system_id}", {
        params: { path: { system_id: home.system_id } },
        body: { base: home.revision, today: today() },
      }),
    ).then(
      () => taken(`The plan of ${home.name} has the animals that live there now: one step back undoes it.`),
      (cause: unknown) => setFault(cause instanceof Refused ? cause.message : String(cause)),
    );
  return (
    <section
      aria-label={home.name}
      className="grid gap-x-8 gap-y-2 border-t border-line py-4 sm:grid-cols-[220px_minmax(0,1fr)]"
    >
      <div>
        <h2 className="mb-2 text-lg leading-tight font-semibold">
          <Link
            to="/systems/$id/$stage"
            params={{ id: String(home.system_id), stage: "animals" }}
            className="hover:text-edge-deep hover:underline"
          >
            {home.name}
          </Link>
        </h2>
        {home.today && (
          <figure>
            <SectionDrawing section={home.today} className="h-24 w-full" />
            {growing && <figcaption className="text-sm text-quiet">today</figcaption>}
          </figure>
        )}
        {home.grown && growing && (
          <figure className="mt-2">
            <SectionDrawing section={home.grown} className="h-24 w-full opacity-55" />
            <figcaption className="text-sm text-quiet">full grown</figcaption>
          </figure>
        )}
      </div>
      <div className="min-w-0">
        <ul aria-label={`Who lives in ${home.name}`}>
          {home.residents.map((row) => (
            <li key={row.id} className="flex items-start gap-3 border-b border-line/60 py-1.5">
              <span className="num w-8 shrink-0 text-right">{row.here}</span>
              <button type="button" onClick={() => open(row)} className="group min-w-0 flex-1 text-left">
                <span className="font-semibold group-hover:text-edge-deep group-hover:underline">
                  {row.resident.name ? `${row.resident.name}, ${row.common}` : row.common}
                </span>
                <span className="block text-sm text-quiet">
                  {lengthWords(row, units.text(row.length_cm, "length"), units.text(row.adult_cm, "length"))}
                  {row.males != null && ` · ${row.males} males`}
                  {row.since && ` · since ${wholeMonth(row.since)}`}
                  {row.resident.source && ` · from ${row.resident.source}`}
                </span>
                {row.notes.map((sentence, i) => (
                  <span key={i} className="block text-sm text-brass">
                    <Says sentence={sentence} />
                  </span>
                ))}
              </button>
              <Button
                look="word"
                aria-label={`Note of ${row.resident.name || row.common}, ${row.here}`}
                onClick={() => note(row)}
              >
                Note
              </Button>
            </li>
          ))}
        </ul>
        {home.outgrows.length > 0 && <Outgrown rows={home.outgrows} />}
        {!home.follows && (
          <div className="mt-2 text-sm">
            <p>
              {home.lives} live here, {home.planned} are planned.
              {home.differs.map((row) => (
                <span
                  key={row.check}
                  className={`block ${row.lives === "short" ? "text-short" : "text-quiet"}`}
                >
                  {row.label}: {stateWord(row.planned)} as planned, {stateWord(row.lives)} as it lives.
                </span>
              ))}
            </p>
            <Button className="mt-1" onClick={take}>
              Take them into the plan
            </Button>
          </div>
        )}
        {fault && (
          <p role="alert" className="text-short">
            {fault}
          </p>
        )}
      </div>
    </section>
  );
}

const SHOWN = 2;

/** What they outgrow first, and the rest when it is asked for. */
function Outgrown({ rows }: { rows: Home["outgrows"] }) {
  const [all, setAll] = useState(false);
  return (
    <ul aria-label="Outgrown" className="mt-2 text-sm">
      {rows.slice(0, all ? undefined : SHOWN).map((row) => (
        <li key={row.check} className="text-short">
          {row.label}: they outgrow it about {wholeMonth(row.day)}.
        </li>
      ))}
      {!all && rows.length > SHOWN && (
        <li>
          <Button look="word" className="-ml-1.5" onClick={() => setAll(true)}>
            and {rows.length - SHOWN} later
          </Button>
        </li>
      )}
    </ul>
  );
}

function lengthWords(row: ResidentOut, now: string, adult: string): string {
  if (row.length_cm >= 0.95 * row.adult_cm) return `full grown, ${adult}`;
  const pace =
    row.pace == null
      ? ""
      : row.pace < 0.85
        ? ", slower than its kind"
        : row.pace > 1.15
          ? ", faster than its kind"
          : ", as its kind grows";
  return `${now} of ${adult}${row.known_by === "age" ? ", by age" : pace}`;
}
