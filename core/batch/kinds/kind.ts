import type { flaw, seenFlaw } from "../../defects/schema";
import type { Kind } from "../../log/log";
import { namedLines } from "../../product/named-lines";
import type { Z } from "../../shapes";
import type { BatchFacts } from "../facts";
import type { BatchPlan } from "../plan";
import type { batchPlan } from "../schema";

/** What the kinds of a batch are handed to say how their payloads are checked. */
export interface BatchShapes {
  z: Z;
  batchPlan: typeof batchPlan;
  flaw: typeof flaw;
  seenFlaw: typeof seenFlaw;
}

/** The most jars that one entry speaks of: as many as a batch can pour. */
export const MAX_JARS = 100_000;

/** Declares a kind of entry of a batch. */
export const batchKind = <K extends string, P>(kind: Kind<K, P, BatchFacts, BatchPlan, BatchShapes>) => kind;

export const closedAlready = (facts: BatchFacts) =>
  facts.closed ? { field: "kind", message: "This batch is closed. Reopen it first, by taking the closing back." } : null;
export const abandonedAlready = (facts: BatchFacts) =>
  facts.abandoned ? { field: "kind", message: "This batch was abandoned. Take the abandoning back to go on with it." } : null;
/** Work at the pot: not once it is closed or abandoned. */
export const atWork = (facts: BatchFacts) => closedAlready(facts) ?? abandonedAlready(facts);

export const actOf = (plan: BatchPlan, id: string | null) => (id === null ? null : (plan.process.acts.find((one) => one.id === id) ?? null));
export const noSuchAct = { field: "act", message: "This batch's process has no such act." };
export const notPoured = (facts: BatchFacts, what: string) =>
  Object.keys(facts.pours).length === 0 ? { field: "kind", message: `Nothing is poured yet, so nothing can be ${what}.` } : null;
/** A product of a plan, with a name that tells it from the others. */
export const productOf = (plan: BatchPlan, key: string) => namedLines(plan.products).find((one) => one.key === key);
