import { type TemperatureRange, writeRange } from "../heat/range";
import { type Ranged, rangeName, rangeOfStep, timesOf } from "../process/process";
import type { Process } from "../process/schema";
import { stepTypeOf } from "../process/steps";
import { writeDuration } from "../units/duration";
import { writeNumber } from "../units/number";
import { writePercent } from "../units/percent";
import { type TemperatureUnit, writeDifference, writeTemperature } from "../units/temperature";
import { LB_PER_KG } from "./dose";
import { FAMILY_LOADS, gelFaultsOf, limitingWaxes, limitsOf, loadOfWax, type Materials, materialsOf, mixOf, sheetRange, writeLimitParts } from "./materials";
import { MAX_DROPS_PER_LB } from "./mix";
import type { FormulaSpec } from "./schema";

/** "stop": is not saved nor started. "warn": look again. "inform": makers differ, or a habit to know of. */
export interface Disagreement {
  code: string;
  weight: "stop" | "warn" | "inform";
  message: string;
}

/** Waxes that some makers pour as they begin to set. Common practice, no source. */
const POURED_SLUSHY: readonly string[] = ["soy", "coconut", "blend"];

/** Essential oils are added near 54 °C, and start near 4 %: common practice, no source. */
const ESSENTIAL_ADD = 5_400;
const HOT_FOR_ESSENTIAL = 6_000;
const ESSENTIAL_LOAD = 40_000;

type Drafted = Pick<FormulaSpec, "waxes" | "fragrances" | "additives" | "dyes" | "basis"> & {
  loadPpm?: number | undefined;
  process?: Pick<Process, "steps" | "ceiling"> | undefined;
};

/**
 * Returns where the wax of a formula melts, in hundredths of °C: its own melting point, or for a blend without one that of its waxes by their shares, a rough
 * figure; null if one of them is not known. Common practice, no source.
 */
function meltOf(spec: Drafted, shelf: Materials): { name: string; centi: number; isSlushy: boolean } | null {
  const { named, waxes } = materialsOf(spec, shelf);
  const [only] = named;
  const isSlushy = waxes.length > 0 && waxes.every((part) => POURED_SLUSHY.includes(part.wax.family));
  if (named.length === 1 && only?.melt != null) return { name: only.name, centi: only.melt, isSlushy };
  const all = waxes.reduce((sum, part) => sum + part.share, 0);
  if (waxes.length < 2 || waxes.some((part) => part.wax.melt == null)) return null;
  return { name: "the blend", centi: Math.round(waxes.reduce((sum, part) => sum + (part.wax.melt as number) * part.share, 0) / all), isSlushy };
}

