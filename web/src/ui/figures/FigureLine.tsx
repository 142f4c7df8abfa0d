import type { Sheet } from "@/api/client";
import { useUnits } from "@/ui/units";
import { FigureButton, Measure, Says, type OpenFigure } from "./Says";

type Figure = Sheet["figures"][string];

/** A figure on its line: what it is, and its number or why there is none. */
export function FigureLine({ figure, open }: { figure: Figure; open: OpenFigure }) {
  return (
    <div className="flex items-baseline justify-between gap-3 border-b border-line/70 py-1.5">
      <dt className="text-quiet">{figure.label}</dt>
      <dd className="text-right">
        {figure.missing ? (
          <span className="text-sm text-quiet">
            <Says sentence={figure.missing} />
          </span>
        ) : (
          <FigureNumber figure={figure} open={open} />
        )}
      </dd>
    </div>
  );
}

/** A figure's number as a button that opens its working, with its range where it has one. */
export function FigureNumber({ figure, open }: { figure: Figure; open: OpenFigure }) {
  const units = useUnits();
  if (figure.value == null) return <span className="text-quiet">–</span>;
  return (
    <>
      <FigureButton figure={figure.key} open={open}>
        <Measure value={figure.value} kind={figure.kind} />
      </FigureButton>
      {figure.low != null && figure.high != null && (
        <span className="ml-1.5 text-sm text-quiet">
          ({units.number(figure.low, figure.kind)} to {units.number(figure.high, figure.kind)})
        </span>
      )}
    </>
  );
}
