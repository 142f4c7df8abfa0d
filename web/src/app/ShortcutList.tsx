import { STAGE_KEYS } from "@/lib/document/stages";
import { Dialog } from "@/ui/controls";

const KEYS: [string, string][] = [
  [`1 – ${Math.min(9, STAGE_KEYS.length)}`, "the stages of a system"],
  ["[  ]", "previous and next system"],
  ["w", "working of the focused figure; Esc closes it"],
  ["z, Shift+z", "undo, redo"],
  ["r", "readings, on Cycle and Log"],
  ["u", "units"],
  ["Ctrl+K", "search and commands"],
  ["?", "this list"],
];

export function ShortcutList({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  return (
    <Dialog title="Keys" open={open} onOpenChange={onOpenChange}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
        {KEYS.map(([keys, words]) => (
          <div key={keys} className="col-span-2 grid grid-cols-subgrid">
            <dt>
              <kbd className="num">{keys}</kbd>
            </dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
