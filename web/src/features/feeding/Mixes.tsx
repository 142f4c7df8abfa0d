import { useState } from "react";
import type { Fodder, Larder, Mix } from "@/api/client";
import { Button, Dialog, Select } from "@/ui/controls";
import { NumberLine, TextLine } from "@/ui/fields/Lines";
import { useUnits } from "@/ui/units";

interface MixesProps {
  found: Fodder;
  keep: (larder: Larder, words?: string, back?: Larder) => Promise<boolean>;
}

const EMPTY: Mix = { name: "", parts: [], water_g: 100, piece_g: 5 };

/** Mixes of one's own: what is in them, and what that makes. */
export function Mixes({ found, keep }: MixesProps) {
  const units = useUnits();
  const [asking, setAsking] = useState<number | null>(null);
  const mixes = found.larder.mixes ?? [];
  const put = (place: number, mix: Mix) =>
    keep({ ...found.larder, mixes: [...mixes.slice(0, place), mix, ...mixes.slice(place + 1)] });
  const remove = (place: number) =>
    void keep(
      { ...found.larder, mixes: mixes.filter((_, i) => i !== place) },
      `${mixes[place]?.name ?? "The mix"}: taken out.`,
      found.larder,
    );
  return (
    <section aria-labelledby="mixes" className="border-t border-line py-3">
      <h2 id="mixes" className="mb-1 text-lg font-semibold">
        Mixes of our own
      </h2>
      <ul>
        {mixes.map((mix, place) => {
          const made = found.mixes.find(({ name }) => name === mix.name);
          return (
            <li key={mix.name} className="flex flex-wrap items-baseline gap-x-3 border-b border-line/60 py-1">
              <span className="min-w-0 flex-1">
                <span className="font-semibold">{mix.name}</span>{" "}
                {made && (
                  <span className="text-sm text-quiet">
                    {units.text(made.dry_frac, "share")} dry; of that {units.text(made.protein_frac, "share")}{" "}
                    protein, {units.text(made.plant_frac, "share")} plant
                  </span>
                )}
              </span>
              <Button look="word" onClick={() => setAsking(place)} aria-label={`Change ${mix.name}`}>
                Change
              </Button>
              <Button look="word" onClick={() => remove(place)} aria-label={`Take out ${mix.name}`}>
                Take out
              </Button>
            </li>
          );
        })}
      </ul>
      <Button look="word" className="-ml-1.5" onClick={() => setAsking(mixes.length)}>
        Another mix
      </Button>
      {asking !== null && (
        <MixDialog
          mix={mixes[asking] ?? EMPTY}
          foods={found.foods}
          close={() => setAsking(null)}
          keep={async (mix) => {
            if (await put(asking, mix)) setAsking(null);
          }}
        />
      )}
    </section>
  );
}

interface MixDialogProps {
  mix: Mix;
  foods: Fodder["foods"];
  close: () => void;
  keep: (mix: Mix) => Promise<void>;
}

function MixDialog({ mix, foods, close, keep }: MixDialogProps) {
  const [one, setOne] = useState<Mix>(mix);
  const [fault, setFault] = useState("");
  const parts = one.parts ?? [];
  const part = (place: number, grams: number | null) =>
    setOne({ ...one, parts: parts.map((row, i) => (i === place ? { ...row, grams: grams ?? 0.01 } : row)) });
  const free = foods.filter(({ food }) => !parts.some((row) => row.food === food.key));
  const done = () => {
    if (!one.name.trim()) setFault("What the mix is called.");
    else if (parts.length === 0) setFault("Nothing is in it yet.");
    else void keep(one);
  };
  return (
    <Dialog title="A mix of our own" open onOpenChange={close} unsaved={!mix.name && parts.length > 0}>
      <TextLine label="Called" value={one.name} set={(name) => setOne({ ...one, name })} />
      {parts.map((row, place) => (
        <div key={row.food} className="flex items-center gap-2">
          <div className="min-w-0 flex-1">
            <NumberLine
              label={foods.find(({ food }) => food.key === row.food)?.food.label ?? row.food}
              kind="small_mass"
              value={row.grams ?? 100}
              set={(grams) => part(place, grams)}
            />
          </div>
          <Button
            look="word"
            aria-label={`Leave out ${row.food}`}
            onClick={() => setOne({ ...one, parts: parts.filter((_, i) => i !== place) })}
          >
            Leave out
          </Button>
        </div>
      ))}
      <p className="py-2">
        <Select
          label="Put in"
          value=""
          placeholder="put in…"
          options={free.map(({ food }) => [food.key, food.label])}
          onChange={(food) => setOne({ ...one, parts: [...parts, { food, grams: 100 }] })}
        />
      </p>
      <NumberLine
        label="Water and binder"
        kind="small_mass"
        value={one.water_g ?? 0}
        set={(water) => setOne({ ...one, water_g: water ?? 0 })}
      />
      <NumberLine
        label="A piece; 0 where it is weighed"
        kind="small_mass"
        value={one.piece_g ?? 0}
        set={(piece) => setOne({ ...one, piece_g: piece ?? 0 })}
      />
      {fault && (
        <p role="alert" className="mt-2 text-short">
          {fault}
        </p>
      )}
      <Button look="strong" className="mt-3" onClick={done}>
        Keep
      </Button>
    </Dialog>
  );
}
