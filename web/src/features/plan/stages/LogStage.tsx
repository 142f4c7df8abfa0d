import { useQuery } from "@tanstack/react-query";
import { Says } from "@/ui/figures/Says";
import { LogBook } from "@/ui/log/LogBook";
import { logQuery } from "@/ui/log/log";
import { useSession } from "../context";
import { useForecast } from "../forecast";
import { Unread } from "@/ui/unread/Unread";

/** The log of this system. */
export function LogStage() {
  const id = useSession((state) => state.id);
  const log = useQuery(logQuery(id));
  const trends = useForecast("trends").data?.rows ?? [];
  const read = log.data?.some((row) => row.entry.kind === "reading" && row.entry.what === "nitrate") ?? false;
  const course = useForecast("nitrate", read).data?.course;
  return (
    <>
      {trends.length > 0 && (
        <ul aria-label="Trends" className="mb-4 text-lg leading-snug">
          {trends.map((row) => (
            <li key={row.what}>
              <Says sentence={row.sentence} />
            </li>
          ))}
        </ul>
      )}
      <Unread place="log" system={id} />
      <LogBook id={id} log={log.data} error={log.error} bands={course ? { nitrate: course } : undefined} />
    </>
  );
}
