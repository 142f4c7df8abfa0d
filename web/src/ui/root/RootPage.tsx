import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useEffect, useState, type ReactNode } from "react";
import { Refused } from "@/api/client";
import { libraryQuery } from "@/api/queries";
import { left } from "@/lib/document/documentSession";
import { documentOf, documentsOf, type Root, type Standing } from "@/lib/document/rootSession";
import { Button } from "@/ui/controls";
import { EditingContext } from "@/ui/editing/context";
import { RootContext, type ComputedDocument, type RootInUse } from "./context";

interface RootPageProps<Out> {
  root: Root;
  id: number;
  /** The page of all of them. */
  all: { to: "/systems" | "/rooms" | "/breeding"; label: string };
  /** What is shown of one whose document can not be read. */
  unreadable?: (readAgain: () => void) => ReactNode;
  children: (out: Out) => ReactNode;
}

/** The page of one document: reads it once nothing of it is on its way any more, then shows it. */
export function RootPage<Out extends Standing>({ root, id, all, unreadable, children }: RootPageProps<Out>) {
  const found = useQuery({
    queryKey: [root.name, id],
    queryFn: () => left(documentOf(root, id)).then(() => documentsOf<unknown, Out>(root).read(id)),
    staleTime: 0,
    gcTime: 0,
    retry: (count, cause) => cause instanceof Refused && cause.status === 0 && count < 1,
  });
  if (found.isError) {
    const refused = found.error instanceof Refused ? found.error : null;
    const readAgain = () => void found.refetch();
    if (unreadable && refused?.fault?.code === "unreadable") return <>{unreadable(readAgain)}</>;
    return (
      <main className="p-8" role="alert">
        <p className="mb-3">{found.error.message}</p>
        {refused?.status !== 404 && (
          <Button className="mr-4" onClick={readAgain}>
            Try again
          </Button>
        )}
        <Link to={all.to} className="font-semibold text-edge-deep underline">
          {all.label}
        </Link>
      </main>
    );
  }
  if (!found.data || found.data.id !== id) return <main className="p-8 text-quiet">Opening…</main>;
  return <>{children(found.data)}</>;
}

interface OpenedRootProps extends Pick<RootInUse, "knownOnly"> {
  root: Root;
  session: ComputedDocument;
  children: (
    figure: string | null,
    openFigure: (figure: string) => void,
    closeFigure: () => void,
  ) => ReactNode;
}

/** A session at work: opened with the page, closed with it, its fields and figures in reach of what it shows. */
export function OpenedRoot({ root, session, knownOnly, children }: OpenedRootProps) {
  const library = useQuery(libraryQuery).data;
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
    <EditingContext value={{ session, library }}>
      <RootContext value={{ root, session, openFigure: setFigure, knownOnly }}>
        {children(figure, setFigure, () => setFigure(null))}
      </RootContext>
    </EditingContext>
  );
}
