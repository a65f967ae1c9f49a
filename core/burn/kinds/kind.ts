import type { Kind, Refusal } from "../../log/log";
import type { Z } from "../../shapes";
import type { TrialFacts } from "../facts";
import type { TrialPlan } from "../plan";
import type { testerKey, trialPlan } from "../schema";

/** What the kinds of a trial are handed to say how their payloads are checked. */
export interface TrialShapes {
  z: Z;
  trialPlan: typeof trialPlan;
  testerKey: typeof testerKey;
}

/** Declares a kind of entry of a trial. */
export const trialKind = <K extends string, P>(kind: Kind<K, P, TrialFacts, TrialPlan, TrialShapes>) => kind;

export const noTester: Refusal = { field: "tester", message: "This trial has no such tester." };
export const closedTrial = (facts: TrialFacts): Refusal | null =>
  facts.closed ? { field: "kind", message: "This trial is closed. Reopen it first, by taking the closing back." } : null;
/** Why nothing can be done to a tester now; null where it can. */
export const notThere = (facts: TrialFacts, key: string): Refusal | null => closedTrial(facts) ?? (facts.testers[key] ? null : noTester);
