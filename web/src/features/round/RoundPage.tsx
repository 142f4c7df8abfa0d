import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { CalendarDays } from "lucide-react";
import { useState } from "react";
import type { RoundLine } from "@/api/client";
import { systemNamesQuery } from "@/api/queries";
import { Button, Menu, Select } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { logQuery } from "@/ui/log/log";
import { ReadingDialog } from "@/ui/log/ReadingDialog";
import { longDay, zone } from "@/lib/shown/days";
import { useToday } from "./useToday";
import { HelpersDialog } from "./HelpersDialog";
import { SkipDialog } from "./SkipDialog";
import { StopLines } from "./StopLines";
import { iAm, lineOf, useRound, whoAmI } from "./ticking";
import { WalkDialog } from "./WalkDialog";
import { Unread } from "@/ui/unread/Unread";

type At = { systemId: number; line: RoundLine };
const NOBODY = "-";

/** Today's round: what is due, system by system in the order of the walk, each with its tick. */
export function RoundPage() {
  const today = useToday();
  const { round, error, waiting, lasts, refused, seen, tick, takeBack, refresh } = useRound(today);
  const [me, setMe] = useState(whoAmI);
  const [skipping, setSkipping] = useState<At | null>(null);
  const [reading, setReading] = useState<At | null>(null);
  const [open, setOpen] = useState<"helpers" | "walk" | null>(null);
  const navigate = useNavigate();
  const systems = useQuery(systemNamesQuery).data ?? [];
  const helpers = round?.helpers ?? [];
  const names = [...new Set([...helpers.map(({ name }) => name), ...(me ? [me] : [])])];
  const left = round?.stops.flatMap(({ lines }) => lines).filter(({ tick }) => tick === null).length ?? 0;
  const inOrder = round
    ? [
        ...round.stops.flatMap(({ system_id }) => systems.filter(({ id }) => id === system_id)),
        ...systems.filter(({ id }) => !round.stops.some(({ system_id }) => system_id === id)),
      ]
    : [];
  return (
    <main className="max-w-4xl px-4 pt-3 pb-16 sm:px-6">
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-x-4 gap-y-2 pr-44">
        <h1 className="text-xl font-semibold">Round</h1>
        <span className="text-quiet">{longDay(today)}</span>
      </header>
      <Unread place="round" />
      {round && <Result round={left === 0 ? null : round} nothing={systems.length === 0} />}
      <p className="mb-4 flex flex-wrap items-center gap-x-3 gap-y-2 text-sm">
        {helpers.length > 0 && (
          <span className="flex items-center gap-1.5">
            <span className="text-quiet">Done by</span>
            <Select
              label="Done by"
              value={me || NOBODY}
              options={[[NOBODY, "nobody named"], ...names.map((name): [string, string] => [name, name])]}
              onChange={(name) => {
                const chosen = name === NOBODY ? "" : name;
                iAm(chosen);
                setMe(chosen);
              }}
            />
          </span>
        )}
        {round && round.here.length > 0 && (
          <span className="text-quiet">Here today: {round.here.join(", ")}</span>
        )}
        <span className="flex-1" />
        <Button look="word" onClick={() => void navigate({ to: "/round/away" })}>
          Holiday
        </Button>
        <Menu
          label="More of the round"
          trigger={<CalendarDays size={18} />}
          items={[
            {
              words: "Feeding: the week and what is at hand",
              run: () => void navigate({ to: "/round/feeding" }),
            },
            { words: "Stock and spares", run: () => void navigate({ to: "/round/stock" }) },
            { words: "Who does it", run: () => setOpen("helpers") },
            { words: "Order of the walk", run: () => setOpen("walk") },
            { words: "Calendar file (iCalendar)", run: () => window.location.assign(file("ics", today)) },
            { words: "Eight weeks as a table (CSV)", run: () => window.location.assign(file("csv", today)) },
          ]}
        />
      </p>
      {waiting.length > 0 && (
        <p role="status" className="mb-3 border-l-3 border-brass pl-3 text-sm">
          {waiting.length} {waiting.length === 1 ? "tick waits" : "ticks wait"} in this{" "}
          {lasts ? "browser" : "page"} for the server, and will be sent in order.
          {!lasts && " The browser keeps nothing, or is full: leave the page open until they are sent."}
        </p>
      )}
      {refused.length > 0 && (
        <div role="alert" className="mb-3 border-l-3 border-short pl-3 text-sm">
          {refused.map((row) => {
            const { name, words } = lineOf(row, round);
            return (
              <p key={row.item.id}>
                {name}: <Says sentence={words} /> It was refused: <Says sentence={row.why} />
              </p>
            );
          })}
          <Button look="word" onClick={seen}>
            Seen; the others go on
          </Button>
        </div>
      )}
      {!round && !error && <p className="text-quiet">Asking every system…</p>}
      {error && !round && (
        <p role="alert" className="text-short">
          {error.message}
        </p>
      )}
      <ol aria-label="The round">
        {round?.stops.map((stop) => (
          <StopLines
            key={stop.system_id}
            stop={stop}
            done={(line, how) =>
              line.measure ? setReading({ systemId: stop.system_id, line }) : tick(stop.system_id, line, how)
            }
            skip={(line) => setSkipping({ systemId: stop.system_id, line })}
            back={takeBack}
          />
        ))}
      </ol>
      {round && round.quiet.length > 0 && (
        <p className="border-t border-line pt-3 text-quiet">Nothing today: {round.quiet.join(", ")}.</p>
      )}
      {skipping && (
        <SkipDialog
          line={skipping.line}
          skip={(reason) => {
            tick(skipping.systemId, skipping.line, { skipped: reason });
            setSkipping(null);
          }}
          close={() => setSkipping(null)}
        />
      )}
      {reading && (
        <Reading
          at={reading}
          close={(read) => {
            if (read) tick(reading.systemId, reading.line, { log: false });
            setReading(null);
            refresh();
          }}
        />
      )}
      {open === "helpers" && <HelpersDialog helpers={helpers} close={() => setOpen(null)} saved={refresh} />}
      {open === "walk" && <WalkDialog systems={inOrder} close={() => setOpen(null)} saved={refresh} />}
    </main>
  );
}

const file = (form: "ics" | "csv", today: string) =>
  `/api/round/calendar/everybody.${form}?today=${today}&zone=${encodeURIComponent(zone())}`;

function Result({
  round,
  nothing,
}: {
  round: { result: Parameters<typeof Says>[0]["sentence"] } | null;
  nothing: boolean;
}) {
  return (
    <p className="mb-2 text-lg leading-snug">
      {round ? (
        <Says sentence={round.result} />
      ) : nothing ? (
        "No system is kept yet: the round begins with the first."
      ) : (
        "All done for today."
      )}
    </p>
  );
}

/** The reading that a line asks for; it is ticked once one was kept. */
function Reading({ at, close }: { at: At; close: (read: boolean) => void }) {
  const log = useQuery(logQuery(at.systemId)).data;
  const [before] = useState(() => new Date().toISOString());
  if (!log) return null;
  const read = log.some(
    ({ entry, at: when }) => entry.kind === "reading" && entry.what === at.line.measure && when >= before,
  );
  return <ReadingDialog id={at.systemId} log={log} first={at.line.measure} close={() => close(read)} />;
}
