import type { Flow } from "@/api/client";
import { useUnits } from "@/ui/units";

/** The overflow at half, the planned and double the flow. */
export function FlowCases({ flow }: { flow: Flow }) {
  const units = useUnits();
  return (
    <table className="mb-5 w-full text-left">
      <caption className="mb-1 text-left text-sm font-semibold">The overflow when the flow changes</caption>
      <thead className="text-sm text-quiet">
        <tr className="border-b border-line">
          <th scope="col" className="py-1 font-normal">
            Flow
          </th>
          <th scope="col" className="py-1 text-right font-normal">
            above the crest
          </th>
          <th scope="col" className="py-1 text-right font-normal">
            of the drain
          </th>
          <th scope="col" className="py-1 text-right font-normal">
            of the emergency
          </th>
        </tr>
      </thead>
      <tbody>
        {flow.cases.map((row) => (
          <tr key={row.label} className="border-b border-line/70">
            <th scope="row" className="py-1.5 font-normal">
              {row.label}, <span className="num whitespace-nowrap">{units.text(row.flow_lph, "flow")}</span>
            </th>
            <td className="num py-1.5 text-right">{units.text(row.head_mm, "thickness")}</td>
            <Share share={row.drain_frac} passes={row.drain_passes} />
            <Share share={row.emergency_frac ?? null} passes={row.emergency_passes} />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Share({ share, passes }: { share: number | null; passes: boolean }) {
  const units = useUnits();
  return (
    <td className={`num py-1.5 text-right ${passes ? "" : "text-short"}`}>
      {share === null ? "none" : units.text(share, "share")}
    </td>
  );
}
