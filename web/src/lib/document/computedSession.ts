import { replaceEqualDeep } from "@tanstack/react-query";
import { type Refused } from "@/api/client";
import { BUSY, DocumentSession, NO_FAULTS, refusal, RETRY_MS, type DocumentState } from "./documentSession";
import { withValue } from "./paths";

export interface ComputedState<Content, Sheet> extends DocumentState<Content> {
  /** The last good figures; `sheetOf` is the content they belong to. */
  sheet: Sheet | null;
  sheetOf: Content | null;
}

/** One document being edited whose figures are computed at every edit. */
export abstract class ComputedSession<
  Content,
  Sheet,
  State extends ComputedState<Content, Sheet>,
> extends DocumentSession<Content, State> {
  private asking: AbortController | null = null;

  /** Ask for the figures of the content as it is. */
  protected abstract ask(content: Content, signal: AbortSignal): Promise<Sheet>;

  /** Called when the figures that were asked for are there. */
  protected computed(): void {}

  /** Compute the first sheet. */
  open(): void {
    void this.compute();
  }

  /** Change values by path; text that is no number is kept too, and told about. */
  edit(changes: Record<string, unknown>): void {
    let { content } = this.state;
    for (const [path, value] of Object.entries(changes)) content = withValue(content, path, value);
    this.replace(content);
  }

  protected changed(): void {
    void this.compute();
  }

  protected saved(): void {
    if (this.state.sheetOf !== this.state.content) void this.compute();
  }

  protected async compute(): Promise<void> {
    this.asking?.abort();
    const asking = (this.asking = new AbortController());
    const { content } = this.state;
    try {
      const sheet = await this.ask(content, asking.signal);
      if (asking.signal.aborted) return;
      this.computed();
      // What came out the same stays the same object, so that only what changed is drawn anew.
      this.set({
        sheet: replaceEqualDeep(this.state.sheet, sheet),
        sheetOf: content,
        faults: NO_FAULTS,
        problem: null,
      });
    } catch (cause) {
      if (!asking.signal.aborted) this.notComputed(refusal(cause));
    }
  }

  private notComputed({ status, fault, sentence }: Refused): void {
    if (status === 0) this.away();
    else if (fault && status < 500) this.toMend(fault, sentence);
    else {
      // What was entered may be sound: it is saved all the same, and its fields stay in reach.
      this.set({ faults: NO_FAULTS, problem: sentence });
      if (status === BUSY) setTimeout(() => void this.compute(), RETRY_MS);
    }
  }
}
