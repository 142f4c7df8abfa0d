import { Button } from "@/ui/controls";

/** What was done, in a sentence, and the way back from it. */
export function Told({ words, undo }: { words: string; undo?: () => void }) {
  return (
    <p role="status" className="mb-3 flex flex-wrap items-center gap-3 border-l-3 border-brass pl-3">
      {words}
      {undo && (
        <Button look="word" onClick={undo}>
          Undo
        </Button>
      )}
    </p>
  );
}
