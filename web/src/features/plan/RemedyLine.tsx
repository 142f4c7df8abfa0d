import { Wrench } from "lucide-react";
import type { Remedy } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says, useSentenceText } from "@/ui/Says";
import { usePlanInUse } from "./context";

/** A change that mends something, and the word that makes it. */
export function RemedyLine({ remedy }: { remedy: Remedy }) {
  const { session } = usePlanInUse();
  const text = useSentenceText();
  return (
    <span className="flex flex-wrap items-center gap-x-2 text-sm">
      <Wrench size={13} className="text-quiet" />
      <span>
        <Says sentence={remedy.sentence} />
      </span>
      <Button
        look="word"
        aria-label={`Use: ${text(remedy.sentence)}`}
        onClick={() => session.edit(remedy.changes)}
      >
        use
      </Button>
    </span>
  );
}
