import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Working } from "@/api/client";
import { Slip, type Asking } from "./Slip";

/** What is asked of a figure: its key, a target, and the inputs that may bring it there. */
export interface Question {
  figure: string;
  target: number | null;
  paths: string[] | null;
}

interface AskedSlipProps {
  figure: string;
  /** What the working hangs on: it is asked for anew when that changes. */
  of: readonly unknown[];
  ask: (question: Question, signal: AbortSignal) => Promise<Working>;
  use: (changes: Record<string, unknown>) => void;
  close: () => void;
}

/** The slip of one figure, its working asked of the server. */
export function AskedSlip({ figure, of, ask, use, close }: AskedSlipProps) {
  const [asking, setAsking] = useState<Asking>({ target: null, path: null });
  const working = useQuery({
    queryKey: ["working", figure, asking, ...of],
    queryFn: ({ signal }) =>
      ask({ figure, target: asking.target, paths: asking.path ? [asking.path] : null }, signal),
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  return (
    <Slip
      figure={figure}
      working={working.data?.figure === figure ? working.data : undefined}
      trouble={working.error?.message}
      asking={asking}
      ask={setAsking}
      use={use}
      close={close}
    />
  );
}
