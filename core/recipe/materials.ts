import type { TemperatureRange } from "../heat/range";
import type { StepRecord } from "../process/step-type";
import { type Ppm, WHOLE, writePercent } from "../units/percent";
import type { CentiCelsius, TemperatureUnit } from "../units/temperature";
import families from "./families.json" with { type: "json" };
import { addedPpmOf, askedLoadOfWax, type LoadBasis } from "./load";
import { type Mix, openBlends } from "./mix";
import { type GelFault, gelFaults, type SafetyMaterials } from "./safety";
import type { FormulaSpec } from "./schema";

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
  cureSeconds?: number | null;
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
  usualPpm?: Ppm | null;
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

const find = <T extends { id: string }>(rows: readonly T[] | undefined, id: string): T | null => rows?.find((row) => row.id === id) ?? null;
const known = <T>(rows: (T | null)[]): T[] => rows.filter((row) => row !== null);

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

/** Returns a formula with its materials looked up, ready for `mixComponents`. */
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

type Candle = Pick<FormulaSpec, "waxes" | "fragrances" | "additives" | "dyes"> & Pick<SafetyMaterials, "wicks" | "process">;

/** Returns everything that stands against the formula's materials, its process and the wicks in one gel candle, blends opened. */
export function gelFaultsOf(spec: Candle, shelf: Materials, unit: TemperatureUnit): GelFault[] {
  const { waxes, fragrances, dyes } = materialsOf(spec, shelf);
  const { wicks, process } = spec;
  return gelFaults({ waxes: waxes.map((part) => part.wax), fragrances, dyes, ...(wicks ? { wicks } : {}), ...(process ? { process } : {}) }, unit);
}

/** Returns why these must not go into one candle, with everything else that is wrong with it; null if nothing stops it. */
export function stopOf(spec: Candle, shelf: Materials, unit: TemperatureUnit): { of: GelFault["of"]; message: string } | null {
  const faults = gelFaultsOf(spec, shelf, unit);
  const first = faults.find((fault) => fault.weight === "stop");
  return first ? { of: first.of, message: faults.map((fault) => fault.message).join(" ") } : null;
}

export interface Limit {
  ppm: Ppm;
  /** Whose limit it is. */
  name: string;
  of: "wax" | "fragrance";
  /** Of a blend: its waxes, the share of each in millionths, and what each takes by itself. */
  parts?: { name: string; share: Ppm; ppm: Ppm }[];
}

/** Returns the waxes whose sheets limit the load: as the formula names them, a blend without a limit of its own by its parts. */
export function limitingWaxes(spec: Pick<FormulaSpec, "waxes" | "fragrances">, shelf: Materials): WaxFacts[] {
  const out = new Set<WaxFacts>();
  for (const wax of materialsOf(spec, shelf).named) {
    if (wax.maxLoadPpm !== null || !wax.blend) out.add(wax);
    else for (const part of wax.blend) for (const waxFacts of known([find(shelf.waxes, part.id)])) out.add(waxFacts);
  }
  return [...out];
}

/**
 * Returns what the wax takes, in millionths of it: of several waxes by their shares, each with its own limit. Where the limit of one of them is not known the
 * smallest of the others counts, since theirs cannot be weighed. Common practice, no source.
 */
function waxLimit(spec: Pick<FormulaSpec, "waxes" | "fragrances">, shelf: Materials): Limit[] {
  const shares = new Map<WaxFacts, number>();
  const put = (wax: WaxFacts | null, share: number) => wax && shares.set(wax, (shares.get(wax) ?? 0) + share);
  const all = spec.waxes.reduce((sum, part) => sum + part.share, 0) || 1;
  for (const part of spec.waxes) {
    const wax = find(shelf.waxes, part.id);
    if (wax?.maxLoadPpm === null && wax.blend) {
      const whole = wax.blend.reduce((sum, item) => sum + item.share, 0) || 1;
      for (const item of wax.blend) put(find(shelf.waxes, item.id), (part.share / all) * (item.share / whole));
    } else put(wax, part.share / all);
  }
  const parts = [...shares].flatMap(([wax, share]) =>
    wax.maxLoadPpm === null ? [] : [{ name: wax.name, share: Math.round(share * WHOLE), ppm: wax.maxLoadPpm }],
  );
  const [first] = [...parts].sort((a, b) => a.ppm - b.ppm);
  if (!first) return [];
  if (parts.length < shares.size || parts.length === 1) return [{ ppm: first.ppm, name: first.name, of: "wax" }];
  const ppm = Math.floor([...shares].reduce((sum, [wax, share]) => sum + share * (wax.maxLoadPpm as number), 0) + 1e-6);
  return [{ ppm, name: "the blend", of: "wax", parts }];
}

/** Returns how the limit of a blend follows from its parts: "75 % container soy at 10 % + 25 % coconut blend at 12 %". */
export const writeLimitParts = (limit: Limit): string =>
  (limit.parts ?? []).map((part) => `${writePercent(part.share, 1)} ${part.name} at ${writePercent(part.ppm)}`).join(" + ");

/**
 * Returns the limits that waxes and fragrances set on the whole load, in millionths of the wax, the tightest first. The limit of
 * a blend follows from its parts; an oil that is a share of the fragrance leaves room for the whole by that share.
 */
export function limitsOf(spec: Pick<FormulaSpec, "waxes" | "fragrances">, shelf: Materials): Limit[] {
  const { fragrances } = materialsOf(spec, shelf);
  const sum = spec.fragrances.reduce((all, part) => all + part.share, 0);
  const limits: Limit[] = [
    ...waxLimit(spec, shelf),
    ...fragrances.flatMap((oil) => {
      const share = spec.fragrances.find((part) => part.id === oil.id)?.share ?? 0;
      return oil.maxLoadPpm === null ? [] : [{ ppm: Math.floor((oil.maxLoadPpm * sum) / share), name: oil.name, of: "fragrance" as const }];
    }),
  ];
  return limits.sort((a, b) => a.ppm - b.ppm);
}

/** A load read as millionths of the wax; on the basis of the total, additives and weighed dyes are part of that total. */
export function loadOfWax(spec: { basis: LoadBasis; loadPpm: Ppm }, mix: Pick<Mix, "additives" | "dyes">): number {
  return askedLoadOfWax(spec, addedPpmOf(mix));
}

/** Returns the same load read as millionths of the total: wax, fragrance, additives and weighed dyes together. One figure in editor, plan and record. */
export function loadOfTotal(spec: { basis: LoadBasis; loadPpm: Ppm }, mix: Pick<Mix, "additives" | "dyes">): number {
  const ofWax = loadOfWax(spec, mix);
  return (ofWax * WHOLE) / (WHOLE + ofWax + addedPpmOf(mix));
}

/** Returns the range that a wax's sheet says for what a step records; undefined if it says none. */
export function sheetRange(wax: Pick<WaxFacts, "heatRange" | "addRange" | "pourRange">, records: StepRecord | undefined): TemperatureRange | undefined {
  const said = records === "heat_c" ? wax.heatRange : records === "add_c" ? wax.addRange : records === "pour_c" ? wax.pourRange : undefined;
  return said ?? undefined;
}
