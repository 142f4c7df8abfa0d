import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { Dialog, Select } from "@/ui/controls";

/** What to look at in the shop, to be ticked with a thumb. */
export function CardsDialog({ close }: { close: () => void }) {
  const cards = useQuery({
    queryKey: ["register", "cards"],
    queryFn: () => asked(client.GET("/api/register/cards")),
    staleTime: Infinity,
  }).data?.cards;
  const [key, setKey] = useState("fish");
  const [seen, setSeen] = useState<string[]>([]);
  const card = cards?.find((row) => row.key === key);
  return (
    <Dialog title="Before you buy" open onOpenChange={close}>
      {cards && (
        <p className="mb-3">
          <Select
            label="Kind of animal"
            value={key}
            options={cards.map((row) => [row.key, row.label])}
            onChange={(chosen) => {
              setKey(chosen);
              setSeen([]);
            }}
          />
        </p>
      )}
      <ul aria-label="To look at">
        {card?.look.map((words) => (
          <li key={words} className="border-b border-line/60">
            <label className="flex min-h-12 cursor-pointer items-center gap-3 py-1">
              <input
                type="checkbox"
                checked={seen.includes(words)}
                onChange={() =>
                  setSeen(seen.includes(words) ? seen.filter((other) => other !== words) : [...seen, words])
                }
                className="size-6 shrink-0 accent-edge"
              />
              <span>{words}</span>
            </label>
          </li>
        ))}
      </ul>
      {card && (
        <p role="status" className="mt-3 font-semibold">
          {seen.length === card.look.length
            ? "All seen."
            : `${seen.length} of ${card.look.length} seen: what is not, is a reason to go home without.`}
        </p>
      )}
      <Link
        to="/register/quarantine"
        search={{ expect: true }}
        className="mt-3 inline-block text-edge-deep underline underline-offset-4"
      >
        They are to come: find them a tub
      </Link>
    </Dialog>
  );
}
