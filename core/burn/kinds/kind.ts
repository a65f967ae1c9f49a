import { z } from "zod";
import type { Kind, Refusal } from "../../log/log";
import type { TrialFacts } from "../facts";
import type { TrialPlan } from "../plan";

/** Declares a kind of entry of a trial. */
export const trialKind = <K extends string, P>(kind: Kind<K, P, TrialFacts, TrialPlan>) => kind;

export const testerKey = z.string().min(1).max(12).describe("its key within the trial");
export const noTester: Refusal = { field: "tester", message: "This trial has no such tester." };
export const closedTrial = (facts: TrialFacts): Refusal | null =>
  facts.closed ? { field: "kind", message: "This trial is closed. Reopen it first, by taking the closing back." } : null;
/** Why nothing can be done to a tester now; null where it can. */
export const notThere = (facts: TrialFacts, key: string): Refusal | null => closedTrial(facts) ?? (facts.testers[key] ? null : noTester);
