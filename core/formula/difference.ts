import { writeGate } from "../heat/gate";
import { writeDuration } from "../quantity/duration";
import { writeNumber } from "../quantity/number";
import { writePercent } from "../quantity/percent";
import { type TemperatureUnit, writeTemperature } from "../quantity/temperature";
import { loadOnBasis } from "./load";
import type { DyePart, FormulaSpec } from "./spec";

/** "6 drops a pound of", "0.2 %". */
export const writeDose = (part: Pick<DyePart, "by" | "amount">): string =>
  part.by === "percent" ? `${writeNumber(part.amount, 3)} %` : `${writeNumber(part.amount, 3)} ${part.by} a pound of`;

export interface Change {
  what: string;
  from: string;
  to: string;
}

/** What differs between two versions, in a maker's words: "load: 8 % of wax → 10 % of wax". */
export function difference(before: FormulaSpec, after: FormulaSpec, names: (id: string) => string, unit: TemperatureUnit): Change[] {
  const mix = (parts: FormulaSpec["waxes"]) => {
    if (parts.length === 0) return "none";
    if (parts.length === 1) return names(parts[0]?.id ?? "");
    return parts.map((part) => `${part.share} ${names(part.id)}`).join(" + ");
  };
  const read = (spec: FormulaSpec): [string, string][] => [
    ["wax", mix(spec.waxes)],
    ["fragrance", mix(spec.fragrances)],
    ["additives", (spec.additives ?? []).map((part) => `${writePercent(part.ppm, 3)} ${names(part.id)}`).join(" + ") || "none"],
    ["dye", (spec.dyes ?? []).map((part) => `${writeDose(part)} ${names(part.id)}`).join(" + ") || "none"],
    ["load", `${writePercent(spec.loadPpm, 3)} of ${spec.basis}`],
    ["profile", spec.profile.name],
    ["heat gate", writeGate(spec.profile.heat, unit)],
    ["add gate", writeGate(spec.profile.add, unit)],
    ["pour gate", writeGate(spec.profile.pour, unit)],
    ["ceiling", writeTemperature(spec.profile.ceiling, unit)],
    ["stir", writeDuration(spec.profile.stirSeconds)],
    ["set", writeDuration(spec.profile.setSeconds)],
    ["least cure", writeDuration(spec.profile.leastCureSeconds)],
    ["recommended cure", writeDuration(spec.profile.recommendedCureSeconds)],
    ["reason", spec.profile.reason || "none"],
    ["notes", spec.notes || "none"],
  ];
  const later = read(after);
  return read(before).flatMap(([what, from], index) => {
    const to = later[index]?.[1] ?? "";
    return from === to ? [] : [{ what, from, to }];
  });
}

/** Whether the wick has to be tested again: another fragrance, or a load changed by more than one point. Common practice, no source. */
export function wickToTestAgain(before: FormulaSpec, after: FormulaSpec): boolean {
  const oils = (spec: FormulaSpec) => spec.fragrances.map((part) => `${part.id} ${part.share}`).join();
  const ofWax = (spec: FormulaSpec) => loadOnBasis(spec.loadPpm, spec.basis, "wax");
  return oils(before) !== oils(after) || Math.abs(ofWax(before) - ofWax(after)) > 10_000 + 1e-6;
}

/** How far the load was raised, in points of the wax, where that is too little to be told apart (below two). Common practice, no source. */
export function smallRaise(before: FormulaSpec, after: FormulaSpec): number | null {
  const points = (loadOnBasis(after.loadPpm, after.basis, "wax") - loadOnBasis(before.loadPpm, before.basis, "wax")) / 10_000;
  return points > 1e-6 && points < 2 - 1e-6 ? points : null;
}
