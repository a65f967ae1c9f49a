"use client";

import { bad, dueOf, good, releaseBlocks, type WickTest } from "@hearth/core";
import { type ReactNode, useMemo, useState } from "react";
import { Field, useFields } from "@/forms/fields";
import { type BatchProps, useBatch } from "@/log/use-batch";
import { Link } from "@/ui/address";
import { CureBars, PHASE } from "@/ui/cure-bar";
import { FormMessage } from "@/ui/form-message";
import { useKeys } from "@/ui/keys";
import { Aside, Caution, PageLayout, Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";
import { ColdThrow } from "./cold-throw";
import { JarStatuses } from "./jar-statuses";
import { Standing } from "./standing";

interface OnRackProps extends BatchProps {
  shelves: string[];
  tests: { id: string; product: string; containerId: string; test: WickTest }[];
  notes?: ReactNode;
}

/** Releases a batch of which no burn test is recorded: asked first, with a reason that is kept and shown where it is packed. */
function ReleaseUntested({ batchId, tests, onRelease }: { batchId: string; tests: OnRackProps["tests"]; onRelease: (note: string) => Promise<void> }) {
  const [asked, setAsked] = useState(false);
  const rules = useMemo(
    () => ({ note: { initial: "", parse: (text: string) => (text.trim() ? good(text.trim()) : bad("empty", "Enter why it is released without one.")) } }),
    [],
  );
  const fields = useFields(rules);
  const due = tests.filter((test) => test.test !== "tested");
  if (!asked)
    return (
      <div className="flex flex-wrap items-center gap-3">
        {due.length > 0 ? (
          due.map((item, index) => (
            <Link
              key={item.id}
              className={index === 0 ? "action-button" : "press"}
              {...(index === 0 ? { "data-next-step": "" } : {})}
              href={`/burn/new?product=${item.id}&batch=${batchId}`}
            >
              Burn-test {item.product}
            </Link>
          ))
        ) : (
          <Link className="action-button" data-next-step href={`/burn/new?batch=${batchId}`}>
            Burn-test a jar
          </Link>
        )}
        <button type="button" className="press" onClick={() => setAsked(true)}>
          Release it for sale
        </button>
      </div>
    );
  return (
    <form
      ref={fields.form}
      role="alertdialog"
      aria-label="Release it without a burn test?"
      className={notice()}
      onSubmit={(event) => {
        event.preventDefault();
        const all = fields.check();
        if (all) void onRelease(String(all.note));
      }}
    >
      <p className="font-semibold">▲ No burn test is recorded for this wick, jar and wax. Release it anyway?</p>
      <p>Curing is not a test: only a burn shows whether it soots, drowns or overheats its jar.</p>
      <Field label="Why" {...fields.bind("note")} autoFocus hint="Kept with the batch, and shown where it is packed." />
      <div className="mt-2 flex flex-wrap gap-3">
        <button type="submit" className="action-button">
          Release it without a burn test
        </button>
        <button type="button" className="press" onClick={() => setAsked(false)}>
          Cancel
        </button>
      </div>
    </form>
  );
}

/** One batch on the rack: when it is due, where it stands, what becomes of its jars, how it smells, whether it may be sold. */
export function OnRack(props: OnRackProps) {
  const batch = useBatch(props, 30_000);
  const { plan, state, now } = batch;
  const units = useUnits();
  const [message, setMessage] = useState("");
  useKeys([{ key: "u", does: "delete the last entry", run: () => void batch.undo() }]);
  const blocks = [
    ...releaseBlocks(plan, state, now),
    ...props.tests.flatMap((test) => (test.test === "failed" ? [`the wick of ${test.product} failed its burn test`] : [])),
  ];
  // Melts have no wick to be tested.
  const isWicked = plan.products.some((product) => (product.container === "vessel" && product.use !== "melts") || product.wicks !== null);
  const isTested = !isWicked || (props.tests.length > 0 && props.tests.every((test) => test.test === "tested"));
  const release = async (note: string) => setMessage((await batch.record({ kind: "released", payload: { note } }))?.message ?? "");
  const rooms = [...new Set(state.smells.map((smell) => smell.room).filter(Boolean))].reverse();
  return (
    <PageLayout
      gloved
      title={`Batch ${props.batch.number}: ${batch.title}`}
      lead={batch.pouredAt ? `Poured ${units.dayClock(batch.pouredAt)} · ${PHASE[batch.phase]}` : "Not poured yet."}
      actions={
        <>
          <Link
            className={batch.pouredAt && batch.phase !== "setting" && !state.lookedAt ? "action-button" : "press"}
            href={`/inspect/${props.batch.id}`}
            data-next-step={batch.pouredAt && !state.lookedAt ? "" : undefined}
          >
            Inspect batch
          </Link>
          <Link className="press" href={`/records/${props.batch.id}`}>
            View record
          </Link>
        </>
      }
      side={
        <>
          {!batch.pouredAt ? <Warn>Nothing is poured yet.</Warn> : null}
          {batch.phase === "setting" && batch.times ? <Warn>Do not move it until {units.dayClock(batch.times.setAt)}.</Warn> : null}
          <Aside title="Sun and draft">
            Direct sun makes candles sweat overnight; a draft cools one side first. What you record here is compared with flaws later.
          </Aside>
          <Aside title="Scent scores">One person's 9 is another's 7, so each has a line.</Aside>
          <Caution title="Test data is not a safety certificate">Rules for labels, safety and insurance depend on your country.</Caution>
        </>
      }
    >
      <CureBars plan={plan} pouredAt={batch.pouredAt} now={now} />
      <section className="mt-3 border-y-[3px] border-ink py-3" aria-label="Release">
        {state.released ? (
          <p className="text-[19px] font-bold text-inside">
            ✓ Released for sale {units.dayClock(state.released.at)}
            {state.released.note ? <span className="font-normal text-ink">, without a burn test: “{state.released.note}”</span> : null}{" "}
            <Link className="press ml-2" href="/sell/pack">
              Pack jars
            </Link>
          </p>
        ) : blocks.length > 0 ? (
          <p>
            <strong>Cannot be released yet:</strong> {blocks.join("; ")}.
          </p>
        ) : isTested ? (
          <button type="button" className="action-button" data-next-step onClick={() => void release("")}>
            Release it for sale
          </button>
        ) : (
          <ReleaseUntested batchId={props.batch.id} tests={props.tests} onRelease={release} />
        )}
        <FormMessage>{message}</FormMessage>
      </section>
      {batch.pouredAt && batch.open.length > 0 ? (
        <section className="mt-3 border-b-[3px] border-ink pb-3" aria-label="Steps still to do">
          <h2>Still to do</h2>
          <ul>
            {batch.open.map((prompt) => {
              const due = dueOf(batch.steps, prompt);
              return (
                <li key={prompt.key} className="flex flex-wrap items-center justify-between gap-x-4 border-b border-line py-1">
                  <span>
                    <strong>{prompt.name}</strong>
                    {prompt.only ? <span className="text-soft">, {prompt.only}</span> : null}
                    {due ? <span className="text-soft">, from {units.dayClock(due.from)}</span> : null}
                  </span>
                  <Link className="press" href={`/bench/${props.batch.id}`}>
                    Go to the steps
                  </Link>
                </li>
              );
            })}
          </ul>
        </section>
      ) : null}
      {batch.pouredAt ? (
        <div className="mt-5 grid grid-cols-1 gap-5 xl:grid-cols-2">
          <JarStatuses batch={batch} />
          <Standing batch={batch} shelves={props.shelves} />
          <ColdThrow batch={batch} people={props.people} rooms={rooms} />
        </div>
      ) : null}
      {props.notes}
    </PageLayout>
  );
}
