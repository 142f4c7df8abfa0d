import { browserStore } from "@/lib/browser/browserStore";
import { useState } from "react";
import { Refused, type Known, type Logged } from "@/api/client";
import { parsed } from "@/lib/shown/quantity";
import { Button, Dialog, Select } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { localMinute, useKnown, useLogbook } from "./log";

interface ReadingProps {
  id: number;
  /** The newest readings, to show what was read last. */
  log: Logged[];
  first?: string;
  close: () => void;
}

const REMEMBERED = "loquen.kits";

function kitsUsed(): Record<string, string> {
  try {
    return JSON.parse(browserStore.getItem(REMEMBERED) ?? "{}") as Record<string, string>;
  } catch {
    return {};
  }
}

/** Readings one after the other: a step of the chart, and the next test follows. */
export function ReadingDialog({ id, log, first = "ammonia", close }: ReadingProps) {
  const known = useKnown();
  const { add } = useLogbook(id);
  const [what, setWhat] = useState(first);
  const [chosen, setChosen] = useState(kitsUsed);
  const [steps, setSteps] = useState<string[]>([]);
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState<string | null>(null);
  const [kept, setKept] = useState<string[]>([]);
  if (!known) return null;
  const measures = known.measures;
  const kits = known.kits.filter((kit) => kit.measure === what);
  const kit = kits.find(({ key }) => key === chosen[what]) ?? kits[0];
  const value = typed.trim() || valueOf(steps);
  const pick = (measure: string) => {
    setWhat(measure);
    setSteps([]);
    setTyped("");
    add.reset();
  };
  const press = (step: string) => {
    setTyped("");
    if (steps.includes(step)) setSteps(steps.filter((other) => other !== step));
    else
      setSteps(
        steps.length === 1 && neighbours(kit?.steps ?? [], steps[0]!, step) ? [steps[0]!, step] : [step],
      );
  };
  const keep = () =>
    add.mutate(
      [{ at: at ? new Date(at) : new Date(), entry: { kind: "reading", what, value, kit: kit?.key ?? "" } }],
      {
        onSuccess: () => {
          const label = measures.find(({ key }) => key === what)?.label ?? what;
          setKept([...kept, `${label} ${value}`]);
          pick(next(measures, what));
        },
      },
    );
  const last = log.filter((row) => row.entry.kind === "reading" && row.entry.what === what).at(-1);
  const fault = add.error instanceof Refused ? add.error : null;
  return (
    <Dialog title="Readings" open onOpenChange={(open) => !open && close()} unsaved={value !== ""}>
      <div role="radiogroup" aria-label="What was read" className="mb-3 flex flex-wrap gap-1">
        {measures.map(({ key, label }) => (
          <button
            key={key}
            type="button"
            role="radio"
            aria-checked={key === what}
            onClick={() => pick(key)}
            className={`min-h-9 rounded-sm border px-2.5 text-sm pointer-coarse:min-h-11 ${key === what ? "border-edge bg-water font-semibold" : "border-line"}`}
          >
            {label}
          </button>
        ))}
      </div>
      {kits.length > 0 && kit && (
        <p className="mb-2 flex flex-wrap items-center gap-2 text-sm">
          <span className="text-quiet">with</span>
          <Select
            label="Kit"
            value={kit.key}
            options={kits.map(({ key, label }) => [key, label])}
            onChange={(key) => {
              const used = { ...chosen, [what]: key };
              browserStore.setItem(REMEMBERED, JSON.stringify(used));
              setChosen(used);
              setSteps([]);
            }}
          />
          {last && (
            <span className="text-quiet">
              last:{" "}
              <b className="num text-ink">
                {last.entry.value} {known.kits.find(({ key }) => key === last.entry.kit)?.unit}
              </b>
            </span>
          )}
        </p>
      )}
      {kit && kit.steps.length > 0 && (
        <>
          <div
            role="group"
            aria-label="Steps of the chart"
            className="mb-1 grid grid-cols-[repeat(auto-fill,minmax(4.2rem,1fr))] gap-1.5"
          >
            {kit.steps.map((step) => (
              <button
                key={step}
                type="button"
                aria-pressed={steps.includes(step)}
                onClick={() => press(step)}
                className={`num min-h-14 rounded-sm border text-lg ${steps.includes(step) ? "border-edge bg-edge text-ground" : "border-line bg-paper hover:border-edge"}`}
              >
                {step}
              </button>
            ))}
          </div>
          <p className="mb-3 text-sm text-quiet">Two neighbours together are “between”. {kit.unit}</p>
        </>
      )}
      {kit?.interferes && <p className="mb-2 text-sm text-brass">{sentence(kit.interferes)}</p>}
      {kit?.expires && kit.expires < localMinute(new Date()).slice(0, 10) && (
        <p className="mb-2 text-sm text-short">This kit is past its date, {kit.expires}.</p>
      )}
      <Typed
        known={known}
        what={what}
        reads={kit?.reads ?? "plain"}
        unit={kit?.unit ?? ""}
        typed={typed}
        type={setTyped}
        clear={() => setSteps([])}
      />
      <label className="mt-2 flex flex-wrap items-center gap-2 text-sm">
        <span className="text-quiet">at</span>
        <input
          type="datetime-local"
          value={at ?? localMinute(new Date())}
          max={localMinute(new Date())}
          onChange={(event) => setAt(event.target.value)}
          className="num min-h-9 rounded-sm border border-line bg-paper px-2 pointer-coarse:min-h-11"
        />
      </label>
      {fault && (
        <p role="alert" className="mt-2 text-sm text-short">
          {fault.message}
        </p>
      )}
      <div className="mt-4 flex flex-wrap items-center gap-2">
        <Button look="strong" disabled={!value || add.isPending} onClick={keep}>
          {value ? `Keep ${value}, then the next` : "Keep, then the next"}
        </Button>
        <Button onClick={close}>Done</Button>
        <span role="status" className="text-sm text-quiet">
          {kept.length > 0 && `Kept: ${kept.join(", ")}.`}
        </span>
      </div>
    </Dialog>
  );
}

