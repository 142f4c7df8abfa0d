import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { libraryQuery } from "@/api/queries";
import { Button, Switch } from "@/ui/controls";
import { Line, NumberLine, TextLine } from "@/ui/fields/Lines";
import { useUnits } from "@/ui/units";

/** How money is written in this house: nothing is converted. */
export function CurrencyLines() {
  const unit = useUnits().unit("money");
  const queries = useQueryClient();
  const [symbol, setSymbol] = useState(unit.label);
  const [before, setBefore] = useState(unit.before);
  const [digits, setDigits] = useState<number | null>(unit.digits);
  const keep = useMutation({
    mutationFn: () =>
      asked(client.PUT("/api/currency", { body: { symbol, before, digits: Math.round(digits ?? 2) } })),
    onSuccess: () => queries.invalidateQueries(libraryQuery),
  });
  return (
    <section aria-label="Money" className="mt-6">
      <h3 className="mb-1 font-semibold">Money, for the whole house</h3>
      <TextLine label="Its sign" value={symbol} set={setSymbol} />
      <Line label="The sign stands before the number">
        <Switch label="The sign stands before the number" on={before} onChange={setBefore} />
      </Line>
      <NumberLine label="Digits after the point" kind="count" value={digits} set={setDigits} />
      {keep.error && (
        <p role="alert" className="text-short">
          {keep.error.message}
        </p>
      )}
      <p className="mt-2 flex items-center gap-3">
        <Button onClick={() => keep.mutate()}>Write money so</Button>
        {keep.isSuccess && <span role="status">Kept.</span>}
      </p>
    </section>
  );
}
