import { rangeOfStep, recorderOf, type Step } from "../process/process";
import type { StepRecord } from "../process/step-type";
import { stepTypeOf } from "../process/steps";
import { loadOnBasis } from "../recipe/load";
import type { FormulaSpec } from "../recipe/schema";
import type { ChangeNext } from "./diagnosis";
import { keyOf, type RecordKeyName } from "./record";

/** A range is drawn in to so many hundredths of °C on either side of what is aimed at. */
const CLOSE = 150;

/** The range drawn in round an aim, never past what it was, nor past the ceiling. */
function closer(range: { low: number; high: number }, aim: number, ceiling: number): { low: number; high: number } {
  const low = Math.max(range.low, Math.round(aim) - CLOSE);
  const high = Math.min(range.high, Math.round(aim) + CLOSE, ceiling);
  return low <= high ? { low, high } : range;
}

/** The formula with the step that records this value set to it: a range is drawn in round it. Null if no step does. */
function withStepRecord(spec: FormulaSpec, what: StepRecord, to: number): FormulaSpec | null {
  const found = recorderOf(spec.process.steps, what);
  if (!found) return null;
  const change = (step: Step): Step => {
    const range = rangeOfStep(step);
    if (range) return { ...step, range: closer(range, to * 100, spec.process.ceiling) } as Step;
    return (stepTypeOf(step.kind).withValue?.(step, to) as Step | undefined) ?? step;
  };
  return { ...spec, process: { ...spec.process, steps: spec.process.steps.map((step) => (step === found ? change(step) : step)) } };
}

/** Returns what a formula can say of a change by itself; null if only a note can. */
function bySpec(spec: FormulaSpec, { what, to }: ChangeNext): FormulaSpec | null {
  if (typeof to !== "number") return null;
  switch (what as RecordKeyName) {
    case "pour_c":
    case "add_c":
    case "heat_c":
    case "stir_minutes":
    case "cure_days":
      return withStepRecord(spec, what as StepRecord, to);
    case "load_percent_of_wax":
      return { ...spec, loadPpm: Math.round(loadOnBasis(to * 10_000, "wax", spec.basis)) };
    case "dye_drops_per_lb": {
      const drops = (spec.dyes ?? []).filter((dye) => dye.by === "drops");
      const sum = drops.reduce((all, item) => all + item.amount, 0);
      if (sum === 0) return null;
      const dyes = (spec.dyes ?? []).flatMap((dye) => (dye.by !== "drops" ? [dye] : to === 0 ? [] : [{ ...dye, amount: (dye.amount * to) / sum }]));
      return { ...spec, dyes };
    }
    default:
      return null;
  }
}

/** Where a change is made: as a version of the formula, by another ingredient, by another wick of the product, or only in how the next batch is worked. */
export type ChangePlace = "formula" | "ingredients" | "wick" | "practice";

/** Keys of a record that no formula says by itself, since somebody has to choose what replaces what. */
const CHOSEN: Partial<Record<RecordKeyName, ChangePlace>> = {
  strong_oil: "ingredients",
  additive_percent_of_wax: "ingredients",
  dye_drops_per_lb: "ingredients",
  mica: "ingredients",
  wick_size_steps: "wick",
  wick_suits_wax: "wick",
};

export const changePlace = (spec: FormulaSpec, change: ChangeNext): ChangePlace =>
  bySpec(spec, change) !== null ? "formula" : (CHOSEN[change.what as RecordKeyName] ?? "practice");

/** Returns the change as a maker would write it beside a formula. */
export const changeWords = ({ what, from, to }: ChangeNext): string => {
  const { words, unit } = keyOf(what as RecordKeyName);
  const said = (value: ChangeNext["to"]) =>
    typeof value === "boolean" ? (value ? "yes" : "no") : typeof value === "number" ? `${Math.round(value * 100) / 100} ${unit}`.trim() : value;
  return `${words}: ${said(to)} instead of ${said(from)}`;
};

/** A formula with one change and nothing else: in its process or recipe where these can say it, and always in its notes. */
export function withChange(spec: FormulaSpec, change: ChangeNext, after: string): FormulaSpec {
  const note = `One change after ${after}: ${changeWords(change)}.`;
  const next = bySpec(spec, change) ?? spec;
  return { ...next, notes: [spec.notes, note].filter(Boolean).join("\n").slice(-2_000) };
}
