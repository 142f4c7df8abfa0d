import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { systemNamesQuery } from "@/api/queries";
import { Dialog } from "@/ui/controls";

interface CommandsProps {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  turnLights: () => void;
  showUnits: () => void;
}

/** Anything by typing a part of its name: systems, and what can be done from everywhere. */
export function Commands({ open, onOpenChange, turnLights, showUnits }: CommandsProps) {
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const navigate = useNavigate();
  const systems = useQuery(systemNamesQuery);
  const all = [
    ...(systems.data ?? []).map((system) => ({
      words: system.name,
      run: () =>
        void navigate({ to: "/systems/$id/$stage", params: { id: String(system.id), stage: "animals" } }),
    })),
    { words: "All systems", run: () => void navigate({ to: "/systems" }) },
    { words: "Waters", run: () => void navigate({ to: "/waters" }) },
    { words: "Choose units", run: showUnits },
    { words: "Lights on or out", run: turnLights },
  ];
  const found = all.filter(({ words }) => words.toLowerCase().includes(typed.trim().toLowerCase()));
  const close = () => {
    onOpenChange(false);
    setTyped("");
    setAt(0);
  };
  const run = (index: number) => {
    close();
    found[index]?.run();
  };
  const press = (event: React.KeyboardEvent) => {
    const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 };
    const step = steps[event.key];
    if (step) setAt((at + step + found.length) % Math.max(1, found.length));
    else if (event.key === "Enter") run(at);
    else return;
    event.preventDefault();
  };
  return (
    <Dialog title="Go to, or do" open={open} onOpenChange={(shown) => (shown ? onOpenChange(true) : close())}>
      <input
        autoFocus
        role="combobox"
        aria-expanded="true"
        aria-controls="commands"
        aria-activedescendant={`command-${at}`}
        aria-label="Search"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={press}
        className="mb-3 w-full border-b border-edge bg-transparent py-2 outline-none"
      />
      <ul id="commands" role="listbox" aria-label="Found">
        {found.map(({ words }, i) => (
          <li
            key={words}
            id={`command-${i}`}
            role="option"
            aria-selected={i === at}
            onClick={() => run(i)}
            className="min-h-9 cursor-pointer px-2 py-1.5 aria-selected:bg-water"
          >
            {words}
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="text-quiet">Nothing is called that.</p>}
    </Dialog>
  );
}
