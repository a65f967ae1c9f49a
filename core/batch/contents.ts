import type { PlannedProduct } from "../product/product";
import type { Component } from "../recipe/component-schema";
import { type Materials, materialsOf } from "../recipe/materials";
import type { Recipe } from "../recipe/schema";
import type { BatchPlan } from "./plan";
import { type BatchState, countedTarget, partKey, targetOf } from "./state";

/** One material in a pot: milligrams, as logged or as planned. */
export interface PotPart extends Pick<Component, "kind" | "id" | "name"> {
  mg: number;
  isLogged: boolean;
}

type Logged = Pick<BatchState, "weighed" | "counted" | "targets" | "splits">;
const NOTHING_LOGGED: Logged = { weighed: {}, counted: {}, targets: {}, splits: {} };

/** Returns what is put into a pot itself: as it was weighed or counted, else as planned. A dye that is counted has the weight of its drops. */
const ownParts = (plan: Pick<BatchPlan, "pots">, state: Logged, pot: number): PotPart[] =>
  (plan.pots[pot]?.components ?? []).map((part) => {
    const key = partKey(pot, part.id);
    const eachMg = part.count?.eachMg ?? 0;
    const logged = part.count ? state.counted[key] && state.counted[key].n * eachMg : state.weighed[key]?.mg;
    const planned = part.count ? countedTarget(state, pot, part) * eachMg : targetOf(state, pot, part);
    return { kind: part.kind, id: part.id, name: part.name, mg: logged ?? planned, isLogged: logged !== undefined };
  });

const sumOf = (parts: readonly { mg: number }[]): number => parts.reduce((sum, part) => sum + part.mg, 0);

/**
 * Returns what a pot holds before it is poured, by material, in milligrams: what was put into it, and, where it is the rest of another pot, its share of
 * that. As logged, else as planned; as planned throughout where no state is given.
 */
export function contentsOf(plan: Pick<BatchPlan, "pots">, pot: number, state: Logged = NOTHING_LOGGED): PotPart[] {
  const own = ownParts(plan, state, pot);
  const { restOf, baseMg = 0 } = plan.pots[pot] ?? {};
  if (restOf === undefined) return own;
  const from = contentsOf(plan, restOf, state);
  const base = Object.values(state.splits).find((item) => item.pot === pot)?.mg ?? baseMg;
  const share = base / (sumOf(from) || 1);
  const merged = new Map<string, PotPart>();
  for (const part of [...from.map((item) => ({ ...item, mg: item.mg * share })), ...own]) {
    const before = merged.get(part.id);
    merged.set(part.id, before ? { ...part, mg: before.mg + part.mg, isLogged: before.isLogged && part.isLogged } : part);
  }
  return [...merged.values()];
}

/** Returns what stands on the scales for a pot, with what it takes over of another: for a picture of it. */
export const plannedParts = (plan: Pick<BatchPlan, "pots">, pot: number): Pick<PotPart, "kind" | "name" | "mg">[] =>
  plan.pots[pot]?.restOf === undefined ? (plan.pots[pot]?.components ?? []) : contentsOf(plan, pot);

/** Returns the pot that most of a product is poured from, counted from 0. */
export function potOfProduct(product: Pick<PlannedProduct, "fillsMg"> | undefined): number {
  const fills = product?.fillsMg ?? [];
  return Math.max(0, fills.indexOf(Math.max(0, ...fills)));
}

/** Returns whether a product is poured from a single pot. */
export const isFromOnePot = (product: Pick<PlannedProduct, "fillsMg"> | undefined): boolean => (product?.fillsMg ?? [1]).filter((mg) => mg > 0).length === 1;

/** Returns a pot and those that it is the rest of, itself first. */
export function ancestryOf(plan: Pick<BatchPlan, "pots">, pot: number): number[] {
  const from = plan.pots[pot]?.restOf;
  return from === undefined ? [pot] : [pot, ...ancestryOf(plan, from)];
}

/** Returns what each pot cost with the rests passed on: a pot that is the rest of another bears its share of that, by planned weight. */
export function passCostsOn(plan: Pick<BatchPlan, "pots">, potCosts: readonly number[]): number[] {
  const costs = [...potCosts];
  plan.pots.forEach((_pot, from) => {
    const whole = costs[from] ?? 0;
    const total = sumOf(contentsOf(plan, from)) || 1;
    plan.pots.forEach((pot, to) => {
      if (pot.restOf !== from) return;
      const passed = whole * Math.min(1, (pot.baseMg ?? 0) / total);
      costs[to] = (costs[to] ?? 0) + passed;
      costs[from] = (costs[from] ?? 0) - passed;
    });
  });
  return costs;
}

/** Returns the names of what is in it of one kind, as outcomes and labels have them: "soft soy + coconut blend". */
export const componentNames = (parts: readonly Pick<Component, "kind" | "name">[], kind: Component["kind"]): string =>
  parts.flatMap((part) => (part.kind === kind ? [part.name] : [])).join(" + ");

/** Returns the waxes of a pot as findings tell them apart: one by its name, a blend with its shares in whole percents, the largest first: "80 % soft soy + 20 % hive wax". */
export function blendWords(parts: readonly Pick<Component, "kind" | "name" | "mg">[]): string {
  const waxes = parts.filter((part) => part.kind === "wax");
  const all = waxes.reduce((sum, part) => sum + part.mg, 0);
  if (waxes.length < 2 || all === 0) return componentNames(parts, "wax");
  return [...waxes]
    .sort((a, b) => b.mg - a.mg || (a.name < b.name ? -1 : 1))
    .map((part) => `${Math.round((part.mg / all) * 100)} % ${part.name}`)
    .join(" + ");
}

/** Returns the waxes of a recipe by the same words, blends of the shelf opened, so that it is found among what was poured and burned of it. */
export const waxWords = (recipe: Pick<Recipe, "waxes" | "fragrances">, shelf: Materials): string =>
  blendWords(materialsOf(recipe, shelf).waxes.map(({ wax, share }) => ({ kind: "wax", name: wax.name, mg: share })));

/** Returns the waxes that such words name, with their shares of one. */
export const partsOfBlendWords = (words: string): { name: string; share: number }[] =>
  words.split(" + ").map((part) => {
    const [, percent, name] = /^(\d+) % (.+)$/.exec(part) ?? [];
    return name ? { name, share: Number(percent) / 100 } : { name: part, share: 1 };
  });
