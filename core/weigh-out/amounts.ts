import { limitsOf, type Materials, mixOf } from "../recipe/materials";
import { type MixedComponent, mixComponents, sharesOf } from "../recipe/mix";
import type { Recipe } from "../recipe/schema";
import { LARGEST_MASS_MG, type Milligrams, type ScaleUnit } from "../units/mass";
import type { WeighedOut, WeighOutInput } from "./contract";
import { weighOut } from "./weigh-out";

/** A scale as the shelf has it. */
export interface Scale {
  id: string | null;
  name: string;
  resolutionUg: number;
  /** What it shows; null if nobody said. */
  unit?: ScaleUnit | null;
  /** The most it takes; null if nobody said. */
  capacityMg?: Milligrams | null;
}
/** Which scale weighs the wax, and which the oils, additives and dyes. */
export interface Scales {
  wax: Scale;
  oil: Scale;
}

export interface WeighedComponent extends MixedComponent {
  scale: Scale;
}

export interface Amounts extends WeighedOut {
  /** In the order of weighing; their grams sum to the total. */
  components: WeighedComponent[];
  /** The tightest limit on the load, in millionths of the wax; null if none is known. */
  maxLoadPpm: number | null;
}

/** What is worked out for one pot. */
export interface PotOrder {
  fills: { name: string; fillMg: Milligrams; count: number }[];
  start?: WeighOutInput["start"];
  sparePpm: number;
  /** What stays in the pitchers, all of them together. */
  spareMg?: number | undefined;
  scales: Scales;
}

type RecipeParts = Pick<Recipe, "basis" | "loadPpm" | "waxes" | "fragrances" | "additives" | "dyes">;

/** The amounts of one pot from a recipe, the shelf and what is to be filled, each on a named scale. @throws WeighOutError as `weighOut`. */
export function amountsFor(recipe: RecipeParts, shelf: Materials, order: PotOrder): Amounts {
  const mix = mixOf(recipe, shelf);
  const maxLoadPpm = limitsOf(recipe, shelf)[0]?.ppm ?? null;
  const { wax, oil } = order.scales;
  const amounts = weighOut({
    basis: recipe.basis,
    loadPpm: recipe.loadPpm,
    maxLoadPpm,
    vessels: order.fills,
    start: order.start,
    sparePpm: order.sparePpm,
    spareMg: order.spareMg,
    resolutionUg: wax.resolutionUg,
    fragranceResolutionUg: oil.resolutionUg,
    additiveResolutionUg: oil.resolutionUg,
    ...sharesOf(mix),
  });
  const components = mixComponents(amounts, mix).map((part) => ({ ...part, scale: part.kind === "wax" ? wax : oil }));
  return { ...amounts, maxLoadPpm, components };
}

/** Returns what a scale takes; as good as anything where nobody said. */
const takes = (scale: Scale) => scale.capacityMg ?? LARGEST_MASS_MG;

/**
 * Returns which scales a pot is weighed on: wax on the one that takes most, oil on the finest that can take it at once. Null if
 * there is none: a scale is asked for, and none is supposed. `oilMg` is about what the largest oil or additive weighs.
 */
export function scalesFor(scales: readonly Scale[], oilMg: Milligrams): Scales | null {
  const wax = [...scales].sort((a, b) => takes(b) - takes(a) || b.resolutionUg - a.resolutionUg)[0];
  if (!wax) return null;
  const fine = scales.filter((scale) => takes(scale) >= oilMg).sort((a, b) => a.resolutionUg - b.resolutionUg)[0];
  return { wax, oil: fine && fine.resolutionUg <= wax.resolutionUg ? fine : wax };
}
