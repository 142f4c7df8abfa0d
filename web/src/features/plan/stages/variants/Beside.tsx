import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type Plan, type Sheet } from "@/api/client";
import { Switch } from "@/ui/controls";
import { MovedLines } from "@/ui/figures/MovedLines";
import { Says } from "@/ui/figures/Says";
import { stateWord, Tube } from "@/ui/figures/Tube";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { Measure } from "@/ui/figures/Says";
import { usePlan, useSession, useSheet } from "../../context";

/** Parts in a thousand under which two figures are called the same. */
const SAME = 1e-3;

/** A, the plan as it is, and B, a variant: glasses and figures in two columns, what differs marked. */
export function Beside({ name, other }: { name: string; other: Plan }) {
  const monthsAhead = useSession((state) => state.monthsAhead);
  const plan = usePlan((whole) => whole);
  const mine = useSession((state) => state.sheet);
  const theirs = useQuery({
    queryKey: ["variant sheet", other, monthsAhead],
    queryFn: ({ signal }) =>
      asked(client.POST("/api/sheet", { body: { plan: other, months_ahead: monthsAhead }, signal })),
    gcTime: 0,
  });
  const apart = useQuery({
    queryKey: ["difference", plan, other],
    queryFn: ({ signal }) =>
      asked(client.POST("/api/plan/difference", { body: { before: plan, after: other }, signal })),
    gcTime: 0,
  });
  if (theirs.error) {
    return (
      <p role="alert" className="text-short">
        {theirs.error.message}
      </p>
    );
  }
  if (!mine || !theirs.data) return <p className="text-quiet">Computing…</p>;
  return (
    <section aria-label={`Beside ${name}`}>
      <h3 className="mb-1 font-semibold">What differs, from A to B</h3>
      <div className="mb-5 text-sm">
        {apart.data?.rows.length === 0 && <p>Nothing: both are the same.</p>}
        <MovedLines rows={apart.data?.rows ?? []} />
      </div>
      <table className="w-full text-left text-sm">
        <caption className="sr-only">Glasses of the plan as it is and of {name}</caption>
        <thead>
          <tr className="border-b border-line">
            <td />
            <th scope="col" className="py-1 font-semibold">
              A: as it is
            </th>
            <th scope="col" className="py-1 font-semibold">
              B: {name}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td />
            <td className="py-2 pr-3">
              <SectionDrawing section={mine.section} className="h-24 w-full" />
            </td>
            <td className="py-2">
              <SectionDrawing section={theirs.data.section} className="h-24 w-full" />
            </td>
          </tr>
          {glassRows(mine, theirs.data).map(({ label, cells }) => (
            <tr
              key={label}
              className={`border-b border-line/70 ${cells[0]?.state === cells[1]?.state ? "" : "bg-paper font-semibold"}`}
            >
              <th scope="row" className="py-1 pr-3 font-normal">
                {label}
              </th>
              {cells.map((glass, i) => (
                <td key={i} className="py-1">
                  {glass && (
                    <span className="flex items-center gap-2">
                      <Tube gauge={glass.gauge} state={glass.state} height={26} />
                      <span className={glass.state === "short" ? "text-short" : ""}>
                        <Says sentence={glass.headline} />, {stateWord(glass.state)}
                      </span>
                    </span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <FigureColumns theirs={theirs.data} name={name} />
    </section>
  );
}

function glassRows(mine: Sheet, theirs: Sheet) {
  return mine.glasses.map((glass) => ({
    label: glass.label,
    cells: [glass, theirs.glasses.find(({ key }) => key === glass.key)],
  }));
}

/** Every figure in two columns; those alike are left out until they are asked for. */
function FigureColumns({ theirs, name }: { theirs: Sheet; name: string }) {
  const mine = useSheet((sheet) => sheet.figures);
  const [all, setAll] = useState(false);
  const keys = Object.keys(mine).filter((key) => !key.includes(".") && theirs.figures[key]);
  const rows = keys
    .map((key) => ({ key, a: mine[key]!, b: theirs.figures[key]! }))
    .map((row) => ({ ...row, apart: apart(row.a.value ?? null, row.b.value ?? null) }))
    .filter(({ a, b, apart }) => (all || apart) && (a.value != null || b.value != null));
  return (
    <>
      <div className="mt-5 mb-1 flex items-center gap-3">
        <h3 className="flex-1 font-semibold">Figures{all ? "" : " that differ"}</h3>
        <span className="text-sm">all of them</span>
        <Switch label="Show all figures" on={all} onChange={setAll} />
      </div>
      <table className="w-full text-left text-sm">
        <caption className="sr-only">Figures of the plan as it is and of {name}</caption>
        <thead className="text-quiet">
          <tr className="border-b border-line">
            <th scope="col" className="py-1 font-normal">
              Figure
            </th>
            <th scope="col" className="py-1 pl-3 text-right font-normal">
              A
            </th>
            <th scope="col" className="py-1 pl-3 text-right font-normal">
              B
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ key, a, b, apart }) => (
            <tr
              key={key}
              className={`border-b border-line/70 ${apart && all ? "bg-paper font-semibold" : ""}`}
            >
              <th scope="row" className="py-0.5 font-normal">
                {a.label}
              </th>
              {[a, b].map((figure, i) => (
                <td key={i} className="py-0.5 pl-3 text-right">
                  {figure.value == null ? "none" : <Measure value={figure.value} kind={figure.kind} />}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function apart(a: number | null, b: number | null): boolean {
  if (a === null || b === null) return a !== b;
  return Math.abs(a - b) > SAME * Math.max(Math.abs(a), Math.abs(b), 1e-9);
}
