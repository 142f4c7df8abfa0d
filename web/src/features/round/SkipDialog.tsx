import { useState } from "react";
import type { RoundLine } from "@/api/client";
import { Button, Dialog } from "@/ui/controls";
import { Says, useSentenceText } from "@/ui/figures/Says";

const REASONS = [
  "no time today",
  "not needed: looked, and it is fine",
  "somebody else does it",
  "nothing to do it with",
];

/** Skipped, with the reason; what that costs is said first. */
export function SkipDialog({
  line,
  skip,
  close,
}: {
  line: RoundLine;
  skip: (reason: string) => void;
  close: () => void;
}) {
  const [reason, setReason] = useState("");
  const text = useSentenceText();
  return (
    <Dialog title="Skip it" open onOpenChange={close}>
      <p className="mb-3">{text(line.words)}</p>
      {line.cost && (
        <p className="mb-3 text-short">
          <Says sentence={line.cost} />
        </p>
      )}
      <div className="mb-3 flex flex-col items-start gap-1.5">
        {REASONS.map((words) => (
          <Button key={words} onClick={() => skip(words)}>
            {words}
          </Button>
        ))}
      </div>
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (reason.trim()) skip(reason.trim());
        }}
      >
        <input
          aria-label="Another reason"
          placeholder="another reason"
          value={reason}
          maxLength={200}
          onChange={(event) => setReason(event.target.value)}
          className="min-h-9 min-w-0 flex-1 border border-line bg-paper px-2"
        />
        <Button type="submit" look="strong" disabled={!reason.trim()}>
          Skip it
        </Button>
      </form>
    </Dialog>
  );
}
