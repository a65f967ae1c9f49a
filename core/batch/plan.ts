import { z } from "zod";
import { process } from "../process/process";
import { type Profile, processOfProfile } from "../process/upcast";
import { plannedProduct } from "../product/product";
import { COMPONENT_KINDS } from "../recipe/mix";
import { recipe } from "../recipe/spec";

const mg = z.number().int().min(0);

/** The scale that something is weighed on. */
export const weighedOn = z.object({ id: z.uuid().nullable(), name: z.string(), resolutionUg: z.number().int().positive() });

export const component = z.object({
  kind: z.enum(COMPONENT_KINDS),
  id: z.uuid(),
  name: z.string(),
  /** What to weigh, on a mark of its scale; 0 for a dye that is counted. */
  mg,
  /** Drops or pieces to count instead, and the weight of one where it is known. */
  count: z.object({ n: mg, of: z.enum(["drops", "pieces"]), eachMg: mg.nullable() }).optional(),
  scale: weighedOn,
});
export type Component = z.output<typeof component>;

const pitcher = z.object({ totalMg: mg, components: z.array(z.object({ id: z.uuid(), mg, n: mg.optional() })) });

/** One pot of a batch: a formula as it was, and what goes in. */
export const potPlan = z.object({
  formulaName: z.string(),
  versionNumber: z.number().int().min(1),
  recipe,
  waxFamily: z.string(),
  /** The smallest of what waxes and fragrances allow, in millionths of the wax. */
  maxLoadPpm: z.number().int().positive().nullable(),
  totalMg: mg,
  components: z.array(component).min(1),
  sparePpm: z.number().int().min(0),
  /** What stays in the pitchers, beside the spare. */
  spareMg: mg.optional(),
  /** The most one pitcher holds, and what goes into each, where the pot is split over several. */
  pitcherMg: mg.optional(),
  pitchers: z.array(pitcher).optional(),
});
export type PotPlan = z.output<typeof potPlan>;

/** Everything a batch was started with, frozen: later edits on the shelf or in the formula do not reach it. */
export const batchPlan = z.object({
  format: z.literal(2),
  process,
  pots: z.array(potPlan).min(1).max(8),
  products: z.array(plannedProduct).min(1).max(200),
  /** Run against a simulated bench: no wax is touched, and nothing of it counts. */
  rehearsal: z.literal(true).optional(),
});
export type BatchPlan = z.output<typeof batchPlan>;

/** What a batch is called: its formulas. */
export const titleOf = (plan: Pick<BatchPlan, "pots">): string => [...new Set(plan.pots.map((pot) => pot.formulaName))].join(" + ");
export const totalOf = (plan: Pick<BatchPlan, "pots">): number => plan.pots.reduce((sum, pot) => sum + pot.totalMg, 0);

/** A plan as it was frozen before pots, products and acts were told apart. */
interface FirstPlan {
  formulaName: string;
  versionNumber: number;
  spec: { profile: Profile } & Record<string, unknown>;
  waxFamily: string;
  maxLoadPpm: number | null;
  vessels: ({ vesselId: string; part?: unknown } & Record<string, unknown>)[];
  sparePpm: number;
  spareMg?: number;
  resolutionUg: number;
  totalMg: number;
  components: Record<string, unknown>[];
  pitcherMg?: number;
}

/** Brings a plan of the first format up to this one; what it did not say (wicks, the scale's name) stays unsaid. */
export function upcastPlan(raw: unknown): unknown {
  const old = raw as FirstPlan;
  if (!old || typeof old !== "object" || "format" in old || !old.spec) return raw;
  const { profile, ...what } = old.spec;
  const seen = new Map<string, number>();
  return {
    format: 2,
    process: processOfProfile(profile),
    pots: [
      {
        formulaName: old.formulaName,
        versionNumber: old.versionNumber,
        recipe: what,
        waxFamily: old.waxFamily,
        maxLoadPpm: old.maxLoadPpm,
        totalMg: old.totalMg,
        components: old.components.map((part) => ({ ...part, scale: { id: null, name: "scale", resolutionUg: old.resolutionUg } })),
        sparePpm: old.sparePpm,
        ...(old.spareMg === undefined ? {} : { spareMg: old.spareMg }),
        ...(old.pitcherMg === undefined ? {} : { pitcherMg: old.pitcherMg }),
      },
    ],
    products: old.vessels.map(({ vesselId, ...vessel }) => {
      const n = (seen.get(vesselId) ?? 0) + 1;
      seen.set(vesselId, n);
      return { ...vessel, key: n === 1 ? vesselId : `${vesselId}:${n}`, body: "vessel", bodyId: vesselId, wicks: null };
    }),
  };
}
/** Reads a plan of any format. @throws z.ZodError where it cannot be read. */
export const readPlan = (raw: unknown): BatchPlan => batchPlan.parse(upcastPlan(raw));
