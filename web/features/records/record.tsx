"use client";

import {
  countWords,
  defectOf,
  filledOf,
  missingToClose,
  partKey,
  plannedParts,
  sellableOf,
  stoppedOf,
  weighedLoad,
  writeEmbeds,
  writePart,
} from "@hearth/core";
import { type ReactNode, useState } from "react";
import { Entries } from "@/log/entries";
import { PaperLinks } from "@/log/paper-links";
import { type Batch, type BatchProps, useBatch } from "@/log/use-batch";
import { useWorkshop } from "@/log/workshop";
import type { TakenByBatch } from "@/server/inventory/shelf";
import { Link } from "@/ui/address";
import { CureBars, PHASE } from "@/ui/cure-bar";
import { FormMessage } from "@/ui/form-message";
import { commonScale, JarSection } from "@/ui/jar-section";
import { LazyHeatLine } from "@/ui/lazy-heat-line";
import { PotStrip } from "@/ui/pot-strip";
import { Aside, PageLayout, Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { CameOut } from "./came-out";
import { Cost } from "./cost";
import { Net } from "./net";

/** The record as files and on paper. */
function Files({ id }: { id: string }) {
  const { workshopId } = useWorkshop();
  const file = `/api/workshops/${workshopId}/batches/${id}/record`;
  return (
    <>
      <a className="press" href={file} download>
        Download JSON
      </a>
      <a className="press" href={`${file}?as=csv`} download>
        CSV
      </a>
      <PaperLinks batchId={id} />
      <button type="button" className="press" onClick={() => print()}>
        Print
      </button>
    </>
  );
}

/** Whether the record is closed, what it lacks, and closing or reopening it. */
function ClosingOf({ batch, id, missing, onSaid }: { batch: Batch; id: string; missing: string[]; onSaid: (text: string) => void }) {
  const units = useUnits();
  const { state } = batch;
  const close = async () => onSaid((await batch.record({ kind: "closed", payload: { missing } }))?.message ?? "");
  const reopen = async () =>
    state.closed &&
    onSaid((await batch.record({ kind: "withdrawn", payload: { why: "reopened", mode: "delete" }, corrects: state.closed.eventId }))?.message ?? "");
  return state.abandoned ? (
    <Aside title={`Abandoned ${units.dayClock(state.abandoned.at)}`}>
      {state.abandoned.why ? `${state.abandoned.why}. ` : ""}The wax was {state.abandoned.wax}
      {state.abandoned.mg === null ? "" : `, ${units.g(state.abandoned.mg)}`}.
    </Aside>
  ) : state.closed ? (
    <>
      <Aside title={`Closed ${units.dayClock(state.closed.at)}`}>
        {state.closed.missing.length ? `Without: ${state.closed.missing.join(", ")}.` : "Nothing was missing."}
      </Aside>
      <button type="button" className="press" onClick={() => void reopen()}>
        Reopen record
      </button>
    </>
  ) : (
    <>
      {missing.length > 0 ? (
        <Warn>Missing: {missing.join(", ")}. You can close it anyway; the record will say so.</Warn>
      ) : (
        <Aside title="Complete">Every step was recorded and the jars were inspected.</Aside>
      )}
      <button type="button" className="action-button" data-next-step onClick={() => void close()}>
        {missing.length > 0 ? "Close anyway" : "Close the record"}
      </button>
      {batch.pouredAt ? (
        <Link className="press" href={`/inspect/${id}`}>
          Inspect batch
        </Link>
      ) : null}
      <Link className="press" href={`/bench/${id}`}>
        Go to the pot
      </Link>
    </>
  );
}

/** What was asked for and weighed of each part of a pot, what of it was lost, and the load that came of it. */
function PotAmounts({ batch: { plan, state }, at }: { batch: Batch; at: number }) {
  const units = useUnits();
  const pot = plan.pots[at];
  if (!pot) return null;
  const lost = pot.components.filter((part) => (state.lost[partKey(at, part.id)] ?? 0) > 0);
  const load = weighedLoad(plan, state, at);
  const rest = Object.values(state.splits).find((item) => item.pot === at);
  return (
    <div className="mb-4">
      {plan.pots.length > 1 ? (
        <h3 className="mt-2">
          Pot {at + 1}: {pot.formulaName}
        </h3>
      ) : null}
      {pot.restOf === undefined ? null : (
        <p className="text-soft">
          The rest of pot {pot.restOf + 1}: {units.g(pot.baseMg ?? 0)} planned
          {rest ? `, ${units.g(rest.mg)} ${rest.isWeighed ? "weighed" : "calculated from what was poured"}` : ""}. What was added to it:
        </p>
      )}
      <table className="mt-2 w-full">
        <thead>
          <tr className="border-b-2 border-ink text-left text-[14px] text-soft">
            <th scope="col" className="font-normal">
              material
            </th>
            <th scope="col" className="text-right font-normal">
              asked
            </th>
            <th scope="col" className="text-right font-normal">
              weighed
            </th>
          </tr>
        </thead>
        <tbody>
          {pot.components.map((part) => (
            <tr key={part.id} className="border-b border-line">
              <th scope="row" className="py-1 text-left font-semibold">
                {part.name}
              </th>
              <td className="figure text-right text-[20px]">{part.count ? countWords(part.count.n, part.count.of) : units.onScale(part.mg, part.scale)}</td>
              <td className="figure text-right text-[20px]">
                {part.count
                  ? (state.counted[partKey(at, part.id)]?.n ?? "–")
                  : state.weighed[partKey(at, part.id)]
                    ? units.g(state.weighed[partKey(at, part.id)]?.mg ?? 0)
                    : "–"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {lost.length > 0 ? (
        <p className="mt-2">
          ▲ Lost before pouring, and deducted from stock too:{" "}
          {lost
            .map((part) => {
              const amount = state.lost[partKey(at, part.id)] ?? 0;
              return `${part.name} ${part.count ? countWords(amount, part.count.of) : units.g(amount)}`;
            })
            .join(", ")}
          .
        </p>
      ) : null}
      <p className="my-2">
        Asked for {units.percent(pot.recipe.loadPpm, 3)} of the {pot.recipe.basis}
        {load === null ? "" : `; actual fragrance load ${units.n(load, 2)} % of the wax`}
        {pot.maxLoadPpm === null ? "" : `; the maximum load is ${units.percent(pot.maxLoadPpm)}`}.
        {pot.sparePpm > 0 ? ` Extra ${units.percent(pot.sparePpm)}.` : ""}
      </p>
      <PotStrip parts={plannedParts(plan, at)} height={30} />
    </div>
  );
}

/** Each product of the batch in its vessel, with its flaws and how many were filled, stopped and remain. */
function Products({ batch: { plan, state, pouredAt } }: { batch: Batch }) {
  const units = useUnits();
  const scale = commonScale(plan.products, 130);
  const wicksUnknown = plan.products.every((product) => product.wicks === null);
  return (
    <div className="mt-4 flex flex-wrap items-end gap-5">
      {plan.products.map((product) => (
        <figure key={product.key} className="!tracking-normal">
          <JarSection
            {...product}
            wicks={product.wicks?.count ?? (wicksUnknown && product.container === "vessel" ? 1 : 0)}
            scale={scale}
            flaws={state.flaws
              .filter((flaw) => flaw.flaw.product === product.key)
              .map((flaw) => ({ ...flaw.flaw, safety: defectOf(flaw.flaw.defect)?.classes.includes("S") ?? false }))}
          />
          <figcaption className="text-[14px]">
            {product.count} × {product.name}, {units.g(product.fillMg)}
            {product.part ? `, ${writePart(product.part)}` : ""}
            {product.wicks ? (
              <span className="block text-soft">
                {product.wicks.count} × {product.wicks.name}
              </span>
            ) : null}
            {product.embeds ? <span className="block text-soft">{writeEmbeds(product.embeds)} laid in</span> : null}
            {pouredAt && filledOf(plan, state, product.key) !== product.count ? (
              <span className="block font-semibold">{filledOf(plan, state, product.key)} filled</span>
            ) : null}
            {stoppedOf(plan, state, product.key) > 0 ? (
              <span className="block font-semibold text-safety">
                ⚠ {stoppedOf(plan, state, product.key)} must not be sold; {sellableOf(plan, state, product.key)} remain
              </span>
            ) : null}
          </figcaption>
        </figure>
      ))}
    </div>
  );
}

/** The whole record of one batch on one page. */
export function RecordView(props: BatchProps & { taken: TakenByBatch; notes?: ReactNode }) {
  const batch = useBatch(props, 30_000);
  const { plan, state, now } = batch;
  const units = useUnits();
  const [message, setMessage] = useState("");
  const missing = missingToClose(plan, state, now);
  return (
    <PageLayout
      title={`${plan.rehearsal ? "Practice run" : "Batch"} ${props.batch.number}: ${batch.title}`}
      lead={`Version ${plan.pots.map((pot) => pot.versionNumber).join(" and ")} · ${plan.process.name} · started ${units.dayClock(state.startedAt)} · ${PHASE[batch.phase]}`}
      actions={<Files id={props.batch.id} />}
      side={
        <div className="unprinted flex flex-col gap-5">
          <ClosingOf batch={batch} id={props.batch.id} missing={missing} onSaid={setMessage} />
          <FormMessage className="">{message}</FormMessage>
          <Link className="press" href={`/sell/hazard?batch=${props.batch.id}`}>
            Hazard label as weighed
          </Link>
          {props.batch.formulaId ? (
            <Link className="press" href={`/formulas/${props.batch.formulaId}`}>
              View formula
            </Link>
          ) : null}
          <Aside title="What a record is not">Test data is not a safety certificate. Rules for labels, safety and insurance depend on your country.</Aside>
        </div>
      }
    >
      <section aria-label="Heat line">
        <LazyHeatLine
          bands={batch.bands}
          ceiling={plan.process.ceiling}
          marks={batch.marks}
          moments={batch.moments}
          now={batch.pouredAt || state.closed || state.abandoned ? null : now}
          height={260}
          label={`Heat line of batch ${props.batch.number}`}
        />
      </section>
      <div className="mt-6 grid grid-cols-1 gap-6 xl:grid-cols-2">
        <section className="sheet">
          <h2>Amounts</h2>
          {plan.pots.map((_, index) => (
            <PotAmounts key={index} batch={batch} at={index} />
          ))}
          <Products batch={batch} />
          {props.batch.drawsStock ? null : (
            <p className="mt-3 text-[15px] text-soft">
              {plan.rehearsal
                ? "A practice run: no wax was used, and nothing of it counts."
                : plan.fromNotes
                  ? "From notes: no stock was drawn. The amounts are worked out; only what the notes say counts in findings."
                  : "Imported: not deducted from stock here."}
            </p>
          )}
          <Net batch={batch} />
          <Cost batch={batch} taken={props.taken} />
        </section>
        <section className="sheet">
          <h2>Setting and curing</h2>
          {batch.times ? <CureBars plan={plan} pouredAt={batch.pouredAt} now={now} /> : <p className="mt-2 text-soft">Not poured yet.</p>}
          <h2 className="mt-5">Inspection</h2>
          {state.lookedAt ? <p className="text-soft">{units.dayClock(state.lookedAt)}</p> : <p className="mt-1 text-soft">Not inspected yet.</p>}
          <CameOut plan={plan} state={state} id={props.batch.id} />
          {state.lookedAt && state.flaws.length === 0 ? <p className="font-semibold text-inside">✓ no flaw found</p> : null}
        </section>
      </div>
      {props.notes}
      <section className="mt-6" aria-label="Entries">
        <h2 className="border-b-[3px] border-ink pb-1">Log</h2>
        <Entries log={batch} />
      </section>
    </PageLayout>
  );
}
