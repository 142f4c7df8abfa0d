import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { MoreHorizontal } from "lucide-react";
import { useState } from "react";
import { asked, client, type Source, type Water } from "@/api/client";
import { areasQuery, deletedWatersQuery, libraryQuery, watersQuery } from "@/api/queries";
import { Button, Menu, Select } from "@/ui/controls";
import { PutAway } from "@/ui/PutAway";
import { Measure, Says } from "@/ui/figures/Says";
import { ReportDialog } from "./ReportDialog";
import { WaterDialog } from "./WaterDialog";

type Editing = { id: number | null; revision: number; water: Source } | null;

/** The waters that every system may mix from, with what follows from each and what does not fit together. */
export function WatersPage() {
  const waters = useQuery(watersQuery);
  const library = useQuery(libraryQuery).data;
  const areas = useQuery(areasQuery).data ?? [];
  const [editing, setEditing] = useState<Editing>(null);
  const [reading, setReading] = useState(false);
  const [put, setPut] = useState<{ id: number; name: string } | null>(null);
  const queries = useQueryClient();
  const deleted = useQuery(deletedWatersQuery).data ?? [];
  const done = () => queries.invalidateQueries(watersQuery);
  const ask = useMutation({
    mutationFn: (area: string) =>
      asked(client.POST("/api/waters/from-area/{area}", { params: { path: { area } } })),
    onSuccess: done,
  });
  const remove = useMutation({
    mutationFn: (id: number) =>
      asked(client.DELETE("/api/waters/{water_id}", { params: { path: { water_id: id } } })),
    onSuccess: done,
  });
  const restore = useMutation({
    mutationFn: (id: number) =>
      asked(client.POST("/api/waters/{water_id}/restore", { params: { path: { water_id: id } } })),
    onSuccess: () => {
      setPut(null);
      return done();
    },
  });
  const failed = waters.error ?? ask.error ?? remove.error ?? restore.error;
  return (
    <main className="px-4 pt-3 pb-10 sm:px-6">
      <header className="mb-5 flex min-h-9 flex-wrap items-center gap-3 pr-44">
        <h1 className="text-xl font-semibold">Waters</h1>
        <Button
          look="strong"
          disabled={!library}
          onClick={() =>
            library &&
            setEditing({
              id: null,
              revision: 0,
              water: { ...library.new_rows.sources, src_name: "New water" } as Source,
            })
          }
        >
          New water
        </Button>
        <Button onClick={() => setReading(true)}>From a report</Button>
        <Select
          label="Ask the report service"
          value=""
          placeholder="ask the report service…"
          options={areas.map((area) => [area.key, area.label])}
          onChange={(area) => ask.mutate(area)}
        />
      </header>
      {put && (
        <p role="status" className="mb-4 border-l-3 border-brass py-1 pl-3">
          {put.name} is deleted.{" "}
          <Button look="word" onClick={() => restore.mutate(put.id)}>
            Undo
          </Button>
        </p>
      )}
      {failed && (
        <p role="alert" className="mb-4 text-short">
          {failed.message}
        </p>
      )}
      {waters.isPending && <p className="text-quiet">Opening…</p>}
      {waters.data?.length === 0 && (
        <p className="max-w-prose">
          No water yet. Enter the tap’s test, read the water company’s report, or ask the simulated report
          service.
        </p>
      )}
      <ul aria-label="Waters" className="border-t border-line">
        {waters.data?.map((row) => (
          <Line
            key={row.id}
            row={row}
            edit={() => row.water && setEditing({ id: row.id, revision: row.revision, water: row.water })}
            remove={() =>
              remove.mutate(row.id, { onSuccess: () => setPut({ id: row.id, name: nameOf(row) }) })
            }
          />
        ))}
      </ul>
      <PutAway rows={deleted} restore={(id) => restore.mutate(id)} />
      {editing && library && <WaterDialog {...editing} library={library} close={() => setEditing(null)} />}
      {reading && <ReportDialog close={() => setReading(false)} />}
    </main>
  );
}

interface LineProps {
  row: Water;
  edit: () => void;
  remove: () => void;
}

const nameOf = (row: Water) => row.water?.src_name ?? `Water ${row.id}`;

function Line({ row, edit, remove }: LineProps) {
  const { water } = row;
  const name = nameOf(row);
  if (!water)
    return (
      <li aria-label={name} className="flex items-start justify-between gap-4 border-b border-line py-3">
        <div>
          <p className="text-lg font-semibold">{name}</p>
          <p className="text-sm text-short">It can not be read: {row.why && <Says sentence={row.why} />}</p>
        </div>
        <Menu
          label={`More for ${name}`}
          trigger={<MoreHorizontal size={18} />}
          items={[{ words: "Delete", run: remove }]}
        />
      </li>
    );
  const cells: [string, number | null | undefined, string][] = [
    ["GH", water.src_gh_dgh, "hardness"],
    ["KH", water.src_kh_dkh, "carbonate"],
    ["conductivity", water.src_us_cm, "conductivity"],
    ["nitrate", water.src_nitrate_mg_l, "nitrate"],
    ["comes at", water.src_c, "temperature"],
  ];
  const derived = row.figures.filter((figure) => figure.value != null);
  return (
    <li aria-label={name} className="border-b border-line py-3">
      <div className="flex items-start justify-between gap-4">
        <div className="min-w-0">
          <button type="button" onClick={edit} className="min-h-9 text-lg font-semibold hover:text-edge-deep">
            {name}
          </button>
          <p className="flex flex-wrap gap-x-5 gap-y-1">
            {cells.map(([label, value, kind]) => (
              <span key={label}>
                <span className="text-quiet">{label}</span>{" "}
                {value == null ? "–" : <Measure value={value} kind={kind} />}
              </span>
            ))}
            {water.src_disinfectant === "unknown" ? (
              <span className="text-quiet">disinfectant to ask</span>
            ) : (
              water.src_disinfectant !== "none" && (
                <span>
                  <span className="text-quiet">{water.src_disinfectant}</span>{" "}
                  {water.src_chlorine_mg_l == null ? (
                    "strength not known"
                  ) : (
                    <Measure value={water.src_chlorine_mg_l} kind="chlorine" />
                  )}
                </span>
              )
            )}
          </p>
          <p className="mt-1 flex flex-wrap gap-x-5 text-sm text-quiet">
            {derived.map((figure) => (
              <span key={figure.key}>
                {figure.label} <Measure value={figure.value!} kind={figure.kind} />
              </span>
            ))}
          </p>
          {row.questions.map((question, i) => (
            <p key={i} className="mt-1 text-sm text-brass">
              {question.what}: <Says sentence={question.sentence} />
            </p>
          ))}
        </div>
        <Menu
          label={`More for ${name}`}
          trigger={<MoreHorizontal size={18} />}
          items={[
            { words: "Edit", run: edit },
            { words: "Delete", run: remove },
          ]}
        />
      </div>
    </li>
  );
}
