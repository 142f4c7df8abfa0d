import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import type { Home, ResidentOut } from "@/api/client";
import { Button, Menu } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { MoreHorizontal } from "lucide-react";
import { ArrivalDialog } from "./ArrivalDialog";
import { BuyDialog } from "./BuyDialog";
import { CardsDialog } from "./CardsDialog";
import { HappenedDialog } from "./HappenedDialog";
import { HomeOf } from "./HomeOf";
import { LifeDialog } from "./LifeDialog";
import { registerQuery, today, useRefresh } from "./register";
import { Unread } from "@/ui/unread/Unread";

type Asked =
  { what: "arrival" | "buy" | "cards" } | { what: "happened" | "life"; home: Home; resident: ResidentOut };

/** Who lives where: by home, each drawn as they are today beside what they grow to. */
export function RegisterPage() {
  const register = useQuery(registerQuery());
  const refresh = useRefresh();
  const units = useUnits();
  const [asked, setAsked] = useState<Asked | null>(null);
  const [told, setTold] = useState("");
  const found = register.data;
  const homes = found?.homes ?? [];
  // Who was moved back has no life line here any more.
  const living =
    asked?.what === "life"
      ? homes
          .find(({ system_id }) => system_id === asked.home.system_id)
          ?.residents.find(({ id }) => id === asked.resident.id)
      : undefined;
  const close = () => setAsked(null);
  const done = (words?: string) => {
    setTold(words ?? "");
    close();
    refresh();
  };
  return (
    <main className="max-w-5xl px-4 pt-3 pb-16 sm:px-6">
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-3 pr-44">
        <h1 className="text-xl font-semibold">Register</h1>
        <Button
          look="strong"
          disabled={homes.length === 0}
          title={found && homes.length === 0 ? "A system comes first." : undefined}
          onClick={() => setAsked({ what: "arrival" })}
        >
          Somebody new
        </Button>
        <Link to="/register/quarantine" className="text-edge-deep underline underline-offset-4">
          Quarantine
        </Link>
        <Menu
          label="More of the register"
          trigger={<MoreHorizontal size={18} />}
          items={[
            { words: "Before you buy", run: () => setAsked({ what: "cards" }) },
            { words: "How many young to buy", run: () => setAsked({ what: "buy" }) },
            {
              words: "Register as a table (CSV)",
              run: () => window.location.assign(`/api/register.csv?today=${today()}`),
            },
          ]}
        />
      </header>
      <Unread place="register" />
      {register.isPending && <p className="text-quiet">Asking every system…</p>}
      {register.isError && (
        <p role="alert" className="text-short">
          {register.error.message}
        </p>
      )}
      {found && (
        <p className="mb-3 text-lg leading-snug">
          <Says sentence={found.result} />
        </p>
      )}
      {told && (
        <p role="status" className="mb-3 border-l-3 border-brass pl-3">
          {told}
        </p>
      )}
      {homes
        .filter(({ residents }) => residents.length > 0)
        .map((home) => (
          <HomeOf
            key={home.system_id}
            home={home}
            open={(resident) => setAsked({ what: "life", home, resident })}
            note={(resident) => setAsked({ what: "happened", home, resident })}
            taken={done}
          />
        ))}
      {found && found.survival.length > 0 && (
        <section aria-labelledby="survival" className="border-t border-line pt-3">
          <h2 id="survival" className="mb-1 text-lg font-semibold">
            Alive after 90 days
          </h2>
          <ul>
            {found.survival.map((row) => (
              <li key={row.source} className="flex gap-3 border-b border-line/60 py-1">
                <span className="min-w-0 flex-1">{row.source}</span>
                <span className="text-quiet">
                  {row.came - row.died} of {row.came}
                </span>
                <span className="num w-14 text-right">{units.text(row.frac, "share")}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {found && found.homeless.length > 0 && (
        <p className="pt-3 text-short">
          In a system that was deleted:{" "}
          {found.homeless.map((row) => `${row.here} ${row.resident.name || row.common}`).join(", ")}. Bring
          the system back from the list of systems, and move them first.
        </p>
      )}
      {found && found.gone.length > 0 && (
        <p className="pt-3 text-quiet">
          Gone: {found.gone.map((row) => row.resident.name || row.common).join(", ")}.
        </p>
      )}
      {asked?.what === "arrival" && <ArrivalDialog homes={homes} close={close} done={done} />}
      {asked?.what === "cards" && <CardsDialog close={close} />}
      {asked?.what === "buy" && <BuyDialog close={close} />}
      {asked?.what === "happened" && (
        <HappenedDialog home={asked.home} homes={homes} resident={asked.resident} close={close} done={done} />
      )}
      {asked?.what === "life" && living && (
        <LifeDialog home={asked.home} resident={living} close={close} done={done} />
      )}
    </main>
  );
}
