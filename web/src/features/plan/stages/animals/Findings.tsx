import type { Finding } from "@/api/client";
import { Says } from "@/ui/figures/Says";
import { stateWord, Tube } from "@/ui/figures/Tube";
import { useSheet } from "../../context";

/** Who was compared with whom and with the water, folded until asked for. */
export function Findings() {
  const pairs = useSheet((sheet) => sheet.pairs);
  const suited = useSheet((sheet) => sheet.suited);
  const company = useSheet((sheet) => sheet.company);
  const lists: [string, Finding[]][] = [
    ["Company, group by group", company],
    ["Pair by pair", pairs],
    ["Each in this water", suited],
  ];
  return lists
    .filter(([, found]) => found.length > 0)
    .map(([title, found]) => (
      <details key={title} className="mb-3">
        <summary className="cursor-pointer font-semibold">
          {title}{" "}
          <span className="font-normal text-quiet">
            {found.length} compared, {found.filter(({ state }) => state !== "holds").length} to settle
          </span>
        </summary>
        <ul className="mt-1">
          {found.map((finding, i) => (
            <li key={i} className="flex items-start gap-2 border-b border-line/60 py-1 text-sm">
              <Tube state={finding.state} height={22} />
              <span>
                {finding.who.join(" and ")}, {finding.what}:{" "}
                <span className={finding.state === "short" ? "text-short" : "text-quiet"}>
                  <Says sentence={finding.sentence} />{" "}
                  <span className="sr-only">({stateWord(finding.state)})</span>
                </span>
              </span>
            </li>
          ))}
        </ul>
      </details>
    ));
}
