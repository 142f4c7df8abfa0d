import { Refused, type Fault, type FieldFault, type Sentence } from "@/api/client";
import { Drafts, type Draft } from "./drafts";

/**
 * away: no server answers, it is tried again. waiting: something is to be mended first. stale: another tab was faster.
 * refused: the server says that it can not keep it now, and why.
 */
export type Saving = "saved" | "unsaved" | "saving" | "away" | "waiting" | "stale" | "refused";

/** A document as the server keeps it, and where it stands in its history. */
export interface Kept<Content> {
  id: number;
  content: Content;
  revision: number;
  savedAt: string;
  canUndo: boolean;
  canRedo: boolean;
}

export interface DocumentState<Content> extends Kept<Content> {
  faults: Record<string, FieldFault>;
  problem: Sentence | null;
  saving: Saving;
  /** Why the server does not keep what was edited, while `saving` says that it refused. */
  trouble: Sentence | null;
  /** Edits that an earlier page left unsaved, the newest first. */
  drafts: Draft<Content>[];
}

/** What a session asks of the server. */
export interface DocumentServer<Content> {
  read(id: number): Promise<Kept<Content>>;
  save(id: number, base: number, content: Content): Promise<Kept<Content>>;
  step(id: number, base: number, direction: "undo" | "redo"): Promise<Kept<Content>>;
}

export const RETRY_MS = 1500;
export const BUSY = 503;
export const NO_FAULTS: Record<string, FieldFault> = {};
const QUIET_MS = 500;
const FULL_RETRY_MS = 15_000;
const NOT_KEPT = 507;
const UNSAVED: Saving[] = ["unsaved", "away", "refused"];

/** Saves of sessions that were left, by document: who opens it again waits for them. */
const leaving = new Map<string, Promise<void>>();

/** Resolves when nothing of an earlier session of this document is on its way any more. */
export const left = (document: string): Promise<void> => leaving.get(document) ?? Promise.resolve();

/** A new document's state, with what an earlier page left of it unless that is what is kept. */
export function opened<Content>(kept: Kept<Content>, drafts: Drafts<Content>): DocumentState<Content> {
  const now = JSON.stringify(kept.content);
  const unsaved = drafts.left().filter((draft) => {
    const same = JSON.stringify(draft.content) === now;
    if (same) drafts.forget(draft.key);
    return !same;
  });
  return { ...kept, faults: NO_FAULTS, problem: null, saving: "saved", trouble: null, drafts: unsaved };
}

/** One document being edited: it is saved when it makes sense, one save after another, and never lost. */
export abstract class DocumentSession<Content, State extends DocumentState<Content>> {
  private listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private busy: Promise<void> = Promise.resolve();

  constructor(
    public state: State,
    /** What it is called among all documents. */
    private readonly document: string,
    private readonly keeper: DocumentServer<Content>,
    private readonly drafts: Drafts<Content>,
  ) {}

  /** Called when the content is another, or what is kept of it was read anew. */
  protected abstract changed(): void;

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Leave nothing behind that can be saved; what can not be is kept in the browser. */
  close(): void {
    const saved = this.save().finally(() => {
      clearTimeout(this.timer);
      if (leaving.get(this.document) === saved) leaving.delete(this.document);
    });
    leaving.set(this.document, saved);
  }

  /** Go on with edits that an earlier page left, on top of what is saved. */
  takeUp(draft: Draft<Content>): void {
    this.replace(draft.content);
    this.forget(draft);
  }

  /** Let go of edits that an earlier page left. */
  forget(draft: Draft<Content>): void {
    this.drafts.forget(draft.key);
    this.set({ drafts: this.state.drafts.filter(({ key }) => key !== draft.key) });
  }

  /** Put changed content in place. */
  replace(content: Content): void {
    const stale = this.state.saving === "stale";
    this.set({ content, saving: stale ? "stale" : "unsaved", trouble: null });
    this.changed();
    this.drafts.keep(this.state.revision, content);
    if (!stale) this.later(QUIET_MS);
  }

