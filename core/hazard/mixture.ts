import { type BatchFacts, partKey } from "../batch/facts";
import type { PotPlan } from "../batch/plan";
import { addedPpmOf, askedLoadOfWax } from "../recipe/load";
import type { Recipe } from "../recipe/spec";
import { MG_PER } from "../units/mass";
import { answerHazard, type HazardAnswer, type HazardRequest } from "./hazard";
import type { SupplierSheet } from "./sheet";

/** One material of a candle, and its share of it. */
export interface MixPart {
  id: string;
  name: string;
  kind: "wax" | "fragrance" | "dye" | "additive";
  /** Of the candle. */
  percent: number;
}

/** What a mixture needs to know of the shelf: names, what a blend is made of, what a drop weighs. */
export interface MixShelf {
  waxes: readonly { id: string; name: string; blend?: { id: string; share: number }[] | null }[];
  fragrances: readonly { id: string; name: string }[];
  additives: readonly { id: string; name: string }[];
  dyes: readonly { id: string; name: string; eachMg?: number | null }[];
}

const inPercent = (parts: readonly (Omit<MixPart, "percent"> & { of: number })[]): MixPart[] => {
  const sum = parts.reduce((all, one) => all + one.of, 0) || 1;
  return parts.filter((one) => one.of > 0).map(({ of, ...one }) => ({ ...one, percent: (100 * of) / sum }));
};

/** What a recipe makes a candle of, by weight; at another load where one is given, in millionths on the recipe's own basis. */
export function partsOfRecipe(recipe: Recipe, shelf: MixShelf, loadPpm: number = recipe.loadPpm): MixPart[] {
  const nameOf = (list: readonly { id: string; name: string }[], id: string) => list.find((one) => one.id === id)?.name ?? "something no longer here";
  const whole = (list: readonly { share: number }[]) => list.reduce((sum, one) => sum + one.share, 0) || 1;
  const waxes = recipe.waxes.flatMap(({ id, share }) => {
    const of = share / whole(recipe.waxes);
    const blend = shelf.waxes.find((one) => one.id === id)?.blend;
    return blend ? blend.map((part) => ({ id: part.id, of: (of * part.share) / whole(blend) })) : [{ id, of }];
  });
  const oil = askedLoadOfWax({ basis: recipe.basis, loadPpm }, addedPpmOf(recipe)) / 1_000_000;
  const dosed = (recipe.dyes ?? []).map((dye) => {
    const each = shelf.dyes.find((one) => one.id === dye.id)?.eachMg ?? 0;
    return { id: dye.id, of: dye.by === "percent" ? dye.amount / 100 : (dye.amount * each) / MG_PER.lb };
  });
  return inPercent([
    ...waxes.map((one) => ({ ...one, name: nameOf(shelf.waxes, one.id), kind: "wax" as const })),
    ...recipe.fragrances.map(({ id, share }) => ({
      id,
      of: (oil * share) / whole(recipe.fragrances),
      name: nameOf(shelf.fragrances, id),
      kind: "fragrance" as const,
    })),
    ...(recipe.additives ?? []).map(({ id, ppm }) => ({ id, of: ppm / 1_000_000, name: nameOf(shelf.additives, id), kind: "additive" as const })),
    ...dosed.map((one) => ({ ...one, name: nameOf(shelf.dyes, one.id), kind: "dye" as const })),
  ]);
}

/** What a pot really holds: as it was weighed, and as planned where nothing was put down. `planned` names those. */
export function partsOfPot(pot: PotPlan, facts: Pick<BatchFacts, "weighed" | "counted">, at: number): { parts: MixPart[]; planned: string[] } {
  const planned: string[] = [];
  const parts = pot.components.map((part) => {
    const key = partKey(at, part.id);
    const counted = part.count ? (facts.counted[key]?.n ?? null) : null;
    const weighed = part.count ? (counted === null ? null : counted * (part.count.eachMg ?? 0)) : (facts.weighed[key]?.mg ?? null);
    if (weighed === null) planned.push(part.name);
    return { id: part.id, name: part.name, kind: part.kind, of: weighed ?? (part.count ? part.count.n * (part.count.eachMg ?? 0) : part.mg) };
  });
  return { parts: inPercent(parts), planned };
}

/** What several pots make together, by what each weighs; one material of two pots is one. */
export function joinParts(pots: readonly { parts: readonly MixPart[]; totalMg: number }[]): MixPart[] {
  const sums = new Map<string, Omit<MixPart, "percent"> & { of: number }>();
  for (const { parts, totalMg } of pots)
    for (const { percent, ...part } of parts) sums.set(part.id, { ...part, of: (sums.get(part.id)?.of ?? 0) + percent * totalMg });
  return inPercent([...sums.values()]);
}

/** The label of a mixture with what it rests on. */
export interface MixHazard {
  parts: MixPart[];
  answer: HazardAnswer;
  /** Materials of which no supplier's sheet is here, though they are in it. */
  without: MixPart[];
  /** Classes that sheets give and no rule here reckons with. */
  unread: string[];
}

/** Every material by its sheet, as the rules take it. */
export const requestOf = (parts: readonly MixPart[], sheets: ReadonlyMap<string, SupplierSheet>): HazardRequest => ({
  parts: parts.map((part) => ({
    percent: Math.min(100, part.percent),
    ingredients: (sheets.get(part.id)?.ingredients ?? []).map((one) => ({
      name: one.name,
      percent: one.percent,
      classes: one.classes,
      m: one.m ?? null,
      ate_oral_mg_kg: one.ateOral ?? null,
      specific_limits: one.limits,
    })),
  })),
});

/** The hazard of a candle as it is blended, by the sheets that are here. A draft, always. */
export function hazardOf(parts: readonly MixPart[], sheets: ReadonlyMap<string, SupplierSheet>): MixHazard {
  const unread = parts.flatMap((part) => (sheets.get(part.id)?.ingredients ?? []).flatMap((one) => one.unread.map((each) => `${each} (${one.name})`)));
  return {
    parts: [...parts],
    answer: answerHazard(requestOf(parts, sheets)),
    without: parts.filter((part) => !sheets.has(part.id)),
    unread: [...new Set(unread)],
  };
}

/** By how much the load is narrowed down: a hundredth of a percent. */
const STEP = 100;

/**
 * For each class that the recipe's label bears, and for EUH208, the largest load without it: millionths on the recipe's own basis,
 * rounded down to a hundredth of a percent; null where no load would do, since something else than the scent brings it.
 */
export function loadsWithout(recipe: Recipe, shelf: MixShelf, sheets: ReadonlyMap<string, SupplierSheet>): { class: string; loadPpm: number | null }[] {
  const at = (loadPpm: number) => {
    const { classes, euh } = answerHazard(requestOf(partsOfRecipe(recipe, shelf, loadPpm), sheets));
    return new Set([...classes, ...euh]);
  };
  return [...at(recipe.loadPpm)].map((name) => {
    if (at(0).has(name)) return { class: name, loadPpm: null };
    // More scent makes it graver: EUH208 gives way to the class itself, and both are worse than neither.
    const worse = (loadPpm: number) => at(loadPpm).has(name) || (name === "EUH208" && at(loadPpm).has("Skin Sens. 1"));
    let [free, bears] = [0, Math.ceil(recipe.loadPpm / STEP)];
    while (bears - free > 1) {
      const middle = Math.floor((free + bears) / 2);
      if (worse(middle * STEP)) bears = middle;
      else free = middle;
    }
    return { class: name, loadPpm: free * STEP };
  });
}
