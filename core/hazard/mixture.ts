import { contentsOf } from "../batch/contents";
import type { BatchPlan } from "../batch/plan";
import type { BatchState } from "../batch/state";
import { type DyeFacts, loadOfWax, mixOf, type OilFacts, type WaxFacts } from "../recipe/materials";
import { partsOfWax } from "../recipe/mix";
import type { Recipe } from "../recipe/schema";
import { answerHazard, hazardClassesOf } from "./hazard";
import type { HazardAnswer, HazardRequest } from "./schema";
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
  const sum = parts.reduce((all, item) => all + item.of, 0) || 1;
  return parts.filter((part) => part.of > 0).map(({ of, ...rest }) => ({ ...rest, percent: (100 * of) / sum }));
};

const GONE = "something no longer here";

/** Returns what a recipe makes a candle of, by weight; at another load where one is given, in millionths on the recipe's own basis. */
export function partsOfRecipe(recipe: Recipe, shelf: MixShelf, loadPpm: number = recipe.loadPpm): MixPart[] {
  // What is named and no longer on the shelf is in the candle all the same.
  const whole = <T extends { id: string; name: string }>(rows: readonly T[], ids: readonly string[], other: Omit<T, "id" | "name">): T[] => [
    ...rows,
    ...[...new Set(ids)].filter((id) => !rows.some((row) => row.id === id)).map((id) => ({ ...other, id, name: GONE }) as T),
  ];
  const ids = (list: readonly { id: string }[] | undefined) => (list ?? []).map((item) => item.id);
  const blended = shelf.waxes.flatMap((wax) => (recipe.waxes.some((item) => item.id === wax.id) ? ids(wax.blend ?? []) : []));
  const mix = mixOf(recipe, {
    waxes: whole<WaxFacts>(
      shelf.waxes.map((wax) => ({ family: "", maxLoadPpm: null, ...wax })),
      [...ids(recipe.waxes), ...blended],
      { family: "", maxLoadPpm: null },
    ),
    fragrances: whole<OilFacts>(
      shelf.fragrances.map((oil) => ({ maxLoadPpm: null, flashPoint: null, ...oil })),
      ids(recipe.fragrances),
      { maxLoadPpm: null, flashPoint: null },
    ),
    additives: whole(shelf.additives, ids(recipe.additives), {}),
    dyes: whole<DyeFacts>(
      shelf.dyes.map((dye) => ({ kind: "", ...dye })),
      ids(recipe.dyes),
      { kind: "" },
    ),
  });
  return inPercent(partsOfWax(mix, loadOfWax({ basis: recipe.basis, loadPpm }, mix)).map(({ ofWax, ...part }) => ({ ...part, of: ofWax })));
}

/** Returns what a pot really holds: as it was weighed, and as planned where nothing was logged. `planned` names those. */
export function partsOfPot(
  plan: Pick<BatchPlan, "pots">,
  pot: number,
  state: Pick<BatchState, "weighed" | "counted" | "targets" | "splits">,
): { parts: MixPart[]; planned: string[] } {
  const parts = contentsOf(plan, pot, state);
  return {
    parts: inPercent(parts.map(({ id, name, kind, mg }) => ({ id, name, kind, of: mg }))),
    planned: parts.filter((part) => !part.isLogged).map((part) => part.name),
  };
}

/** Returns the mixture of several pots together, weighted by mass; the same material in two pots is merged. */
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

/** Returns every material by its sheet, as the rules take it. */
export const requestOf = (parts: readonly MixPart[], sheets: ReadonlyMap<string, SupplierSheet>, cutOffs = false): HazardRequest => ({
  cut_offs: cutOffs,
  parts: parts.map((part) => ({
    percent: Math.min(100, part.percent),
    ingredients: (sheets.get(part.id)?.ingredients ?? []).map((ingredient) => ({
      name: ingredient.name,
      percent: ingredient.percent,
      classes: ingredient.classes,
      cas: ingredient.cas ?? null,
      ec: ingredient.ec ?? null,
      m: ingredient.m ?? null,
      m_acute: ingredient.mAcute ?? null,
      m_chronic: ingredient.mChronic ?? null,
      ate_oral_mg_kg: ingredient.ateOral ?? null,
      ate_dermal_mg_kg: ingredient.ateDermal ?? null,
      ate_inhalation_mg_l: ingredient.ateInhaled ?? null,
      specific_limits: ingredient.limits,
    })),
  })),
});

/** The hazard of a candle as it is blended, by the sheets that are here. A draft, always. */
export function hazardOf(parts: readonly MixPart[], sheets: ReadonlyMap<string, SupplierSheet>, cutOffs = false): MixHazard {
  const unread = parts.flatMap((part) =>
    (sheets.get(part.id)?.ingredients ?? []).flatMap((ingredient) => ingredient.unread.map((each) => `${each} (${ingredient.name})`)),
  );
  return {
    parts: [...parts],
    answer: answerHazard(requestOf(parts, sheets, cutOffs)),
    without: parts.filter((part) => !sheets.has(part.id)),
    unread: [...new Set(unread)],
  };
}

/** By how much the load is narrowed down: a hundredth of a percent. */
const STEP = 100;

/**
 * For each class that the recipe's label bears, and for EUH208, the largest load without it: millionths on the recipe's own basis,
 * rounded down to a hundredth of a percent; null if no load would do, since something else than the scent brings it.
 */
export function loadsWithout(
  recipe: Recipe,
  shelf: MixShelf,
  sheets: ReadonlyMap<string, SupplierSheet>,
  cutOffs = false,
): { class: string; loadPpm: number | null }[] {
  const at = (loadPpm: number) => new Set(hazardClassesOf(requestOf(partsOfRecipe(recipe, shelf, loadPpm), sheets, cutOffs)));
  return [...at(recipe.loadPpm)].map((name) => {
    if (at(0).has(name)) return { class: name, loadPpm: null };
    // More scent makes it graver: EUH208 gives way to the class itself, and both are worse than neither.
    const worse = (loadPpm: number) => at(loadPpm).has(name) || (name === "EUH208" && (at(loadPpm).has("Skin Sens. 1") || at(loadPpm).has("Resp. Sens. 1")));
    let [free, bears] = [0, Math.ceil(recipe.loadPpm / STEP)];
    while (bears - free > 1) {
      const middle = Math.floor((free + bears) / 2);
      if (worse(middle * STEP)) bears = middle;
      else free = middle;
    }
    return { class: name, loadPpm: free * STEP };
  });
}
