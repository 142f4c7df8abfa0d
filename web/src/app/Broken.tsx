import type { ErrorComponentProps } from "@tanstack/react-router";
import { Button } from "@/ui/controls";

/** What stands in a page's place when drawing it failed. */
export function Broken({ error }: ErrorComponentProps) {
  return (
    <main role="alert" className="max-w-xl p-8">
      <p className="mb-3">
        This page could not be drawn. What was saved is safe on the server, and edits that were not are kept
        in this browser and offered again. Reading the page again usually mends it.
      </p>
      <p className="mb-4 text-sm text-quiet">{String(error)}</p>
      <Button onClick={() => window.location.reload()}>Read again</Button>
    </main>
  );
}
