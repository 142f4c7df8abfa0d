import { monthYear } from "@/lib/shown/days";
import { useQuery } from "@tanstack/react-query";
import { Undo2 } from "lucide-react";
import { useState } from "react";
import { asked, client, Refused, type HappenedOut, type Home, type ResidentOut } from "@/api/client";
import { shortDay } from "@/lib/shown/days";
import { TimeChart } from "@/ui/charts/TimeChart";
import { Button, Dialog } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { today, useRefresh } from "./register";

interface LifeProps {
  home: Home;
  resident: ResidentOut;
  close: () => void;
  done: (words?: string) => void;
}

const WORDS: Record<string, string> = {
  arrival: "arrived",
  birth: "born here",
  measured: "measured",
  move: "moved",
  sale: "sold or given away",
  death: "died",
  signs: "signs",
};
const days = (day: string) => Date.parse(`${day}T12:00`) / 86_400_000;

/** A life line: what happened, grown as measured against its kind, and where else they could go. */
export function LifeDialog({ home, resident, close, done }: LifeProps) {
  const units = useUnits();
  const refresh = useRefresh();
  const [asking, setAsking] = useState(false);
  const [fault, setFault] = useState("");
  const places = useQuery({
    queryKey: ["register", "places", resident.id, home.system_id],
    queryFn: () =>
      asked(
        client.GET("/api/register/{resident_id}/places", {
          params: { path: { resident_id: resident.id }, query: { today: today(), system: home.system_id } },
        }),
      ),
    enabled: asking,
  });
  const back = (row: HappenedOut) =>
    void asked(
      client.DELETE("/api/register/happened/{happened_id}", { params: { path: { happened_id: row.id } } }),
    ).then(refresh, (cause: unknown) => setFault(cause instanceof Refused ? cause.message : String(cause)));
  const remove = () =>
    void asked(
      client.DELETE("/api/register/{resident_id}", { params: { path: { resident_id: resident.id } } }),
    ).then(() => done("Taken out of the register."));
  const name = resident.resident.name || resident.common;
  return (
    <Dialog title={`${name}, ${home.name}`} open onOpenChange={close} wide>
      {resident.course.length > 0 && <Growth resident={resident} />}
      <ol aria-label="Life line" className="mb-4">
        {resident.happened.map((row) => (
          <li key={row.id} className="flex items-baseline gap-3 border-b border-line/60 py-1">
            <span className="num w-36 shrink-0 text-sm text-quiet">
              {shortDay(row.happened.day)} {row.happened.day.slice(0, 4)}
            </span>
            <span className="min-w-0 flex-1">
              {WORDS[row.happened.kind]}
              {!["measured", "signs"].includes(row.happened.kind) && ` ${row.happened.count ?? 1}`}
              {row.happened.length_cm != null && `, ${units.text(row.happened.length_cm, "length")}`}
              {row.happened.money != null && `, ${units.text(row.happened.money, "money")} each`}
              {row.happened.signs && `: ${row.happened.signs}`}
            </span>
            <button
              type="button"
              aria-label={`Take back: ${WORDS[row.happened.kind]} ${row.happened.day}`}
              onClick={() => back(row)}
              className="grid size-8 place-items-center text-quiet hover:text-ink pointer-coarse:size-11"
            >
              <Undo2 size={15} />
            </button>
          </li>
        ))}
      </ol>
      {fault && (
        <p role="alert" className="mb-3 text-short">
          {fault}
        </p>
      )}
      {places.data && (
        <ul aria-label="Where they could go" className="mb-4">
          {places.data.places.map(({ name: there, place }) => (
            <li key={place.system_id} className="flex flex-wrap gap-x-3 border-b border-line/60 py-1">
              <span className="w-48 font-semibold">{there}</span>
              <span className={`min-w-0 flex-1 ${place.takes ? "" : "text-short"}`}>
                <Says sentence={place.against} />
              </span>
            </li>
          ))}
          {places.data.places.length === 0 && <li>There is no other system.</li>}
        </ul>
      )}
      <span className="flex flex-wrap gap-2">
        <Button onClick={() => setAsking(true)}>Where could they go?</Button>
        <Button onClick={remove}>Take out of the register</Button>
      </span>
    </Dialog>
  );
}

/** Length by day: as measured, as they grow, and as their kind does. */
function Growth({ resident }: { resident: ResidentOut }) {
  const units = useUnits();
  const unit = units.unit("length");
  const shown = (cm: number) => cm * unit.factor + unit.offset;
  const { course } = resident;
  const first = days(course[0]!.day);
  const at = course.map(({ day }) => days(day) - first);
  const band = {
    days: at,
    low: course.map((row) => shown(Math.min(row.kind_cm, row.these_cm))),
    middle: course.map((row) => shown(row.these_cm)),
    high: course.map((row) => shown(Math.max(row.kind_cm, row.these_cm))),
  };
  const bars = resident.happened
    .filter(({ happened }) => happened.length_cm != null)
    .map(({ happened }) => ({
      day: days(happened.day) - first,
      low: shown(happened.length_cm! * 0.97),
      high: shown(happened.length_cm! * 1.03),
    }));
  const words = `${resident.common}: ${units.text(resident.length_cm, "length")} today of ${units.text(resident.adult_cm, "length")}${
    resident.expected_cm == null
      ? ""
      : `; its kind would be ${units.text(resident.expected_cm, "length")} by now`
  }.`;
  return (
    <>
      <p className="mb-2">{words}</p>
      <TimeChart
        label="Length"
        unit={unit.label}
        words={words}
        band={band}
        bars={bars}
        limit={{ at: shown(resident.adult_cm), words: "grown" }}
        today={days(today()) - first}
        from={0}
        to={at.at(-1) ?? 1}
        tick={(day) => monthYear(new Date((day + first) * 86_400_000))}
      />
    </>
  );
}
