import type { EventType, Rejection } from "../../log/log";
import { renameKeys } from "../../log/stored";
import type { Z } from "../../shapes";
import type { TrialPlan } from "../plan";
import type { testCandleKey, trialPlan } from "../schema";
import type { TrialState } from "../state";

/** The schema builders that the event types of a trial use for their payloads. */
export interface TrialShapes {
  z: Z;
  trialPlan: typeof trialPlan;
  testCandleKey: typeof testCandleKey;
}

/** Declares an event type of a trial. */
export const trialEvent = <K extends string, P>(kind: EventType<K, P, TrialState, TrialPlan, TrialShapes>) => kind;

export const noTestCandle: Rejection = { field: "testCandle", message: "This trial has no such test candle." };
export const closedTrial = (state: TrialState): Rejection | null =>
  state.closed ? { field: "kind", message: "This trial is closed. Reopen it first." } : null;
/** Returns why nothing can be done to a test candle now; null if it can. */
export const notThere = (state: TrialState, key: string): Rejection | null => closedTrial(state) ?? (state.testCandles[key] ? null : noTestCandle);

/** Returns the payload of an entry about one test candle in this format: the candle was called its tester. */
export const upcastTestCandleKey = renameKeys({ tester: "testCandle" });
