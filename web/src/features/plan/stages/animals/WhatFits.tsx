import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type Plan, type WhatFits as Fitting } from "@/api/client";
import { Button } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { usePlanInUse, useSession } from "../../context";
import { useRows } from "@/ui/editing/rows";

/** The inverse question: which kinds this tank would hold beside those aboard, how many, and what keeps out the rest. */
export function WhatFits() {
  const { library } = usePlanInUse();
  const plan = useSession((state) => state.content);
  const monthsAhead = useSession((state) => state.monthsAhead);
  const [askedOf, ask] = useState<Plan | null>(null);
  const found = useQuery({
    queryKey: ["fits", askedOf, monthsAhead],
    queryFn: ({ signal }) =>
      asked(client.POST("/api/fits", { body: { plan: askedOf!, months_ahead: monthsAhead }, signal })),
    enabled: askedOf !== null,
    gcTime: 0,
    staleTime: Infinity,
  });
  const old = found.data && askedOf !== plan;
  return (
    <section aria-label="What fits here" className="mb-6">
      <p className="flex flex-wrap items-center gap-3">
        <Button onClick={() => ask(plan)}>What fits here?</Button>
        <span role="status" className="text-sm text-quiet">
          {found.isFetching && `Trying ${library.species.length} kinds in this tank…`}
          {old && "The plan has changed since: ask again."}
        </span>
        {found.isError && (
          <span role="alert" className="text-short">
            {found.error.message}
          </span>
        )}
      </p>
      {found.data && <Found found={found.data} />}
    </section>
  );
}

function Found({ found }: { found: Fitting }) {
  const { add, full } = useRows("animals");
  const units = useUnits();
  const groups = [...new Set(found.fits.map(({ group }) => group))];
  return (
    <>
      <p className="mt-2">
        {found.fits.length === 0
          ? "Nothing fits with everything holding."
          : `${found.fits.length} kinds fit.`}{" "}
        <span className="text-sm text-quiet">
          Kept out by{" "}
          {found.kept_out.map(({ check, count }) => `${check.toLowerCase()} ${count}`).join(", ") ||
            "nothing"}
          .
        </span>
      </p>
      {groups.map((group) => (
        <details key={group} className="mt-1">
          <summary className="cursor-pointer font-semibold">
            {group}{" "}
            <span className="font-normal text-quiet">
              {found.fits.filter((fit) => fit.group === group).length}
            </span>
          </summary>
          <ul>
            {found.fits
              .filter((fit) => fit.group === group)
              .map((fit) => (
                <li
                  key={fit.species}
                  className="flex flex-wrap items-baseline gap-x-3 border-b border-line/60 py-1 text-sm"
                >
                  <span className="min-w-0 flex-1">
                    <span className="font-semibold">{fit.common}</span>{" "}
                    <i className="text-quiet">{fit.scientific}</i>
                    <span className="block text-quiet">
                      up to <span className="num">{fit.most}</span>
                      {fit.binds && `, then: ${fit.binds.toLowerCase()}`}
                      {fit.used_frac != null &&
                        `; ${fit.least} leave ${units.text(1 - fit.used_frac, "share")} of the balance`}
                    </span>
                  </span>
                  {!full && (
                    <Button
                      look="word"
                      aria-label={`Add ${fit.least} ${fit.common}`}
                      onClick={() => add({ species: fit.species, number: fit.least })}
                    >
                      add {fit.least}
                    </Button>
                  )}
                </li>
              ))}
          </ul>
        </details>
      ))}
    </>
  );
}
