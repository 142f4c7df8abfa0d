import { Link } from "@tanstack/react-router";
import { MoreHorizontal } from "lucide-react";
import { memo } from "react";
import type { SystemLine } from "@/api/client";
import { Menu } from "@/ui/controls";
import { SmallGlasses } from "@/ui/figures/Glasses";
import { Says } from "@/ui/figures/Says";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { useInView } from "@/ui/useInView";

interface SystemRowProps {
  line: SystemLine;
  /** Whether this browser keeps edits of it that are not saved. */
  unsaved: boolean;
  copy: () => void;
  remove: () => void;
}

/** One system: its section and its glasses, drawn while it is in view; or why it has none. */
export const SystemRow = memo(
  function SystemRow({ line, unsaved, copy, remove }: SystemRowProps) {
    const [element, inView, height] = useInView<HTMLLIElement>();
    const { section } = line;
    const copying = line.readable ? [{ words: "Copy", run: copy }] : [];
    return (
      <li
        ref={element}
        style={inView ? undefined : { minHeight: height }}
        className="flex items-center gap-4 border-b border-line py-4"
      >
        <Link
          to="/systems/$id/$stage"
          params={{ id: String(line.id), stage: "animals" }}
          className="group grid min-w-0 flex-1 items-center gap-x-8 gap-y-3 sm:grid-cols-[250px_1fr]"
        >
          <div className={section ? "h-24" : "hidden sm:block"}>
            {section && inView && <SectionDrawing section={section} className="h-24 w-full max-w-62" />}
          </div>
          <div className="min-w-0">
            <h2 className="text-lg font-semibold group-hover:text-edge-deep group-hover:underline">
              {line.name}
            </h2>
            {section ? (
              <>
                <p className="mb-2 text-sm text-quiet">
                  <Says sentence={line.summary} />
                  {line.to_measure > 0 && ` · ${line.to_measure} to measure or ask`}
                </p>
                <div className="min-h-8">{inView && <SmallGlasses glasses={line.glasses} />}</div>
              </>
            ) : (
              <p className="text-sm text-short">
                {line.readable ? "It can not be computed: " : "It can not be read: "}
                <Says sentence={line.summary} />
              </p>
            )}
            {unsaved && (
              <p className="mt-1 text-sm text-brass">
                Edits of it that are not saved are kept in this browser.
              </p>
            )}
          </div>
        </Link>
        <Menu
          label={`More for ${line.name}`}
          trigger={<MoreHorizontal size={18} />}
          items={[...copying, { words: "Delete", run: remove }]}
        />
      </li>
    );
  },
  // What a row shows; what it can do stays the same.
  (before, after) => before.line === after.line && before.unsaved === after.unsaved,
);
