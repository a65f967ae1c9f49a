"use client";

import { defectOf, missingToClose, writeNumber, writePart, writePercent } from "@hearth/core";
import Link from "next/link";
import { useState } from "react";
import { HeatLine } from "@/ui/heat-line";
import { commonScale, JarSection } from "@/ui/jar-section";
import { Aside, Screen, Warn } from "@/ui/margin";
import { PotStrip } from "@/ui/pot-strip";
import { useUnits } from "@/ui/units";
import { Entries } from "../batch/entries";
import { type BatchProps, useBatch } from "../batch/use-batch";
import { CureBar, PHASE } from "../rack/rack";
import type { TakenByBatch } from "../shelf/read";
import { Cost } from "./cost";

/** The whole record of one batch on one page. */
export function RecordView(props: BatchProps & { taken: TakenByBatch }) {
  const batch = useBatch(props, 30_000);
  const { state, now } = batch;
  const units = useUnits();
  const [said, setSaid] = useState("");
  const { plan } = state;
  const profile = plan.spec.profile;
  const missing = missingToClose(state, now);
  const px = commonScale(plan.vessels, 130);
  const file = `/api/workshops/${props.workshopId}/batches/${props.batch.id}/record`;
  const close = async () => setSaid((await batch.record({ kind: "closed", payload: { missing } }))?.message ?? "");
  const reopen = async () =>
    state.closed && setSaid((await batch.record({ kind: "withdrawn", payload: { why: "reopened" }, corrects: state.closed.eventId }))?.message ?? "");

  return (
    <Screen
      title={`Batch ${props.batch.number}: ${plan.formulaName}`}
      lead={`Version ${plan.versionNumber} · started ${units.dayClock(state.startedAt)} · ${PHASE[state.phase]}`}
      actions={
        <>
          <a className="press" href={file} download>
            Take away as JSON
          </a>
          <a className="press" href={`${file}?as=csv`} download>
            as CSV
          </a>
          <button type="button" className="press" onClick={() => print()}>
            Print
          </button>
        </>
      }
      side={
        <div className="unprinted flex flex-col gap-5">
          {state.closed ? (
            <>
              <Aside title={`Closed ${units.dayClock(state.closed.at)}`}>
                {state.closed.missing.length ? `Without: ${state.closed.missing.join(", ")}.` : "Nothing was missing."}
              </Aside>
              <button type="button" className="press" onClick={() => void reopen()}>
                Reopen it
              </button>
            </>
          ) : (
            <>
              {missing.length > 0 ? (
                <Warn>Missing: {missing.join(", ")}. You can close it all the same; the record will say so.</Warn>
              ) : (
                <Aside title="Complete">Every step was recorded and the jars were looked over.</Aside>
              )}
              <button type="button" className="act" data-next-step onClick={() => void close()}>
                {missing.length > 0 ? "Close it as it is" : "Close the record"}
              </button>
              <Link className="press" href={state.pouredAt ? `/look-over/${props.batch.id}` : `/bench/${props.batch.id}`}>
                {state.pouredAt ? "Look it over" : "Go to the pot"}
              </Link>
            </>
          )}
          {said ? (
            <p role="alert" className="font-semibold text-hot">
              ▲ {said}
            </p>
          ) : null}
          {props.batch.formulaId ? (
            <Link className="press" href={`/formulas/${props.batch.formulaId}`}>
              Open its formula
            </Link>
          ) : null}
          <Aside title="What a record is not">Test data is not a safety certificate. Labels, rules and insurance are your country's to say.</Aside>
        </div>
      }
    >
      <section aria-label="Heat line">
        <HeatLine
          gates={profile}
          ceiling={profile.ceiling}
          marks={batch.marks}
          moments={batch.moments}
          now={state.pouredAt ? null : now}
          height={260}
          label={`Heat line of batch ${props.batch.number}`}
        />
      </section>
      <div className="mt-6 grid grid-cols-1 gap-6 xl:grid-cols-2">
        <section className="sheet">
          <h2>Amounts</h2>
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
              {plan.components.map((part) => (
                <tr key={part.id} className="border-b border-line">
                  <th scope="row" className="py-1 text-left font-semibold">
                    {part.name}
                  </th>
                  <td className="figure text-right text-[20px]">{part.count ? `${part.count.n} ${part.count.of}` : units.g(part.mg, plan.resolutionUg)}</td>
                  <td className="figure text-right text-[20px]">
                    {part.count ? (state.countedN[part.id] ?? "–") : state.weighedMg[part.id] ? units.g(state.weighedMg[part.id] ?? 0) : "–"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="my-2">
            Asked for {writePercent(plan.spec.loadPpm, 3)} of the {plan.spec.basis}
            {state.weighedLoadPercent === null ? "" : `; weighed ${writeNumber(state.weighedLoadPercent, 2)} % of the wax`}
            {plan.maxLoadPpm === null ? "" : `; the largest load is ${writePercent(plan.maxLoadPpm)}`}. Spare {writePercent(plan.sparePpm)}.
          </p>
          <PotStrip parts={plan.components} resolutionUg={plan.resolutionUg} height={30} />
          <div className="mt-4 flex flex-wrap items-end gap-5">
            {plan.vessels.map((vessel) => (
              <figure key={vessel.vesselId} className="!tracking-normal">
                <JarSection
                  {...vessel}
                  scale={px}
                  flaws={state.flaws
                    .filter((one) => one.flaw.vesselId === vessel.vesselId)
                    .map((one) => ({ ...one.flaw, safety: defectOf(one.flaw.defect)?.classes.includes("S") ?? false }))}
                />
                <figcaption className="text-[14px]">
                  {vessel.count} × {vessel.name}, {units.g(vessel.fillMg)}
                  {vessel.part ? `, ${writePart(vessel.part)}` : ""}
                </figcaption>
              </figure>
            ))}
          </div>
          <Cost state={state} taken={props.taken} />
        </section>
        <section className="sheet">
          <h2>Setting and curing</h2>
          {state.times ? <CureBar state={state} now={now} /> : <p className="mt-2 text-soft">Not poured yet.</p>}
          <h2 className="mt-5">Look-over</h2>
          {state.lookedAt ? <p className="text-soft">{units.dayClock(state.lookedAt)}</p> : <p className="mt-1 text-soft">Not looked over yet.</p>}
          <ul>
            {state.flaws.map((one) => {
              const known = defectOf(one.flaw.defect);
              const vessel = plan.vessels.find((candidate) => candidate.vesselId === one.flaw.vesselId);
              return (
                <li key={one.eventId} className="border-b border-line py-1">
                  <strong className={known?.classes.includes("S") ? "text-safety" : ""}>
                    {known?.classes.includes("S") ? "⚠ " : ""}
                    {known?.name}
                  </strong>
                  , {one.flaw.severity}, {one.flaw.place},{" "}
                  <span className="figure text-[18px]">
                    {one.flaw.jars} of {vessel?.count}
                  </span>{" "}
                  {vessel?.name}
                  <div className="text-[14px] text-soft">Next batch, one change: {known?.nextBatch}</div>
                </li>
              );
            })}
          </ul>
          {state.lookedAt && state.flaws.length === 0 ? <p className="font-semibold text-inside">✓ no flaw found</p> : null}
        </section>
      </div>
      <section className="mt-6" aria-label="Entries">
        <h2 className="border-b-[3px] border-ink pb-1">Everything that was put down</h2>
        <Entries batch={batch} />
      </section>
    </Screen>
  );
}
