"use client";

import { planWarnings, type Room, tagOf, variantsOf, writeSessions } from "@hearth/core";
import { useSearchParams } from "next/navigation";
import { type ReactNode, useState } from "react";
import { Entries } from "@/log/entries";
import { useWorkshop } from "@/log/workshop";
import { FormMessage } from "@/ui/form-message";
import { useKeys } from "@/ui/keys";
import { lazy } from "@/ui/lazy";
import { Aside, BurningCandleCaution, PageLayout, Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { TestCandles } from "./test-candles";
import { type Trial, type TrialProps, useTrial } from "./use-trial";

const Shown = lazy(async () => (await import("./shown")).Shown);
const Verdicts = lazy(async () => (await import("./verdicts")).Verdicts);
const Throw = lazy(async () => (await import("./throw")).Throw);
const FromSheet = lazy(async () => (await import("./from-sheet")).FromSheet);

const VIEWS = [
  { id: "burn", says: "Burn" },
  { id: "verdict", says: "Verdict" },
  { id: "shown", says: "Pictures" },
  { id: "throw", says: "Scent throw" },
  { id: "record", says: "Record" },
] as const;
type View = (typeof VIEWS)[number]["id"];

interface TrialViewProps extends TrialProps {
  product: { id: string; name: string; wickId: string | null; wicks: number } | null;
  /** The rooms of the house in which candles are smelled. */
  rooms: Room[];
  notes?: ReactNode;
}

/** What is to be minded while candles burn, the protocol, and closing the trial. */
function TrialMargin({ trial }: { trial: Trial }) {
  const units = useUnits();
  const [message, setMessage] = useState("");
  const { plan, state } = trial;
  const close = () => setMessage(trial.enter({ kind: "closed", payload: {} }));
  const reopen = async () =>
    state.closed &&
    setMessage((await trial.record({ kind: "withdrawn", payload: { why: "reopened", mode: "delete" }, corrects: state.closed.id }))?.message ?? "");
  return (
    <>
      <BurningCandleCaution />
      {planWarnings(plan).map((planWarning) => (
        <Warn key={planWarning.id}>{planWarning.says}</Warn>
      ))}
      {plan.after ? (
        <Aside title="Follows from">
          {plan.after.name}: {plan.after.why}
        </Aside>
      ) : null}
      <Aside title="The protocol">
        <span className="block whitespace-pre-line">{writeSessions(plan.protocol.sessions)}</span>
        {units.n(plan.protocol.restHours, 1)} h of rest between; at least {plan.protocol.least} sessions{plan.protocol.toEnd ? ", then to the end" : ""}.
      </Aside>
      {state.closed ? (
        <button type="button" className="press" onClick={() => void reopen()}>
          Reopen the trial
        </button>
      ) : (
        <button type="button" className="press" onClick={() => close()}>
          Close the trial
        </button>
      )}
      <FormMessage>{message}</FormMessage>
    </>
  );
}

/** What is written on each test candle. */
function Tags({ trial }: { trial: Trial }) {
  const units = useUnits();
  const { plan, state } = trial;
  return (
    <section>
      <h2>Tags</h2>
      <p className="text-soft">What to write on each test candle. The load is often forgotten.</p>
      <ul className="mt-2 grid gap-3 sm:grid-cols-2 xl:grid-cols-3">
        {plan.testCandles.map((testCandle) => (
          <li key={testCandle.key} className="border-2 border-ink p-3">
            <p className="flex items-baseline gap-3">
              <span className="figure text-[26px] leading-none">{testCandle.key}</span>
              <span>
                trial {trial.number}
                {testCandle.batch ? `, batch ${testCandle.batch.number}` : ""}
              </span>
              <span className="figure ml-auto text-[20px]">{testCandle.code}</span>
            </p>
            {tagOf(testCandle).map((tag) => (
              <p key={tag.what} className="text-[15px]">
                <span className="text-soft">{tag.what}</span> {units.say(tag.says)}
              </p>
            ))}
            <p className="text-[15px]">
              <span className="text-soft">poured</span>{" "}
              {units.date(trial.batches.find((batch) => batch.id === testCandle.batch?.id)?.pouredAt ?? state.startedAt)}
              {testCandle.fill === "half" ? ", half-filled" : ""}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The record of the trial as files, and its tags on paper. */
function Files({ id }: { id: string }) {
  const { workshopId } = useWorkshop();
  const file = `/api/workshops/${workshopId}/trials/${id}/record`;
  return (
    <p className="unprinted mt-4 flex flex-wrap gap-2">
      <a className="press" href={file} download>
        Download JSON
      </a>
      <a className="press" href={`${file}?as=csv`} download>
        CSV
      </a>
      <a className="press" href={`/api/workshops/${workshopId}/trials/${id}/sheet`} target="_blank" rel="noreferrer">
        Burn sheet on paper
      </a>
      <button type="button" className="press" onClick={() => print()}>
        Print the tags
      </button>
    </p>
  );
}

/** One trial: its test candles by the clock, what they say, what scorers say, and its record. */
export function TrialView(props: TrialViewProps) {
  const trial = useTrial(props);
  const query = useSearchParams();
  const asked = query.get("view");
  const [view, setView] = useState<View>(VIEWS.find((view) => view.id === asked)?.id ?? "burn");
  const { plan } = trial;
  useKeys([{ key: "u", does: "delete the last entry", run: () => void trial.undo() }]);
  const go = (to: View) => {
    setView(to);
    // The page itself need not be read again, and without the network it could not be.
    const here = window.location.pathname;
    window.history.replaceState(null, "", to === "burn" ? here : `${here}?view=${to}`);
  };
  return (
    <PageLayout
      gloved
      title={`Burn trial ${trial.number}: ${plan.name}`}
      lead={`${plan.varies ? `Varies the ${plan.varies}` : "Nothing varied"} · ${variantsOf(plan).length} ${variantsOf(plan).length === 1 ? "variant" : "variants"}, ${plan.testCandles.length} ${plan.testCandles.length === 1 ? "test candle" : "test candles"} · ${plan.protocol.name}`}
      side={<TrialMargin trial={trial} />}
    >
      <nav className="unprinted mb-4 grid max-w-[620px] grid-cols-5" aria-label="Parts of the trial">
        {VIEWS.map((item) => (
          <button
            key={item.id}
            type="button"
            aria-current={view === item.id ? "page" : undefined}
            className="-mr-[2px] min-h-[48px] border-2 border-ink bg-sheet px-1 text-[15px] font-semibold aria-[current=page]:bg-ink aria-[current=page]:text-sheet sm:text-[16px]"
            onClick={() => go(item.id)}
          >
            {item.says}
          </button>
        ))}
      </nav>
      {view === "burn" ? (
        <TestCandles trial={trial} onVerdict={() => go("verdict")} />
      ) : view === "verdict" ? (
        <Verdicts trial={trial} product={props.product} />
      ) : view === "shown" ? (
        <Shown trial={trial} />
      ) : view === "throw" ? (
        <Throw trial={trial} people={props.people} rooms={props.rooms} />
      ) : (
        <>
          <Tags trial={trial} />
          <Files id={trial.id} />
          {props.notes}
          <FromSheet trial={trial} />
          <section className="mt-6" aria-label="Entries">
            <h2 className="border-b-[3px] border-ink pb-1">Log</h2>
            <Entries log={trial} newestFirst />
          </section>
        </>
      )}
    </PageLayout>
  );
}
