import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { asked, client } from "@/api/client";
import { useUnits } from "@/ui/units";
import { useRoomState } from "./context";

/** A zone as it could be built, and as it would be when something fails, side by side. */
export function Trials({ zone }: { zone: number }) {
  const room = useRoomState(({ sheetOf }) => sheetOf);
  const units = useUnits();
  const trials = useQuery({
    queryKey: ["room-trials", zone, room],
    queryFn: ({ signal }) => asked(client.POST("/api/room/trials", { body: { room: room!, zone }, signal })),
    enabled: room !== null,
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
  const rows = trials.data?.rows ?? [];
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="trials" className="mb-4">
      <h3 id="trials" className="mb-1 text-sm font-semibold">
        What else it could be, and what could go wrong
      </h3>
      <table className="w-full text-left text-sm">
        <thead className="text-quiet">
          <tr className="border-b border-line">
            <th scope="col" className="py-1 font-normal">
              With
            </th>
            {[
              "least of most",
              "least tank",
              `zone, ${units.unit("flow").label}`,
              `manifold, ${units.unit("pressure").label}`,
            ].map((words) => (
              <th key={words} scope="col" className="py-1 pl-3 text-right font-normal">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr
              key={row.key}
              className={`border-b border-line/70 ${row.key === "as_is" ? "bg-paper font-semibold" : ""}`}
            >
              <th scope="row" className="py-1 font-normal">
                {row.label}
              </th>
              <td className={`num pl-3 text-right ${row.even_frac < 0.8 ? "text-short" : ""}`}>
                {units.text(row.even_frac, "share")}
              </td>
              <td className="pl-3 text-right whitespace-nowrap">
                {row.least_tank} <span className="num">{units.text(row.least_lph, "flow")}</span>
              </td>
              <td className="num pl-3 text-right">{units.number(row.lph, "flow")}</td>
              <td className="num pl-3 text-right">{units.number(row.kpa, "pressure")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
