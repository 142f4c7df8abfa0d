import type { KeyboardEvent, ReactNode } from "react";
import type { Section } from "@/api/client";

export type Drawn = { section: Section; pick?: (stage: string) => void };

interface PartProps {
  stage: string;
  pick?: (stage: string) => void;
  title: string;
  children: ReactNode;
}

/** A part of the section that opens its stage, by mouse or by keyboard. */
export function Part({ stage, pick, title, children }: PartProps) {
  if (!pick) return <g>{children}</g>;
  const press = (event: KeyboardEvent) => {
    if (event.key !== "Enter" && event.key !== " ") return;
    event.preventDefault();
    pick(stage);
  };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${title}: open its stage`}
      className="cursor-pointer"
      onClick={() => pick(stage)}
      onKeyDown={press}
    >
      <title>{title}</title>
      {children}
    </g>
  );
}
