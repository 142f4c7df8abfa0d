import { useQuery } from "@tanstack/react-query";
import { deletedSystemsQuery } from "@/api/queries";
import { PutAway } from "@/ui/PutAway";

/** Systems that were deleted: they are kept, and can be brought back. */
export function Deleted({ restore }: { restore: (id: number) => void }) {
  return <PutAway rows={useQuery(deletedSystemsQuery).data ?? []} restore={restore} />;
}