/** Returns where the ranges of a process are at odds with one another, with the waxes' sheets and with the oils. */
function ofProcess(process: NonNullable<Drafted["process"]>, spec: Drafted, shelf: Materials, unit: TemperatureUnit): Disagreement[] {
  const found: Disagreement[] = [];
  const say = (code: string, message: string, weight: Disagreement["weight"] = "warn") => {
    if (!found.some((disagreement) => disagreement.message === message)) found.push({ code, weight, message });
  };
  const t = (centi: number) => writeTemperature(centi, unit);
  const { named, waxes, fragrances } = materialsOf(spec, shelf);
  const own = waxes.map((part) => part.wax);
  const sheets = [...named, ...own.filter((wax) => !named.includes(wax))];
  const melt = meltOf(spec, shelf);
  const ranged = process.steps.filter((step): step is Ranged => stepTypeOf(step.kind).pours === undefined && rangeOfStep(step) !== undefined);
  const what = (step: Ranged) => stepTypeOf(step.kind).records;
  const { leastCure } = timesOf(process);
  for (const step of ranged) {
    const range: TemperatureRange = step.range;
    const name = rangeName(step);
    if (range.high >= process.ceiling + SHOWN)
      say(
        `${name}-above-ceiling`,
        `The ${name} range reaches ${t(range.high)}, ${writeDifference(range.high - process.ceiling, unit)} above the maximum temperature of ${t(process.ceiling)}: the wax can scorch.`,
      );
    for (const wax of sheets) {
      const sheet = sheetRange(wax, what(step));
      if (sheet && (range.low > sheet.high || range.high < sheet.low))
        say(
          `${name}-off-sheet`,
          `The ${name} range of the process is ${writeRange(range, unit)}; the supplier of ${wax.name} says ${writeRange(sheet, unit)}. The sheet comes first, or say in the reason why not.`,
        );
    }
    if (!melt || range.low >= melt.centi) continue;
    const below = `${writeDifference(melt.centi - range.low, unit)} below the ${t(melt.centi)} at which ${melt.name} melts`;
    if (what(step) === "pour_c")
      say(
        "pour-below-melt",
        `The pour range begins at ${t(range.low)}, ${below}${melt.isSlushy ? ". Some pour it so, as it begins to set, for smooth tops: stir it well and pour at once." : ": it sets as it is poured, in rings and layers that do not join."}`,
        melt.isSlushy ? "inform" : "warn",
      );
    else
      say(
        `${name}-below-melt`,
        `The ${name} range begins at ${t(range.low)}, ${below}: ${what(step) === "add_c" ? "oil does not mix into wax that sets" : "it would not be all liquid"}.`,
      );
  }
  for (const wax of sheets) {
    if (wax.ceiling != null && process.ceiling >= wax.ceiling + SHOWN)
      say(
        "ceiling-off-sheet",
        `The ceiling of the process is ${t(process.ceiling)}; ${wax.name} should stay below ${t(wax.ceiling)}. Above it the wax discolors and holds oil worse.`,
      );
    if (wax.leastCureSeconds != null && leastCure < wax.leastCureSeconds)
      say(
        "cure-short",
        `The minimum cure is ${writeDuration(leastCure)}; ${wax.name} needs ${writeDuration(wax.leastCureSeconds)}. Burnt sooner, it misleads about wick and throw.`,
      );
  }
  ranged.forEach((step, index) => {
    const before = ranged.slice(0, index).findLast((item) => (item.pot ?? 0) === (step.pot ?? 0));
    if (!before) return;
    if (what(step) === "add_c" && what(before) === "heat_c" && step.range.low > before.range.high)
      say(
        "add-above-heat",
        `The add range begins at ${t(step.range.low)}, above the heat range (${writeRange(before.range, unit)}): the pot never gets there.`,
      );
    if (what(step) === "pour_c" && step.range.low > before.range.high)
      say(
        "pour-above-add",
        `The pour range begins at ${t(step.range.low)}, above the ${rangeName(before)} range (${writeRange(before.range, unit)}): the pot must be heated again after the fragrance is in.`,
      );
  });
  const added = ranged.filter((item) => what(item) === "add_c").reduce((most, item) => Math.max(most, item.range.high), Number.NEGATIVE_INFINITY);
  const stops = gelFaultsOf(spec, shelf, unit).some((gelFault) => gelFault.of === "fragrance");
  for (const oil of fragrances) {
    if (oil.kind === "essential oil" && added > HOT_FOR_ESSENTIAL)
      say(
        "essential-oil-hot",
        `${oil.name} is an essential oil, added at up to ${t(added)}: much of it is driven off. Makers add essential oils near ${t(ESSENTIAL_ADD)}.`,
      );
    if (!stops && oil.flashPoint !== null && added > oil.flashPoint)
      say(
        "above-flash-point",
        `${oil.name} has a flash point of ${t(oil.flashPoint)}, below the top of the add range. Some makers never add above it; others hold that it is a shipping figure, since the blend flashes far higher. Follow the supplier's sheet.`,
        "inform",
      );
  }
  return found;
}

