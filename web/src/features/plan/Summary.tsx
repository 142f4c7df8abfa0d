import { useUnits } from "@/ui/units";
import { useSession } from "./context";

/** How much water it is, and at which size its animals are looked at. */
export function Summary() {
  const units = useUnits();
  const water = useSession(({ sheet }) => sheet?.figures.real_volume_l?.value);
  const monthsAhead = useSession((state) => state.monthsAhead);
  const ahead = monthsAhead === 0 ? "at today’s size" : `in ${units.text(monthsAhead ?? 0, "months")}`;
  return (
    <>
      {water != null && `${units.text(water, "volume")} real water · `}
      {monthsAhead != null && `animals ${ahead} · `}
    </>
  );
}
