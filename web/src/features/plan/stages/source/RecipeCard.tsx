import { Printer } from "lucide-react";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { usePlan, usePlanInUse, useSheet } from "../../context";

/** The recipe of one change, as a card that prints alone. */
export function RecipeCard() {
  const card = useSheet((sheet) => sheet.card);
  const name = usePlan((plan) => plan.name);
  const { openFigure } = usePlanInUse();
  const [first, ...steps] = card;
  if (!first) return null;
  return (
    <section aria-label="Recipe card" className="card mb-5 border-l-3 border-edge bg-paper px-4 py-3">
      <div className="flex items-start justify-between gap-4">
        <p className="font-semibold">
          <span className="hidden print:inline">{name}. </span>
          <Says sentence={first} open={openFigure} />
        </p>
        <Button
          look="word"
          onClick={() => window.print()}
          className="inline-flex items-center gap-1.5 print:hidden"
        >
          <Printer size={15} /> print
        </Button>
      </div>
      <ol className="list-inside list-decimal">
        {steps.map((line, i) => (
          <li key={i}>
            <Says sentence={line} open={openFigure} />
          </li>
        ))}
      </ol>
      {steps.length === 0 && (
        <p className="text-quiet">As it comes from the tap, at the tank’s temperature.</p>
      )}
    </section>
  );
}
