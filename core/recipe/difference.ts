import { type TemperatureRange, writeRange } from "../heat/range";
import { rangeName, type Step, valueOfField, writeProduct } from "../process/process";
import type { Process } from "../process/schema";
import type { StepField } from "../process/step-type";
import { stepTypeOf } from "../process/steps";
import { writeDuration } from "../units/duration";
import type { UnitChoice } from "../units/measured-text";
import { writeNumber } from "../units/number";
import { writePercent } from "../units/percent";
import { type TemperatureUnit, toFahrenheit, writeTemperature } from "../units/temperature";
import { writeDose } from "./dose";
import { loadOnBasis } from "./load";
import type { FormulaSpec } from "./schema";

export interface Change {
  what: string;
  from: string;
  to: string;
}

/** Returns what differs between two versions, as text for the maker: "load: 8 % of wax → 10 % of wax". */
export function difference(before: FormulaSpec, after: FormulaSpec, names: (id: string) => string, units: Omit<UnitChoice, "length">): Change[] {
  const unit = units.temperature;
  const mix = (parts: FormulaSpec["waxes"]) => {
    if (parts.length === 0) return "none";
    if (parts.length === 1) return names(parts[0]?.id ?? "");
    return parts.map((part) => `${part.share} ${names(part.id)}`).join(" + ");
  };
  const read = (spec: FormulaSpec): [string, string][] => [
    ["wax", mix(spec.waxes)],
    ["fragrance", mix(spec.fragrances)],
    ["additives", (spec.additives ?? []).map((part) => `${writePercent(part.ppm, 3)} ${names(part.id)}`).join(" + ") || "none"],
    ["dye", (spec.dyes ?? []).map((part) => `${writeDose(part, units.mass)} ${names(part.id)}`).join(" + ") || "none"],
    ["load", `${writePercent(spec.loadPpm, 3)} of ${spec.basis}`],
    ["process", spec.process.name],
    ["ceiling", writeTemperature(spec.process.ceiling, unit)],
    ["reason", spec.process.reason || "none"],
    ["notes", spec.notes || "none"],
  ];
  const later = read(after);
  const things = read(before).flatMap(([what, from], index) => {
    const to = later[index]?.[1] ?? "";
    return from === to ? hiddenChange(what, before, after, from, unit) : [{ what, from, to }];
  });
  return [...things, ...stepChanges(before.process, after.process, unit)];
}

/** Returns a temperature to the hundredth of a degree: "60.05 °C". */
const fineTemperature = (centi: number, unit: TemperatureUnit): string => `${writeNumber(unit === "C" ? centi / 100 : toFahrenheit(centi), 2)} °${unit}`;

/** Returns a change too small to be seen in what is written, said in finer figures, so that no difference hides because it prints alike. */
function hiddenChange(what: string, before: FormulaSpec, after: FormulaSpec, written: string, unit: TemperatureUnit): Change[] {
  const pair = what === "load" ? [before.loadPpm, after.loadPpm] : what === "ceiling" ? [before.process.ceiling, after.process.ceiling] : null;
  if (!pair || pair[0] === pair[1]) return [];
  const fine = (n: number) => (what === "load" ? `${writeNumber(n / 10_000, 4)} %` : fineTemperature(n, unit));
  return [{ what, from: `${written} (${fine(pair[0] as number)})`, to: `${written} (${fine(pair[1] as number)})` }];
}

/** Returns what differs between two processes, step by step: a changed parameter, a step more, one less, or another order. */
export function stepChanges(before: Pick<Process, "steps">, after: Pick<Process, "steps">, unit: TemperatureUnit): Change[] {
  const out: Change[] = [];
  const say = (step: Step, field: StepField): string => {
    const value = valueOfField(step, field);
    if (value === undefined || value === null) return "none";
    if (field.is === "range") return writeRange(value as TemperatureRange, unit);
    if (field.is === "duration") return writeDuration(value as number);
    if (field.is === "percent") return writePercent(value as number, 3);
    if (field.is === "product") return writeProduct(value as number | string);
    if (field.is === "pot") return String((value as number) + 1);
    if (field.is === "components") return (value as string[]).join(", ");
    return String(value);
  };
  for (const item of before.steps) {
    const now = after.steps.find((other) => other.id === item.id && other.kind === item.kind);
    const kind = stepTypeOf(item.kind);
    if (!now) {
      out.push({ what: kind.verb, from: "there", to: "left out" });
      continue;
    }
    if (item.only !== now.only) out.push({ what: `${kind.verb} is for`, from: item.only ?? "all", to: now.only ?? "all" });
    for (const field of kind.fields) {
      const [from, to] = [say(item, field), say(now, field)];
      const raw = (step: Step) => JSON.stringify(valueOfField(step, field) ?? null);
      if (raw(item) === raw(now)) continue;
      const what = field.is === "range" ? `${rangeName(item)} range` : field.label.toLowerCase();
      const fine = (step: Step) => {
        const range = valueOfField(step, field) as TemperatureRange | undefined;
        return range && field.is === "range" ? ` (${fineTemperature(range.low, unit).replace(/ .*/, "")}–${fineTemperature(range.high, unit)})` : "";
      };
      out.push(from === to ? { what, from: from + fine(item), to: to + fine(now) } : { what, from, to });
    }
  }
  for (const step of after.steps)
    if (!before.steps.some((other) => other.id === step.id && other.kind === step.kind))
      out.push({ what: stepTypeOf(step.kind).verb, from: "not there", to: "there" });
  const kept = (of: readonly Step[], among: readonly Step[]) => of.filter((step) => among.some((other) => other.id === step.id)).map((step) => step.id);
  const [order, newOrder] = [kept(before.steps, after.steps), kept(after.steps, before.steps)];
  if (order.join() !== newOrder.join()) out.push({ what: "order of acts", from: order.join(", "), to: newOrder.join(", ") });
  return out;
}

/** Returns whether the wick has to be tested again: another fragrance, or a load changed by more than one point. Common practice, no source. */
export function wickToTestAgain(before: FormulaSpec, after: FormulaSpec): boolean {
  const oils = (spec: FormulaSpec) => spec.fragrances.map((part) => `${part.id} ${part.share}`).join();
  const ofWax = (spec: FormulaSpec) => loadOnBasis(spec.loadPpm, spec.basis, "wax");
  return oils(before) !== oils(after) || Math.abs(ofWax(before) - ofWax(after)) > 10_000 + 1e-6;
}

/** Returns how far the load was raised, in points of the wax, where that is too little to be told apart (below two). Common practice, no source. */
export function smallRaise(before: FormulaSpec, after: FormulaSpec): number | null {
  const points = (loadOnBasis(after.loadPpm, after.basis, "wax") - loadOnBasis(before.loadPpm, before.basis, "wax")) / 10_000;
  return points > 1e-6 && points < 2 - 1e-6 ? points : null;
}
