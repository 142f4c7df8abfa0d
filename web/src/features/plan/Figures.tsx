import { memo } from "react";
import { FigureButton, Measure, Says } from "@/ui/Says";
import { useUnits } from "@/ui/units";
import { usePlanInUse, useFigure } from "./context";

/** Figures by name, each open to its working. */
export function Figures({ keys }: { keys: string[] }) {
  return (
    <dl className="mb-5 grid gap-x-7 md:grid-cols-2">
      {keys.map((key) => (
        <FigureLine key={key} name={key} />
      ))}
    </dl>
  );
}

const FigureLine = memo(function FigureLine({ name }: { name: string }) {
  const figure = useFigure(name);
  if (!figure) return null;
  return (
    <div className="flex items-baseline justify-between gap-3 border-b border-line/70 py-1.5">
      <dt className="text-quiet">{figure.label}</dt>
      <dd className="text-right">
        {figure.missing ? (
          <span className="text-sm text-quiet">
            <Says sentence={figure.missing} />
          </span>
        ) : (
          <FigureValue name={name} />
        )}
      </dd>
    </div>
  );
});

/** One figure's number as a button that opens its working. */
export const FigureValue = memo(function FigureValue({ name }: { name: string }) {
  const { openFigure } = usePlanInUse();
  const units = useUnits();
  const figure = useFigure(name);
  if (!figure || figure.value == null) return <span className="text-quiet">–</span>;
  return (
    <>
      <FigureButton figure={name} open={openFigure}>
        <Measure value={figure.value} kind={figure.kind} />
      </FigureButton>
      {figure.low != null && figure.high != null && (
        <span className="ml-1.5 text-sm text-quiet">
          ({units.number(figure.low, figure.kind)} to {units.number(figure.high, figure.kind)})
        </span>
      )}
    </>
  );
});
