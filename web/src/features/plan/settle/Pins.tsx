import { useState } from "react";
import { entryPath } from "@/lib/document/paths";
import { Button, Select } from "@/ui/controls";
import { usePlanInUse } from "../context";

/** What is most often to stay as it is. */
const OFTEN: [string, string][] = [
  ["animals", "these animals stay"],
  ["tank", "the tank stays"],
  ["filters", "the filter stays"],
  ["changes.weekdays", "changes on these days only"],
  ["heat", "heat and room stay"],
  ["sources", "the waters and their mix stay"],
];

export function wordsOf(pin: string): string {
  return OFTEN.find(([key]) => key === pin)?.[1] ?? pin.replace(/\./g, ", ").replace(/_/g, " ");
}

/** What stays as it is: the usual things, and any one input. */
export function Pins({ pins, setPins }: { pins: string[]; setPins: (pins: string[]) => void }) {
  const { library } = usePlanInUse();
  const [picked, setPicked] = useState("");
  const turn = (pin: string) =>
    setPins(pins.includes(pin) ? pins.filter((other) => other !== pin) : [...pins, pin]);
  const inputs = Object.entries(library.entries)
    .filter(([path]) => !path.includes("*") && path.split(".").length === 2 && TURNED.test(path))
    .map(([path, entry]): [string, string] => [path, `${entry.label} (${path.split(".")[0] ?? ""})`]);
  const labelOf = (pin: string) =>
    OFTEN.some(([key]) => key === pin)
      ? wordsOf(pin)
      : (library.entries[entryPath(pin)]?.label ?? wordsOf(pin));
  const own = pins.filter((pin) => !OFTEN.some(([key]) => key === pin));
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">Pinned</legend>
      <div className="flex flex-wrap gap-2">
        {OFTEN.map(([pin, words]) => (
          <Pin key={pin} on={pins.includes(pin)} words={words} turn={() => turn(pin)} />
        ))}
        {own.map((pin) => (
          <Pin key={pin} on words={labelOf(pin)} turn={() => turn(pin)} />
        ))}
        <Select
          label="Pin another input"
          placeholder="another input"
          value={picked}
          options={inputs.filter(([path]) => !pins.includes(path))}
          onChange={(path) => {
            setPicked("");
            turn(path);
          }}
        />
      </div>
    </fieldset>
  );
}

/** Sections whose inputs a planner turns. */
const TURNED = /^(tank|heat|air|water|recipe|changes|flow|sump|osmosis)\./;

function Pin({ on, words, turn }: { on: boolean; words: string; turn: () => void }) {
  return (
    <Button aria-pressed={on} onClick={turn} className={on ? "border-edge! bg-water" : "text-quiet"}>
      {words}
    </Button>
  );
}