/** Returns where the load passes what waxes, oils and habit allow. */
function ofLoad(ofWax: number, spec: Drafted, shelf: Materials): Disagreement[] {
  const found: Disagreement[] = [];
  const { fragrances } = materialsOf(spec, shelf);
  const sum = spec.fragrances.reduce((all, part) => all + part.share, 0);
  for (const limit of limitsOf(spec, shelf)) {
    if (ofWax <= limit.ppm + 1e-6) continue;
    const share = spec.fragrances.find((part) => part.id === fragrances.find((oil) => oil.name === limit.name)?.id)?.share ?? sum;
    found.push({
      code: `load-above-${limit.of}`,
      weight: "warn",
      message:
        limit.of === "wax"
          ? `${writePercent(ofWax)} of the wax is above the ${writePercent(limit.ppm)} that ${limit.name} takes${limit.parts ? ` (${writeLimitParts(limit)})` : ""}: it can sweat oil, clog the wick and soot.`
          : share === sum
            ? `${writePercent(ofWax)} of the wax is above the ${writePercent(limit.ppm)} that ${limit.name} may be used at.`
            : `${writePercent((ofWax * share) / sum)} of the wax is ${limit.name}, above the ${writePercent((limit.ppm * share) / sum)} that it may be used at.`,
    });
  }
  const blend = limitsOf(spec, shelf).find((limit) => limit.parts);
  for (const part of blend?.parts ?? [])
    if (blend && ofWax > part.ppm && ofWax <= blend.ppm + 1e-6)
      found.push({
        code: "above-part-of-blend",
        weight: "inform",
        message: `${writePercent(ofWax)} is above the ${writePercent(part.ppm)} that ${part.name} takes by itself; the blend takes ${writePercent(blend.ppm)} (${writeLimitParts(blend)}).`,
      });
  for (const wax of limitingWaxes(spec, shelf)) {
    const habit = FAMILY_LOADS[wax.family];
    if (wax.maxLoadPpm === null)
      found.push({
        code: "limit-unknown",
        weight: habit && ofWax > habit.largest ? "warn" : "inform",
        message: `The largest load of ${wax.name} is not on the shelf, so the load cannot be checked against its sheet.${
          habit
            ? ` Makers load ${wax.family} with ${writePercent(habit.usual[0])} to ${writePercent(habit.usual[1])}, at most ${writePercent(habit.largest)}.`
            : ""
        }`,
      });
    else if (habit && ofWax > habit.usual[1] && ofWax <= wax.maxLoadPpm)
      found.push({
        code: "load-above-usual",
        weight: "inform",
        message: `${writePercent(ofWax)} is within what ${wax.name} takes, and above the ${writePercent(habit.usual[0])} to ${writePercent(habit.usual[1])} usual in ${wax.family}. ${habit.remark || "More is not stronger."}`,
      });
  }
  for (const oil of fragrances) {
    const share = (spec.fragrances.find((part) => part.id === oil.id)?.share ?? 0) / (sum || 1);
    if (oil.kind === "essential oil" && oil.maxLoadPpm === null && ofWax * share > ESSENTIAL_LOAD)
      found.push({
        code: "essential-oil-load",
        weight: "warn",
        message: `${writePercent(ofWax * share)} of the wax is ${oil.name}. Makers begin near ${writePercent(ESSENTIAL_LOAD)} with essential oils and go up with tests: too much can flare at the surface.`,
      });
  }
  return found;
}

/**
 * Everything in which a formula, its process and the shelf disagree, each with the number and the reason; what stops
 * comes first. The habits behind it are common practice, no source; the supplier's sheet comes first.
 */
/** A tenth of a degree, which is what is shown: less would read as a difference between two figures that look alike. */
const SHOWN = 10;

export function disagreements(spec: Drafted, shelf: Materials, unit: TemperatureUnit): Disagreement[] {
  const found: Disagreement[] = [];
  const { waxes, fragrances, additives } = materialsOf(spec, shelf);
  const own = waxes.map((part) => part.wax);
  for (const fault of gelFaultsOf(spec, shelf, unit)) found.push({ code: `gel-${fault.of}`, weight: fault.weight, message: fault.message });
  if (spec.loadPpm !== undefined) found.push(...ofLoad(loadOfWax({ basis: spec.basis, loadPpm: spec.loadPpm }, mixOf(spec, shelf)), spec, shelf));
  if (spec.process) found.push(...ofProcess(spec.process, spec, shelf, unit));
  for (const oil of fragrances) {
    const strangers = own.filter((wax) => wax.family !== "blend" && oil.families && oil.families.length > 0 && !oil.families.includes(wax.family));
    if (strangers.length > 0)
      found.push({
        code: "family-unsuited",
        weight: "inform",
        message: `${oil.name} is said to suit ${oil.families?.join(", ")}, not ${strangers.map((wax) => wax.family).join(", ")}: test before selling.`,
      });
  }
  for (const part of spec.additives ?? []) {
    const row = additives.find((additive) => additive.id === part.id);
    if (row?.maxPpm != null && part.ppm > row.maxPpm)
      found.push({
        code: "additive-above-limit",
        weight: "warn",
        message: `${writePercent(part.ppm)} of ${row.name} is above the ${writePercent(row.maxPpm)} that its sheet allows.`,
      });
  }
  const most = own.some((wax) => wax.family === "gel") ? MAX_DROPS_PER_LB.gel : MAX_DROPS_PER_LB.other;
  const drops = (spec.dyes ?? []).reduce((sum, part) => sum + (part.by === "drops" ? part.amount : 0), 0);
  if (drops > most)
    found.push({
      code: "much-dye",
      weight: "warn",
      message: `{${writeNumber(drops * LB_PER_KG, 1)} drops per kg|${writeNumber(drops, 2)} drops per lb} is more than the about {${writeNumber(most * LB_PER_KG, 0)}|${most}} that ${most === 1 ? "gel" : "wax"} takes as a rule: too much clogs the wick and roughens the top.`,
    });
  const order = { stop: 0, warn: 1, inform: 2 };
  return found.sort((a, b) => order[a.weight] - order[b.weight]);
}
