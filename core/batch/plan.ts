import type { z } from "zod";
import { type Profile, processOfProfile } from "../process/upcast";
import type * as schema from "./schema";

/** One material of a pot. */
export type Component = z.output<typeof schema.component>;
/** One pot of a batch: a formula as it was, and what goes in. */
export type PotPlan = z.output<typeof schema.potPlan>;
/** Everything a batch was started with, frozen: later edits on the shelf or in the formula do not reach it. */
export type BatchPlan = z.output<typeof schema.batchPlan>;

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
