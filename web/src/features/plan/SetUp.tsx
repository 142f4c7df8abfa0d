import { useId, useState } from "react";
import { isoDay } from "@/lib/shown/days";
import { parsed } from "@/lib/shown/quantity";
import { Button, Dialog } from "@/ui/controls";
import { NumberBox } from "@/ui/fields/NumberBox";
import { usePlanInUse, useSheet } from "./context";
import { setUpChanges, WAYS, type Begun } from "./setUp";

/** While a system is planned: that it is, and one press to say that it stands. */
export function SetUp() {
  const planned = useSheet((sheet) => sheet.phase) === "planned";
  const [open, setOpen] = useState(false);
  if (!planned) return null;
  return (
    <p className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2 border-l-3 border-edge pl-3">
      <span>It is planned: nothing wants care before it stands.</span>
      <Button look="strong" onClick={() => setOpen(true)}>
        It is set up…
      </Button>
      {open && <SetUpDialog close={() => setOpen(false)} />}
    </p>
  );
}

/** The day it was set up, and how its filter is begun. */
function SetUpDialog({ close }: { close: () => void }) {
  const { session } = usePlanInUse();
  const [day, setDay] = useState(() => isoDay(new Date()));
  const [begun, setBegun] = useState<Begun>("empty");
  const [weeks, setWeeks] = useState("");
  const id = useId();
  const age = parsed(weeks);
  const wanting = begun === "running" && age === null;
  return (
    <Dialog title="It is set up" open onOpenChange={(shown) => !shown && close()}>
      <label htmlFor={id} className="mb-4 flex items-center justify-between gap-3">
        <span>Filled and running since</span>
        <input
          id={id}
          type="date"
          value={day}
          max={isoDay(new Date())}
          onChange={(event) => setDay(event.target.value)}
          className="num min-h-9 rounded-sm border border-line bg-paper px-2 pointer-coarse:min-h-11"
        />
      </label>
      <fieldset className="mb-4">
        <legend className="mb-1 font-semibold">Its filter</legend>
        {WAYS.map(([way, words]) => (
          <label key={way} className="flex min-h-9 items-center gap-2 pointer-coarse:min-h-11">
            <input type="radio" name="begun" checked={begun === way} onChange={() => setBegun(way)} />
            {words}
          </label>
        ))}
        {begun === "running" && (
          <div className="mt-1 flex items-center justify-between gap-3">
            <span>For so many weeks</span>
            <NumberBox narrow label="Weeks it has been running" shown={weeks} type={setWeeks} unit="weeks" />
          </div>
        )}
      </fieldset>
      <Button
        look="strong"
        disabled={!day || wanting}
        onClick={() => {
          session.edit(setUpChanges(begun, day, age));
          close();
        }}
      >
        {begun === "running" ? "It runs" : "Begin its cycle"}
      </Button>
    </Dialog>
  );
}
