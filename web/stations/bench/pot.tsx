"use client";

import {
  type BatchState,
  type Gate,
  type GateName,
  good,
  parseDuration,
  parseMass,
  parseTemperature,
  type Step,
  writeDuration,
  writeNumber,
  writeStanding,
} from "@hearth/core";
import Link from "next/link";
import { useEffect, useMemo, useState } from "react";
import { Field, type FieldRule, useFields } from "@/ui/fields";
import { HeatLine, toneOf } from "@/ui/heat-line";
import { useKeys } from "@/ui/keys";
import { Aside, Caution, Screen, Warn } from "@/ui/margin";
import { PotStrip } from "@/ui/pot-strip";
import { useUnits, type Writers } from "@/ui/units";
import { parseWhen } from "@/ui/when";
import { Entries } from "../batch/entries";
import { SIGN, TONE } from "../batch/entry";
import { type Batch, type BatchProps, type Entered, useBatch } from "../batch/use-batch";
import { StirClock } from "./stir-clock";

const ACTS: Record<Step["kind"], { title: (step: Step) => string; button: string }> = {
  weigh: { title: (step) => `Weigh ${step.component?.name ?? ""}`, button: "Record the weight" },
  heat: { title: () => "Heat the wax", button: "Record the heat reading" },
  add: { title: (step) => (step.name === "add fragrance" ? "Add the fragrance" : "Read before stirring"), button: "Record the add reading" },
  stir: { title: () => "Stir by the clock", button: "Record the stirring" },
  pour: { title: () => "Bring it to the pour gate", button: "Record the pour reading" },
  poured: { title: () => "Pour slowly, tap, stop at the shoulder", button: "Mark it poured" },
};

const isGate = (kind: Step["kind"]): kind is GateName => kind === "heat" || kind === "add" || kind === "pour";

/** What the step asks for, as large as the screen allows. */
function Target({ step, state, units }: { step: Step; state: BatchState; units: Writers }) {
  const huge = "figure text-[clamp(64px,9vw,116px)] leading-[0.9]";
  if (step.kind === "weigh" && step.component) {
    const done = state.weighedMg[step.component.id] ?? 0;
    const rest = Math.max(0, step.component.mg - done);
    const parts = units.gParts(done > 0 && !step.done ? rest : step.component.mg, state.plan.resolutionUg);
    return (
      <div>
        <span className={huge}>{parts.figure}</span>
        <span className="figure text-[34px]"> {parts.unit}</span>
        {done > 0 ? (
          <div className="text-soft">
            {step.done ? "weighed" : "still to go; weighed"} <span className="figure text-[20px] text-ink">{units.g(done, state.plan.resolutionUg)}</span> of{" "}
            {units.g(step.component.mg, state.plan.resolutionUg)}
          </div>
        ) : null}
      </div>
    );
  }
  if (isGate(step.kind)) {
    const gate: Gate = state.plan.spec.profile[step.kind];
    const text = units.gate(gate);
    return (
      <div>
        <span className={huge}>{text.slice(0, -3)}</span>
        <span className="figure text-[34px]"> {text.slice(-2)}</span>
      </div>
    );
  }
  if (step.kind === "poured") {
    return (
      <div className="flex flex-wrap gap-x-8">
        {state.plan.vessels.map((vessel) => (
          <div key={vessel.vesselId}>
            <span className="figure text-[clamp(44px,6vw,76px)] leading-none">
              {vessel.count} × {units.gParts(vessel.fillMg).figure}
            </span>
            <span className="figure text-[26px]"> {units.mass}</span>
            <div className="text-soft">{vessel.name}</div>
          </div>
        ))}
      </div>
    );
  }
  return null;
}

