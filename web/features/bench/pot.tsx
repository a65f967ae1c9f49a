"use client";

import {
  type ForecastView,
  isOnBurner,
  namedLines,
  type Progress,
  plannedParts,
  rangeName,
  rangeStatus,
  stepTypeOf,
  type TypicalCooling,
  weighedLoad,
  writeRangeStatus,
} from "@hearth/core";
import { useEffect, useMemo, useState } from "react";
import { Entries } from "@/log/entries";
import { PaperLinks } from "@/log/paper-links";
import { SingleFieldForm } from "@/log/single-field-form";
import { type Batch, type BatchProps, useBatch } from "@/log/use-batch";
import type { PourFinding } from "@/server/findings/pour-finding";
import { Link } from "@/ui/address";
import { useKeys } from "@/ui/keys";
import { lazy, usePreload } from "@/ui/lazy";
import { LazyHeatLine } from "@/ui/lazy-heat-line";
import { PotStrip } from "@/ui/pot-strip";
import { Aside, Caution, HotWaxCaution, HotWaxLine, PageLayout, Warn } from "@/ui/side-notes";
import { SIGN, TONE, toneOf } from "@/ui/tone";
import { useUnits } from "@/ui/units";
import { AlarmSound, CeilingAlarm } from "./alarm";
import { ElsewhereForm } from "./elsewhere";
import { PotFinding } from "./finding";
import { ForeseenPot } from "./foreseen";
import { GiveUp } from "./give-up";
import { TooMuch } from "./over";
import { MadeReady, Pouring } from "./parts/lazy-pouring";
import { Observation } from "./parts/observation";
import { type PotTargets, potTargets } from "./pot-targets";
import { Rehearsal, RehearsalMark, type Speed } from "./rehearsal";
import { stepView } from "./steps";
import { useForecastViews } from "./use-forecast-view";

const Instruments = lazy(async () => (await import("./instruments")).Instruments);

/** The newest reading, and how it stands against the range that is being worked at. */
function LastReading({ batch, prompt }: { batch: Batch; prompt: Progress }) {
  const units = useUnits();
  const newest = batch.marks.at(-1);
  if (!newest || prompt.entry === "weighed" || prompt.entry === "counted") return null;
  const band = prompt.range ? { name: rangeName(prompt), range: prompt.range } : batch.bands.find((band) => band.step === newest.step);
  const tone = band ? toneOf(newest.celsius, band.range) : "ink";
  // Heated for the first time it is below until it is hot: only what was warm enough once fell.
  const wasWarm = !isOnBurner(prompt) || batch.marks.some((mark) => mark.step === prompt.step && band && rangeStatus(mark.celsius, band.range).is !== "below");
  const fell = band && prompt.range && wasWarm && newest.step === prompt.step && rangeStatus(newest.celsius, band.range).is === "below";
  return (
    <div className="float-right max-w-[55%] pl-3 text-right max-sm:text-[14px]" aria-live="polite">
      <div className="text-soft">last reading, {units.clock(newest.at)}</div>
      <span className={`figure text-[clamp(44px,5vw,64px)] leading-[0.95] ${TONE[tone]}`}>{units.tParts(newest.celsius).figure}</span>
      <span className="figure text-[26px]"> °{units.temperature}</span>
      {band ? (
        <div className={`font-semibold ${TONE[tone]}`}>
          {SIGN[tone]}
          {writeRangeStatus(newest.celsius, band.name, band.range, units.temperature)}
        </div>
      ) : null}
      {fell ? (
        batch.state.onHeat ? (
          <div className="font-semibold">reheating since {units.clock(batch.state.onHeat)}</div>
        ) : (
          <button type="button" className="press mt-1" onClick={() => void batch.record({ kind: "heated", payload: { pot: prompt.pot } })}>
            Back on the heat
          </button>
        )
      ) : null}
    </div>
  );
}

