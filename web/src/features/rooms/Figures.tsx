import { memo } from "react";
import { FigureLine } from "@/ui/figures/FigureLine";
import { useRoomInUse, useRoomSheet } from "./context";

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
  const { openFigure } = useRoomInUse();
  const figure = useRoomSheet(({ figures }) => figures[name]);
  const empty = useRoomSheet(({ tanks }) => tanks.length === 0);
  return figure && !(empty && figure.value == null) ? <FigureLine figure={figure} open={openFigure} /> : null;
});
