import { z } from "zod";
import { isoDay } from "../units/day";

const minuteOfDay = z.number().int().min(0).max(1_440);
const span = z.object({ from: minuteOfDay, to: minuteOfDay }).refine((value) => value.from < value.to, { path: ["to"], error: "It ends before it begins." });

/** What a workshop works with, and when: what planning rests on. Minutes of the day by the wall of its own zone. */
export const planningSettings = z.object({
  hands: z.number().int().min(1).max(9).default(1),
  burners: z.number().int().min(1).max(20).default(2),
  pitchers: z.number().int().min(1).max(40).default(4),
  /** What one pitcher, or the melter, takes at once, in mg. */
  pitcherMg: z.number().int().min(10_000).max(100_000_000).default(1_500_000),
  sparePpm: z.number().int().min(0).max(500_000).default(50_000),
  /** So many pieces can stand and set at once. */
  table: z.number().int().min(1).max(20_000).default(60),
  /** Monday to Sunday; null if nobody works. */
  hours: z
    .array(span.nullable())
    .length(7)
    .default(() => Array.from({ length: 7 }, (_, index) => (index < 5 ? { from: 540, to: 1_020 } : null))),
  daysOff: z.array(isoDay()).max(400).default([]),
  /** Days between the end of the cure and the day it is wanted: looking over, labels, the way. */
  aheadDays: z.number().int().min(0).max(60).default(1),
  /** What is wanted within so many days of one another is made together. */
  gatherDays: z.number().int().min(0).max(120).default(14),
  /** When the sun comes onto the table. */
  sun: span.nullable().default(null),
});
export type PlanningSettings = z.output<typeof planningSettings>;