interface TypedProps {
  known: Known;
  what: string;
  reads: string;
  unit: string;
  typed: string;
  type: (text: string) => void;
  clear: () => void;
}

/** What a meter shows, or what was read in words; a plain number in the units in use becomes the kit's own. */
function Typed({ known, what, reads, unit, typed, type, clear }: TypedProps) {
  const units = useUnits();
  const [shown, setShown] = useState("");
  const kind = known.measures.find(({ key }) => key === what)?.kind ?? "";
  const set = (text: string) => {
    setShown(text);
    clear();
    const number = reads === "plain" ? parsed(text, () => true) : null;
    type(number === null ? text : String(Number(units.base(number, kind).toPrecision(6))));
  };
  return (
    <label className="flex flex-wrap items-center gap-2 text-sm">
      <span className="text-quiet">or typed</span>
      <input
        value={typed === "" ? "" : shown}
        onChange={(event) => set(event.target.value)}
        placeholder="20, between 20 and 40, under 5"
        className="num min-h-9 w-64 max-w-full rounded-sm border border-line bg-paper px-2 pointer-coarse:min-h-11"
      />
      <span className="text-quiet">{reads === "plain" ? units.unit(kind).label : unit}</span>
    </label>
  );
}

const sentence = (text: string): string => `${text[0]!.toUpperCase()}${text.slice(1)}.`;

const valueOf = (steps: string[]): string => {
  const [low, high] = [...steps].sort((a, b) => Number(a) - Number(b));
  return high === undefined ? (low ?? "") : `between ${low} and ${high}`;
};

const neighbours = (chart: string[], a: string, b: string): boolean =>
  Math.abs(chart.indexOf(a) - chart.indexOf(b)) === 1;

const next = (measures: { key: string }[], what: string): string => {
  const at = measures.findIndex(({ key }) => key === what);
  return measures[(at + 1) % measures.length]?.key ?? what;
};
