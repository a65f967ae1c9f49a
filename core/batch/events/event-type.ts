import type { flaw, seenFlaw } from "../../defects/schema";
import type { EventType } from "../../log/log";
import { namedLines } from "../../product/named-lines";
import type { Z } from "../../shapes";
import type { BatchPlan } from "../plan";
import type { batchPlan } from "../schema";
import type { BatchState } from "../state";

/** The schema builders that the event types of a batch use for their payloads. */
export interface BatchShapes {
  z: Z;
  batchPlan: typeof batchPlan;
  flaw: typeof flaw;
  seenFlaw: typeof seenFlaw;
}

/** The most jars that one entry speaks of: as many as a batch can pour. */
export const MAX_JARS = 100_000;

/** Declares an event type of a batch. */
export const batchEvent = <K extends string, P>(kind: EventType<K, P, BatchState, BatchPlan, BatchShapes>) => kind;

export const closedAlready = (state: BatchState) => (state.closed ? { field: "kind", message: "This batch is closed. Reopen it first." } : null);
export const abandonedAlready = (state: BatchState) =>
  state.abandoned ? { field: "kind", message: "This batch was abandoned. Take the abandoning back to go on with it." } : null;
/** Work at the pot: not once it is closed or abandoned. */
export const atWork = (state: BatchState) => closedAlready(state) ?? abandonedAlready(state);

export const stepOf = (plan: BatchPlan, id: string | null) => (id === null ? null : (plan.process.steps.find((step) => step.id === id) ?? null));
export const noSuchStep = { field: "step", message: "This batch's process has no such step." };
export const notPoured = (state: BatchState, what: string) =>
  Object.keys(state.pours).length === 0 ? { field: "kind", message: `Nothing is poured yet, so nothing can be ${what}.` } : null;
/** Returns a product of a plan, with a name that tells it from the others. */
export const productOf = (plan: BatchPlan, key: string) => namedLines(plan.products).find((line) => line.key === key);
