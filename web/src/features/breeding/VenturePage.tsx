import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useEffect, useState } from "react";
import type { VentureKept } from "@/api/client";
import { libraryQuery } from "@/api/queries";
import { left } from "@/lib/document/documentSession";
import { EditingContext } from "@/ui/editing/context";
import { VentureContext } from "./context";
import { documentOf, readVenture, VentureSession } from "./session";
import { VentureBench } from "./VentureBench";

/** A venture's page: reads it, then opens a session on it. */
export function VenturePage() {
  const { id, stage } = useParams({ from: "/breeding/$id/$stage" });
  const venture = useQuery({
    queryKey: ["venture", Number(id)],
    queryFn: () => left(documentOf(Number(id))).then(() => readVenture(Number(id))),
    staleTime: 0,
    gcTime: 0,
  });
  if (venture.isError)
    return (
      <main className="p-8" role="alert">
        <p className="mb-3">{venture.error.message}</p>
        <Link to="/breeding" className="font-semibold text-edge-deep underline">
          All that is bred
        </Link>
      </main>
    );
  if (!venture.data || venture.data.id !== Number(id))
    return <main className="p-8 text-quiet">Opening…</main>;
  return <Opened key={id} venture={venture.data} stage={stage} />;
}

function Opened({ venture, stage }: { venture: VentureKept; stage: string }) {
  const library = useQuery(libraryQuery).data;
  const [session] = useState(() => new VentureSession(venture));
  const [figure, openFigure] = useState<string | null>(null);
  useEffect(() => {
    session.open();
    return () => session.close();
  }, [session]);
  if (!library) return null;
  return (
    <EditingContext value={{ session, library }}>
      <VentureContext value={{ session, openFigure }}>
        <VentureBench stage={stage} figure={figure} closeFigure={() => openFigure(null)} />
      </VentureContext>
    </EditingContext>
  );
}
