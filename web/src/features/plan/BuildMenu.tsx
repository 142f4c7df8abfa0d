import { Download } from "lucide-react";
import { useState } from "react";
import { asked, client, type BuildForm } from "@/api/client";
import { Dialog, Menu } from "@/ui/controls";
import { NumberField } from "@/ui/editing/fields";
import { PriceList } from "@/ui/editing/PriceList";
import { save } from "@/lib/document/save";
import { useUnits } from "@/ui/units";
import { usePlan, usePlanInUse } from "./context";

const FORMS: [BuildForm, string][] = [
  ["book.pdf", "Build book, PDF"],
  ["section.svg", "Section, SVG"],
  ["cuts.dxf", "Cutting list, DXF"],
  ["cuts.csv", "Cutting list, CSV"],
  ["parts.csv", "Parts, CSV"],
  ["parts.xlsx", "Parts, spreadsheet"],
];

/** What a builder takes away of the plan as it stands, saved to the person's own disk. */
export function BuildMenu() {
  const { session } = usePlanInUse();
  const units = useUnits();
  const [state, setState] = useState("");
  const [quoting, setQuoting] = useState(false);
  const take = async (form: BuildForm, words: string) => {
    setState(`Writing: ${words}`);
    try {
      const plan = session.state.content;
      const body = { plan, units: units.choice };
      const answer = client.POST("/api/build/{form}", { params: { path: { form } }, body, parseAs: "blob" });
      save((await asked<unknown>(answer)) as Blob, `${plan.name}, ${form}`);
      setState("");
    } catch (cause) {
      setState(cause instanceof Error ? cause.message : "That could not be written.");
    }
  };
  const takeAlong = async () => {
    try {
      const plan = session.state.content;
      const along = await asked(client.POST("/api/own/taken-along/plan", { body: { plan } }));
      save(new Blob([JSON.stringify(along)], { type: "application/json" }), `${plan.name}, plan.json`);
      setState("");
    } catch (cause) {
      setState(cause instanceof Error ? cause.message : "That could not be written.");
    }
  };
  return (
    <>
      <Menu
        label="Build: book, drawings, lists"
        trigger={<Download size={17} />}
        items={[
          { words: "Parts, prices and a quote", run: () => setQuoting(true) },
          ...FORMS.map(([form, words]) => ({ words, run: () => void take(form, words) })),
          { words: "The plan itself, with your own rows", run: () => void takeAlong() },
        ]}
      />
      <Dialog title="Parts, prices and a quote" open={quoting} onOpenChange={setQuoting} wide>
        <Quoted />
      </Dialog>
      {state && (
        <span role="status" className="self-center text-sm text-quiet">
          {state}
        </span>
      )}
    </>
  );
}

/** What the system comes to for somebody who has it built. */
function Quoted() {
  const plan = usePlan((whole) => whole);
  return (
    <PriceList of={plan} quote={() => asked(client.POST("/api/plan/quote", { body: { plan } }))}>
      <NumberField path="building.build_h" />
      <NumberField path="building.hour_money" />
      <NumberField path="building.margin_frac" />
    </PriceList>
  );
}
