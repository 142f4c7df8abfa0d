import type { Proposal } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { TakesLines } from "@/ui/figures/TakesLines";
import { SectionDrawing } from "@/ui/section/SectionDrawing";

const LEAST: Record<Proposal["least"][number], string> = {
  room: "least room",
  work: "least work",
  power: "least power",
};

interface ProposalsProps {
  proposals: Proposal[];
  busy: boolean;
  start: (chosen: Proposal, others: Proposal[]) => void;
}

/** Whole plans side by side, each with its reasons; what is out of reach is named. */
export function Proposals({ proposals, busy, start }: ProposalsProps) {
  return (
    <ol aria-label="Plans proposed" className="grid gap-x-8 gap-y-6 md:grid-cols-3">
      {proposals.map((proposal) => (
        <li key={proposal.least.join()} className="flex flex-col">
          <h3 className="mb-2 text-lg font-semibold first-letter:uppercase">{nameOf(proposal)}</h3>
          <SectionDrawing section={proposal.section} className="mb-2 h-28 w-full" />
          <TakesLines takes={proposal.takes} />
          <p className="mt-1 text-sm text-quiet">{proposal.parts} parts to buy beside the glass.</p>
          <Outcome proposal={proposal} />
          <details open className="mt-2 mb-3 text-sm">
            <summary className="min-h-8 cursor-pointer font-semibold text-edge-deep pointer-coarse:min-h-11">
              Why it is so
            </summary>
            <ul>
              {proposal.moves.map((move) => (
                <li key={move.lever} className="border-b border-line/70 py-1">
                  {move.moved.map((row) => (
                    <span key={row.path} className="block">
                      {row.label}: <Says sentence={row.after} />
                    </span>
                  ))}
                  <span className="block text-quiet">else short: {move.mends.join(", ")}</span>
                </li>
              ))}
            </ul>
          </details>
          <Button
            look={proposal.left.some(({ kills }) => kills) ? "plain" : "strong"}
            className="mt-auto"
            disabled={busy}
            onClick={() =>
              start(
                proposal,
                proposals.filter((other) => other !== proposal),
              )
            }
          >
            {proposal.left.some(({ kills }) => kills) ? "Start with it all the same" : "Start with this"}
          </Button>
        </li>
      ))}
    </ol>
  );
}

export function nameOf({ least }: Proposal): string {
  return least.map((want) => LEAST[want]).join(", ");
}

function Outcome({ proposal: { left, tight, notes, asks } }: { proposal: Proposal }) {
  return (
    <div className="mt-2 text-sm">
      {left.length === 0 && <p>Nothing falls short.</p>}
      {left.map((row) => (
        <p key={row.check} className="mb-1 text-short">
          <b>{row.label}</b>, {row.kills ? "animals die of it" : "out of reach"}:{" "}
          <Says sentence={row.reason} />
        </p>
      ))}
      {tight.length > 0 && (
        <ul aria-label="Tight" className="mb-1 text-quiet">
          {tight.map((sentence, i) => (
            <li key={i}>
              Tight: <Says sentence={sentence} />
            </li>
          ))}
        </ul>
      )}
      {asks.length > 0 && (
        <ul aria-label="After this" className="mb-1">
          {asks.map((sentence, i) => (
            <li key={i} className="border-l-3 border-dashed border-mark pl-2">
              After this: <Says sentence={sentence} />
            </li>
          ))}
        </ul>
      )}
      {notes.map((note, i) => (
        <p key={i} className="mb-1 border-l-3 border-brass pl-2">
          <Says sentence={note} />
        </p>
      ))}
    </div>
  );
}
