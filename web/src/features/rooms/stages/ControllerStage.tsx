import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { asked, client, type Controller } from "@/api/client";
import { Button, Switch } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { clock } from "../charts/DayChart";
import { useRoomState } from "../context";

const DAY_MIN = 1440;

/** The changer's controller: the timetable it holds, what it ran, and what its litres speak for. */
export function ControllerStage() {
  const id = useRoomState((state) => state.id);
  const saved = useRoomState(({ saving, revision }) => (saving === "saved" ? revision : -1));
  const queries = useQueryClient();
  const key = ["controller", id];
  const params = { path: { room_id: id } };
  const controller = useQuery({
    queryKey: [...key, saved],
    queryFn: () => asked(client.GET("/api/rooms/{room_id}/controller", { params })),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
  const take = (answer: Controller) => queries.setQueryData([...key, saved], answer);
  const send = useMutation({
    mutationFn: (season: "winter" | "summer") =>
      asked(client.POST("/api/rooms/{room_id}/controller/timetable", { params, body: { season } })),
    onSuccess: take,
  });
  const goOn = useMutation({
    mutationFn: (minutes: number) =>
      asked(client.POST("/api/rooms/{room_id}/controller/clock", { params, body: { minutes } })),
    onSuccess: take,
  });
  const master = useMutation({
    mutationFn: (open: boolean) =>
      asked(client.POST("/api/rooms/{room_id}/controller/master", { params, body: { open } })),
    onSuccess: take,
  });
  const fault = useMutation({
    mutationFn: (body: { fault: string; on: boolean; zone: number }) =>
      asked(client.POST("/api/rooms/{room_id}/controller/faults", { params, body })),
    onSuccess: take,
  });
  const failed = send.error ?? goOn.error ?? master.error ?? fault.error ?? controller.error;
  const now = controller.data;
  return (
    <>
      {failed && (
        <p role="alert" className="mb-3 border-l-3 border-short pl-3">
          {failed.message}
        </p>
      )}
      {controller.isPending && <p className="text-quiet">Asking the controller…</p>}
      {now && (
        <>
          <p className="mb-3 text-lg leading-snug">{standing(now)}</p>
          <div className="mb-4 flex flex-wrap gap-2">
            <Button look="strong" disabled={send.isPending} onClick={() => send.mutate("winter")}>
              Send the winter day
            </Button>
            <Button disabled={send.isPending} onClick={() => send.mutate("summer")}>
              Send the summer day
            </Button>
            {!now.master_open && <Button onClick={() => master.mutate(true)}>Open the master valve</Button>}
          </div>
          <p className="mb-4 text-sm text-quiet">
            While Loquen is off the controller runs its last timetable by its own clock. Without power every
            valve is shut.
          </p>
          <Suspects rows={now.suspects} />
          <Runs rows={now.runs} />
          <Simulation now={now} goOn={goOn.mutate} busy={goOn.isPending} fault={fault.mutate} />
        </>
      )}
    </>
  );
}

function standing(now: Controller): string {
  const held = !now.sent.timetable
    ? "The controller holds no timetable."
    : now.sent.current
      ? "The controller holds this room’s timetable, read back and the same."
      : "The controller holds another timetable than this room’s: send it anew.";
  const shut = now.leak
    ? " Water is on the floor: everything is shut."
    : now.master_open
      ? ""
      : " The master valve is shut, and stays so until somebody opens it.";
  return held + shut + (now.power ? "" : " It has no power.");
}

function Suspects({ rows }: { rows: Controller["suspects"] }) {
  const units = useUnits();
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="speak" className="mb-5">
      <h3 id="speak" className="mb-1 text-sm font-semibold">
        What the last day’s litres speak for
      </h3>
      <ul>
        {rows.map((row) => (
          <li key={`${row.key}${row.zone}`} className="flex gap-3 border-b border-line/70 py-1.5">
            <span className={`num w-14 shrink-0 text-right ${row.key === "well" ? "" : "text-short"}`}>
              {units.text(row.odds, "share")}
            </span>
            <span>
              <Says sentence={row.sentence} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Runs({ rows }: { rows: Controller["runs"] }) {
  const units = useUnits();
  if (rows.length === 0) return <p className="mb-5 text-quiet">Nothing has run yet.</p>;
  const cell = "num py-1 pl-3 text-right whitespace-nowrap";
  return (
    <div className="mb-5 max-h-64 overflow-auto">
      <table className="w-full text-left text-sm">
        <caption className="mb-1 text-left font-semibold">
          Runs, which are in each system’s log as changes
        </caption>
        <thead className="sticky top-0 bg-ground text-quiet">
          <tr className="border-b border-line">
            {["Ended", "zone", "planned", "metered", "ended by"].map((words, i) => (
              <th key={words} scope="col" className={`py-1 font-normal ${i ? "pl-3 text-right" : ""}`}>
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.toReversed().map((row) => {
            const off = Math.abs(row.metered_l - row.planned_l) > 0.08 * row.planned_l;
            return (
              <tr key={`${row.begun}${row.number}`} className="border-b border-line/70">
                <th scope="row" className="py-1 font-normal whitespace-nowrap">
                  day {Math.floor(row.clock_min / DAY_MIN) + 1}, {clock((row.clock_min % DAY_MIN) / 60)}
                </th>
                <td className={cell}>{row.zone}</td>
                <td className={cell}>{units.text(row.planned_l, "volume")}</td>
                <td className={`${cell} ${off ? "text-short" : ""}`}>
                  {units.text(row.metered_l, "volume")}
                </td>
                <td className="py-1 pl-3 text-right">{row.ended_by}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

interface SimulationProps {
  now: Controller;
  busy: boolean;
  goOn: (minutes: number) => void;
  fault: (body: { fault: string; on: boolean; zone: number }) => void;
}

/** The simulated controller's own switches: a night at once, and what can break. */
function Simulation({ now, busy, goOn, fault }: SimulationProps) {
  return (
    <fieldset className="mb-5">
      <legend className="mb-1 text-sm font-semibold">The simulated controller</legend>
      <p className="mb-2 flex flex-wrap items-center gap-2">
        Its clock stands at day {Math.floor(now.clock_min / DAY_MIN) + 1},{" "}
        {clock((now.clock_min % DAY_MIN) / 60)}. A day that passes at once is logged as the last day.
        <Button disabled={busy} onClick={() => goOn(DAY_MIN)}>
          Let a day pass
        </Button>
      </p>
      <ul className="grid gap-x-7 md:grid-cols-2">
        {now.faults.map((row) => (
          <li
            key={row.key}
            className="flex min-h-9 items-center justify-between gap-3 border-b border-line/70"
          >
            <span className="text-quiet">
              {row.label}
              {ZONED.includes(row.key) && ", zone 1"}
            </span>
            <Switch
              label={row.label}
              on={row.on}
              onChange={(on) => fault({ fault: row.key, on, zone: ZONED.includes(row.key) ? 1 : 0 })}
            />
          </li>
        ))}
      </ul>
    </fieldset>
  );
}

/** Faults of one zone; the others are of all. */
const ZONED = ["stuck_open", "stuck_closed", "blocked"];
