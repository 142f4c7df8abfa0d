import { X } from "lucide-react";
import { useEffect, useRef } from "react";
import type { Working, WorkingNode } from "@/api/client";
import { parsed } from "@/lib/shown/quantity";
import { Button, Select } from "@/ui/controls";
import { NumberBox } from "@/ui/fields/NumberBox";
import { useUnits } from "@/ui/units";
import { Movers } from "./Movers";
import { Formula, Parts } from "./WorkingTree";

/** What a figure is to be brought to, and by which input; null lets the sheet choose. */
export interface Asking {
  target: number | null;
  path: string | null;
}

interface SlipProps {
  figure: string;
  /** The working; undefined while it is on its way. */
  working: Working | undefined;
  /** Why it can not be shown. */
  trouble: string | undefined;
  asking: Asking;
  ask: (asking: Asking) => void;
  use: (changes: Record<string, unknown>) => void;
  close: () => void;
}

/** The working of one figure: formula, numbers, source, what moves it, and what it would take. */
export function Slip({ figure, working, trouble, asking, ask, use, close }: SlipProps) {
  const head = useRef<HTMLHeadingElement>(null);
  const here = working !== undefined;
  useEffect(() => head.current?.focus(), [figure, here]);
  return (
    <aside aria-label="Working" className="border-edge bg-paper px-5 py-4 lg:border-l-2">
      <div className="flex items-start justify-between">
        <p className="text-sm text-quiet">working of</p>
        <button
          type="button"
          aria-label="Close the working"
          onClick={close}
          className="grid size-9 place-items-center text-quiet hover:text-ink pointer-coarse:size-11"
        >
          <X size={18} />
        </button>
      </div>
      {trouble && <p role="alert">The working can not be shown now: {trouble}</p>}
      {working && (
        <>
          <Head working={working} heading={head} />
          <Movers working={working} />
          <Taking key={figure} working={working} ask={ask} asking={asking} use={use} />
        </>
      )}
    </aside>
  );
}

function Head({
  working,
  heading,
}: {
  working: Working;
  heading: React.RefObject<HTMLHeadingElement | null>;
}) {
  const units = useUnits();
  const node = working.nodes[working.figure] as WorkingNode;
  return (
    <>
      <h2 ref={heading} tabIndex={-1} className="text-xl font-semibold outline-none">
        {node.label}
      </h2>
      {node.value == null ? (
        <p className="mt-2">{node.words}</p>
      ) : (
        <p className="mt-1">
          <span className="num text-3xl">{units.number(node.value, node.kind)}</span>{" "}
          <span className="num text-quiet">{units.unit(node.kind).label}</span>
        </p>
      )}
      {working.low != null && working.high != null && (
        <p className="text-sm text-quiet">
          likely; {units.number(working.low, node.kind)} to {units.number(working.high, node.kind)} over the
          range of what is uncertain
        </p>
      )}
      <div className="my-3 border-y border-line py-3">
        <Formula working={working} node={node} />
      </div>
      <Parts working={working} node={node} depth={0} />
      <p className="mt-3 text-sm text-quiet">Source: {node.source}</p>
    </>
  );
}

type TakingProps = Pick<SlipProps, "asking" | "ask" | "use"> & { working: Working };

/** Solve for an input: a target, the inputs that could bring it, and putting one to use. */
function Taking({ working, asking, ask, use }: TakingProps) {
  const units = useUnits();
  const node = working.nodes[working.figure] as WorkingNode;
  const target = asking.target ?? working.target ?? null;
  const inputs = Object.values(working.nodes).filter((part) => part.editable);
  if (inputs.length === 0) return null;
  const type = (text: string) => {
    const number = parsed(text);
    ask({ ...asking, target: number === null ? null : units.base(number, node.kind) });
  };
  return (
    <section aria-label="What would it take?" className="mt-4 border-t border-line pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="font-semibold">What would it take to bring it to</h3>
        <NumberBox
          label="What would it take to bring it to"
          shown={target === null ? "" : units.entry(target, node.kind)}
          type={type}
          unit={units.unit(node.kind).label}
        />
      </div>
      <div className="mt-1 text-sm text-quiet">
        by{" "}
        <Select
          quiet
          label="Input to solve for"
          value={asking.path ?? "most"}
          options={[
            ["most", "what moves it most"],
            ...inputs.map((part): [string, string] => [part.key, part.label]),
          ]}
          onChange={(path) => ask({ ...asking, path: path === "most" ? null : path })}
        />
      </div>
      {target === null && <p className="mt-2 text-sm text-quiet">Type a value to solve for.</p>}
      <ul className="mt-1">
        {working.answers.map((answer) => (
          <li key={answer.path} className="flex items-center justify-between gap-2 py-0.5">
            {answer.needed == null ? (
              <span className="text-sm text-quiet">{answer.label}: no value within its limits does</span>
            ) : (
              <>
                <span>
                  {answer.label} <b className="num font-semibold">{units.text(answer.needed, answer.kind)}</b>
                  {answer.present != null && (
                    <span className="text-sm text-quiet">
                      {" "}
                      instead of {units.text(answer.present, answer.kind)}
                    </span>
                  )}
                </span>
                <Button
                  look="word"
                  aria-label={`Use ${answer.label} ${units.text(answer.needed, answer.kind)}`}
                  onClick={() => use({ [answer.path]: answer.needed })}
                >
                  use
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
