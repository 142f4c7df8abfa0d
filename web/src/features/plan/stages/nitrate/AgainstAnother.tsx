import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, Refused } from "@/api/client";
import { systemNamesQuery } from "@/api/queries";
import { Select } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { isoHere } from "@/ui/log/log";
import { useSession } from "../../context";

/** This tank against another of the house, whatever is fed and changed in either. */
export function AgainstAnother() {
  const id = useSession((state) => state.id);
  const plan = useSession((state) => state.sheetOf);
  const others = (useQuery(systemNamesQuery).data ?? []).filter((system) => system.id !== id);
  const [other, setOther] = useState<string>("");
  const found = useQuery({
    queryKey: ["ahead", "against", id, other, plan],
    queryFn: ({ signal }) =>
      asked(
        client.POST("/api/systems/{system_id}/nitrate/against/{other_id}", {
          params: { path: { system_id: id, other_id: Number(other) } },
          body: { plan: plan!, now: isoHere(new Date()) },
          signal,
        }),
      ),
    enabled: other !== "" && plan !== null,
    retry: false,
  });
  if (others.length === 0) return null;
  return (
    <section aria-label="Against another tank" className="mb-5">
      <p className="mb-1 flex flex-wrap items-center gap-2">
        <span className="font-semibold">Against another tank</span>
        <Select
          label="The other tank"
          value={other}
          placeholder="choose one"
          options={others.map((system) => [String(system.id), system.name])}
          onChange={setOther}
        />
      </p>
      {found.data && (
        <p>
          <Says sentence={found.data.sentence} />
        </p>
      )}
      {found.error && (
        <p role="alert" className="text-short">
          {found.error instanceof Refused && found.error.fault?.code === "nothing_read"
            ? "Four readings of nitrate in each are the least to go by."
            : found.error.message}
        </p>
      )}
    </section>
  );
}
