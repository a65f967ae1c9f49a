"use client";

import { actKindOf, namedLines, type Progress, standing, type Usual, watchOf, weighedLoad, writeStanding } from "@hearth/core";
import { useEffect, useMemo, useState } from "react";
import { Entries } from "@/log/entries";
import { PaperLinks } from "@/log/paper-links";
import { type Batch, type BatchProps, useBatch } from "@/log/use-batch";
import { Link } from "@/ui/address";
import { HeatLine, toneOf } from "@/ui/heat-line";
import { useKeys } from "@/ui/keys";
import { later, useSoon } from "@/ui/later";
import { Aside, Caution, Screen, Warn } from "@/ui/margin";
import { PotStrip } from "@/ui/pot-strip";
import { SIGN, TONE } from "@/ui/tone";
import { useUnits } from "@/ui/units";
import { actView } from "./acts";
import { AlarmSound, CeilingAlarm } from "./alarm";
import { ElsewhereForm } from "./elsewhere";
import { GiveUp } from "./give-up";
import { NoteForm } from "./note";
import { TooMuch } from "./over";
import { MadeReady, Pouring } from "./parts/pouring-later";
import { Rehearsal, RehearsalMark, type Speed } from "./rehearsal";
import { useOutlooks } from "./use-outlook";

const Instruments = later(async () => (await import("./instruments")).Instruments);
const Foreseen = later(async () => (await import("./foreseen")).ForeseenPot);

