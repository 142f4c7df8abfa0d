import type { SVGProps } from "react";

/** How high the drawing's letters are, at its scale. */
export const letters = (scale: number): number => scale * 0.021;

interface WordsProps extends SVGProps<SVGTextElement> {
  size: number;
  /** What lies behind: the words keep a rim of it around them, so that lines may pass. */
  ground?: "water" | "ground";
}

/** A few words or a measure in the drawing. */
export function Words({
  size,
  ground = "ground",
  fill = "var(--color-quiet)",
  children,
  ...rest
}: WordsProps) {
  return (
    <text
      fontSize={size}
      className="num"
      fill={fill}
      stroke={`var(--color-${ground})`}
      strokeWidth={size * 0.35}
      strokeLinejoin="round"
      paintOrder="stroke"
      {...rest}
    >
      {children}
    </text>
  );
}
