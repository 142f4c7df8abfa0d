import { useQuery } from "@tanstack/react-query";
import { useParams } from "@tanstack/react-router";
import { useState } from "react";
import type { System } from "@/api/client";
import { libraryQuery } from "@/api/queries";
import { OpenedRoot, RootPage } from "@/ui/root/RootPage";
import { Bench } from "./Bench";
import { PlanContext } from "./context";
import { PlanSession, SYSTEM } from "./session";
import { Unreadable } from "./Unreadable";

const ALL = { to: "/systems", label: "All systems" } as const;

/** A system's page. */
export function PlanPage() {
  const { id, stage } = useParams({ from: "/systems/$id/$stage" });
  return (
    <RootPage<System>
      root={SYSTEM}
      id={Number(id)}
      all={ALL}
      unreadable={(readAgain) => <Unreadable id={Number(id)} read={readAgain} />}
    >
      {(system) => <Opened key={system.id} system={system} stage={stage} />}
    </RootPage>
  );
}

function Opened({ system, stage }: { system: System; stage: string }) {
  const library = useQuery(libraryQuery).data;
  const [session] = useState(() => new PlanSession(system));
  if (!library) return null;
  return (
    <OpenedRoot root={SYSTEM} session={session}>
      {(figure, openFigure, closeFigure) => (
        <PlanContext value={{ session, library, openFigure }}>
          <Bench stage={stage} figure={figure} closeFigure={closeFigure} />
        </PlanContext>
      )}
    </OpenedRoot>
  );
}
