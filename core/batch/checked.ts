import type { output } from "zod";
import { flaw, seenFlaw } from "../defects/schema";
import { checked } from "../log/checked";
import { z } from "../shapes";
import { BATCH } from "./batch";
import type { BatchShapes } from "./events/event-type";
import { batchPlan } from "./schema";

/** The batch aggregate with the schemas of its entries, for code that accepts or reads them. */
export const CHECKED_BATCH = checked(BATCH, { z, batchPlan, flaw, seenFlaw } satisfies BatchShapes);

export const sentEvent = CHECKED_BATCH.sent;
export type SentEvent = output<typeof sentEvent>;
export const batchEventSchema = CHECKED_BATCH.stored;
export const readEvent = CHECKED_BATCH.read;
