import { asked, client } from "@/api/client";
import { AskedSlip } from "@/ui/figures/AskedSlip";
import { usePlanInUse, useSession } from "./context";

/** The working of one figure of the plan as it is now. */
export function WorkingSlip({ figure, close }: { figure: string; close: () => void }) {
  const { session } = usePlanInUse();
  const plan = useSession(({ sheetOf, content }) => sheetOf ?? content);
  const months_ahead = useSession((state) => state.monthsAhead);
  return (
    <AskedSlip
      figure={figure}
      of={["plan", plan, months_ahead]}
      ask={(question, signal) =>
        asked(client.POST("/api/working", { body: { ...question, plan, months_ahead }, signal }))
      }
      use={(changes) => session.edit(changes)}
      close={close}
    />
  );
}
