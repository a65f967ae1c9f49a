"use client";

import {
  type BatchState,
  type Gate,
  type GateName,
  good,
  parseCount,
  parseDuration,
  parseMass,
  parseTemperature,
  partsFor,
  type Step,
  splitIntoPitchers,
  writeDuration,
} from "@hearth/core";
import { useEffect, useMemo, useState } from "react";
import { Field, type FieldRule, useFields } from "@/ui/fields";
import { useUnits, type Writers } from "@/ui/units";
import { parseWhen } from "@/ui/when";
import type { Batch, BatchProps, Entered } from "../batch/use-batch";
import { StirClock } from "./stir-clock";

/** What each step is called and what its button does. */
export const ACTS: Record<Step["kind"], { title: (step: Step) => string; button: string }> = {
  weigh: { title: (step) => `Weigh ${step.component?.name ?? ""}`, button: "Record the weight" },
  count: { title: (step) => `Count in ${step.component?.name ?? ""}`, button: "Record the count" },
  heat: { title: () => "Heat the wax", button: "Record the heat reading" },
  add: { title: (step) => (step.name === "add fragrance" ? "Add the fragrance" : "Read before stirring"), button: "Record the add reading" },
  stir: { title: () => "Stir by the clock", button: "Record the stirring" },
  pour: { title: () => "Bring it to the pour gate", button: "Record the pour reading" },
  poured: { title: () => "Pour slowly, tap, stop at the shoulder", button: "Mark it poured" },
};

export const isGate = (kind: Step["kind"]): kind is GateName => kind === "heat" || kind === "add" || kind === "pour";

/** The same component pitcher by pitcher, where the batch is split over several. */
function InPitchers({ step, state, units }: { step: Step; state: BatchState; units: Writers }) {
  const { plan } = state;
  if (!plan.pitcherMg || plan.totalMg <= plan.pitcherMg) return null;
  const pitchers = splitIntoPitchers(plan.components, plan.pitcherMg, plan.resolutionUg, plan.maxLoadPpm);
  const at = plan.components.findIndex((part) => part.id === step.component?.id);
  return (
    <ol className="mt-2 flex flex-wrap gap-x-5" aria-label="By pitcher">
      {pitchers.map((pitcher, index) => {
        const part = pitcher.components[at];
        return (
          <li key={index} className="text-soft">
            pitcher {index + 1}: <span className="figure text-[24px] text-ink">{part?.count ? part.count.n : units.g(part?.mg ?? 0, plan.resolutionUg)}</span>
          </li>
        );
      })}
    </ol>
  );
}

/** A weight above what the chosen scale takes, in parts that it can. */
function InParts({
  mg,
  scale,
  resolutionUg,
  units,
}: {
  mg: number;
  scale: { name: string; capacityMg: number | null } | undefined;
  resolutionUg: number;
  units: Writers;
}) {
  const [tare, setTare] = useState("");
  if (!scale?.capacityMg || mg <= scale.capacityMg) return null;
  const read = tare.trim() === "" ? null : parseMass(tare, { unit: units.mass, most: scale.capacityMg });
  // Where nobody has weighed it, a container of a fifth of what the scale takes.
  const container = read?.ok ? read.value : Math.round(scale.capacityMg / 5);
  let parts: number[] = [];
  let fault = read && !read.ok ? read.message : "";
  try {
    parts = partsFor(mg, scale.capacityMg, container, resolutionUg);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    fault = error.message;
  }
  return (
    <div className="mt-2 border-l-[6px] border-hot bg-hot-fill px-3 py-2 font-medium">
      <p>
        ▲ {scale.name} takes {units.bulk(scale.capacityMg)}.{" "}
        {fault ? (
          fault
        ) : (
          <>
            Weigh in {parts.length} parts beside {read?.ok ? "the container" : `a container of up to ${units.bulk(container)}`}:{" "}
            <span className="figure text-[20px]">{parts.map((part) => units.g(part, resolutionUg)).join(" + ")}</span>
          </>
        )}
      </p>
      <label className="mt-1 block text-[15px]">
        Container weighs{" "}
        <input
          className="entry !w-[130px]"
          inputMode="decimal"
          value={tare}
          onChange={(event) => setTare(event.target.value)}
          placeholder={units.bulk(container)}
        />
      </label>
    </div>
  );
}

/** What the step asks for, as large as the screen allows. */
export function Target({ step, state, units }: { step: Step; state: BatchState; units: Writers }) {
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
        <InPitchers step={step} state={state} units={units} />
      </div>
    );
  }
  if (step.kind === "count" && step.component?.count) {
    const done = state.countedN[step.component.id] ?? 0;
    const { n, of } = step.component.count;
    return (
      <div>
        <span className={huge}>{Math.max(0, done > 0 && !step.done ? n - done : n)}</span>
        <span className="figure text-[34px]"> {of}</span>
        {done > 0 ? (
          <div className="text-soft">
            {step.done ? "counted" : "still to go; counted"} <span className="figure text-[20px] text-ink">{done}</span> of {n}
          </div>
        ) : null}
        <InPitchers step={step} state={state} units={units} />
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

export function StepForm({ step, batch, instruments }: { step: Step; batch: Batch; instruments: BatchProps["instruments"] }) {
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
        : step.kind === "count"
          ? { initial: "", parse: (text) => parseCount(text, { least: 1, most: 100_000, name: step.component?.count?.of ?? "drops" }) }
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
  }, [step.kind, step.component?.count?.of, units, profile.stirSeconds, lastTool, batch.now]);
  const fields = useFields(rules);
  const [said, setSaid] = useState("");

  const submit = async () => {
    const all = fields.check();
    if (!all) return;
    const common = { happenedAt: all.at as string | null, instrumentId: tools.length > 0 ? (all.tool as string | null) : null };
    const tool = tools.find((one) => one.id === common.instrumentId);
    let entered: Entered;
    if (step.kind === "weigh") entered = { kind: "weighed", payload: { componentId: step.component?.id ?? "", mg: all.value as number }, ...common };
    else if (step.kind === "count") entered = { kind: "counted", payload: { componentId: step.component?.id ?? "", n: all.value as number }, ...common };
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
      const names: Record<string, string> = { happenedAt: "at", mg: "value", n: "value", shown: "value", seconds: "value", instrumentId: "tool" };
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

  const label =
    step.kind === "weigh"
      ? "Scale shows"
      : step.kind === "count"
        ? "Counted"
        : isGate(step.kind)
          ? "Thermometer shows"
          : step.kind === "stir"
            ? "Stirred for"
            : "Jars warmed first";
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
            unit={
              step.kind === "weigh" ? units.mass : step.kind === "count" ? step.component?.count?.of : isGate(step.kind) ? `°${units.temperature}` : undefined
            }
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
      {step.kind === "weigh" && step.component ? (
        <InParts
          mg={Math.max(0, step.component.mg - (state.weighedMg[step.component.id] ?? 0))}
          scale={tools.find((one) => one.id === fields.text("tool"))}
          resolutionUg={state.plan.resolutionUg}
          units={units}
        />
      ) : null}
      {said ? (
        <p role="alert" className="mt-1 font-semibold text-hot">
          ▲ {said}
        </p>
      ) : null}
    </form>
  );
}
