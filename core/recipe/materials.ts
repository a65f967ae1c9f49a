import type { TemperatureRange } from "../heat/range";
import { type Ppm, WHOLE } from "../units/percent";
import type { CentiCelsius, TemperatureUnit } from "../units/temperature";
import families from "./families.json" with { type: "json" };
import { askedLoadOfWax, type LoadBasis } from "./load";
import { addedTo, type Mix, openBlends } from "./mix";
import { mustNotMix } from "./safety";
import type { FormulaSpec } from "./spec";

/** What amounts and warnings need to know of a wax. What is not on the supplier's sheet is null. */
export interface WaxFacts {
  id: string;
  name: string;
  family: string;
  maxLoadPpm: Ppm | null;
  blend?: { id: string; share: number }[] | null;
  melt?: CentiCelsius | null;
  heatRange?: TemperatureRange | null;
  addRange?: TemperatureRange | null;
  pourRange?: TemperatureRange | null;
  ceiling?: CentiCelsius | null;
  leastCureSeconds?: number | null;
}
export interface OilFacts {
  id: string;
  name: string;
  kind?: string;
  maxLoadPpm: Ppm | null;
  flashPoint: CentiCelsius | null;
  usualLoadPpm?: Ppm | null;
  families?: string[] | null;
}
export interface AdditiveFacts {
  id: string;
  name: string;
  maxPpm?: Ppm | null;
}
export interface DyeFacts {
  id: string;
  name: string;
  kind: string;
  /** Weight of one drop or piece, in mg. */
  eachMg?: number | null;
}

/** What stands on the shelf, as far as formulas need it. */
export interface Materials {
  waxes: readonly WaxFacts[];
  fragrances: readonly OilFacts[];
  additives?: readonly AdditiveFacts[];
  dyes?: readonly DyeFacts[];
}

export interface FamilyLoads {
  usual: [Ppm, Ppm];
  largest: Ppm;
  remark: string;
}
/** Usual and largest loads by family of wax, in millionths of the wax: common practice, no source. */
export const FAMILY_LOADS: Readonly<Record<string, FamilyLoads>> = families as unknown as Record<string, FamilyLoads>;

const find = <T extends { id: string }>(rows: readonly T[] | undefined, id: string): T | null => rows?.find((one) => one.id === id) ?? null;
const known = <T>(rows: (T | null)[]): T[] => rows.filter((one) => one !== null);

/** The rows of the shelf that a formula names, in its order; what is no longer there is left out. */
export function materialsOf(spec: Pick<FormulaSpec, "waxes" | "fragrances" | "additives" | "dyes">, shelf: Materials) {
  return {
    /** As the formula says, a blend being a wax of its own. */
    named: known(spec.waxes.map((part) => find(shelf.waxes, part.id))),
    /** What is weighed, with blends opened. */
    waxes: openBlends(spec.waxes, shelf.waxes),
    fragrances: known(spec.fragrances.map((part) => find(shelf.fragrances, part.id))),
    additives: known((spec.additives ?? []).map((part) => find(shelf.additives, part.id))),
    dyes: known((spec.dyes ?? []).map((part) => find(shelf.dyes, part.id))),
  };
}

/** A formula with its materials looked up, ready for `mixComponents`. */
export function mixOf(spec: Pick<FormulaSpec, "waxes" | "fragrances" | "additives" | "dyes">, shelf: Materials): Mix {
  return {
    waxes: openBlends(spec.waxes, shelf.waxes).map(({ wax, share }) => ({ id: wax.id, name: wax.name, share })),
    fragrances: spec.fragrances.flatMap((part) => {
      const oil = find(shelf.fragrances, part.id);
      return oil ? [{ id: oil.id, name: oil.name, share: part.share, maxPpm: oil.maxLoadPpm }] : [];
    }),
    additives: (spec.additives ?? []).flatMap((part) => {
      const row = find(shelf.additives, part.id);
      return row ? [{ id: row.id, name: row.name, ppm: part.ppm }] : [];
    }),
    dyes: (spec.dyes ?? []).flatMap((part) => {
      const row = find(shelf.dyes, part.id);
      return row ? [{ id: row.id, name: row.name, by: part.by, amount: part.amount, eachMg: row.eachMg ?? null }] : [];
    }),
  };
}

/** Why the formula's materials must not go into one candle, blends opened; null where nothing is known against it. */
export function stopOf(spec: Pick<FormulaSpec, "waxes" | "fragrances" | "additives" | "dyes">, shelf: Materials, unit: TemperatureUnit) {
  const { waxes, fragrances, dyes } = materialsOf(spec, shelf);
  return mustNotMix({ waxes: waxes.map((part) => part.wax), fragrances, dyes }, unit);
}

export interface Limit {
  ppm: Ppm;
  /** Whose limit it is. */
  name: string;
  of: "wax" | "fragrance";
}

/** The waxes whose sheets limit the load: as the formula names them, a blend without a limit of its own by its parts. */
export function limitingWaxes(spec: Pick<FormulaSpec, "waxes" | "fragrances">, shelf: Materials): WaxFacts[] {
  const out = new Set<WaxFacts>();
  for (const wax of materialsOf(spec, shelf).named) {
    if (wax.maxLoadPpm !== null || !wax.blend) out.add(wax);
    else for (const part of wax.blend) for (const one of known([find(shelf.waxes, part.id)])) out.add(one);
  }
  return [...out];
}

/**
 * The limits that waxes and fragrances set on the whole load, in millionths of the wax, the tightest first. Of several
 * waxes each limit counts as it stands; an oil that is a share of the fragrance leaves room for the whole by that share.
 */
export function limitsOf(spec: Pick<FormulaSpec, "waxes" | "fragrances">, shelf: Materials): Limit[] {
  const { fragrances } = materialsOf(spec, shelf);
  const sum = spec.fragrances.reduce((all, part) => all + part.share, 0);
  const limits: Limit[] = [
    ...limitingWaxes(spec, shelf).flatMap((wax) => (wax.maxLoadPpm === null ? [] : [{ ppm: wax.maxLoadPpm, name: wax.name, of: "wax" as const }])),
    ...fragrances.flatMap((oil) => {
      const share = spec.fragrances.find((part) => part.id === oil.id)?.share ?? 0;
      return oil.maxLoadPpm === null ? [] : [{ ppm: Math.floor((oil.maxLoadPpm * sum) / share), name: oil.name, of: "fragrance" as const }];
    }),
  ];
  return limits.sort((a, b) => a.ppm - b.ppm);
}

/** A load read as millionths of the wax; on the basis of the total, additives and weighed dyes are part of that total. */
export function loadOfWax(spec: { basis: LoadBasis; loadPpm: Ppm }, mix: Pick<Mix, "additives" | "dyes">): number {
  return askedLoadOfWax(
    spec,
    addedTo(mix).reduce((sum, one) => sum + one.ppmOfWax, 0),
  );
}

/** The same load read as millionths of the total: wax, fragrance, additives and weighed dyes together. One figure in editor, plan and record. */
export function loadOfTotal(spec: { basis: LoadBasis; loadPpm: Ppm }, mix: Pick<Mix, "additives" | "dyes">): number {
  const ofWax = loadOfWax(spec, mix);
  const added = addedTo(mix).reduce((sum, one) => sum + one.ppmOfWax, 0);
  return (ofWax * WHOLE) / (WHOLE + ofWax + added);
}

/** Where a wax's sheet says the range of each act. */
export const SHEET_RANGE = { heat: "heatRange", add: "addRange", cool: "pourRange" } as const;
