import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useEffect, useState } from "react";
import { Refused, type System } from "@/api/client";
import { libraryQuery, systemQuery } from "@/api/queries";
import { left } from "@/lib/document/documentSession";
import { Button } from "@/ui/controls";
import { Bench } from "./Bench";
import { EditingContext } from "@/ui/editing/context";
import { PlanContext } from "./context";
import { documentOf, planServer, PlanSession } from "./session";
import { Unreadable } from "./Unreadable";

/** A system's page: reads the system, then opens a session on its plan. */
export function PlanPage() {
  const { id, stage } = useParams({ from: "/systems/$id/$stage" });
  const system = useQuery({
    ...systemQuery(Number(id)),
    queryFn: () => left(documentOf(Number(id))).then(() => planServer.read(Number(id))),
  });
  if (system.isError) {
    const refused = system.error instanceof Refused ? system.error : null;
    if (refused?.fault?.code === "unreadable")
      return <Unreadable id={Number(id)} read={() => void system.refetch()} />;
    return (
      <main className="p-8" role="alert">
        <p className="mb-3">{system.error.message}</p>
        {refused?.status !== 404 && (
          <Button className="mr-4" onClick={() => void system.refetch()}>
            Try again
          </Button>
        )}
        <Link to="/systems" className="font-semibold text-edge-deep underline">
          All systems
        </Link>
      </main>
    );
  }
  if (!system.data || system.data.id !== Number(id)) return <main className="p-8 text-quiet">Opening…</main>;
  return <Opened key={id} system={system.data} stage={stage} />;
}

function Opened({ system, stage }: { system: System; stage: string }) {
  const library = useQuery(libraryQuery).data;
  const [session] = useState(() => new PlanSession(system));
  const [figure, setFigure] = useState<string | null>(null);
  useEffect(() => {
    session.open();
    const warn = (event: BeforeUnloadEvent) => {
      if (session.state.saving !== "saved") event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => {
      window.removeEventListener("beforeunload", warn);
      session.close();
    };
  }, [session]);
  if (!library) return null;
  return (
    <PlanContext value={{ session, library, openFigure: setFigure }}>
      <EditingContext value={{ session, library }}>
        <Bench stage={stage} figure={figure} closeFigure={() => setFigure(null)} />
      </EditingContext>
    </PlanContext>
  );
}
