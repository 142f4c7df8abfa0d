import { memo } from "react";
import type { Glass } from "@/api/client";
import { Says, useSentenceText } from "./Says";
import { stateWord, Tube } from "./Tube";

/** The row of sight glasses along the bottom of a system's page. */
export const Glasses = memo(function Glasses({
  glasses,
  pick,
}: {
  glasses: Glass[];
  pick: (glass: Glass) => void;
}) {
  return (
    <ul
      aria-label="Sight glasses"
      className="relative flex overflow-x-auto px-1 py-2 sm:gap-x-1 sm:px-4 sm:py-3"
    >
      {glasses.map((glass) => (
        <li key={glass.key} className="min-w-11 flex-1 sm:min-w-36 xl:min-w-0">
          <button
            type="button"
            onClick={() => pick(glass)}
            className="flex min-h-11 w-full flex-col items-center gap-1 text-center text-xs tracking-tight sm:flex-row sm:tracking-normal sm:text-left sm:text-base"
          >
            <span className="hidden sm:block">
              <Tube gauge={glass.gauge} state={glass.state} height={76} />
            </span>
            <span className="sm:hidden">
              <Tube gauge={glass.gauge} state={glass.state} height={44} />
            </span>
            <span className="min-w-0">
              <span className="block font-semibold">{glass.label}</span>
              {glass.state !== "measure" && (
                <span
                  className={`hidden text-sm leading-tight sm:block ${glass.state === "short" ? "text-short" : "text-quiet"}`}
                >
                  <Says sentence={glass.headline} />
                </span>
              )}
              <span className={`block sm:text-sm ${glass.state === "short" ? "text-short" : "text-quiet"}`}>
                {glass.state === "measure" ? <Says sentence={glass.headline} /> : stateWord(glass.state)}
              </span>
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
});

/** The same glasses small, in a list of systems. */
export function SmallGlasses({ glasses }: { glasses: Glass[] }) {
  const text = useSentenceText();
  return (
    <ul className="flex flex-wrap gap-x-3 gap-y-1">
      {glasses.map((glass) => (
        <li key={glass.key} className="flex items-center gap-1" title={text(glass.headline)}>
          <Tube gauge={glass.gauge} state={glass.state} height={30} />
          <span className={`text-xs ${glass.state === "short" ? "font-semibold text-short" : "text-quiet"}`}>
            {glass.label}
            <span className="sr-only">
              : {stateWord(glass.state)}, {text(glass.headline)}
            </span>
            {glass.state === "short" && <span aria-hidden="true"> short</span>}
            {glass.state === "measure" && <span aria-hidden="true"> {text(glass.headline)}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
