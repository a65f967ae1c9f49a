"use client";

import {
  ancestryOf,
  fillsByPour,
  fillsProduct,
  good,
  innerOf,
  namedLines,
  PACES,
  type Pace,
  type Progress,
  parseMass,
  partKey,
  poursOf,
  rangeName,
  rangeOfStep,
  rangeStatus,
  stepTypeOf,
  WARMED,
  WARMED_WORDS,
  type Warmed,
  WICKS_WERE,
  type WicksWere,
  writeEmbeds,
  writeRangeStatus,
} from "@hearth/core";
import { useMemo, useState } from "react";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { countRule, massRule, temperatureRule, whenRule } from "@/forms/rules";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";
import { type Formats, useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";
import type { StepProps } from "./step";

/** Returns what is odd about pouring now: nothing weighed, or the range missed. It is asked, not forbidden. */
function oddAbout(batch: Batch, prompt: Progress, units: Formats): string[] {
  const { plan, state } = batch;
  const odd: string[] = [];
  const parts = plan.pots[prompt.pot]?.components ?? [];
  const missing = parts.filter((part) => !part.count && !state.weighed[partKey(prompt.pot, part.id)]).map((part) => part.name);
  if (missing.length > 0) odd.push(`No weight is recorded for ${missing.join(" and ")}.`);
  const at = plan.process.steps.findIndex((step) => step.id === prompt.step);
  // A rest was brought to its range with the pot that it is from.
  const pots = ancestryOf(plan, prompt.pot);
  const ready = plan.process.steps
    .slice(0, at + 1)
    .findLast((step) => stepTypeOf(step.kind).heat?.isForPour && pots.includes(step.pot ?? 0) && rangeOfStep(step) !== undefined);
  const range = ready && rangeOfStep(ready);
  if (range && !state.observed[ready.id]) {
    const read = state.reads[ready.id];
    const name = rangeName(ready);
    if (!read) odd.push(`No reading is recorded for the ${name} range (${units.range(range)}).`);
    else if (rangeStatus(read.celsius, range).is !== "inside")
      odd.push(`The last reading is ${writeRangeStatus(read.celsius, name, range, units.temperature)}.`);
  }
  return odd;
}

const parseWeights = (text: string, units: Formats) => {
  const out: number[] = [];
  for (const piece of text
    .split(/[;\n]|,\s+|\s{2,}/)
    .map((text) => text.trim())
    .filter(Boolean)) {
    const read = parseMass(piece, { unit: units.mass });
    if (!read.ok) return read;
    out.push(read.value);
  }
  return good(out);
};

const NOT_NOTED = { value: "", label: "not recorded" };

/** Pouring: how many of each were really filled, what was left, the room, the warming. */
export function Pouring({ prompt, batch, button }: StepProps & { button: string }) {
  const units = useUnits();
  const { plan } = batch;
  const step = poursOf(plan.process.steps).find((pour) => pour.id === prompt.step);
  const products = useMemo(() => namedLines(plan.products).filter((_one, index) => fillsProduct(step, index)), [plan.products, step]);
  const isOfMolds = products.every((product) => product.container === "mold");
  const first = !Object.keys(batch.state.pours).length;
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    const per = products.flatMap((product): [string, FieldRule<unknown>][] => [
      [`n:${product.key}`, countRule({ least: 0, most: product.count * 2 + 20, name: "filled" }, String(product.count))],
      [`w:${product.key}`, { initial: "", parse: (text: string) => parseWeights(text, units) }],
    ]);
    return {
      ...Object.fromEntries(per),
      left: orNothing(massRule(units, { zero: true })),
      room: orNothing(temperatureRule(units)),
      warmed: { initial: "", parse: (text: string) => good(text || null) },
      pace: { initial: "", parse: (text: string) => good(text || undefined) },
      tapped: { initial: "", parse: (text: string) => good(text === "" ? undefined : text === "yes") },
      wicksWere: { initial: "", parse: (text: string) => good(text || undefined) },
      at: whenRule(batch.now, units),
    };
  }, [products, units, batch.now]);
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const [asked, setAsked] = useState<string[]>([]);
  const submit = async (sure: boolean) => {
    const all = fields.check() as Record<string, unknown> | null;
    if (!all) return;
    const odd = sure ? [] : oddAbout(batch, prompt, units);
    if (odd.length > 0) return setAsked(odd);
    setAsked([]);
    const refusal = await batch.record({
      kind: "poured",
      payload: {
        step: prompt.step,
        filled: products.map((product) => {
          const weightsMg = all[`w:${product.key}`] as number[];
          return { product: product.key, count: all[`n:${product.key}`] as number, ...(weightsMg.length > 0 ? { weightsMg } : {}) };
        }),
        leftMg: all.left as number | null,
        roomCelsius: all.room as number | null,
        warmed: all.warmed as Warmed | null,
        ...(all.pace ? { pace: all.pace as Pace } : {}),
        ...(all.tapped === undefined ? {} : { tapped: all.tapped as boolean }),
        ...(all.wicksWere ? { wicksWere: all.wicksWere as WicksWere } : {}),
      },
      happenedAt: all.at as string | null,
    });
    setMessage(refusal?.message ?? "");
  };
  return (
    <form
      ref={fields.form}
      className="clear-both"
      onSubmit={(event) => {
        event.preventDefault();
        void submit(false);
      }}
    >
      <ul>
        {products.map((product) => {
          const each =
            fillsByPour(
              plan.process,
              innerOf(product),
              product.fillMg,
              plan.products.findIndex((other) => other.key === product.key),
            ).get(prompt.step) ?? product.fillMg;
          return (
            <li key={product.key} className="grid items-end gap-x-4 border-b border-line pb-1 sm:grid-cols-[minmax(0,1fr)_120px_150px]">
              <div className="pb-5">
                <span className="figure text-[clamp(40px,5vw,68px)] leading-none">
                  {product.count} × {units.gParts(each).figure}
                </span>
                <span className="figure text-[24px]"> {units.mass}</span>
                <div className="text-soft">
                  {product.name}
                  {product.container === "mold" ? `, to ${units.len(product.heightUm)}, no higher` : ""}
                  {product.embeds ? `, ${writeEmbeds(product.embeds)} laid in` : ""}
                </div>
              </div>
              <Field label={product.container === "mold" ? "Candles filled" : "Jars filled"} {...fields.bind(`n:${product.key}`)} inputMode="numeric" />
              <Field
                label="Weights"
                {...fields.bind(`w:${product.key}`)}
                placeholder="if weighed"
                hint={`Like ${units.gParts(each).figure}; ${units.gParts(each).figure}`}
              />
            </li>
          );
        })}
      </ul>
      <div className="mt-2 grid grid-cols-2 gap-x-4 sm:grid-cols-4">
        {first ? (
          <Field
            label={isOfMolds ? "Molds warmed" : "Vessels warmed"}
            {...fields.bind("warmed")}
            options={[{ value: "", label: "not recorded" }, ...WARMED.map((item) => ({ value: item, label: WARMED_WORDS[item] }))]}
          />
        ) : null}
        <Field label="Room" unit={`°${units.temperature}`} {...fields.bind("room")} inputMode="decimal" placeholder="not read" />
        <Field label="Leftover wax" unit={units.mass} {...fields.bind("left")} inputMode="decimal" placeholder="not weighed" />
        <Field label="When" {...fields.bind("at")} placeholder="now" />
      </div>
      <details className="mb-3">
        <summary className="min-h-[44px] cursor-pointer py-2 font-semibold">How it was poured</summary>
        <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-3">
          <Field label="Poured" {...fields.bind("pace")} options={[NOT_NOTED, ...PACES.map((pace) => ({ value: pace, label: pace }))]} />
          <Field
            label={isOfMolds ? "Molds tapped" : "Jars tapped"}
            {...fields.bind("tapped")}
            options={[NOT_NOTED, { value: "yes", label: "yes, for bubbles" }, { value: "no", label: "no" }]}
          />
          {plan.products.some((product) => product.wicks) ? (
            <Field label="The wicks were" {...fields.bind("wicksWere")} options={[NOT_NOTED, ...WICKS_WERE.map((item) => ({ value: item, label: item }))]} />
          ) : null}
        </div>
      </details>
      {asked.length > 0 ? (
        <div role="alertdialog" aria-label="Record the pour anyway?" className={notice({ className: "mb-2" })}>
          {asked.map((text) => (
            <p key={text} className="font-semibold">
              ▲ {text}
            </p>
          ))}
          <div className="mt-2 flex flex-wrap gap-3">
            <button type="button" className="press" onClick={() => void submit(true)}>
              Record pour anyway
            </button>
            <button type="button" className="press" onClick={() => setAsked([])}>
              Go back
            </button>
          </div>
        </div>
      ) : null}
      <button type="submit" className="action-button !min-h-[64px] max-sm:w-full" data-next-step>
        {button}
      </button>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
