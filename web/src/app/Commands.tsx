import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { roomsQuery, systemNamesQuery } from "@/api/queries";
import { Dialog } from "@/ui/controls";
import { Combobox } from "@/ui/fields/Combobox";

interface CommandsProps {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  turnLights: () => void;
  showUnits: () => void;
}

/** Anything by typing a part of its name: systems, and what can be done from everywhere. */
export function Commands({ open, onOpenChange, turnLights, showUnits }: CommandsProps) {
  const navigate = useNavigate();
  const systems = useQuery(systemNamesQuery);
  const rooms = useQuery(roomsQuery);
  const all = [
    ...(systems.data ?? []).map((system) => ({
      key: `system-${system.id}`,
      words: system.name,
      run: () =>
        void navigate({ to: "/systems/$id/$stage", params: { id: String(system.id), stage: "animals" } }),
    })),
    { key: "systems", words: "All systems", run: () => void navigate({ to: "/systems" }) },
    ...(rooms.data ?? []).map((room) => ({
      key: `room-${room.id}`,
      words: `Room: ${room.name}`,
      run: () => void navigate({ to: "/rooms/$id/$stage", params: { id: String(room.id), stage: "racks" } }),
    })),
    { key: "rooms", words: "All rooms", run: () => void navigate({ to: "/rooms" }) },
    { key: "round", words: "Today’s round", run: () => void navigate({ to: "/round" }) },
    {
      key: "away",
      words: "A holiday, and a stand-in’s sheet",
      run: () => void navigate({ to: "/round/away" }),
    },
    { key: "stock", words: "Stock and spares", run: () => void navigate({ to: "/round/stock" }) },
    {
      key: "feeding",
      words: "Feeding: the week and what is at hand",
      run: () => void navigate({ to: "/round/feeding" }),
    },
    { key: "register", words: "Register", run: () => void navigate({ to: "/register" }) },
    {
      key: "quarantine",
      words: "Quarantine: tubs and who is to come",
      run: () => void navigate({ to: "/register/quarantine" }),
    },
    { key: "breeding", words: "Breeding: what a tank brings", run: () => void navigate({ to: "/breeding" }) },
    {
      key: "rack",
      words: "Rack plan: the best use of the tanks",
      run: () => void navigate({ to: "/breeding/rack" }),
    },
    { key: "log", words: "Log of all systems", run: () => void navigate({ to: "/log" }) },
    { key: "library", words: "Library", run: () => void navigate({ to: "/library" }) },
    { key: "waters", words: "Waters", run: () => void navigate({ to: "/waters" }) },
    { key: "units", words: "Choose units", run: showUnits },
    { key: "lights", words: "Lights on or out", run: turnLights },
  ];
  return (
    <Dialog title="Go to, or do" open={open} onOpenChange={onOpenChange}>
      <Combobox
        open
        label="Search"
        listLabel="Found"
        find={(typed) => all.filter(({ words }) => words.toLowerCase().includes(typed.toLowerCase()))}
        keyOf={({ key }) => key}
        show={({ words }) => words}
        pick={({ run }) => {
          onOpenChange(false);
          run();
        }}
        none={systems.isPending ? "Reading the names…" : "Nothing is called that."}
      />
    </Dialog>
  );
}
