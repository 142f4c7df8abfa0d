import { memo } from "react";
import { FigureLine } from "@/ui/figures/FigureLine";
import { useVentureInUse, useVentureSheet } from "./context";

/** Figures by name, each open to its working. */
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
  const { openFigure } = useVentureInUse();
  const figure = useVentureSheet(({ figures }) => figures[name]);
  return figure ? <FigureLine figure={figure} open={openFigure} /> : null;
});
