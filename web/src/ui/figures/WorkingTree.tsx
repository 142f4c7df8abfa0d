import { ChevronRight } from "lucide-react";
import { useState } from "react";
import type { Working, WorkingNode } from "@/api/client";
import type { Units } from "@/lib/shown/quantity";
import { useUnits } from "@/ui/units";
import { midSentence } from "@/lib/shown/words";

const DEEPEST = 8;

/** A part's value as it stands in a formula: a number, or the words of what was chosen. */
function short(node: WorkingNode | undefined, units: Units): string {
  if (!node) return "?";
  return node.value != null && node.kind
    ? units.number(node.value, node.kind)
    : node.value != null
      ? String(node.value)
      : node.words;
}

/** The formula twice: with names, and with the numbers put in. */
export function Formula({ working, node }: { working: Working; node: WorkingNode }) {
  const units = useUnits();
  if (!node.formula) return <p className="text-sm text-quiet">{node.words || "looked up"}</p>;
  const put = (write: (keys: string[]) => string) =>
    node.formula.replace(/\{(\w+)\}/g, (_, name: string) => write(node.parts[name] ?? []));
  const names = put((keys) => {
    const first = working.nodes[keys[0] ?? ""];
    return first ? midSentence(first.label.split(":")[0]!) : "nothing";
  });
  const numbers = put((keys) =>
    keys.length ? keys.map((key) => short(working.nodes[key], units)).join(" + ") : "0",
  );
  return (
    <>
      <p className="num text-sm break-words">{names}</p>
      <p className="num mt-1 text-sm break-words text-quiet">= {numbers}</p>
    </>
  );
}

/** What a figure is made of, each part opening in turn down to what was entered. */
export function Parts({ working, node, depth }: { working: Working; node: WorkingNode; depth: number }) {
  const keys = [...new Set(Object.values(node.parts).flat())];
  return (
    <ul className={depth > 0 ? "ml-3 border-l border-line pl-3" : ""}>
      {keys.map((key) => {
        const part = working.nodes[key];
        return part && <PartLine key={key} working={working} part={part} depth={depth} />;
      })}
    </ul>
  );
}

function PartLine({ working, part, depth }: { working: Working; part: WorkingNode; depth: number }) {
  const [open, setOpen] = useState(false);
  const units = useUnits();
  const opens = part.formula !== "" && depth < DEEPEST;
  const unit = part.value != null && part.kind ? ` ${units.unit(part.kind).label}` : "";
  const line = (
    <>
      <span className="text-left">{part.label}</span>
      <span className="num text-right text-sm">
        {short(part, units)}
        {unit}
      </span>
    </>
  );
  if (!opens) {
    return (
      <li className="flex items-baseline justify-between gap-3 border-b border-line/60 py-1 pr-5">
        <span className="contents" title={part.source}>
          {line}
        </span>
      </li>
    );
  }
  return (
    <li className="border-b border-line/60">
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="flex w-full items-baseline justify-between gap-3 py-1 hover:text-edge-deep pointer-coarse:min-h-11"
      >
        <span className="flex flex-1 items-baseline justify-between gap-3">{line}</span>
        <ChevronRight size={14} className={`shrink-0 self-center text-quiet ${open ? "rotate-90" : ""}`} />
      </button>
      {open && (
        <div className="pb-2">
          <div className="ml-3 border-l border-line py-1 pl-3">
            <Formula working={working} node={part} />
            <p className="mt-1 text-xs text-quiet">{part.source}</p>
          </div>
          <Parts working={working} node={part} depth={depth + 1} />
        </div>
      )}
    </li>
  );
}
