import { memo, type ReactNode } from "react";
import type { Sentence, Term } from "@/api/client";
import { useUnits } from "@/ui/units";

/** Opens the working of a figure; without it numbers are plain. */
export type OpenFigure = (figure: string) => void;

/** A sentence with its values in the units in use; values that are figures open their working. */
export const Says = memo(function Says({
  sentence,
  open,
}: {
  sentence: Sentence;
  open?: OpenFigure;
}): ReactNode {
  return sentence.text.split(/(\{\w+\})/).map((part, i) => {
    const name = /^\{(\w+)\}$/.exec(part)?.[1];
    const term = name ? sentence.terms[name] : undefined;
    return term ? <Value key={i} term={term} open={open} /> : <span key={i}>{part}</span>;
  });
});

function Value({ term, open }: { term: Term; open?: OpenFigure }) {
  if (typeof term.value === "string") return <>{term.value}</>;
  const shown = <Measure value={term.value} kind={term.kind} bare={term.bare} />;
  if (!term.figure || !open) return shown;
  return (
    <FigureButton figure={term.figure} open={open}>
      {shown}
    </FigureButton>
  );
}

/** A number in the numbers' face with its unit in the text's; bare where the unit follows behind another. A unit of
 * several words may break after the first. */
export function Measure({ value, kind, bare }: { value: number; kind: string; bare?: boolean }) {
  const [number, unit] = useUnits().parts(value, kind);
  const [first, ...more] = unit && !bare ? unit.split(" ") : [];
  return (
    <>
      <span className="whitespace-nowrap">
        <span className="num">{number}</span>
        {first && ` ${first}`}
      </span>
      {more.length > 0 && ` ${more.join(" ")}`}
    </>
  );
}

/** A value that opens its working: by click, Enter, or w while it has the focus. */
export function FigureButton({
  figure,
  open,
  children,
}: {
  figure: string;
  open: OpenFigure;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      data-figure={figure}
      onClick={() => open(figure)}
      title="Show the working"
      className="border-b border-dotted border-mark whitespace-nowrap hover:border-edge hover:text-edge-deep"
    >
      {children}
    </button>
  );
}

/** The same sentence as plain text, for labels that are read aloud. */
export function useSentenceText(): (sentence: Sentence) => string {
  const units = useUnits();
  return (sentence) =>
    sentence.text.replace(/\{(\w+)\}/g, (whole, name: string) => {
      const term = sentence.terms[name];
      return term ? units.term(term) : whole;
    });
}
