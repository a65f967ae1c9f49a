"use client";

import { type BatchState, type GateName, type Step, writeDuration, writeNumber, writeStanding } from "@hearth/core";
import Link from "next/link";
import { useEffect, useState } from "react";
import { HeatLine, toneOf } from "@/ui/heat-line";
import { useKeys } from "@/ui/keys";
import { Aside, Caution, Screen, Warn } from "@/ui/margin";
import { PotStrip } from "@/ui/pot-strip";
import { useUnits, type Writers } from "@/ui/units";
import { Entries } from "../batch/entries";
import { SIGN, TONE } from "../batch/entry";
import { type BatchProps, useBatch } from "../batch/use-batch";
import { ACTS, isGate, StepForm, Target } from "./step";

function Why({ step, state, units }: { step: Step; state: BatchState; units: Writers }) {
  const profile = state.plan.spec.profile;
  if (step.kind === "weigh")
    return <Aside title="Weighing">Tare first. One container for wax, another for fragrance. On a small scale weigh in parts: the parts add up here.</Aside>;
  if (step.kind === "count")
    return (
      <Aside title="Dye">
        Liquid wax looks much darker than set wax: dab a drop on paper to see the set colour
        {state.plan.waxFamily === "gel" ? "; gel shows its true colour hot" : ""}. More dye clogs the wick.
      </Aside>
    );
  if (step.kind === "heat")
    return (
      <Aside title="Before you read">
        Stir first: a pot has hot and cold spots. Keep to one thermometer. Long above {units.t(profile.ceiling)} scorches the wax.
      </Aside>
    );
  if (step.kind === "add") return <Aside title={profile.name}>{profile.reason || "Follow the supplier's sheet for the add temperature."}</Aside>;
  if (step.kind === "stir")
    return (
      <Aside title="Why by the clock">
        Oil that is not stirred in sinks and sweats out later. {writeDuration(profile.stirSeconds)} is this profile's time. Cool oil lowers the pot's
        temperature: read again after.
      </Aside>
    );
  if (step.kind === "pour")
    return (
      <Aside title="If it fell too far">Put it back on the heat and watch it. Poured too hot, tops sink and roughen; too cool, the wall shows rings.</Aside>
    );
  return <Aside title="Pouring">Slowly and without a splash; tap the jar for bubbles; stop at the shoulder. Keep some back for the top-up.</Aside>;
}

