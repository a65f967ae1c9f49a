import type { output } from "zod";
import { checked } from "../log/checked";
import { z } from "../shapes";
import type { TrialShapes } from "./events/event-type";
import { testCandleKey, trialPlan } from "./schema";
import { TRIAL } from "./trial";

/** The trial aggregate with the schemas of its entries, for code that accepts or reads them. */
export const CHECKED_TRIAL = checked(TRIAL, { z, trialPlan, testCandleKey } satisfies TrialShapes);
export type SentTrialEvent = output<typeof CHECKED_TRIAL.sent>;
