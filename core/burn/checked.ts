import type { output } from "zod";
import { checked } from "../log/checked";
import { z } from "../shapes";
import type { TrialShapes } from "./events/event-type";
import { testCandleKey, trialPlan } from "./schema";
import { TRIAL } from "./trial";

/** A trial with what checks its entries, for whoever takes or reads them. */
export const CHECKED_TRIAL = checked(TRIAL, { z, trialPlan, testCandleKey } satisfies TrialShapes);
export type SentTrialEvent = output<typeof CHECKED_TRIAL.sent>;
