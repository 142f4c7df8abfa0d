import type { Draft } from "@/lib/document/drafts";
import { moment } from "@/lib/shown/moments";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useEdited, useEditing } from "./context";

/** Edits that are not kept on the server: why, where they are meanwhile, and what can be done. */
export function Unkept() {
  const { session } = useEditing();
  const saving = useEdited((state) => state.saving);
  const trouble = useEdited((state) => state.trouble);
  const drafts = useEdited((state) => state.drafts);
  return (
    <>
      {saving === "stale" && (
        <Told>
          <span>This was changed in another tab meanwhile. Nothing of either is lost.</span>
          <Button onClick={() => void session.takeOver()}>Keep mine, on top of it</Button>
          <Button onClick={() => void session.reload()}>Discard mine, show the other</Button>
        </Told>
      )}
      {saving === "away" && (
        <Told>
          The server does not answer. Your edits are kept here and saved as soon as it is back. They are kept
          in this browser too, should the page be closed.
        </Told>
      )}
      {trouble && (
        <Told>
          <span>
            <Says sentence={trouble} />
          </span>
          {saving === "refused" && <Button onClick={() => void session.save()}>Try again</Button>}
        </Told>
      )}
      {drafts.map((draft) => (
        <Left key={draft.key} draft={draft} />
      ))}
    </>
  );
}

/** Edits that an earlier page left. */
function Left({ draft }: { draft: Draft<object> }) {
  const { session } = useEditing();
  const revision = useEdited((state) => state.revision);
  return (
    <Told calm>
      <span>
        Edits of {moment(draft.at)} were not saved and are kept in this browser
        {draft.base < revision
          ? `; they were made on revision ${draft.base}, it is at ${revision} now.`
          : "."}
      </span>
      <Button onClick={() => session.takeUp(draft)}>Take them up</Button>
      <Button onClick={() => session.forget(draft)}>Let them go</Button>
    </Told>
  );
}

function Told({ calm, children }: { calm?: boolean; children: React.ReactNode }) {
  return (
    <div
      role={calm ? "status" : "alert"}
      className={`mt-2 flex flex-wrap items-center gap-3 border-l-3 py-1 pl-3 ${calm ? "border-brass" : "border-short"}`}
    >
      {children}
    </div>
  );
}
