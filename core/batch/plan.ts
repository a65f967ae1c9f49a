import { z } from "zod";
import { limitsOf, type Materials, materialsOf, mixOf } from "../formula/materials";
import { addedTo, COMPONENT_KINDS, type MixedComponent, mixComponents } from "../formula/mix";
import { type Scaled, type ScaleInput, scaleFormula } from "../formula/scale";
import { type FormulaSpec, formulaSpec } from "../formula/spec";
import { type FillPart, fillOf, fillPart } from "../vessel/parts";

const mg = z.number().int().min(0);

/** A vessel as a batch froze it. Inner measures in micrometres, for the drawing. */
export const plannedVessel = z.object({
  vesselId: z.uuid(),
  name: z.string(),
  statedFillMg: mg,
  fillMg: mg.min(1),
  soldByWeight: z.boolean(),
  count: z.number().int().min(1).max(100_000),
  innerTopUm: z.number().int().positive(),
  innerBottomUm: z.number().int().positive(),
  heightUm: z.number().int().positive(),
  shape: z.enum(["straight", "bowl"]).optional(),
  /** Half fills and layers: `fillMg` is then the weight of that part. */
  part: fillPart.optional(),
});
export type PlannedVessel = z.output<typeof plannedVessel>;

export const component = z.object({
  kind: z.enum(COMPONENT_KINDS),
  id: z.uuid(),
  name: z.string(),
  /** What to weigh; 0 for a dye that is counted. */
  mg,
  /** Drops or pieces to count instead, and the weight of one where it is known. */
  count: z.object({ n: mg, of: z.enum(["drops", "pieces"]), eachMg: mg.nullable() }).optional(),
});
export type Component = z.output<typeof component>;

/** Everything a batch was started with, frozen: later edits on the shelf or in the formula do not reach it. */
export const batchPlan = z.object({
  formulaName: z.string(),
  versionNumber: z.number().int().min(1),
  spec: formulaSpec,
  waxFamily: z.string(),
  /** The smaller of what wax and fragrance allow, in millionths of the wax. */
  maxLoadPpm: z.number().int().positive().nullable(),
  vessels: z.array(plannedVessel).min(1),
  sparePpm: z.number().int().min(0),
  /** What stays in the pitchers, beside the spare. */
  spareMg: mg.optional(),
  resolutionUg: z.number().int().positive(),
  totalMg: mg,
  components: z.array(component).min(1),
  /** The most one pitcher holds, where the batch is split over several. */
  pitcherMg: mg.optional(),
});
export type BatchPlan = z.output<typeof batchPlan>;

/** A vessel as the shelf has it, with how many of it are filled, and how far. */
export interface ChosenVessel {
  id: string;
  name: string;
  statedFillMg: number;
  workingFillMg: number;
  soldByWeight: boolean;
  innerTopUm: number;
  innerBottomUm: number;
  heightUm: number;
  shape?: "straight" | "bowl";
  count: number;
  part?: FillPart | null;
}

/** What a batch is worked out from: vessels and their counts, or a weight of wax or a total in place of their fills. */
export interface PlanOrder {
  vessels: ChosenVessel[];
  start?: ScaleInput["start"];
  sparePpm: number;
  /** What stays in the pitchers, all of them together. */
  spareMg?: number | undefined;
  resolutionUg: number;
  pitcherMg?: number | null;
}

export interface Amounts extends Scaled {
  /** In the order of weighing; their grams sum to the total. */
  components: MixedComponent[];
  /** The tightest limit on the load, in millionths of the wax; null where none is known. */
  maxLoadPpm: number | null;
  /** What goes into one of each vessel, in the order of the vessels. */
  fillsMg: number[];
}

/** Inner measures in millimetres. */
export const innerOf = (vessel: Pick<ChosenVessel, "innerTopUm" | "innerBottomUm" | "heightUm" | "shape">) => ({
  top: vessel.innerTopUm / 1_000,
  bottom: vessel.innerBottomUm / 1_000,
  height: vessel.heightUm / 1_000,
  shape: vessel.shape ?? ("straight" as const),
});

/**
 * The amounts of a batch from a formula, the shelf and what is to be filled. Where it begins from a weight, the total is
 * shared over the vessels in proportion to their fills. @throws ScaleError as `scaleFormula`.
 */
export function amountsFor(
  spec: Pick<FormulaSpec, "basis" | "loadPpm" | "waxes" | "fragrances" | "additives" | "dyes">,
  shelf: Materials,
  order: PlanOrder,
): Amounts {
  const mix = mixOf(spec, shelf);
  const maxLoadPpm = limitsOf(spec, shelf)[0]?.ppm ?? null;
  const fills = order.vessels.map((one) => ({ name: one.name, fillMg: fillOf(innerOf(one), one.workingFillMg, one.part ?? null), count: one.count }));
  const scaled = scaleFormula({
    basis: spec.basis,
    loadPpm: spec.loadPpm,
    maxLoadPpm,
    vessels: fills,
    start: order.start,
    sparePpm: order.sparePpm,
    spareMg: order.spareMg,
    resolutionUg: order.resolutionUg,
    additives: addedTo(mix),
  });
  const asked = fills.reduce((sum, one) => sum + one.fillMg * one.count, 0);
  const fillsMg = fills.map((one) => (order.start ? Math.floor((scaled.totalMg * one.fillMg) / asked) : one.fillMg));
  return { ...scaled, maxLoadPpm, components: mixComponents(scaled, mix, order.resolutionUg), fillsMg };
}

/** The plan that a batch is started with: the amounts, and everything they rest on as it is now. @throws ScaleError as `scaleFormula`. */
export function planBatch(formula: { name: string; number: number; spec: FormulaSpec }, shelf: Materials, order: PlanOrder): BatchPlan {
  const amounts = amountsFor(formula.spec, shelf, order);
  return {
    formulaName: formula.name,
    versionNumber: formula.number,
    spec: formula.spec,
    waxFamily: materialsOf(formula.spec, shelf).named[0]?.family ?? "",
    maxLoadPpm: amounts.maxLoadPpm,
    vessels: order.vessels.map((one, index) => ({
      vesselId: one.id,
      name: one.name,
      statedFillMg: one.statedFillMg,
      fillMg: amounts.fillsMg[index] as number,
      soldByWeight: one.soldByWeight,
      count: one.count,
      innerTopUm: one.innerTopUm,
      innerBottomUm: one.innerBottomUm,
      heightUm: one.heightUm,
      ...(one.shape === "bowl" ? { shape: one.shape } : {}),
      ...(one.part ? { part: one.part } : {}),
    })),
    sparePpm: order.sparePpm,
    ...(order.spareMg ? { spareMg: order.spareMg } : {}),
    resolutionUg: order.resolutionUg,
    totalMg: amounts.totalMg,
    components: amounts.components.filter((part) => part.mg > 0 || part.count).map(({ exactMg: _exact, ...part }) => part),
    ...(order.pitcherMg ? { pitcherMg: order.pitcherMg } : {}),
  };
}