/** The newest reading, and how it stands against the range that is being worked at. */
function LastReading({ batch, step }: { batch: Batch; step: Progress }) {
  const units = useUnits();
  const newest = batch.marks.at(-1);
  if (!newest || step.entry === "weighed" || step.entry === "counted") return null;
  const band = step.range
    ? { name: batch.bands.find((one) => one.act === step.act)?.name ?? step.kind, range: step.range }
    : batch.bands.find((one) => one.act === newest.act);
  const tone = band ? toneOf(newest.celsius, band.range) : "ink";
  // Heated for the first time it is below until it is hot: only what was warm enough once fell.
  const wasWarm = step.kind !== "heat" || batch.marks.some((one) => one.act === step.act && band && standing(one.celsius, band.range).is !== "below");
  const fell = band && step.range && wasWarm && newest.act === step.act && standing(newest.celsius, band.range).is === "below";
  return (
    <div className="text-right sm:float-right sm:pl-4 max-sm:mb-2 max-sm:text-left" aria-live="polite">
      <div className="text-soft">last reading, {units.clock(newest.at)}</div>
      <span className={`figure text-[clamp(44px,5vw,64px)] leading-[0.95] ${TONE[tone]}`}>{units.tParts(newest.celsius).figure}</span>
      <span className="figure text-[26px]"> °{units.temperature}</span>
      {band ? (
        <div className={`font-semibold ${TONE[tone]}`}>
          {SIGN[tone]}
          {writeStanding(newest.celsius, band.name, band.range, units.temperature)}
        </div>
      ) : null}
      {fell ? (
        batch.facts.onHeat ? (
          <div className="font-semibold">back on the heat since {units.clock(batch.facts.onHeat)}</div>
        ) : (
          <button type="button" className="press mt-1" onClick={() => void batch.record({ kind: "heated", payload: { pot: step.pot } })}>
            Put it back on the heat
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
      {batch.steps.map((one, index) => {
        const isHere = one.key === here;
        const done = one.done && one.key !== batch.next?.key;
        return (
          <li key={one.key}>
            {several && one.pot !== batch.steps[index - 1]?.pot ? (
              <div className="px-2 pt-2 text-[14px] text-soft">
                pot {one.pot + 1}: {batch.plan.pots[one.pot]?.formulaName}
              </div>
            ) : null}
            <button
              type="button"
              aria-current={isHere ? "step" : undefined}
              onClick={() => onChoose(one.key)}
              className={`flex min-h-[40px] w-full items-center gap-3 border-b border-line px-2 text-left max-lg:min-h-[56px] ${isHere ? "bg-sheet font-bold outline-2 -outline-offset-2 outline-ink" : "hover:bg-wax"}`}
            >
              <span className={`figure w-5 text-[20px] ${done ? "text-inside" : "text-soft"}`} aria-hidden="true">
                {done ? "✓" : isHere ? "›" : "·"}
              </span>
              <span>
                {one.name}
                <span className="sr-only">{one.entry === null ? ", by the clock" : done ? ", done" : ", open"}</span>
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}

type PotProps = BatchProps & { usual: Usual | null };

/** A pot as it runs: the next thing, one number to put in, the heat line, and everything put down so far. */
export function Pot(props: PotProps) {
  const { batch } = props;
  if (!batch.plan.rehearsal) return <Run {...props} />;
  return <Rehearsal begin={batch.facts.lastAt}>{(speed) => <Run {...props} rehearsal={speed} />}</Rehearsal>;
}

function Run(props: PotProps & { rehearsal?: Speed }) {
  // What counts seconds keeps its own clock; a rehearsal's goes faster.
  const batch = useBatch(props, props.rehearsal ? 1_000 : 10_000);
  const { plan, facts } = batch;
  const units = useUnits();
  const watches = useMemo(() => ({ outlook: watchOf(plan, facts, props.usual) }), [plan, facts, props.usual]);
  const { outlook = null } = useOutlooks(watches);
  useSoon(MadeReady, Pouring);
  const [listening, setListening] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const step = batch.steps.find((one) => one.key === chosen) ?? batch.next;
  const act = step ? plan.process.acts.find((one) => one.id === step.act) : undefined;
  const kind = act ? actKindOf(act.kind) : null;
  const pot = step?.pot ?? 0;
  const load = weighedLoad(plan, facts, pot);
  const limit = plan.pots[pot]?.maxLoadPpm ?? null;
  const move = (by: number) => {
    const at = batch.steps.findIndex((one) => one.key === step?.key);
    setChosen(batch.steps[Math.max(0, Math.min(batch.steps.length - 1, at + by))]?.key ?? null);
  };
  useKeys([
    { key: "u", does: "take the last entry back", act: () => void batch.undo() },
    { key: "]", does: "the step after this one", act: () => move(1) },
    { key: "[", does: "the step before this one", act: () => move(-1) },
  ]);
  // Once something is recorded the pot itself says what comes next.
  // (The dependency only tells that an entry has been recorded.)
  useEffect(() => setChosen(null), [batch.last?.id]);
  const view = step ? actView(step.kind) : null;
  const View = view?.View;

  return (
    <Screen
      gloved
      title={`${plan.rehearsal ? "Rehearsal" : "Pot"} ${props.batch.number}: ${batch.title}`}
      lead={`${namedLines(plan.products)
        .map((one) => `${one.count} × ${one.name}`)
        .join(", ")} · ${plan.pots.map((one) => units.total(one.components).main).join(" + ")} · ${plan.process.name}`}
      actions={
        <Link className="press" href={`/records/${props.batch.id}`}>
          Record
        </Link>
      }
      side={
        <>
          <Caution title="Hot wax">Never leave it. No water near it. Gloves, eye protection, air. Smother a wax fire; never water.</Caution>
          {kind && step ? <Aside title={`How to ${kind.verb}`}>{kind.why}</Aside> : null}
          {kind?.caution && step?.kind !== "heat" ? <Caution title={kind.verb}>{kind.caution}</Caution> : null}
          {step?.kind === "add" ? (
            <Aside title={plan.process.name}>{plan.process.reason || "Follow the supplier's sheet for the add temperature."}</Aside>
          ) : null}
          {load !== null && limit !== null && load > limit / 10_000 + 0.005 ? (
            <Warn>
              The actual load is {units.n(load, 2)} % of the wax, above the largest load of {units.percent(limit)}.
            </Warn>
          ) : null}
          {facts.over.since === null ? <CeilingAlarm batch={batch} /> : null}
          <PotStrip parts={plan.pots[pot]?.components ?? []} height={34} />
          <GiveUp batch={batch} batchId={props.batch.id} />
          {plan.rehearsal ? null : (
            <section aria-label="On paper" className="unprinted flex flex-wrap gap-2">
              <PaperLinks batchId={props.batch.id} />
            </section>
          )}
        </>
      }
    >
      {plan.rehearsal ? <RehearsalMark /> : null}
      <AlarmSound since={facts.over.since} />
      {facts.over.since !== null ? <CeilingAlarm batch={batch} /> : null}
      <TooMuch batch={batch} pot={pot} />
      <div className="grid grid-cols-1 gap-5 xl:grid-cols-[minmax(0,1fr)_232px]">
        <div className="min-w-0">
          <section className="sheet" aria-label="Next">
            {step && View ? (
              <>
                <LastReading batch={batch} step={step} />
                <h2 className="mb-1 text-[26px]">{view.title(step)}</h2>
                <View key={step.key} step={step} batch={batch} instruments={props.instruments} />
                {outlook ? <Foreseen outlook={outlook} batch={batch} /> : null}
              </>
            ) : facts.abandoned ? (
              <h2 className="text-[26px]">Abandoned at {units.clock(facts.abandoned.at)}</h2>
            ) : (
              <div>
                <h2 className="text-[26px]">Poured at {units.clock(batch.pouredAt ?? batch.now)}</h2>
                {plan.rehearsal ? <p className="mt-2">The rehearsal is over. Nothing of it counts.</p> : null}
                {batch.times && !plan.rehearsal ? (
                  <p className="mt-2">
                    Leave it unmoved until <strong>{units.dayClock(batch.times.setAt)}</strong>, out of the sun and draught, spaced evenly.
                  </p>
                ) : null}
                <Link className="act mt-4" href={plan.rehearsal ? "/plan" : "/rack"} data-next-step>
                  {plan.rehearsal ? "Plan a batch" : "Go to the rack"}
                </Link>
              </div>
            )}
            {listening || (props.rehearsal && step) ? (
              <Instruments batch={batch} step={step} instruments={props.instruments} {...(props.rehearsal ? { rehearsal: props.rehearsal } : {})} />
            ) : step && !facts.abandoned ? (
              <button type="button" className="press mt-3" onPointerEnter={Instruments.ahead} onClick={() => setListening(true)}>
                Connect an instrument
              </button>
            ) : null}
            {batch.last ? (
              <p role="status" className="mt-3 flex items-center gap-3">
                <span className="font-semibold text-inside">✓ Recorded</span>
                <button type="button" className="press" onClick={() => void batch.undo()}>
                  Undo
                </button>
              </p>
            ) : null}
          </section>
          <section className="mt-4" aria-label="Heat line">
            <HeatLine
              bands={batch.bands}
              ceiling={plan.process.ceiling}
              marks={batch.marks}
              moments={batch.moments}
              now={batch.pouredAt ? null : batch.now}
              ahead={outlook}
              height={230}
              label="Heat line of this pot"
            />
            <p className="mt-1 text-[14px] text-soft">
              ● probe&ensp; ◆ infrared&ensp; ▮ glass&ensp; ○ instrument not noted. A line joins readings of one instrument only.
            </p>
          </section>
        </div>
        <section aria-label="Steps">
          <StepList batch={batch} here={step?.key} onChoose={setChosen} />
        </section>
      </div>
      <section className="mt-6" aria-label="Entries">
        <h2 className="border-b-[3px] border-ink pb-1">Entries</h2>
        <Entries log={batch} newestFirst />
        <NoteForm batch={batch} />
        {facts.closed || facts.abandoned ? null : <ElsewhereForm batch={batch} />}
      </section>
    </Screen>
  );
}
