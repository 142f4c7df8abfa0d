import type { Moved } from "@/api/client";
import { Says } from "./Says";

/** What is turned, before and after. */
export function MovedLines({ rows }: { rows: Moved[] }) {
  return (
    <ul>
      {rows.map((row) => (
        <li key={row.path}>
          {row.label}:{" "}
          <span className="text-quiet">
            <Says sentence={row.before} />
          </span>{" "}
          <span aria-label="to">→</span>{" "}
          <b className="font-semibold">
            <Says sentence={row.after} />
          </b>
        </li>
      ))}
    </ul>
  );
}
