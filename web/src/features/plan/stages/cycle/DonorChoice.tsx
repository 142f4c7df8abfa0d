import { useQuery } from "@tanstack/react-query";
import { asked, client } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { usePlan, usePlanInUse, useSession } from "../../context";

/** The systems that could give media, each with how it would stand without that part. */
export function DonorChoice() {
  const { session } = usePlanInUse();
  const id = useSession((state) => state.id);
  const share = usePlan((plan) => plan.cycle?.donor_frac) ?? 0.3;
  const donors = useQuery({
    queryKey: ["donors", id, share],
    queryFn: () =>
      asked(
        client.GET("/api/systems/{system_id}/donors", {
          params: { path: { system_id: id }, query: { share } },
        }),
      ),
    enabled: share >= 0 && share <= 1,
  });
  if (donors.isError) return <p className="text-sm text-short md:col-span-2">{donors.error.message}</p>;
  return (
    <ul aria-label="Donors" className="text-sm md:col-span-2">
      {donors.data?.rows.map(({ id: other, name, donor }) => (
        <li key={other} className="flex items-baseline gap-3 border-b border-line/60 py-1">
          <span className="min-w-0 flex-1">
            <b className="font-semibold">{name}</b>{" "}
            <span className={donor.state === "short" ? "text-short" : "text-quiet"}>
              <Says sentence={donor.sentence} />
            </span>
          </span>
          <Button
            look="word"
            aria-label={`Media from ${name}`}
            onClick={() => session.edit({ "cycle.donor_mg_d": Math.round(donor.load_mg_d) })}
          >
            from here
          </Button>
        </li>
      ))}
    </ul>
  );
}
