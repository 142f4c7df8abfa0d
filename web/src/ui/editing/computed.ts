import { createContext, useContext, useSyncExternalStore } from "react";
import type { ComputedState } from "@/lib/document/computedSession";

interface Computed<State> {
  state: State;
  subscribe: (listener: () => void) => () => void;
}

/** What the page of a computed document shares: its session, how a working is opened, and what that page adds. */
export type InUse<Session, More = object> = More & {
  session: Session;
  openFigure: (figure: string) => void;
};

/** The context of one kind of computed document, and what reads a part of it: what shows a part is drawn anew only when it
 * changes. */
export function computedContext<
  Content,
  Sheet,
  State extends ComputedState<Content, Sheet>,
  Session extends Computed<State>,
  More = object,
>() {
  const Context = createContext<InUse<Session, More> | null>(null);

  function useInUse(): InUse<Session, More> {
    const value = useContext(Context);
    if (!value) throw new Error("a computed document's context is missing");
    return value;
  }

  function useState<Part>(part: (state: State) => Part): Part {
    const { session } = useInUse();
    return useSyncExternalStore(session.subscribe, () => part(session.state));
  }

  /** One part of the figures; nothing while none could be made yet. */
  function useSheet<Part>(part: (sheet: Sheet) => Part): Part | undefined {
    return useState(({ sheet }) => (sheet ? part(sheet) : undefined));
  }

  function useDocument<Part>(part: (content: Content) => Part): Part {
    return useState(({ content }) => part(content));
  }

  return { Context, useInUse, useState, useSheet, useDocument };
}
