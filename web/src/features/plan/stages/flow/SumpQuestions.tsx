import { useMutation } from "@tanstack/react-query";
import { asked, client, Refused } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { usePlan, usePlanInUse } from "../../context";
import { RemedyLine } from "@/ui/figures/RemedyLine";

const QUESTIONS = [
  ["smallest", "Smallest sump that holds?"],
  ["deepest", "How deep may the returns reach?"],
] as const;

/** What a builder asks of a sump before the glass is cut; the answer stands until the plan changes. */
export function SumpQuestions() {
  const { session } = usePlanInUse();
  const plan = usePlan((plan) => plan);
  const question = useMutation({
    mutationFn: async (question: (typeof QUESTIONS)[number][0]) => {
      const of = session.state.content;
      const params = { path: { question } };
      return { of, remedy: await asked(client.POST("/api/sump/{question}", { params, body: { plan: of } })) };
    },
  });
  const refusal = question.error instanceof Refused ? question.error.fault?.sentence : undefined;
  return (
    <div className="mb-5">
      <p className="flex flex-wrap gap-2">
        {QUESTIONS.map(([key, words]) => (
          <Button key={key} onClick={() => question.mutate(key)}>
            {words}
          </Button>
        ))}
      </p>
      <div role="status" className="mt-1 min-h-6">
        {question.data?.of === plan && (
          <RemedyLine remedy={question.data.remedy} use={(changes) => session.edit(changes)} />
        )}
        {refusal && (
          <span className="text-sm text-short">
            <Says sentence={refusal} />
          </span>
        )}
      </div>
    </div>
  );
}
