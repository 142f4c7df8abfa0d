import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { Slip, type Asking } from "@/ui/figures/Slip";
import { usePlanInUse, useSession } from "./context";

/** The working of one figure of the plan as it is now. */
export function WorkingSlip({ figure, close }: { figure: string; close: () => void }) {
  const { session } = usePlanInUse();
  const sheetOf = useSession((state) => state.sheetOf);
  const plan = useSession((state) => state.content);
  const monthsAhead = useSession((state) => state.monthsAhead);
  const [asking, setAsking] = useState<Asking>({ target: null, path: null });
  const computed = sheetOf ?? plan;
  const working = useQuery({
    queryKey: ["working", figure, asking, computed, monthsAhead],
    queryFn: ({ signal }) => {
      const paths = asking.path ? [asking.path] : null;
      const body = { plan: computed, figure, target: asking.target, paths, months_ahead: monthsAhead };
      return asked(client.POST("/api/working", { body, signal }));
    },
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  return (
    <Slip
      figure={figure}
      working={working.data?.figure === figure ? working.data : undefined}
      trouble={working.error?.message}
      asking={asking}
      ask={setAsking}
      use={(changes) => session.edit(changes)}
      close={close}
    />
  );
}
