import { memo } from "react";
import { FigureLine, FigureNumber } from "@/ui/figures/FigureLine";
import { useFigure, useRootInUse } from "./context";

/** Figures by name, each open to its working; those that do not apply are left out. */
export function Figures({ keys }: { keys: string[] }) {
  return (
    <dl className="mb-5 grid gap-x-7 md:grid-cols-2">
      {keys.map((key) => (
        <Named key={key} name={key} />
      ))}
    </dl>
  );
}

const Named = memo(function Named({ name }: { name: string }) {
  const { openFigure } = useRootInUse();
  const figure = useFigure(name);
  return figure ? <FigureLine figure={figure} open={openFigure} /> : null;
});

/** One figure's number as a button that opens its working. */
export const FigureValue = memo(function FigureValue({ name }: { name: string }) {
  const { openFigure } = useRootInUse();
  const figure = useFigure(name);
  return figure ? <FigureNumber figure={figure} open={openFigure} /> : <span className="text-quiet">–</span>;
});
