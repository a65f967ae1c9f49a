import { z } from "zod";
import { type Scaled, scaleFormula } from "../formula/scale";
import { type FormulaSpec, formulaSpec } from "../formula/spec";

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
});
export type PlannedVessel = z.output<typeof plannedVessel>;

export const component = z.object({
  kind: z.enum(["wax", "fragrance"]),
  id: z.uuid(),
  name: z.string(),
  mg,
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
  resolutionUg: z.number().int().positive(),
  totalMg: mg,
  components: z.array(component).min(1),
});
export type BatchPlan = z.output<typeof batchPlan>;

export interface PlanMaterials {
  wax: { id: string; name: string; family: string; maxLoadPpm: number | null };
  fragrance: { id: string; name: string; maxLoadPpm: number | null } | null;
}

/** The smaller of the limits that wax and fragrance set, in millionths of the wax; null where neither is known. */
export function tightestLimit(materials: PlanMaterials): number | null {
  const limits = [materials.wax.maxLoadPpm, materials.fragrance?.maxLoadPpm ?? null].filter((limit) => limit !== null);
  return limits.length === 0 ? null : Math.min(...limits);
}

/** The amounts of a batch from a formula and the vessels chosen for it. @throws ScaleError as `scaleFormula`. */
export function amountsFor(
  spec: Pick<FormulaSpec, "basis" | "loadPpm">,
  materials: PlanMaterials,
  vessels: { name: string; fillMg: number; count: number }[],
  sparePpm: number,
  resolutionUg: number,
): Scaled {
  return scaleFormula({ basis: spec.basis, loadPpm: spec.loadPpm, maxLoadPpm: tightestLimit(materials), vessels, sparePpm, resolutionUg });
}

/** The components to weigh, in the order of weighing. Their sum is the total. */
export function componentsOf(scaled: Pick<Scaled, "waxMg" | "fragranceMg">, materials: PlanMaterials): Component[] {
  const wax: Component = { kind: "wax", id: materials.wax.id, name: materials.wax.name, mg: scaled.waxMg };
  if (!materials.fragrance || scaled.fragranceMg === 0) return [wax];
  return [wax, { kind: "fragrance", id: materials.fragrance.id, name: materials.fragrance.name, mg: scaled.fragranceMg }];
}

/** A vessel as the shelf has it, with how many of it are filled. */
export interface ChosenVessel {
  id: string;
  name: string;
  statedFillMg: number;
  workingFillMg: number;
  soldByWeight: boolean;
  innerTopUm: number;
  innerBottomUm: number;
  heightUm: number;
  count: number;
}

/** The plan that a batch is started with: the amounts, and everything they rest on as it is now. @throws ScaleError as `scaleFormula`. */
export function planBatch(
  formula: { name: string; number: number; spec: FormulaSpec },
  materials: PlanMaterials,
  vessels: ChosenVessel[],
  sparePpm: number,
  resolutionUg: number,
): BatchPlan {
  const fills = vessels.map((one) => ({ name: one.name, fillMg: one.workingFillMg, count: one.count }));
  const scaled = amountsFor(formula.spec, materials, fills, sparePpm, resolutionUg);
  return {
    formulaName: formula.name,
    versionNumber: formula.number,
    spec: formula.spec,
    waxFamily: materials.wax.family,
    maxLoadPpm: tightestLimit(materials),
    vessels: vessels.map((one) => ({
      vesselId: one.id,
      name: one.name,
      statedFillMg: one.statedFillMg,
      fillMg: one.workingFillMg,
      soldByWeight: one.soldByWeight,
      count: one.count,
      innerTopUm: one.innerTopUm,
      innerBottomUm: one.innerBottomUm,
      heightUm: one.heightUm,
    })),
    sparePpm,
    resolutionUg,
    totalMg: scaled.totalMg,
    components: componentsOf(scaled, materials),
  };
}
