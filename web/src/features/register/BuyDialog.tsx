import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type BuyIn } from "@/api/client";
import { Dialog } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { NumberLine } from "@/ui/fields/Lines";

const START: BuyIn = {
  males: 1,
  females: 3,
  wanted_frac: 0.95,
  male_frac: 0.5,
  survive_frac: 0.9,
  young_price: 5,
  raising_price: 2,
  grown_price: 15,
};
const FIELDS: [keyof BuyIn, string, string][] = [
  ["males", "Grown males wanted, at least", "count"],
  ["females", "Grown females wanted, at least", "count"],
  ["wanted_frac", "How sure", "share"],
  ["male_frac", "Males among the young", "share"],
  ["survive_frac", "Of them that grow up", "share"],
  ["young_price", "A young one costs", "money"],
  ["raising_price", "Raising one costs", "money"],
  ["grown_price", "A grown one costs", "money"],
];

/** How many young of unknown sex to buy, and what the wanted ones cost young or grown. */
export function BuyDialog({ close }: { close: () => void }) {
  const units = useUnits();
  const [asking, setAsking] = useState<BuyIn>(START);
  const answer = useQuery({
    queryKey: ["register", "buy", asking],
    queryFn: () => asked(client.POST("/api/register/buy", { body: asking })),
    placeholderData: (last) => last,
    retry: false,
  });
  const found = answer.data;
  return (
    <Dialog title="How many young to buy" open onOpenChange={close}>
      {answer.isError ? (
        <p role="alert" className="mb-3 text-short">
          {answer.error.message}
        </p>
      ) : (
        found && (
          <p role="status" className="mb-3 text-lg leading-snug">
            Buy <span className="num">{found.number}</span> young: with{" "}
            {units.text(found.chance_frac, "share")} you get them. That comes to{" "}
            {units.text(found.young_money, "money")}, grown ones to {units.text(found.grown_money, "money")}.
            {found.over > 0 && ` Some ${found.over} more grow up, and need a home.`}
          </p>
        )
      )}
      {FIELDS.map(([key, label, kind]) => (
        <NumberLine
          key={key}
          label={label}
          kind={kind}
          value={asking[key] ?? 0}
          set={(value) => value !== null && setAsking({ ...asking, [key]: value })}
        />
      ))}
    </Dialog>
  );
}
