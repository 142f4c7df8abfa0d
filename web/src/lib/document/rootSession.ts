import { asked, client } from "@/api/client";
import { ComputedSession, type ComputedState } from "./computedSession";
import { opened, type DocumentServer, type Kept } from "./documentSession";
import { draftOf, Drafts } from "./drafts";

/** Where a document stands in its history, as every root is kept. */
export interface Standing {
  id: number;
  created: string;
  revision: number;
  saved: string;
  can_undo: boolean;
  can_redo: boolean;
}

/** A root: what its documents are called, where they are kept, and where their drafts are computed. */
export interface Root {
  name: "system" | "room" | "venture";
  part: "plan" | "room" | "venture";
  at: string;
  draftsAt: string;
  /** What a question about a draft says beside it. */
  beside?: () => object;
}

type Call = (path: string, given: object) => Promise<{ data?: unknown; error?: unknown; response: Response }>;

/** The client for paths that are put together: what they answer, the root says. */
const loose = client as unknown as Record<"GET" | "PUT" | "POST" | "DELETE", Call>;
const answered = <T>(answer: ReturnType<Call>): Promise<T> =>
  asked(answer as Promise<{ data?: T; error?: unknown; response: Response }>);

export const documentOf = (root: Root, id: number): string => `${root.name}.${id}`;

/** What the server does with the documents of a root. */
export function documentsOf<Content, Out extends Standing>(root: Root) {
  const one = (id: number) => ({ params: { path: { number: id } } });
  const at = `${root.at}/{number}`;
  return {
    read: (id: number) => answered<Out>(loose.GET(at, one(id))),
    save: (id: number, base: number, content: Content) =>
      answered<Out>(loose.PUT(at, { ...one(id), body: { base, [root.part]: content } })),
    step: (id: number, base: number, direction: "undo" | "redo") =>
      answered<Out>(loose.POST(`${at}/${direction}`, { ...one(id), body: { base } })),
    putAway: (id: number) => answered<void>(loose.DELETE(at, one(id))),
    bringBack: (id: number) => answered<void>(loose.POST(`${at}/restore`, one(id))),
  };
}

/** Ask something of a draft, by the last part of its path. */
export const askedOfDraft = <Answer>(root: Root, what: string, body: object, signal: AbortSignal) =>
  answered<Answer>(loose.POST(`${root.draftsAt}/${what}`, { body: { ...root.beside?.(), ...body }, signal }));

/** A document as sessions hold it. */
export function keptOf<Content>(root: Root, out: Standing): Kept<Content> {
  return {
    id: out.id,
    content: (out as unknown as Record<string, Content>)[root.part]!,
    revision: out.revision,
    savedAt: out.saved,
    canUndo: out.can_undo,
    canRedo: out.can_redo,
  };
}

/** What a session asks of the server, by what the server answers. */
export function keeperOf<Content>(
  root: Root,
  server: Pick<ReturnType<typeof documentsOf<Content, Standing>>, "read" | "save" | "step">,
): DocumentServer<Content> {
  return {
    read: async (id) => keptOf(root, await server.read(id)),
    save: async (id, base, content) => keptOf(root, await server.save(id, base, content)),
    step: async (id, base, direction) => keptOf(root, await server.step(id, base, direction)),
  };
}

/** One document being edited: every edit is computed at once. */
export class RootSession<Content, Sheet> extends ComputedSession<
  Content,
  Sheet,
  ComputedState<Content, Sheet>
> {
  constructor(
    readonly root: Root,
    out: Standing,
  ) {
    const drafts = new Drafts<Content>(draftOf(root.name, out.id, out.created));
    const state = { ...opened(keptOf<Content>(root, out), drafts), sheet: null, sheetOf: null };
    super(state, documentOf(root, out.id), keeperOf(root, documentsOf<Content, Standing>(root)), drafts);
  }

  protected ask(content: Content, signal: AbortSignal): Promise<Sheet> {
    return askedOfDraft<Sheet>(this.root, "sheet", { [this.root.part]: content }, signal);
  }
}
