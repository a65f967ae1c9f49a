import { GATE_NAMES, writeGate } from "../heat/gate";
import type { Profile } from "../heat/profile";
import { writeDuration } from "../quantity/duration";
import { writeNumber } from "../quantity/number";
import { writePercent } from "../quantity/percent";
import { type TemperatureUnit, writeDifference, writeTemperature } from "../quantity/temperature";
import { FAMILY_LOADS, GATE_FIELD, limitingWaxes, limitsOf, loadOfWax, type Materials, materialsOf, mixOf, stopOf } from "./materials";
import { MOST_DROPS_PER_LB } from "./mix";
import type { FormulaSpec } from "./spec";

/** "stop": is not saved nor started. "warn": look again. "inform": makers differ, or a habit to know of. */
export interface Disagreement {
  code: string;
  weight: "stop" | "warn" | "inform";
  message: string;
}

/** Essential oils are added near 54 °C, and start near 4 %: common practice, no source. */
const ESSENTIAL_ADD = 5_400;
const HOT_FOR_ESSENTIAL = 6_000;
const ESSENTIAL_LOAD = 40_000;

type Drafted = Pick<FormulaSpec, "waxes" | "fragrances" | "additives" | "dyes" | "basis"> & {
  loadPpm?: number | undefined;
  profile?: Omit<Profile, "name" | "reason"> | undefined;
};

/** Where the gates of a profile are at odds with one another, with the waxes' sheets and with the oils. */
function ofProfile(profile: NonNullable<Drafted["profile"]>, spec: Drafted, shelf: Materials, unit: TemperatureUnit): Disagreement[] {
  const found: Disagreement[] = [];
  const say = (code: string, message: string, weight: Disagreement["weight"] = "warn") => found.push({ code, weight, message });
  const t = (centi: number) => writeTemperature(centi, unit);
  const { named, waxes, fragrances } = materialsOf(spec, shelf);
  const own = waxes.map((part) => part.wax);
  const sheets = [...named, ...own.filter((wax) => !named.includes(wax))];
  for (const name of GATE_NAMES) {
    const gate = profile[name];
    if (gate.high > profile.ceiling)
      say(
        `${name}-above-ceiling`,
        `The ${name} gate reaches ${t(gate.high)}, ${writeDifference(gate.high - profile.ceiling, unit)} above the ceiling of ${t(profile.ceiling)}: the wax can scorch.`,
      );
    for (const wax of sheets) {
      const sheet = wax[GATE_FIELD[name]];
      if (sheet && (gate.low > sheet.high || gate.high < sheet.low))
        say(
          `${name}-off-sheet`,
          `The profile's ${name} gate is ${writeGate(gate, unit)}; the supplier of ${wax.name} says ${writeGate(sheet, unit)}. The sheet comes first, or say in the reason why not.`,
        );
    }
  }
  for (const wax of sheets) {
    if (wax.ceiling != null && profile.ceiling > wax.ceiling)
      say(
        "ceiling-off-sheet",
        `The profile's ceiling is ${t(profile.ceiling)}; ${wax.name} should stay below ${t(wax.ceiling)}. Above it the wax discolours and holds oil worse.`,
      );
    for (const name of ["heat", "add"] as const) {
      if (wax.melt != null && profile[name].low < wax.melt)
        say(
          `${name}-below-melt`,
          `The ${name} gate begins at ${t(profile[name].low)}, ${writeDifference(wax.melt - profile[name].low, unit)} below the ${t(wax.melt)} at which ${wax.name} melts: ${name === "add" ? "oil does not mix into wax that sets" : "it would not be all liquid"}.`,
        );
    }
    if (wax.leastCureSeconds != null && profile.leastCureSeconds < wax.leastCureSeconds)
      say(
        "cure-short",
        `The least cure is ${writeDuration(profile.leastCureSeconds)}; ${wax.name} needs ${writeDuration(wax.leastCureSeconds)}. Burnt sooner, it misleads about wick and throw.`,
      );
  }
  if (profile.add.low > profile.heat.high)
    say("add-above-heat", `The add gate begins at ${t(profile.add.low)}, above the heat gate (${writeGate(profile.heat, unit)}): the pot never gets there.`);
  if (profile.pour.low > profile.add.high)
    say(
      "pour-above-add",
      `The pour gate begins at ${t(profile.pour.low)}, above the add gate (${writeGate(profile.add, unit)}): the pot must be heated again after the fragrance is in.`,
    );
  const stops = stopOf(spec, shelf, unit)?.of === "fragrance";
  for (const oil of fragrances) {
    if (oil.kind === "essential oil" && profile.add.high > HOT_FOR_ESSENTIAL)
      say(
        "essential-oil-hot",
        `${oil.name} is an essential oil, added at up to ${t(profile.add.high)}: much of it is driven off. Makers add essential oils near ${t(ESSENTIAL_ADD)}.`,
      );
    if (!stops && oil.flashPoint !== null && profile.add.high > oil.flashPoint)
      say(
        "above-flash-point",
        `${oil.name} has a flash point of ${t(oil.flashPoint)}, below the top of the add gate. Some makers never add above it; others hold that it is a shipping figure, since the blend flashes far higher. Follow the supplier's sheet.`,
        "inform",
      );
  }
  return found;
}

/** Where the load passes what waxes, oils and habit allow. */
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
          ? `${writePercent(ofWax)} of the wax is above the ${writePercent(limit.ppm)} that ${limit.name} takes: it can sweat oil, clog the wick and soot.`
          : share === sum
            ? `${writePercent(ofWax)} of the wax is above the ${writePercent(limit.ppm)} that ${limit.name} may be used at.`
            : `${writePercent((ofWax * share) / sum)} of the wax is ${limit.name}, above the ${writePercent((limit.ppm * share) / sum)} that it may be used at.`,
    });
  }
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
export function disagreements(spec: Drafted, shelf: Materials, unit: TemperatureUnit): Disagreement[] {
  const found: Disagreement[] = [];
  const { waxes, fragrances, additives } = materialsOf(spec, shelf);
  const own = waxes.map((part) => part.wax);
  const stop = stopOf(spec, shelf, unit);
  if (stop) found.push({ code: `gel-${stop.of}`, weight: "stop", message: stop.message });
  if (spec.loadPpm !== undefined) found.push(...ofLoad(loadOfWax({ basis: spec.basis, loadPpm: spec.loadPpm }, mixOf(spec, shelf)), spec, shelf));
  if (spec.profile) found.push(...ofProfile(spec.profile, spec, shelf, unit));
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
    const row = additives.find((one) => one.id === part.id);
    if (row?.maxPpm != null && part.ppm > row.maxPpm)
      found.push({
        code: "additive-above-limit",
        weight: "warn",
        message: `${writePercent(part.ppm)} of ${row.name} is above the ${writePercent(row.maxPpm)} that its sheet allows.`,
      });
  }
  const most = own.some((wax) => wax.family === "gel") ? MOST_DROPS_PER_LB.gel : MOST_DROPS_PER_LB.other;
  const drops = (spec.dyes ?? []).reduce((sum, part) => sum + (part.by === "drops" ? part.amount : 0), 0);
  if (drops > most)
    found.push({
      code: "much-dye",
      weight: "warn",
      message: `${writeNumber(drops, 2)} drops a pound is more than the about ${most} that ${most === 1 ? "gel" : "wax"} takes as a rule: too much clogs the wick and roughens the top.`,
    });
  const order = { stop: 0, warn: 1, inform: 2 };
  return found.sort((a, b) => order[a.weight] - order[b.weight]);
}
