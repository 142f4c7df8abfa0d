import { useParams } from "@tanstack/react-router";
import { useState } from "react";
import type { Venture, VentureKept, VentureSheet } from "@/api/client";
import { RootSession } from "@/lib/document/rootSession";
import { OpenedRoot, RootPage } from "@/ui/root/RootPage";
import { VentureContext } from "./context";
import { VENTURE } from "./session";
import { VentureBench } from "./VentureBench";

const ALL = { to: "/breeding", label: "All that is bred" } as const;

/** A venture's page. */
export function VenturePage() {
  const { id, stage } = useParams({ from: "/breeding/$id/$stage" });
  return (
    <RootPage<VentureKept> root={VENTURE} id={Number(id)} all={ALL}>
      {(venture) => <Opened key={venture.id} venture={venture} stage={stage} />}
    </RootPage>
  );
}

function Opened({ venture, stage }: { venture: VentureKept; stage: string }) {
  const [session] = useState(() => new RootSession<Venture, VentureSheet>(VENTURE, venture));
  return (
    <OpenedRoot root={VENTURE} session={session}>
      {(figure, openFigure, closeFigure) => (
        <VentureContext value={{ session, openFigure }}>
          <VentureBench stage={stage} figure={figure} closeFigure={closeFigure} />
        </VentureContext>
      )}
    </OpenedRoot>
  );
}
