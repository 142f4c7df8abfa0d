import { CurrencyLines } from "./CurrencyLines";
import { US_UNITS } from "@/lib/shown/quantity";
import { Button, Dialog, Select } from "@/ui/controls";
import { unitName, useUnitsInUse } from "@/ui/units";

/** Units kind by kind, with the two usual sets at hand. */
export function UnitsDialog({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const { units, kinds, choose } = useUnitsInUse();
  return (
    <Dialog title="Units" open={open} onOpenChange={onOpenChange}>
      <p className="mb-4 text-sm text-quiet">
        Kept in this browser. Plans are stored the same whatever is shown.
      </p>
      <div className="mb-5 flex gap-2">
        <Button onClick={() => choose({})}>Litres, °C, cm</Button>
        <Button onClick={() => choose(US_UNITS)}>US gallons, °F, inches</Button>
      </div>
      <dl className="grid grid-cols-[1fr_auto] items-center gap-y-1.5">
        {kinds
          .filter((kind) => kind.units.length > 1)
          .map((kind) => (
            <div key={kind.key} className="col-span-2 grid grid-cols-subgrid items-center">
              <dt>{kind.label}</dt>
              <dd>
                <Select
                  label={`Unit of ${kind.label}`}
                  value={units.unit(kind.key).key}
                  options={kind.units.map((unit) => [unit.key, unitName(unit)])}
                  onChange={(key) => choose({ ...units.choice, [kind.key]: key })}
                />
              </dd>
            </div>
          ))}
      </dl>
      <CurrencyLines />
    </Dialog>
  );
}
