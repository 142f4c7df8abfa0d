import type { Rack } from "@/api/client";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";

/** What each kind sells of what it could, and who has no tank. */
export function RackShares({ plan }: { plan: NonNullable<Rack["plan"]> }) {
  const units = useUnits();
  return (
    <>
      <ul aria-label="Kinds on the rack" className="border-t border-line">
        {plan.shares.map((share) => (
          <li
            key={share.venture}
            className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-line py-1.5"
          >
            <span>
              <b>{share.name}</b>{" "}
              <span className="text-quiet">
                {share.tanks} {share.tanks === 1 ? "tank" : "tanks"}, {units.number(share.sold_wk, "ratio")} a
                week sold
                {share.capped && ` of ${units.number(share.sellable_wk, "ratio")}: its buyers are met`}
              </span>
            </span>
            <span className="num">{units.text(share.margin_money, "money")} a week</span>
          </li>
        ))}
      </ul>
      <ul className="mt-2 text-sm text-quiet">
        {plan.left_out.map((sentence, i) => (
          <li key={i}>
            <Says sentence={sentence} />
          </li>
        ))}
      </ul>
    </>
  );
}
