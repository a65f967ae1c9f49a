import { UM_PER } from "./length";
import { MG_PER } from "./mass";
import { isMetric, type UnitChoice } from "./measured-text";
import { toFahrenheit } from "./temperature";

const TEMPERATURE = { of: "temperature", toUs: (celsius: number) => toFahrenheit(celsius * 100), toMetric: (f: number) => (f - 32) / 1.8 } as const;
const MASS = { of: "mass", toUs: (g: number) => (g * MG_PER.g) / MG_PER.oz, toMetric: (oz: number) => (oz * MG_PER.oz) / MG_PER.g } as const;
const LENGTH = { of: "length", toUs: (mm: number) => (mm * UM_PER.mm) / UM_PER.in, toMetric: (inches: number) => (inches * UM_PER.in) / UM_PER.mm } as const;

/** The words of a column's name that say a unit, with those of the other system and the way there and back. */
const MEASURES = [
  { metric: "mm", us: "in", ...LENGTH },
  { metric: "celsius", us: "fahrenheit", ...TEMPERATURE },
  { metric: "c", us: "f", ...TEMPERATURE },
  { metric: "grams", us: "ounces", ...MASS },
  { metric: "g", us: "oz", ...MASS },
] as const;

const measureIn = (column: string, system: "metric" | "us") => MEASURES.find((measure) => column.split("_").includes(measure[system]));
const renamed = (column: string, from: string, to: string): string =>
  column
    .split("_")
    .map((word) => (word === from ? to : word))
    .join("_");

/** Returns what a column is called in a workshop's units: "pool_mm" or "pool_in", "grams_before" or "ounces_before". */
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
