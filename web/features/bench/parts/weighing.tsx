"use client";

import {
  askWhetherThousands,
  countUnit,
  countWords,
  isImplausible,
  parseMass,
  partKey,
  portionsFor,
  runningTotals,
  type ScaleDisplay,
  targetOf,
  typedUnit,
} from "@hearth/core";
import { useEffect, useMemo, useState } from "react";
import { countRule, massRule } from "@/forms/rules";
import type { Instrument } from "@/log/use-batch";
import { type Formats, useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";
import { EntryForm } from "./entry-form";
import { HUGE, type StepProps } from "./step";

/** The same component pitcher by pitcher, where the pot is split over several. */
function InPitchers({ prompt, batch, units }: { prompt: StepProps["prompt"]; batch: StepProps["batch"]; units: Formats }) {
  const pitchers = batch.plan.pots[prompt.pot]?.pitchers;
  const part = prompt.component;
  if (!pitchers || !part) return null;
  return (
    <ol className="mt-2 flex flex-wrap gap-x-5" aria-label="Per pitcher">
      {pitchers.map((pitcher, index) => {
        const share = pitcher.components.find((component) => component.id === part.id);
        return (
          <li key={index} className="text-soft">
            pitcher {index + 1}: <span className="figure text-[24px] text-ink">{part.count ? (share?.n ?? 0) : units.onScale(share?.mg ?? 0, part.scale)}</span>
          </li>
        );
      })}
    </ol>
  );
}

/** A weight above what the chosen scale takes, in portions that it can. */
function InPortions({ mg, scale, asked, units }: { mg: number; scale: Instrument | undefined; asked: ScaleDisplay; units: Formats }) {
  const [tare, setTare] = useState("");
  if (!scale?.capacityMg || mg <= scale.capacityMg) return null;
  const read = tare.trim() === "" ? null : (askWhetherThousands(tare, units.manner) ?? parseMass(tare, { unit: units.mass, most: scale.capacityMg }));
  // Where nobody has weighed it, a container of a fifth of what the scale takes.
  const container = read?.ok ? read.value : Math.round(scale.capacityMg / 5);
  let portions: number[] = [];
  let fault = read && !read.ok ? read.message : "";
  try {
    portions = portionsFor(mg, scale.capacityMg, container, asked.resolutionUg);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    fault = error.message;
  }
  return (
    <div className={notice({ className: "mt-2 font-medium" })}>
      <p>
        ▲ {scale.name} takes {units.bulk(scale.capacityMg)}.{" "}
        {fault ? (
          fault
        ) : (
          <>
            Weigh in {portions.length} portions in {read?.ok ? "the container" : `a container of up to ${units.bulk(container)}`}:{" "}
            <span className="figure text-[20px]">{portions.map((part) => units.onScale(part, asked)).join(" + ")}</span>
          </>
        )}
      </p>
      <label className="mt-1 block text-[15px]">
        Container weight{" "}
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

const ONE_TARE = "hearth.one-tare";
/** Whether oils are weighed one after the other on one tare, as this device was left. */
function useOneTare(): [boolean, (on: boolean) => void] {
  const [isOn, setOn] = useState(false);
  useEffect(() => setOn(localStorage.getItem(ONE_TARE) === "on"), []);
  return [
    isOn,
    (on) => {
      setOn(on);
      localStorage.setItem(ONE_TARE, on ? "on" : "off");
    },
  ];
}

/** What is weighed or counted of one component: what is still to go, as large as the screen allows. */
export function Weighing({ prompt, batch, instruments }: StepProps) {
  const units = useUnits();
  const part = prompt.component;
  const counting = part?.count !== undefined;
  const [tool, setTool] = useState<Instrument>();
  const [isOneTare, setOneTare] = useOneTare();
  // A bare figure is meant in the unit of the scale that was read; where none is named, in that of the planned one.
  const read = tool?.resolutionUg ? { resolutionUg: tool.resolutionUg, unit: tool.scaleUnit } : part?.scale;
  const unit = read ? typedUnit(read) : units.mass;
  const rule = useMemo(
    () => (counting ? countRule({ least: 1, most: 100_000, name: part?.count?.of ?? "drops" }) : massRule(units, { unit })),
    [counting, part?.count?.of, units, unit],
  );
  if (!part) return null;
  const beside = counting ? "" : units.beside(prompt.done ? prompt.asked : Math.max(0, prompt.asked - prompt.given), part.scale);
  const { given, asked } = prompt;
  const rest = Math.max(0, asked - given);
  // On one tare the scale shows this oil and those before it together.
  const parts = batch.plan.pots[prompt.pot]?.components ?? [];
  const totals = runningTotals(parts.map((other) => ({ ...other, mg: targetOf(batch.state, prompt.pot, other) })));
  const total = totals.get(part.id);
  const onScale = isOneTare && total !== undefined;
  const before = onScale ? [...totals.keys()].slice(0, [...totals.keys()].indexOf(part.id) + 1) : [];
  const already = before.reduce((sum, id) => sum + (batch.state.weighed[partKey(prompt.pot, id)]?.mg ?? 0), 0);
  const show = onScale && total !== undefined ? total : given > 0 && !prompt.done ? rest : asked;
  const write = (n: number) => (counting ? String(n) : units.onScale(n, part.scale));
  const figure = counting ? { figure: String(show), unit: part.count ? countUnit(show, part.count.of) : "" } : units.scaleParts(show, part.scale);
  const scales = instruments.filter((instrument) => instrument.kind === "scale");
  // The scale that the plan names comes first; another may be chosen.
  const tools = counting ? [] : [...scales].sort((a, b) => Number(b.id === part.scale.id) - Number(a.id === part.scale.id));
  return (
    <>
      <div>
        <span className={HUGE}>{figure.figure}</span>
        <span className="figure text-[34px]"> {figure.unit}</span>
        {beside ? <span className="figure text-[22px] text-soft"> = {beside}</span> : null}
        {given > 0 ? (
          <div className="text-soft">
            {prompt.done ? (counting ? "counted" : "weighed") : `remaining; ${counting ? "counted" : "weighed"}`}{" "}
            <span className="figure text-[20px] text-ink">{write(given)}</span> of {write(asked)}
          </div>
        ) : null}
        {total === undefined ? null : (
          <label className="mt-1 flex min-h-[44px] items-center gap-3">
            <input type="checkbox" className="size-6 shrink-0 accent-ink" checked={isOneTare} onChange={(event) => setOneTare(event.target.checked)} />
            <span>
              On one tare{" "}
              <span className="text-soft">
                {onScale ? `the scale shows ` : ""}
                {[...totals].map(([id, mg], index) => (
                  <span key={id} className={`figure text-[20px] ${id === part.id ? "font-bold text-ink" : ""}`}>
                    {index > 0 ? " → " : ""}
                    {units.onScale(mg, part.scale)}
                  </span>
                ))}
              </span>
            </span>
          </label>
        )}
        <InPitchers prompt={prompt} batch={batch} units={units} />
      </div>
      <EntryForm
        key={prompt.key}
        batch={batch}
        label={counting ? "Counted" : onScale ? "Scale shows in all" : "Scale shows"}
        unit={counting ? part.count?.of : unit}
        onTool={setTool}
        rule={rule}
        tools={tools}
        toolLabel="Scale"
        button={counting ? "Record the count" : "Record the weight"}
        ask={(value) => {
          const sum = onScale ? value - already + given : given + value;
          if (sum <= 0) return `On one tare the scale showed ${write(already)} before this: it cannot show less now. Was it tared in between?`;
          return isImplausible(sum, asked)
            ? `${part.count ? countWords(sum, part.count.of) : units.onScale(sum, part.scale)} is ${units.n(sum / asked, 1)} times the ${write(asked)} needed. Check the number.`
            : null;
        }}
        entry={(value) =>
          counting
            ? { kind: "counted", payload: { pot: prompt.pot, componentId: part.id, n: value } }
            : { kind: "weighed", payload: { pot: prompt.pot, componentId: part.id, mg: onScale ? Math.max(1, value - already) : value } }
        }
      >
        {({ tool }) => (counting ? null : <InPortions mg={rest} scale={tool} asked={part.scale} units={units} />)}
      </EntryForm>
    </>
  );
}