function StepForm({ step, batch, instruments }: { step: Step; batch: Batch; instruments: BatchProps["instruments"] }) {
  const units = useUnits();
  const { state } = batch;
  const thermometers = instruments.filter((one) => one.kind !== "scale");
  const scales = instruments.filter((one) => one.kind === "scale");
  const tools = step.kind === "weigh" ? scales : isGate(step.kind) ? thermometers : [];
  // One instrument is kept to: the one used last is offered first.
  const lastTool = [...batch.events].reverse().find((event) => tools.some((tool) => tool.id === event.instrumentId))?.instrumentId ?? tools[0]?.id ?? "";
  const profile = state.plan.spec.profile;
  const rules = useMemo(() => {
    const value: FieldRule<unknown> =
      step.kind === "weigh"
        ? { initial: "", parse: (text) => parseMass(text, { unit: units.mass }) }
        : isGate(step.kind)
          ? { initial: "", parse: (text) => parseTemperature(text, units.temperature) }
          : step.kind === "stir"
            ? { initial: writeDuration(profile.stirSeconds), parse: (text) => parseDuration(text, "min", 3_600) }
            : { initial: "", parse: (text) => good(text === "" ? null : text === "yes") };
    return {
      value,
      tool: { initial: lastTool, parse: (text: string) => good(text || null) } as FieldRule<unknown>,
      at: { initial: "", parse: (text: string) => parseWhen(text, batch.now, units.zone) } as FieldRule<unknown>,
    };
  }, [step.kind, units, profile.stirSeconds, lastTool, batch.now]);
  const fields = useFields(rules);
  const [said, setSaid] = useState("");

  const submit = async () => {
    const all = fields.check();
    if (!all) return;
    const common = { happenedAt: all.at as string | null, instrumentId: tools.length > 0 ? (all.tool as string | null) : null };
    const tool = tools.find((one) => one.id === common.instrumentId);
    let entered: Entered;
    if (step.kind === "weigh") entered = { kind: "weighed", payload: { componentId: step.component?.id ?? "", mg: all.value as number }, ...common };
    else if (isGate(step.kind))
      entered = { kind: "read", payload: { gate: step.kind, shown: all.value as number, correction: tool?.correction ?? 0 }, ...common };
    else if (step.kind === "stir") entered = { kind: "stirred", payload: { seconds: all.value as number }, ...common };
    else entered = { kind: "poured", payload: { warmedJars: all.value as boolean | null }, ...common };
    fields.fill({ value: "", at: "" });
    setSaid("");
    const typed = { value: fields.text("value"), at: fields.text("at") };
    const refusal = await batch.record(entered);
    if (refusal) {
      fields.fill(typed);
      const names: Record<string, string> = { happenedAt: "at", mg: "value", shown: "value", seconds: "value", instrumentId: "tool" };
      fields.refuse(Object.fromEntries(Object.entries(refusal.fields).flatMap(([name, messages]) => (names[name] ? [[names[name], messages]] : []))));
      setSaid(refusal.message);
    }
  };

  // Digits go straight into the reading that waits.
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      const field = fields.form.current?.elements.namedItem("value");
      const target = event.target as HTMLElement;
      if (!(field instanceof HTMLInputElement) || ["INPUT", "SELECT", "TEXTAREA"].includes(target.tagName) || event.ctrlKey || event.metaKey || event.altKey)
        return;
      if (/^[0-9]$/.test(event.key)) field.focus();
    };
    window.addEventListener("keydown", hear);
    return () => window.removeEventListener("keydown", hear);
  }, [fields.form]);

  const label = step.kind === "weigh" ? "Scale shows" : isGate(step.kind) ? "Thermometer shows" : step.kind === "stir" ? "Stirred for" : "Jars warmed first";
  return (
    <form
      ref={fields.form}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      {step.kind === "stir" ? <StirClock seconds={profile.stirSeconds} onStop={(seconds) => fields.fill({ value: `${seconds} s` })} /> : null}
      <div className="mt-3 grid grid-cols-[minmax(0,210px)_auto] items-start gap-x-4 max-sm:grid-cols-1">
        {step.kind === "poured" ? (
          <Field
            label={label}
            {...fields.bind("value")}
            options={[
              { value: "", label: "not noted" },
              { value: "yes", label: "yes" },
              { value: "no", label: "no" },
            ]}
          />
        ) : (
          <Field
            label={label}
            {...fields.bind("value")}
            large
            inputMode="decimal"
            unit={step.kind === "weigh" ? units.mass : isGate(step.kind) ? `°${units.temperature}` : undefined}
          />
        )}
        <button type="submit" className="act mt-[27px] !min-h-[64px] justify-self-start max-sm:mt-0 max-sm:mb-3 max-sm:justify-self-stretch" data-next-step>
          {ACTS[step.kind].button}
        </button>
        <div className="grid grid-cols-[minmax(0,1fr)_110px] gap-x-4 sm:col-span-2 sm:max-w-[420px]">
          {tools.length > 0 ? (
            <Field
              label={step.kind === "weigh" ? "Scale" : "Thermometer"}
              {...fields.bind("tool")}
              options={[...tools.map((one) => ({ value: one.id, label: one.name })), { value: "", label: "not noted" }]}
            />
          ) : null}
          <Field label="When" {...fields.bind("at")} placeholder="now" />
        </div>
      </div>
      {said ? (
        <p role="alert" className="mt-1 font-semibold text-hot">
          ▲ {said}
        </p>
      ) : null}
    </form>
  );
}

function Why({ step, state, units }: { step: Step; state: BatchState; units: Writers }) {
  const profile = state.plan.spec.profile;
  if (step.kind === "weigh")
    return <Aside title="Weighing">Tare first. One container for wax, another for fragrance. On a small scale weigh in parts: the parts add up here.</Aside>;
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
      title={`Pot ${props.batch.number}: ${state.plan.formulaName}`}
      lead={`${state.plan.vessels.map((vessel) => `${vessel.count} × ${vessel.name}`).join(", ")} · ${units.g(state.plan.totalMg, state.plan.resolutionUg)} · ${profile.name}`}
      side={
        <>
          <Caution title="Hot wax">Never leave it. No water near it. Gloves, eye protection, air. Smother a wax fire; never water.</Caution>
          {step ? <Why step={step} state={state} units={units} /> : null}
          {state.weighedLoadPercent !== null && state.plan.maxLoadPpm !== null && state.weighedLoadPercent > state.plan.maxLoadPpm / 10_000 + 0.005 ? (
            <Warn>
              The load really weighed is {writeNumber(state.weighedLoadPercent, 2)} % of the wax, above the {writeNumber(state.plan.maxLoadPpm / 10_000, 2)} %
              this wax takes.
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
                {newest && step.kind !== "weigh" && step.kind !== "stir" ? (
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
          <button type="submit" className="press !min-h-[44px]">
            Add the note
          </button>
        </form>
      </section>
    </Screen>
  );
}
