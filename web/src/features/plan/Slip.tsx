import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { asked, client, type Working, type WorkingNode } from "@/api/client";
import { parsed } from "@/lib/quantity";
import { Button, Select } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { usePlanInUse, useSession } from "./context";
import { Movers } from "./Movers";
import { Formula, Parts } from "./WorkingTree";

/** The working of one figure: formula, numbers, source, what moves it, and what it would take. */
export function Slip({ figure, close }: { figure: string; close: () => void }) {
  const sheetOf = useSession((state) => state.sheetOf);
  const plan = useSession((state) => state.plan);
  const monthsAhead = useSession((state) => state.monthsAhead);
  const [asking, setAsking] = useState<{ target: number | null; path: string | null }>({
    target: null,
    path: null,
  });
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
  const data = working.data?.figure === figure ? working.data : undefined;
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => head.current?.focus(), [figure, data === undefined]); // eslint-disable-line react-hooks/exhaustive-deps
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
      {working.isError && <p role="alert">The working can not be shown now: {working.error.message}</p>}
      {data && (
        <>
          <Head working={data} heading={head} />
          <Movers working={data} />
          <Taking key={figure} working={data} ask={setAsking} asking={asking} />
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

interface TakingProps {
  working: Working;
  asking: { target: number | null; path: string | null };
  ask: (asking: { target: number | null; path: string | null }) => void;
}

/** Solve for an input: a target, the inputs that could bring it, and putting one to use. */
function Taking({ working, asking, ask }: TakingProps) {
  const units = useUnits();
  const { session } = usePlanInUse();
  const node = working.nodes[working.figure] as WorkingNode;
  const [typed, setTyped] = useState<string | null>(null);
  const target = asking.target ?? working.target ?? null;
  const inputs = Object.values(working.nodes).filter((part) => part.editable);
  if (inputs.length === 0) return null;
  const type = (text: string) => {
    setTyped(text);
    const number = parsed(text);
    ask({ ...asking, target: number === null ? null : units.base(number, node.kind) });
  };
  return (
    <section aria-label="What would it take?" className="mt-4 border-t border-line pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2 font-semibold">
          What would it take to bring it to
          <input
            inputMode="decimal"
            value={typed ?? (target === null ? "" : units.entry(target, node.kind))}
            onChange={(event) => type(event.target.value)}
            className="num min-h-8 w-20 rounded-sm border border-line bg-ground px-2 text-right font-normal pointer-coarse:min-h-11"
          />
        </label>
        <span className="text-sm text-quiet">{units.unit(node.kind).label}</span>
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
                  onClick={() => session.edit({ [answer.path]: answer.needed })}
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
