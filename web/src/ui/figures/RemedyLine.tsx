import { Wrench } from "lucide-react";
import type { Remedy } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says, useSentenceText } from "./Says";

/** A change that mends something, and the word that makes it. */
export function RemedyLine({ remedy, use }: { remedy: Remedy; use: (changes: Remedy["changes"]) => void }) {
  const text = useSentenceText();
  return (
    <span className="flex flex-wrap items-center gap-x-2 text-sm">
      <Wrench size={13} className="text-quiet" />
      <span>
        <Says sentence={remedy.sentence} />
      </span>
      <Button look="word" aria-label={`Use: ${text(remedy.sentence)}`} onClick={() => use(remedy.changes)}>
        use
      </Button>
    </span>
  );
}
