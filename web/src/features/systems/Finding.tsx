import type { SystemsOrder, SystemsPart } from "@/api/client";
import { Select } from "@/ui/controls";

const ORDERS: [SystemsOrder, string][] = [
  ["started", "as they were started"],
  ["name", "by name"],
  ["row", "by row or rack"],
  ["short", "what falls short first"],
  ["size", "largest first"],
];

interface FindingProps {
  part: SystemsPart;
  typed: string;
  type: (text: string) => void;
  order: SystemsOrder;
  turn: (order: SystemsOrder) => void;
}

/** How many there are, which are shown, and in which order. */
export function Finding({ part, typed, type, order, turn }: FindingProps) {
  return (
    <div className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2">
      <p role="status" className="basis-full text-quiet sm:basis-auto">
        {result(part)}
      </p>
      <input
        type="search"
        aria-label="Find systems"
        value={typed}
        maxLength={200}
        placeholder="name, animal, or what falls short"
        onChange={(event) => type(event.target.value)}
        className="min-h-9 w-72 [&::-webkit-search-cancel-button]:grayscale max-w-full rounded-sm border border-line bg-paper px-2 hover:border-edge pointer-coarse:min-h-11"
      />
      <Select label="Order" value={order} options={ORDERS} onChange={(key) => turn(key as SystemsOrder)} />
    </div>
  );
}

/** The list in one sentence. */
export function result({
  total,
  found,
  short,
  to_measure,
}: Pick<SystemsPart, "total" | "found" | "short" | "to_measure">): string {
  const systems = (count: number) => (count === 1 ? "1 system" : `${count} systems`);
  const which = found === total ? systems(total) : `${found} of ${systems(total)}`;
  if (found === 0) return `None of ${systems(total)} has all of these words.`;
  if (short == null) return `${which}.`;
  const measure = to_measure ? `; ${to_measure} to measure or ask` : "";
  if (short === 0) return `${which}: none falls short${measure}.`;
  return `${which}: ${short} ${short === 1 ? "falls" : "fall"} short${measure}.`;
}
