import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type Plan, type Settled } from "@/api/client";
import { withChanges } from "@/lib/document/changes";
import { Button, Dialog, Switch } from "@/ui/controls";
import { MovedLines } from "@/ui/figures/MovedLines";
import { Says } from "@/ui/figures/Says";
import { TakesMore } from "@/ui/figures/TakesLines";
import { usePlan, usePlanInUse, useSession } from "../context";
import { Pins, wordsOf } from "./Pins";

/** The changes of least effort with which nothing falls short, each a switch; pins stay as they are. */
export function SettleDialog({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  return (
    <Dialog title="Settle it" open={open} onOpenChange={onOpenChange} wide>
      <Settling close={() => onOpenChange(false)} />
    </Dialog>
  );
}

function Settling({ close }: { close: () => void }) {
  const { session } = usePlanInUse();
  const plan = usePlan((whole) => whole);
  const monthsAhead = useSession((state) => state.monthsAhead);
  const [pins, setPins] = useState<string[]>(["animals"]);
  const [off, setOff] = useState<string[]>([]);
  const asking = useQuery({
    queryKey: ["settle", plan, pins, monthsAhead],
    queryFn: ({ signal }) =>
      asked(client.POST("/api/plan/settle", { body: { plan, pins, months_ahead: monthsAhead }, signal })),
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  const found = asking.data;
  const moves = found?.moves ?? [];
  const on = moves.filter((move) => !off.includes(keyOf(move)));
  const chosen = on.reduce((made, move) => withChanges(made, move.changes), plan);
  return (
    <>
      <p className="mb-3 text-quiet">
        The changes of least effort found with which nothing falls short. Without any one of them something
        would.
      </p>
      <Pins pins={pins} setPins={(next) => (setOff([]), setPins(next))} />
      {asking.error && (
        <p role="alert" className="text-short">
          {asking.error.message}
        </p>
      )}
      {asking.isFetching && !found && (
        <p role="status" className="text-quiet">
          Looking for the least that settles it…
        </p>
      )}
      {found && (
        <section aria-label="Changes" aria-busy={asking.isFetching} className="mt-4">
          {moves.length === 0 && found.left.length === 0 && <p>Nothing falls short: nothing to settle.</p>}
          <ul>
            {moves.map((move) => (
              <li key={keyOf(move)} className="flex gap-4 border-b border-line py-2">
                <Switch
                  label={`Make this change: ${move.moved.map(({ label }) => label).join(", ")}`}
                  on={!off.includes(keyOf(move))}
                  onChange={(use) =>
                    setOff(use ? off.filter((key) => key !== keyOf(move)) : [...off, keyOf(move)])
                  }
                />
                <div className="min-w-0 flex-1">
                  <MovedLines rows={move.moved} />
                  <p className="text-sm text-quiet">
                    mends {move.mends.join(", ")} <TakesMore takes={move.takes} />
                  </p>
                </div>
              </li>
            ))}
          </ul>
          <LeftOver left={found.left} />
          {found.asks.length > 0 && (
            <ul aria-label="After this" className="mt-3">
              {found.asks.map((sentence, i) => (
                <li key={i} className="border-l-3 border-dashed border-mark pl-2 text-sm">
                  After this: <Says sentence={sentence} />
                </li>
              ))}
            </ul>
          )}
          {moves.length > 0 && (
            <>
              <Outcome
                plan={chosen}
                monthsAhead={monthsAhead}
                all={off.length === 0 && found.left.length === 0}
              />
              <div className="mt-4 flex flex-wrap justify-end gap-2">
                <Button
                  look="strong"
                  disabled={on.length === 0 || asking.isFetching}
                  onClick={() => {
                    session.replace(chosen);
                    close();
                  }}
                >
                  {on.length === moves.length ? "Use all" : `Use ${on.length} of ${moves.length}`}
                </Button>
              </div>
            </>
          )}
        </section>
      )}
    </>
  );
}

function keyOf(move: Settled["moves"][number]): string {
  return `${move.lever} ${move.moved.map(({ path }) => path).join()}`;
}

/** What no lever mends, and the pins that hold what would. */
function LeftOver({ left }: { left: Settled["left"] }) {
  if (left.length === 0) return null;
  return (
    <div className="mt-3">
      {left.map((row) => (
        <p key={row.check} className="mb-2 text-short">
          <b>{row.label}</b>: <Says sentence={row.reason} />{" "}
          <span className="text-ink">
            {row.pins.length > 0
              ? `Something would mend it, were it not for: ${row.pins.map(wordsOf).join(", or ")}.`
              : "Nothing that Loquen turns was found to mend it."}
          </span>
        </p>
      ))}
    </div>
  );
}

/** How the plan stands with the changes that are switched on. */
function Outcome({ plan, monthsAhead, all }: { plan: Plan; monthsAhead: number | null; all: boolean }) {
  const sheet = useQuery({
    queryKey: ["settled", plan, monthsAhead],
    queryFn: ({ signal }) =>
      asked(client.POST("/api/sheet", { body: { plan, months_ahead: monthsAhead }, signal })),
    enabled: !all,
    gcTime: 0,
  });
  const short = sheet.data?.checks.filter(({ state }) => state === "short") ?? [];
  if (all) return <p className="mt-3">With all of them nothing falls short.</p>;
  if (!sheet.data) return <p className="mt-3 text-quiet">Computing…</p>;
  return (
    <p className="mt-3" role="status">
      {short.length === 0
        ? "So nothing falls short."
        : `So ${short.map(({ label }) => label).join(", ")} ${short.length === 1 ? "falls" : "fall"} short.`}
    </p>
  );
}
