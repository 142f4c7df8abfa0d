import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { MoreHorizontal } from "lucide-react";
import { asked, client, type Room } from "@/api/client";
import { deletedRoomsQuery, roomsQuery } from "@/api/queries";
import { Button, Menu } from "@/ui/controls";
import { keptRooms } from "./session";

/** The rooms, and a new one. */
export function RoomsPage() {
  const rooms = useQuery(roomsQuery);
  const deleted = useQuery(deletedRoomsQuery).data ?? [];
  const queries = useQueryClient();
  const navigate = useNavigate();
  const done = () => queries.invalidateQueries({ queryKey: ["rooms"] });
  const start = useMutation({
    mutationFn: () => asked(client.POST("/api/rooms", { body: { room: { name: "New room" } as Room } })),
    onSuccess: async ({ id }) => {
      await done();
      await navigate({ to: "/rooms/$id/$stage", params: { id: String(id), stage: "racks" } });
    },
  });
  const remove = useMutation({
    mutationFn: (id: number) => keptRooms.putAway(id),
    onSuccess: done,
  });
  const restore = useMutation({
    mutationFn: (id: number) => keptRooms.bringBack(id),
    onSuccess: done,
  });
  const failed = rooms.error ?? start.error ?? remove.error ?? restore.error;
  return (
    <main className="px-4 pt-3 pb-10 sm:px-6">
      <header className="mb-5 flex min-h-9 flex-wrap items-center gap-3 pr-44">
        <h1 className="text-xl font-semibold">Rooms</h1>
        <Button look="strong" disabled={start.isPending} onClick={() => start.mutate()}>
          New room
        </Button>
      </header>
      {failed && (
        <p role="alert" className="mb-4 text-short">
          {failed.message}
        </p>
      )}
      {rooms.isPending && <p className="text-quiet">Opening…</p>}
      {rooms.data?.length === 0 && (
        <p className="max-w-prose">
          No room yet. A room is racks of tanks on one line of water: laid out, sized and timed as one
          machine.
        </p>
      )}
      <ul className="max-w-3xl">
        {rooms.data?.map((room) => (
          <li key={room.id} className="flex items-center gap-4 border-b border-line py-3">
            <Link
              to="/rooms/$id/$stage"
              params={{ id: String(room.id), stage: "racks" }}
              className="flex-1 text-lg font-semibold hover:text-edge-deep"
            >
              {room.name}
            </Link>
            <span className="num text-quiet">
              {room.tanks} tanks, {room.racks} racks
            </span>
            <Menu
              label={`More about ${room.name}`}
              trigger={<MoreHorizontal size={18} />}
              items={[{ words: "Delete", run: () => remove.mutate(room.id) }]}
            />
          </li>
        ))}
      </ul>
      {deleted.length > 0 && (
        <section aria-labelledby="deleted-rooms" className="mt-8 text-sm text-quiet">
          <h2 id="deleted-rooms" className="font-semibold">
            Deleted
          </h2>
          <ul>
            {deleted.map((room) => (
              <li key={room.id} className="flex items-center gap-2">
                {room.name}
                <Button look="word" onClick={() => restore.mutate(room.id)}>
                  Bring back
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}
