import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { isoDay, shortDay } from "@/lib/shown/days";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useSession } from "../context";

const today = () => isoDay(new Date());

/** Who joins when: batches by temper and the filter, sizes beside those who hold ground, the day's list, the way out. */
export function JoinOrder() {
  const id = useSession((state) => state.id);
  const revision = useSession((state) => state.revision);
  const joining = useQuery({
    queryKey: ["joining", id, revision, today()],
    queryFn: () =>
      asked(
        client.GET("/api/systems/{system_id}/joining", {
          params: { path: { system_id: id }, query: { today: today() } },
        }),
      ),
    staleTime: 0,
  });
  const found = joining.data;
  if (joining.isError) return <p className="text-short">{joining.error.message}</p>;
  if (!found) return <p className="text-quiet">Asking in what order they join…</p>;
  return (
    <section aria-label="In what order they join" className="mb-6 border-t border-line pt-3">
      <p className="mb-2 text-lg leading-snug">
        <Says sentence={found.result} />
      </p>
      <p className="mb-2 text-sm text-quiet">
        {found.written
          ? "Of the plan as it is saved, less those that live here by the register."
          : "Nobody is written down in the register here: the order is for all that are planned, as saved."}{" "}
        They wait in{" "}
        <Link to="/register/quarantine" className="text-edge-deep underline underline-offset-4">
          quarantine
        </Link>{" "}
        first.
      </p>
      <ol aria-label="Batches">
        {found.days.map((day, i) => (
          <li key={i} className="border-b border-line/60 py-2">
            <p>
              <span className="num">{shortDay(day.day)}</span>{" "}
              <span className="font-semibold">
                {day.joins.map((row) => `${row.count} ${row.common}`).join(", ")}
              </span>
            </p>
            <p className={`text-sm ${day.carried ? "text-quiet" : "text-short"}`}>
              <Says sentence={day.why} />
            </p>
            {day.joins.map(
              (row) =>
                row.sizes.length > 0 && (
                  <ul
                    key={row.species}
                    aria-label={`Sizes of ${row.common}`}
                    className="ml-5 list-disc text-sm"
                  >
                    {row.sizes.map((one) => (
                      <li key={one.school} className={one.possible ? "" : "text-quiet line-through"}>
                        <Says sentence={one.words} />
                      </li>
                    ))}
                  </ul>
                ),
            )}
            <details className="text-sm">
              <summary className="cursor-pointer py-1 font-semibold text-edge-deep">On the day</summary>
              <ol className="ml-5 list-decimal">
                {day.to_do.map((sentence, n) => (
                  <li key={n}>
                    <Says sentence={sentence} />
                  </li>
                ))}
              </ol>
              {day.joins.map((row) => (
                <WayOut key={row.species} id={id} animal={row.species} common={row.common} />
              ))}
            </details>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Where one goes that is hunted, by the checks of the other systems. */
function WayOut({ id, animal, common }: { id: number; animal: string; common: string }) {
  const [asking, setAsking] = useState(false);
  const places = useQuery({
    queryKey: ["joining", "out", id, animal],
    queryFn: () =>
      asked(
        client.GET("/api/systems/{system_id}/joining/out", {
          params: { path: { system_id: id }, query: { today: today(), animal } },
        }),
      ),
    enabled: asking,
  });
  if (!asking)
    return (
      <Button look="word" className="-ml-1.5" onClick={() => setAsking(true)}>
        If one {common} is hunted: where to?
      </Button>
    );
  if (!places.data) return <p className="text-quiet">Asking the other systems…</p>;
  return (
    <ul aria-label={`Where a ${common} could go`} className="mt-1">
      {places.data.places.map(({ name, place }) => (
        <li key={place.system_id} className={place.takes ? "" : "text-quiet"}>
          {name}: <Says sentence={place.against} />
        </li>
      ))}
    </ul>
  );
}
