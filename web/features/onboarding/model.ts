import { type FormulaSpec, type Suggestion, suggestFormula, type TemperatureUnit } from "@hearth/core";
import type { First } from "@/server/workshops/onboarding";

export const STEPS = ["tools", "wax", "jar", "oil", "wick", "formula", "batch"] as const;
export type Step = (typeof STEPS)[number];

/** What a step is called, in a maker's words. */
export const TITLES: Record<Step, string> = {
  tools: "Your scale and thermometer",
  wax: "One wax",
  jar: "One jar, and what it holds",
  oil: "One scent",
  wick: "One wick",
  formula: "What goes into a jar, and what it is sold as",
  batch: "Three jars",
};

/** Returns whether the workshop has what a step gives. */
export function isDone(step: Step, first: First): boolean {
  switch (step) {
    case "tools":
      return first.scale !== null && first.thermometer !== null;
    case "wax":
      return first.wax !== null;
    case "jar":
      return first.vessel !== null;
    case "oil":
      return first.fragrance !== null;
    case "wick":
      return first.wick !== null;
    case "formula":
      // A batch that was started without a product needs none any more.
      return first.formula !== null && (first.product !== null || first.started);
    case "batch":
      return first.started;
  }
}

/** The step to take now: the first that is not done. */
export const nextStep = (first: First): Step | null => STEPS.find((step) => !isDone(step, first)) ?? null;

/** The wax and the scent of the steps, as a formula and a shelf have them. */
const materials = (first: First) => ({
  chosen: {
    waxes: first.wax ? [{ id: first.wax.id, share: 1 }] : [],
    fragrances: first.fragrance ? [{ id: first.fragrance.id, share: 1 }] : [],
  },
  shelf: { waxes: first.wax ? [first.wax] : [], fragrances: first.fragrance ? [first.fragrance] : [] },
});

/** Returns the load to begin with, in millionths of the wax, and the process: what suits the wax and the scent. */
export const suggestionFor = (first: First, unit: TemperatureUnit): Suggestion => {
  const { chosen, shelf } = materials(first);
  return suggestFormula(chosen, shelf, unit);
};

/** The formula that the steps so far amount to; null while something of it is missing. */
export function specOf(first: First, loadPpm: number, unit: TemperatureUnit): FormulaSpec | null {
  if (!first.wax || !first.fragrance) return null;
  return {
    waxes: [{ id: first.wax.id, share: 1 }],
    fragrances: [{ id: first.fragrance.id, share: 1 }],
    basis: "wax",
    loadPpm,
    process: suggestionFor(first, unit).process,
    notes: "",
  };
}
