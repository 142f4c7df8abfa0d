import { useQuery } from "@tanstack/react-query";
import { Link, useSearch } from "@tanstack/react-router";
import { MoreHorizontal } from "lucide-react";
import { useState } from "react";
import { asked, client, type ArrivingOut, type CourseOut, type TubOut } from "@/api/client";
import { Button, Menu } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { Told } from "@/ui/Told";
import { ArrivalDialog } from "./ArrivalDialog";
import { ArrivingLine } from "./ArrivingLine";
import { CourseDialog } from "./CourseDialog";
import { HereDialog } from "./HereDialog";
import { Marked, Waived } from "./Waived";
import { newcomersQuery, useRefresh } from "./newcomers";
import { ReleaseDialog } from "./ReleaseDialog";
import { NewTubDialog, TubDialog } from "./TubDialog";
import { TubOf } from "./TubOf";
import { Turns } from "./Turns";
import { Unread } from "@/ui/unread/Unread";

type Asked =
  | { what: "expect"; row?: Pick<ArrivingOut, "id" | "arriving" | "common"> }
  | { what: "here"; row: Pick<ArrivingOut, "id" | "arriving" | "common" | "tub"> }
  | { what: "tub" | "release"; tub: TubOut }
  | { what: "course"; tub: TubOut; course?: CourseOut }
  | { what: "new tub" };

interface Undo {
  words: string;
  back?: () => Promise<unknown>;
}

/** Newcomers: whose turn it is in which tub, what each tub asks today, courses, and who came without. */
export function QuarantinePage() {
  const { expect } = useSearch({ from: "/register/quarantine" });
  const newcomers = useQuery(newcomersQuery());
  const refresh = useRefresh();
  const [asking, setAsked] = useState<Asked | null>(expect ? { what: "expect" } : null);
  const [told, setTold] = useState<Undo | null>(null);
  const found = newcomers.data;
  const close = () => setAsked(null);
  const done = (words: string, back?: () => Promise<unknown>) => {
    setTold(words ? { words, back } : null);
    close();
    refresh();
  };
  const notComing = (row: { id: number; common: string }) => {
    const params = { path: { number: row.id } };
    void asked(client.DELETE("/api/quarantine/arriving/{number}", { params })).then(
      () =>
        done(`${row.common}: taken off the list.`, () =>
          asked(client.POST("/api/quarantine/arriving/{number}/restore", { params })),
        ),
      (cause: unknown) => setTold({ words: String(cause) }),
    );
  };
  return (
    <main className="max-w-5xl px-4 pt-3 pb-16 sm:px-6">
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-x-4 gap-y-2 pr-44">
        <h1 className="text-xl font-semibold">
          <Link to="/register" className="text-edge-deep underline underline-offset-4">
            Register
          </Link>
          , quarantine
        </h1>
        <Button
          look="strong"
          disabled={!found?.places.length}
          title={found && !found.places.length ? "A system comes first." : undefined}
          onClick={() => setAsked({ what: "expect" })}
        >
          Somebody is to come
        </Button>
        <Menu
          label="More of quarantine"
          trigger={<MoreHorizontal size={18} />}
          items={[{ words: "Set up a tub", run: () => setAsked({ what: "new tub" }) }]}
        />
      </header>
      <Unread place="quarantine" />
      {newcomers.isPending && <p className="text-quiet">Asking every tub…</p>}
      {newcomers.isError && (
        <p role="alert" className="text-short">
          {newcomers.error.message}
        </p>
      )}
      {told && (
        <Told words={told.words} undo={told.back && (() => void told.back?.().then(() => done("")))} />
      )}
      {found && (
        <>
          <p className="mb-3 text-lg leading-snug">
            <Says sentence={found.result} />
          </p>
          {found.tubs.length === 0 && (
            <Button look="strong" onClick={() => setAsked({ what: "new tub" })}>
              Set up a tub
            </Button>
          )}
          {found.tubs.length > 0 && <Turns found={found} />}
          {found.arriving.length > 0 && (
            <section aria-labelledby="to-come" className="mt-5">
              <h2 id="to-come" className="mb-1 text-lg font-semibold">
                To come
              </h2>
              <ol aria-label="To come">
                {found.arriving.map((row) => (
                  <ArrivingLine
                    key={row.id}
                    row={row}
                    here={() => setAsked({ what: "here", row })}
                    change={() => setAsked({ what: "expect", row })}
                    drop={() => notComing(row)}
                  />
                ))}
              </ol>
              <p className="mt-1 text-sm text-quiet">
                {found.best
                  ? "In the order that brings all of them home soonest; those who come together share a tub."
                  : "The first nine in the order that brings them home soonest, then the next nine."}
              </p>
            </section>
          )}
          {found.tubs.map((tub) => (
            <TubOf
              key={tub.system_id}
              tub={tub}
              settings={() => setAsked({ what: "tub", tub })}
              release={() => setAsked({ what: "release", tub })}
              course={(course) => setAsked({ what: "course", tub, course })}
            />
          ))}
          <Waived
            rows={found.waived}
            here={(row) => setAsked({ what: "here", row: { ...row, tub: 0 } })}
            change={(row) => setAsked({ what: "expect", row })}
            drop={notComing}
          />
          <Marked rows={found.marked} />
        </>
      )}
      {found && asking?.what === "expect" && (
        <ArrivalDialog places={found.places} row={asking.row} close={close} done={done} />
      )}
      {found && asking?.what === "here" && (
        <HereDialog row={asking.row} tubs={found.tubs} close={close} done={done} />
      )}
      {asking?.what === "tub" && <TubDialog tub={asking.tub} close={close} done={done} />}
      {found && asking?.what === "new tub" && (
        <NewTubDialog places={found.places} count={found.tubs.length} close={close} done={done} />
      )}
      {found && asking?.what === "release" && (
        <ReleaseDialog tub={asking.tub} places={found.places} close={close} done={done} />
      )}
      {asking?.what === "course" && (
        <CourseDialog tub={asking.tub} row={asking.course} close={close} done={done} />
      )}
    </main>
  );
}
