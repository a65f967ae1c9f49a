import { loadOfWax, type Materials, mixOf } from "../recipe/materials";
import { partsOfWax } from "../recipe/mix";
import type { FormulaSpec } from "../recipe/schema";
import { MG_PER, type Milligrams } from "../units/mass";
import type { Amounts, WeighedComponent } from "../weigh-out/amounts";
import { WeighOutError } from "../weigh-out/contract";
import { incrementMg } from "../weigh-out/increments";

type Recipe = Omit<FormulaSpec, "process">;

/** What a pot takes over of another, in milligrams, and what is added to that. */
export interface RestOf {
  baseMg: Milligrams;
  additions: WeighedComponent[];
}

/** Returns the parts of a recipe by their share of its weight; a dye that is counted also with its drops or pieces to a milligram. */
function sharesOfWeight(recipe: Recipe, shelf: Materials): Map<string, { share: number; countPerMg: number; name: string }> {
  const mix = mixOf(recipe, shelf);
  // What is counted stands on no scale, and is no part of a pot's weight.
  const isCounted = (id: string) => mix.dyes.some((dye) => dye.id === id && dye.by !== "percent");
  const parts = partsOfWax(mix, loadOfWax(recipe, mix)).map((part) => (isCounted(part.id) ? { ...part, ofWax: 0 } : part));
  const sum = parts.reduce((all, part) => all + part.ofWax, 0) || 1;
  const countOf = (id: string) => {
    const dye = mix.dyes.find((item) => item.id === id);
    return dye && dye.by !== "percent" ? dye.amount / MG_PER.lb / sum : 0;
  };
  return new Map(parts.map((part) => [part.id, { share: part.ofWax / sum, countPerMg: countOf(part.id), name: part.name }]));
}

/**
 * Returns how much of another pot becomes this one, and what is added to it, so that it is what its own formula says: as much is taken over as no part of
 * it then exceeds. A part that is already in the other pot must be in this formula too.
 * @param amounts what the formula of this pot asks for as a whole
 * @throws WeighOutError where the formula lacks what the other pot holds, or adds nothing to it
 */
export function restOfPot(amounts: Amounts, own: { name: string; spec: Recipe }, other: { name: string; spec: Recipe }, shelf: Materials): RestOf {
  const held = sharesOfWeight(other.spec, shelf);
  // Drops before they are rounded to whole ones: a rounded drop would take a third of a small pot away.
  const exactWhole = amounts.components.reduce((sum, part) => sum + part.exactMg, 0);
  const ownShares = sharesOfWeight(own.spec, shelf);
  const countOf = (part: WeighedComponent) => (ownShares.get(part.id)?.countPerMg ?? 0) * exactWhole;
  const amountOf = (part: WeighedComponent) => (part.count ? countOf(part) : part.exactMg);
  let baseMg = Number.POSITIVE_INFINITY;
  for (const [id, { share, countPerMg, name }] of held) {
    if (share <= 0 && countPerMg <= 0) continue;
    const part = amounts.components.find((item) => item.id === id);
    if (!part)
      throw new WeighOutError(
        "vessels",
        `What is left of ${other.name} has ${name} in it, which ${own.name} has not. Choose a formula that begins with the same.`,
      );
    baseMg = Math.min(baseMg, amountOf(part) / (part.count ? countPerMg : share));
  }
  baseMg = Math.floor(baseMg);
  const additions = amounts.components.flatMap((part): WeighedComponent[] => {
    const { share = 0, countPerMg = 0 } = held.get(part.id) ?? {};
    if (part.count) {
      const n = Math.round(countOf(part) - baseMg * countPerMg);
      return n > 0 ? [{ ...part, count: { ...part.count, n } }] : [];
    }
    const exactMg = part.exactMg - baseMg * share;
    const increment = part.scale.resolutionUg;
    const steps = Math.round((exactMg * 1_000) / increment);
    return steps > 0 ? [{ ...part, exactMg, mg: incrementMg(steps, increment) }] : [];
  });
  if (additions.length === 0)
    throw new WeighOutError("vessels", `${own.name} adds nothing to what is left of ${other.name}: choose a formula with more dye, scent or another wax.`);
  return { baseMg, additions };
}
