import { ESSENTIAL_START_PPM, type FormulaSpec, inUnit, type Process, processFrom, READY_PROCESSES, starterOf, type TemperatureUnit } from "@hearth/core";
import type { First } from "@/server/first";

export const STEPS = ["tools", "wax", "jar", "oil", "wick", "formula", "batch"] as const;
export type Step = (typeof STEPS)[number];

/** What a step is called, as a maker would say it. */
export const TITLES: Record<Step, string> = {
  tools: "Your scale and thermometer",
  wax: "One wax",
  jar: "One jar, and what it holds",
  oil: "One scent",
  wick: "One wick",
  formula: "What goes into a jar",
  batch: "Three jars",
};

/** Whether the workshop has what a step gives. */
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
      return first.formula !== null;
    case "batch":
      return first.started;
  }
}

/** The step to take now: the first that is not done. */
export const nextStep = (first: First): Step | null => STEPS.find((step) => !isDone(step, first)) ?? null;

/** The load to begin with, in millionths of the wax. */
export const loadFor = (first: First): number => {
  const usual = starterOf(first.wax?.family ?? "")?.loadPpm ?? 60_000;
  const most = Math.min(first.wax?.maxLoadPpm ?? usual, first.fragrance?.maxLoadPpm ?? usual);
  return Math.min(first.fragrance?.kind === "essential oil" ? Math.min(ESSENTIAL_START_PPM, usual) : usual, most);
};

/** The process to begin with: the ready-made one that suits the wax, and essential oils where one is chosen. */
export function processFor(first: First, unit: TemperatureUnit): Process {
  const suits = READY_PROCESSES.filter((one) => one.families.includes(first.wax?.family ?? ""));
  const ready = suits.find((one) => one.makes === "jar") ?? suits[0] ?? (READY_PROCESSES[0] as (typeof READY_PROCESSES)[number]);
  return inUnit(processFrom(ready), unit);
}

/** The formula that the steps so far amount to; null while something of it is missing. */
export function specOf(first: First, loadPpm: number, unit: TemperatureUnit): FormulaSpec | null {
  if (!first.wax || !first.fragrance) return null;
  return {
    waxes: [{ id: first.wax.id, share: 1 }],
    fragrances: [{ id: first.fragrance.id, share: 1 }],
    basis: "wax",
    loadPpm,
    process: processFor(first, unit),
    notes: "",
  };
}
