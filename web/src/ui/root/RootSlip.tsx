import type { Working } from "@/api/client";
import { askedOfDraft } from "@/lib/document/rootSession";
import { AskedSlip } from "@/ui/figures/AskedSlip";
import { useRootInUse, useRootState } from "./context";

interface RootSlipProps {
  figure: string;
  close: () => void;
  /** What a question about this draft says beside it, where the page has a way of looking at it. */
  beside?: object;
}

/** The working of one figure of the document as it is now. */
export function RootSlip({ figure, close, beside }: RootSlipProps) {
  const { root, session } = useRootInUse();
  const content = useRootState(({ sheetOf, content }) => sheetOf ?? content);
  const around = { ...root.beside?.(), ...beside };
  return (
    <AskedSlip
      figure={figure}
      of={[root.name, content, around]}
      ask={(question, signal) =>
        askedOfDraft<Working>(root, "working", { ...question, ...around, [root.part]: content }, signal)
      }
      use={(changes) => session.edit(changes)}
      close={close}
    />
  );
}
