import type { BatchPlan } from "./schema";

export type { Component } from "../recipe/component-schema";
export type { BatchPlan, PotPlan } from "./schema";

/** Returns what a batch is called: its formulas. */
export const titleOf = (plan: Pick<BatchPlan, "pots">): string => [...new Set(plan.pots.map((pot) => pot.formulaName))].join(" + ");
export const totalOf = (plan: Pick<BatchPlan, "pots">): number => plan.pots.reduce((sum, pot) => sum + pot.totalMg - (pot.baseMg ?? 0), 0);