/** A pot as it runs: the next thing, one number to put in, the heat line, and everything put down so far. */
export function Pot(props: BatchProps) {
  const batch = useBatch(props);
  const { state } = batch;
  const units = useUnits();
  const [chosen, setChosen] = useState<string | null>(null);
  const [note, setNote] = useState("");
  const step = state.steps.find((one) => one.key === chosen) ?? state.next;
  const profile = state.plan.spec.profile;
  const newest = state.readings.at(-1) ?? null;
  const gateNow: GateName | null = step && isGate(step.kind) ? step.kind : newest && newest.gate !== "watch" ? newest.gate : null;
  const tone = newest && gateNow ? toneOf(newest.celsius, profile[gateNow]) : "ink";
  const move = (by: number) => {
    const at = state.steps.findIndex((one) => one.key === step?.key);
    setChosen(state.steps[Math.max(0, Math.min(state.steps.length - 1, at + by))]?.key ?? null);
  };
  useKeys([
    { key: "u", does: "take the last entry back", act: () => void batch.undo() },
    { key: "]", does: "the step after this one", act: () => move(1) },
    { key: "[", does: "the step before this one", act: () => move(-1) },
  ]);
  // Once something is recorded the pot itself says what comes next.
  // (The dependency only tells that an entry has been recorded.)
  useEffect(() => setChosen(null), [batch.last?.id]);

  return (
    <Screen
      gloved
      title={`Pot ${props.batch.number}: ${state.plan.formulaName}`}
      lead={`${state.plan.vessels.map((vessel) => `${vessel.count} × ${vessel.name}`).join(", ")} · ${units.g(state.plan.totalMg, state.plan.resolutionUg)} · ${profile.name}`}
      side={
        <>
          <Caution title="Hot wax">Never leave it. No water near it. Gloves, eye protection, air. Smother a wax fire; never water.</Caution>
          {step ? <Why step={step} state={state} units={units} /> : null}
          {state.weighedLoadPercent !== null && state.plan.maxLoadPpm !== null && state.weighedLoadPercent > state.plan.maxLoadPpm / 10_000 + 0.005 ? (
            <Warn>
              The load really weighed is {writeNumber(state.weighedLoadPercent, 2)} % of the wax, above the largest load of{" "}
              {writeNumber(state.plan.maxLoadPpm / 10_000, 2)} %.
            </Warn>
          ) : null}
          <PotStrip parts={state.plan.components} resolutionUg={state.plan.resolutionUg} height={34} />
        </>
      }
    >
      <div className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(0,1fr)_232px]">
        <section className="sheet" aria-label="Next">
          {step ? (
            <>
              <div className="flex flex-wrap items-start justify-between gap-x-8 gap-y-2">
                <div>
                  <h2 className="text-[26px]">{ACTS[step.kind].title(step)}</h2>
                  <div className="mt-2">
                    <Target step={step} state={state} units={units} />
                  </div>
                </div>
                {newest && step.kind !== "weigh" && step.kind !== "count" && step.kind !== "stir" ? (
                  <div className="text-right" aria-live="polite">
                    <div className="text-soft">last reading, {units.clock(newest.at)}</div>
                    <span className={`figure text-[clamp(52px,7vw,84px)] leading-[0.95] ${TONE[tone]}`}>{units.tParts(newest.celsius).figure}</span>
                    <span className="figure text-[26px]"> °{units.temperature}</span>
                    {gateNow ? (
                      <div className={`font-semibold ${TONE[tone]}`}>
                        {SIGN[tone]}
                        {writeStanding(newest.celsius, gateNow, profile[gateNow], units.temperature)}
                      </div>
                    ) : null}
                  </div>
                ) : null}
              </div>
              <StepForm key={step.key} step={step} batch={batch} instruments={props.instruments} />
            </>
          ) : (
            <div>
              <h2 className="text-[26px]">Poured at {units.clock(state.pouredAt ?? batch.now)}</h2>
              {state.times ? (
                <p className="mt-2">
                  Leave it unmoved until <strong>{units.dayClock(state.times.setAt)}</strong>, out of the sun and draught, spaced evenly.
                </p>
              ) : null}
              <Link className="act mt-4" href="/rack" data-next-step>
                Go to the rack
              </Link>
            </div>
          )}
          {batch.last ? (
            <p role="status" className="mt-3 flex items-center gap-3">
              <span className="font-semibold text-inside">✓ Recorded</span>
              <button type="button" className="press" onClick={() => void batch.undo()}>
                Undo
              </button>
            </p>
          ) : null}
        </section>
        <section aria-label="Steps">
          <ol>
            {state.steps.map((one) => {
              const here = one.key === step?.key;
              return (
                <li key={one.key}>
                  <button
                    type="button"
                    aria-current={here ? "step" : undefined}
                    onClick={() => setChosen(one.key)}
                    className={`flex min-h-[46px] w-full items-center gap-3 border-b border-line px-2 text-left max-lg:min-h-[56px] ${here ? "bg-sheet font-bold outline-2 -outline-offset-2 outline-ink" : "hover:bg-wax"}`}
                  >
                    <span className={`figure w-5 text-[20px] ${one.done && one !== state.next ? "text-inside" : "text-soft"}`} aria-hidden="true">
                      {one.done && one !== state.next ? "✓" : here ? "›" : "·"}
                    </span>
                    <span>
                      {one.name}
                      <span className="sr-only">{one.done && one !== state.next ? ", done" : ", open"}</span>
                    </span>
                  </button>
                </li>
              );
            })}
          </ol>
        </section>
      </div>
      <section className="mt-6" aria-label="Heat line">
        <HeatLine
          gates={profile}
          ceiling={profile.ceiling}
          marks={batch.marks}
          moments={batch.moments}
          now={state.pouredAt ? null : batch.now}
          height={250}
          label="Heat line of this pot"
        />
        <p className="mt-1 text-[14px] text-soft">
          ● probe&ensp; ◆ infrared&ensp; ▮ glass&ensp; ○ instrument not noted. A line joins readings of one instrument only.
        </p>
      </section>
      <section className="mt-6" aria-label="Entries">
        <h2 className="border-b-[3px] border-ink pb-1">Entries</h2>
        <Entries batch={batch} newestFirst />
        <form
          className="mt-3 flex items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            const text = note.trim();
            if (!text) return;
            setNote("");
            void batch.record({ kind: "note", payload: { text } }).then((refusal) => refusal && setNote(text));
          }}
        >
          <label className="flex-1 text-[15px] font-semibold">
            Note
            <input
              className="entry mt-1 font-normal"
              maxLength={2000}
              value={note}
              onChange={(event) => setNote(event.target.value)}
              placeholder="Anything out of the ordinary"
            />
          </label>
          <button type="submit" className="press">
            Add the note
          </button>
        </form>
      </section>
    </Screen>
  );
}
