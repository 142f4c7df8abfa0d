import { Link, type LinkProps } from "@tanstack/react-router";
import { memo, useEffect, useRef } from "react";
import type { Stage, State } from "@/api/client";
import { stateWord, Tube } from "@/ui/figures/Tube";

interface StageLineProps {
  /** A stage that nothing is judged on has no state. */
  stages: (Pick<Stage, "key" | "label"> & { state: State | null })[];
  current: string;
  to: (key: string) => Pick<LinkProps, "to" | "params">;
}

/** The stages along one line in the job's order, each with whether it holds. */
export const StageLine = memo(function StageLine({ stages, current, to }: StageLineProps) {
  const here = useRef<HTMLAnchorElement>(null);
  useEffect(() => {
    void here.current?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [current]);
  return (
    <nav
      aria-label="Stages"
      className="relative flex gap-1 print:hidden overflow-x-auto border-b border-line px-3 sm:px-5"
    >
      {stages.map(({ key, label, state }) => (
        <Link
          key={key}
          {...to(key)}
          ref={key === current ? here : undefined}
          aria-current={key === current ? "page" : undefined}
          className={`flex min-h-11 items-center gap-1 border-b-3 px-2 whitespace-nowrap ${key === current ? "border-edge font-semibold" : "border-transparent text-quiet hover:text-ink"}`}
        >
          {state && <Tube state={state} height={22} />}
          {label}
          {state && <span className="sr-only">: {stateWord(state)}</span>}
        </Link>
      ))}
    </nav>
  );
});