function StepList({ batch, here, onChoose }: { batch: Batch; here: string | undefined; onChoose: (key: string) => void }) {
  const several = batch.plan.pots.length > 1;
  return (
    <ol>
      {batch.steps.map((step, index) => {
        const isHere = step.key === here;
        const done = step.done && step.key !== batch.next?.key;
        return (
          <li key={step.key}>
            {several && step.pot !== batch.steps[index - 1]?.pot ? (
              <div className="px-2 pt-2 text-[14px] text-soft">
                pot {step.pot + 1}: {batch.plan.pots[step.pot]?.formulaName}
              </div>
            ) : null}
            <button
              type="button"
              aria-current={isHere ? "step" : undefined}
              onClick={() => onChoose(step.key)}
              className={`flex min-h-[40px] w-full items-center gap-3 border-b border-line px-2 text-left max-lg:min-h-[56px] ${isHere ? "bg-sheet font-bold outline-2 -outline-offset-2 outline-ink" : "hover:bg-wax"}`}
            >
              <span className={`figure w-5 text-[20px] ${done ? "text-inside" : "text-soft"}`} aria-hidden="true">
                {done ? "✓" : isHere ? "›" : "·"}
              </span>
              <span>
                {step.name}
                <span className="sr-only">{step.entry === null ? ", by the clock" : done ? ", done" : ", open"}</span>
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}

type PotProps = BatchProps & {
  usual: TypicalCooling | null;
  finding: PourFinding | null;
  /** What is forecast as the page is read, so that it is there before the device has worked it out. */
  forecasts: Record<keyof PotTargets, ForecastView | null>;
};

/** A pot as it runs: the next thing, one number to put in, the heat line, and everything logged so far. */
export function Pot(props: PotProps) {
  const { batch } = props;
  if (!batch.plan.rehearsal) return <Run {...props} />;
  return <Rehearsal begin={batch.state.lastAt}>{(speed) => <Run {...props} rehearsal={speed} />}</Rehearsal>;
}

/** What is to be minded at this step, and what the pot holds. */
function PotMargin({ batch, prompt, id }: { batch: Batch; prompt: Progress | null; id: string }) {
  const units = useUnits();
  const { plan, state } = batch;
  const step = prompt ? plan.process.steps.find((step) => step.id === prompt.step) : undefined;
  const kind = step ? stepTypeOf(step.kind) : null;
  const pot = prompt?.pot ?? 0;
  const load = weighedLoad(plan, state, pot);
  const limit = plan.pots[pot]?.maxLoadPpm ?? null;
  return (
    <>
      <HotWaxCaution />
      {kind && prompt ? <Aside title={`How to ${kind.verb}`}>{units.say(kind.why)}</Aside> : null}
      {kind?.caution && !isOnBurner(kind) ? <Caution title={kind.verb}>{kind.caution}</Caution> : null}
      {kind?.records === "add_c" ? (
        <Aside title={plan.process.name}>{plan.process.reason || "Follow the supplier's data for the add temperature."}</Aside>
      ) : null}
      {load !== null && limit !== null && load > limit / 10_000 + 0.005 ? (
        <Warn>
          The actual fragrance load is {units.n(load, 2)} % of the wax, above the maximum load of {units.percent(limit)}.
        </Warn>
      ) : null}
      {state.over.since === null ? <CeilingAlarm batch={batch} /> : null}
      <PotStrip parts={plannedParts(plan, pot)} height={34} />
      <GiveUp batch={batch} batchId={id} />
      {plan.rehearsal ? null : (
        <section aria-label="On paper" className="unprinted flex flex-wrap gap-2">
          <Link className="press sm:hidden" href={`/records/${id}`}>
            Record
          </Link>
          <PaperLinks batchId={id} />
        </section>
      )}
    </>
  );
}

/** What follows once it is poured. */
function Poured({ batch }: { batch: Batch }) {
  const units = useUnits();
  const { plan } = batch;
  return (
    <div>
      <h2 className="text-[26px]">Poured at {units.clock(batch.pouredAt ?? batch.now)}</h2>
      {plan.rehearsal ? <p className="mt-2">The practice run is over. Nothing of it counts.</p> : null}
      {batch.times && !plan.rehearsal ? (
        <>
          <p className="mt-2">
            Do not move it until <strong>{units.dayClock(batch.times.setAt)}</strong>, out of the sun and draft, spaced evenly.
          </p>
          <ol className="mt-2 list-decimal pl-6" aria-label="What comes next">
            <li>
              <strong>{units.dayClock(batch.times.setAt)}</strong>: inspect the jars.
            </li>
            <li>
              <strong>{units.day(batch.times.testFrom)}</strong>: burn-test one of them.
            </li>
            <li>
              <strong>{units.day(batch.times.sellFrom)}</strong>: fully cured. Release the rest for sale if the burn test went well.
            </li>
          </ol>
        </>
      ) : null}
      <Link className="action-button mt-4" href={plan.rehearsal ? "/plan" : "/rack"} data-next-step>
        {plan.rehearsal ? "Plan a batch" : "Go to the rack"}
      </Link>
    </div>
  );
}

/** Returns whether the pour temperature is decided at this step: while it is brought to its pour range, or poured for the first time. */
const isBeforePour = ({ pot, kind }: Progress): boolean => {
  const { heat, pours } = stepTypeOf(kind);
  return pot === 0 && (heat?.isForPour === true || pours === "first");
};

/** The heat line of the pot, with what is forecast of it. */
function PotHeat({ batch, forecastView }: { batch: Batch; forecastView: ForecastView | null }) {
  const { plan } = batch;
  return (
    <section className="mt-4" aria-label="Heat line">
      <LazyHeatLine
        bands={batch.bands}
        ceiling={plan.process.ceiling}
        marks={batch.marks}
        moments={batch.moments}
        now={batch.pouredAt ? null : batch.now}
        ahead={forecastView}
        height={210}
        label="Heat line of this pot"
      />
      <p className="mt-1 text-[14px] text-soft">
        ● probe&ensp; ◆ infrared&ensp; ▮ glass&ensp; ○ instrument not recorded. A line joins readings of one instrument only.
      </p>
    </section>
  );
}

function Run(props: PotProps & { rehearsal?: Speed }) {
  // What counts seconds keeps its own clock; a rehearsal's goes faster.
  const batch = useBatch(props, props.rehearsal ? 1_000 : 10_000);
  const { plan, state } = batch;
  const units = useUnits();
  const { finding } = props;
  const watches = useMemo(() => potTargets(plan, state, props.usual, finding), [plan, state, props.usual, finding]);
  const { forecastView = null, toFinding = null } = useForecastViews(watches, props.forecasts);
  usePreload(MadeReady, Pouring);
  const [listening, setListening] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const prompt = batch.steps.find((step) => step.key === chosen) ?? batch.next;
  const pot = prompt?.pot ?? 0;
  const move = (by: number) => {
    const at = batch.steps.findIndex((step) => step.key === prompt?.key);
    setChosen(batch.steps[Math.max(0, Math.min(batch.steps.length - 1, at + by))]?.key ?? null);
  };
  useKeys([
    { key: "u", does: "delete the last entry", run: () => void batch.undo() },
    { key: "]", does: "the next step", run: () => move(1) },
    { key: "[", does: "the previous step", run: () => move(-1) },
  ]);
  // Once something is recorded the pot itself says what comes next.
  // (The dependency only tells that an entry has been recorded.)
  useEffect(() => setChosen(null), [batch.last?.id]);
  const view = prompt ? stepView(prompt.kind) : null;
  const View = view?.View;

  return (
    <PageLayout
      gloved
      title={`${plan.rehearsal ? "Practice run" : "Pot"} ${props.batch.number}: ${batch.title}`}
      lead={`${namedLines(plan.products)
        .map((line) => `${line.count} × ${line.name}`)
        .join(", ")} · ${plan.pots.map((pot) => units.total(pot.components).main).join(" + ")} · ${plan.process.name}`}
      actions={
        <Link className="press max-sm:hidden" href={`/records/${props.batch.id}`}>
          Record
        </Link>
      }
      side={<PotMargin batch={batch} prompt={prompt} id={props.batch.id} />}
    >
      {plan.rehearsal ? <RehearsalMark /> : null}
      <AlarmSound since={state.over.since} />
      {state.over.since !== null ? <CeilingAlarm batch={batch} /> : null}
      <TooMuch batch={batch} pot={pot} />
      {state.abandoned || batch.pouredAt ? null : <HotWaxLine />}
      <div className="grid grid-cols-1 gap-5 xl:grid-cols-[minmax(0,1fr)_200px]">
        <div className="min-w-0">
          <section className="sheet" aria-label="Next">
            {prompt && View ? (
              <>
                <LastReading batch={batch} prompt={prompt} />
                <h2 className="mb-1 text-[26px]">{view.title(prompt)}</h2>
                <View key={prompt.key} prompt={prompt} batch={batch} instruments={props.instruments} />
              </>
            ) : state.abandoned ? (
              <h2 className="text-[26px]">Abandoned at {units.clock(state.abandoned.at)}</h2>
            ) : (
              <Poured batch={batch} />
            )}
            <div className="flex flex-wrap items-center justify-between gap-x-3">
              {prompt && View && forecastView ? <ForeseenPot forecastView={forecastView} batch={batch} /> : null}
              {prompt?.entry === "read" && prompt.range ? <Observation key={prompt.step} batch={batch} step={prompt.step} /> : null}
              {listening || (props.rehearsal && prompt) ? (
                <Instruments batch={batch} prompt={prompt} instruments={props.instruments} {...(props.rehearsal ? { rehearsal: props.rehearsal } : {})} />
              ) : prompt && !state.abandoned ? (
                <button type="button" className="press mt-2" onPointerEnter={Instruments.ahead} onClick={() => setListening(true)}>
                  Connect an instrument
                </button>
              ) : null}
              {batch.last ? (
                <p role="status" className="mt-2 flex items-center gap-3">
                  <span className="font-semibold text-inside">✓ Recorded</span>
                  <button type="button" className="press" onClick={() => void batch.undo()}>
                    Undo
                  </button>
                </p>
              ) : null}
            </div>
          </section>
          {finding && prompt && isBeforePour(prompt) ? <PotFinding finding={finding} newest={batch.marks.at(-1)?.celsius ?? null} ahead={toFinding} /> : null}
          <PotHeat batch={batch} forecastView={forecastView} />
        </div>
        <section aria-label="Steps">
          <StepList batch={batch} here={prompt?.key} onChoose={setChosen} />
        </section>
      </div>
      <section className="mt-6" aria-label="Entries">
        <h2 className="border-b-[3px] border-ink pb-1">Entries</h2>
        <Entries log={batch} newestFirst />
        <SingleFieldForm log={batch} kind="note" />
        {state.closed || state.abandoned ? null : <ElsewhereForm batch={batch} />}
      </section>
    </PageLayout>
  );
}
