import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client, Refused, type Larder, type SystemWeek } from "@/api/client";
import { Says } from "@/ui/figures/Says";
import { Told } from "@/ui/Told";
import { Cultures } from "./Cultures";
import { feedingQuery, today, useRefresh } from "./feeding";
import { Mixes } from "./Mixes";
import { Shelf } from "./Shelf";
import { WeekOf } from "./WeekOf";
import { Unread } from "@/ui/unread/Unread";

interface Done {
  words: string;
  back?: Larder;
}

/** What each system is given on which day, from what is at hand. */
export function FeedingPage() {
  const feeding = useQuery(feedingQuery());
  const refresh = useRefresh();
  const [told, setTold] = useState<Done | null>(null);
  const [fault, setFault] = useState("");
  const found = feeding.data;
  const wrong = (cause: unknown) => setFault(cause instanceof Error ? cause.message : String(cause));
  const keep = (larder: Larder, words = "", back?: Larder): Promise<boolean> =>
    asked(client.PUT("/api/feeding/larder", { body: larder })).then(
      () => {
        setFault("");
        setTold(words ? { words, back } : null);
        refresh();
        return true;
      },
      (cause: unknown) => {
        wrong(cause);
        return false;
      },
    );
  const undoOf = (larder?: Larder) => larder && (() => void keep(larder));
  const take = (week: SystemWeek) =>
    void asked(
      client.POST("/api/feeding/take/{system_id}", {
        params: { path: { system_id: week.system_id } },
        body: { base: week.revision, today: today() },
      }),
    ).then(
      () => {
        setTold({
          words: `The plan of ${week.name} reckons with this food now: one step back there undoes it.`,
        });
        refresh();
      },
      (cause: unknown) =>
        wrong(
          cause instanceof Refused && cause.status === 409
            ? new Error("Somebody changed this plan meanwhile: look again.")
            : cause,
        ),
    );
  return (
    <main className="max-w-6xl px-4 pt-3 pb-16 sm:px-6">
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-x-4 pr-44">
        <h1 className="text-xl font-semibold">
          <Link to="/round" className="text-edge-deep underline underline-offset-4">
            Round
          </Link>
          , feeding
        </h1>
      </header>
      <Unread place="feeding" />
      {feeding.isPending && <p className="text-quiet">Asking every system…</p>}
      {feeding.isError && (
        <p role="alert" className="text-short">
          {feeding.error.message}
        </p>
      )}
      {fault && (
        <p role="alert" className="mb-2 text-short">
          {fault}
        </p>
      )}
      {told && <Told words={told.words} undo={undoOf(told.back)} />}
      {found && (
        <>
          <p className="mb-3 text-lg leading-snug">
            <Says sentence={found.result} />
          </p>
          {found.systems.map((week) => (
            <WeekOf key={week.system_id} week={week} take={() => take(week)} />
          ))}
          <Shelf
            foods={found.foods}
            turn={(key, on) => {
              const foods = found.larder.foods ?? [];
              void keep({
                ...found.larder,
                foods: on ? [...foods, key] : foods.filter((one) => one !== key),
              });
            }}
          />
          <Mixes found={found} keep={keep} />
          <Cultures found={found} keep={keep} />
        </>
      )}
    </main>
  );
}