  /** What was entered can not be saved before it is mended. */
  protected toMend(fault: Fault, sentence: Sentence): void {
    clearTimeout(this.timer);
    const saving = this.state.saving === "unsaved" ? "waiting" : this.state.saving;
    this.set({ faults: byPath(fault), problem: sentence, saving });
  }

  /** Nobody answers: what is unsaved is tried again by itself. */
  protected away(): void {
    if (this.state.saving !== "stale") this.set({ saving: "away" });
    this.later(RETRY_MS);
  }

  private later(wait: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), wait);
  }

  /** Save what is unsaved, one save after another; resolves when there is nothing left to do now. */
  save(): Promise<void> {
    clearTimeout(this.timer);
    this.busy = this.busy.then(() => this.saveNow());
    return this.busy;
  }

  private async saveNow(): Promise<void> {
    if (!UNSAVED.includes(this.state.saving)) return;
    const content = this.state.content;
    if (this.state.saving === "unsaved") this.set({ saving: "saving" });
    try {
      const kept = await this.keeper.save(this.state.id, this.state.revision, content);
      const same = this.state.content === content;
      if (same) this.drafts.drop();
      this.set({
        ...kept,
        content: this.state.content,
        saving: same ? "saved" : "unsaved",
        trouble: null,
      });
      this.saved();
      if (!same) this.later(QUIET_MS);
    } catch (cause) {
      this.refuse(refusal(cause));
    }
  }

  /** Called when a save went through. */
  protected saved(): void {}

  private refuse({ status, fault, sentence }: Refused): void {
    if (status === 409 && fault?.code === "stale_revision") this.set({ saving: "stale" });
    else if (status === 422 && fault)
      this.set({ saving: "waiting", faults: byPath(fault), problem: sentence });
    else if (status === 0) {
      this.set({ saving: "away" });
      this.later(RETRY_MS);
    } else {
      this.set({ saving: "refused", trouble: sentence });
      if (status === BUSY) this.later(RETRY_MS);
      if (status === NOT_KEPT) this.later(FULL_RETRY_MS);
    }
  }

  /** Undo or redo one saved step; an edit still on its way is saved first. */
  async step(direction: "undo" | "redo"): Promise<void> {
    await this.save();
    if (this.state.saving === "waiting") {
      // What was typed can not be saved: undoing it means going back to what is.
      await this.reload();
      return;
    }
    if (this.state.saving !== "saved" || !(direction === "undo" ? this.state.canUndo : this.state.canRedo))
      return;
    try {
      this.take(await this.keeper.step(this.state.id, this.state.revision, direction));
    } catch (cause) {
      const refused = refusal(cause);
      // Nothing is unsaved: that the revision before can not be read (say) is told, and nothing else changes.
      if (refused.fault && refused.fault.code !== "stale_revision") this.set({ trouble: refused.sentence });
      else this.refuse(refused);
    }
  }

  /** Leave what was edited here and take what is saved. */
  async reload(): Promise<void> {
    try {
      this.take(await this.keeper.read(this.state.id));
    } catch (cause) {
      this.refuse(refusal(cause));
    }
  }

  /** Save what was edited here on top of what somebody else saved meanwhile. */
  async takeOver(): Promise<void> {
    try {
      const { revision } = await this.keeper.read(this.state.id);
      this.set({ revision, saving: "unsaved" });
      await this.save();
    } catch (cause) {
      this.refuse(refusal(cause));
    }
  }

  private take(kept: Kept<Content>): void {
    this.drafts.drop();
    this.set({ ...kept, saving: "saved", faults: NO_FAULTS, problem: null, trouble: null });
    this.changed();
  }

  protected set(part: Partial<DocumentState<Content>> | Partial<State>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}

/** What went wrong, whatever was thrown: a stray throw must not stop the saves that follow. */
export function refusal(cause: unknown): Refused {
  if (cause instanceof Refused) return cause;
  console.error(cause);
  return new Refused(500);
}

function byPath(fault: Fault): Record<string, FieldFault> {
  return Object.fromEntries((fault.fields ?? []).map((field) => [field.path, field]));
}
