import { Link, Outlet } from "@tanstack/react-router";
import {
  BookOpen,
  Droplet,
  Egg,
  Fish,
  ListChecks,
  Moon,
  NotebookPen,
  Rows3,
  RectangleHorizontal,
  Sun,
} from "lucide-react";
import { useState } from "react";
import { useShortcuts } from "@/ui/shortcuts";
import { Commands } from "./Commands";
import { ShortcutList } from "./ShortcutList";
import { applyTheme, rememberedTheme, type Theme } from "./theme";
import { useUnits } from "@/ui/units";
import { UnitsDialog } from "./UnitsDialog";

applyTheme(rememberedTheme());

type Open = "units" | "commands" | "shortcuts" | null;

/** The rail, the tools at the top, and the page between them. */
export function Frame() {
  const [open, setOpen] = useState<Open>(null);
  const [theme, setTheme] = useState<Theme>(rememberedTheme);
  const turnLights = () => setTheme(applyTheme(theme === "dark" ? "light" : "dark"));
  const units = useUnits();
  useShortcuts({
    u: () => setOpen("units"),
    "?": () => setOpen("shortcuts"),
    "Ctrl+k": () => setOpen("commands"),
  });
  const show = (which: Open) => (shown: boolean) => setOpen(shown ? which : null);
  return (
    <div className="flex min-h-screen flex-col-reverse sm:flex-row">
      <nav
        aria-label="Main"
        className="sticky bottom-0 z-20 flex print:hidden border-t border-line bg-ground sm:top-0 sm:h-screen sm:w-18 sm:flex-col sm:border-t-0 sm:border-r"
      >
        <span className="hidden py-3 text-center text-base font-bold text-edge sm:block">loquen</span>
        <Place to="/round" words="Round">
          <ListChecks size={18} />
        </Place>
        <Place to="/systems" words="Systems">
          <RectangleHorizontal size={18} />
        </Place>
        <Place to="/rooms" words="Rooms">
          <Rows3 size={18} />
        </Place>
        <Place to="/register" words="Register">
          <Fish size={18} />
        </Place>
        <Place to="/breeding" words="Breeding">
          <Egg size={18} />
        </Place>
        <Place to="/log" words="Log">
          <NotebookPen size={18} />
        </Place>
        <Place to="/waters" words="Waters">
          <Droplet size={18} />
        </Place>
        <Place to="/library" words="Library">
          <BookOpen size={18} />
        </Place>
        <span className="hidden flex-1 sm:block" />
        <button
          type="button"
          onClick={turnLights}
          className="flex min-h-12 flex-1 flex-col items-center justify-center gap-0.5 py-2 text-xs text-quiet hover:text-ink sm:flex-none"
        >
          {theme === "dark" ? <Sun size={18} /> : <Moon size={18} />}
          {theme === "dark" ? "Lights on" : "Lights out"}
        </button>
      </nav>
      <div className="min-w-0 flex-1">
        <div className="print:hidden absolute top-2.5 right-3 z-10 flex items-center gap-1 text-sm sm:right-6">
          <Tool onClick={() => setOpen("units")} label="Units">
            {units.unit("volume").label}, {units.unit("temperature").label}
          </Tool>
          <Tool onClick={() => setOpen("commands")} label="Search and commands">
            <kbd className="num text-xs">Ctrl K</kbd>
          </Tool>
          <Tool onClick={() => setOpen("shortcuts")} label="List of keys">
            <kbd className="num text-xs">?</kbd>
          </Tool>
        </div>
        <Outlet />
      </div>
      <UnitsDialog open={open === "units"} onOpenChange={show("units")} />
      <ShortcutList open={open === "shortcuts"} onOpenChange={show("shortcuts")} />
      <Commands
        open={open === "commands"}
        onOpenChange={show("commands")}
        turnLights={turnLights}
        showUnits={() => setOpen("units")}
      />
    </div>
  );
}

/** One place on the rail. */
function Place({
  to,
  words,
  children,
}: {
  to: "/round" | "/systems" | "/rooms" | "/register" | "/breeding" | "/log" | "/waters" | "/library";
  words: string;
  children: React.ReactNode;
}) {
  return (
    <Link
      to={to}
      className="flex min-h-12 flex-1 flex-col items-center justify-center gap-0.5 border-edge py-2 text-[10px] text-quiet sm:text-xs hover:text-ink sm:flex-none sm:border-l-3 sm:border-transparent"
      activeProps={{ className: "font-bold text-ink sm:border-edge!" }}
    >
      {children}
      {words}
    </Link>
  );
}

function Tool({
  label,
  onClick,
  children,
}: {
  label: string;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className="min-h-8 rounded-sm px-2 text-quiet hover:bg-paper hover:text-ink pointer-coarse:min-h-11 pointer-coarse:min-w-11"
    >
      {children}
    </button>
  );
}
