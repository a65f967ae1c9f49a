import { MG_PER } from "./mass";
import type { UnitChoice } from "./measured-text";

/** The words of a column's name that say a unit, with those of the other system and the way there and back. Factors are exact: NIST Special Publication 811, appendix B. */
const MEASURES = [
  { metric: "mm", us: "in", of: "length", toUs: (mm: number) => mm / 25.4, toMetric: (inches: number) => inches * 25.4 },
  { metric: "celsius", us: "fahrenheit", of: "temperature", toUs: (c: number) => c * 1.8 + 32, toMetric: (f: number) => (f - 32) / 1.8 },
  { metric: "c", us: "f", of: "temperature", toUs: (c: number) => c * 1.8 + 32, toMetric: (f: number) => (f - 32) / 1.8 },
  { metric: "grams", us: "ounces", of: "mass", toUs: (g: number) => (g * MG_PER.g) / MG_PER.oz, toMetric: (oz: number) => (oz * MG_PER.oz) / MG_PER.g },
] as const;

const isMetric = (units: UnitChoice, of: (typeof MEASURES)[number]["of"]): boolean =>
  of === "length" ? units.length === "mm" : of === "temperature" ? units.temperature === "C" : units.mass === "g";

const measureIn = (column: string, system: "metric" | "us") => MEASURES.find((measure) => column.split("_").includes(measure[system]));
const renamed = (column: string, from: string, to: string): string =>
  column
    .split("_")
    .map((word) => (word === from ? to : word))
    .join("_");

/** Returns what a column of a log is called in a workshop's units: "pool_mm" or "pool_in", "grams_before" or "ounces_before". */
export function columnInUnits(column: string, units: UnitChoice): string {
  const measure = measureIn(column, "metric");
  return !measure || isMetric(units, measure.of) ? column : renamed(column, measure.metric, measure.us);
}

/** Returns a metric figure of such a column in the workshop's units, to the millionth. Cells that hold no figure stay as they are. */
export function cellInUnits<T>(column: string, value: T, units: UnitChoice): T | number {
  const measure = measureIn(column, "metric");
  return !measure || typeof value !== "number" || isMetric(units, measure.of) ? value : Math.round(measure.toUs(value) * 1e6) / 1e6;
}

/** Returns the metric column that a head of a file stands for, and what turns its figures into metric ones. */
export function metricColumn(head: string): { column: string; toMetric: (value: number) => number } {
  const measure = measureIn(head, "us");
  return measure ? { column: renamed(head, measure.us, measure.metric), toMetric: measure.toMetric } : { column: head, toMetric: (value) => value };
}
