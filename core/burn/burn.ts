import { z } from "zod";
import { ADVICE, FLAMES, judgeBurn } from "./judge";

const mm = (most: number) => z.number().min(0).max(most);

const look = z.object({
  minute: z.number().min(0).max(10_000).describe("since it was lit"),
  pool_mm: mm(2_000).optional().describe("diameter of the melt pool"),
  pool_depth_mm: mm(500).optional(),
  flame: z.enum(FLAMES).optional(),
  flame_mm: mm(1_000).optional().describe("height"),
  mushroom: z.boolean().optional(),
  soot: z.boolean().optional(),
  wall_c: z.number().min(-50).max(400).optional(),
});
const session = z.object({
  looks: z.array(look).max(500).default([]),
  grams_before: z.number().positive().max(100_000).optional(),
  grams_after: z.number().min(0).max(100_000).optional(),
  minutes: z.number().positive().max(10_000).optional().describe("how long it burned"),
  air: z.array(z.string().min(1).max(40)).max(6).optional().describe("what moved the air: an open window, a fan"),
});
export const burnRequest = z
  .object({
    vessel: z.object({ inner_top_mm: mm(2_000).positive(), inner_bottom_mm: mm(2_000).positive(), height_mm: mm(2_000).positive() }),
    wax_family: z.string().max(60).optional(),
    sessions: z.array(session).min(1, "At least one session.").max(200),
    fill: z.enum(["full", "half"]).default("full"),
    tare_g: z.number().min(0).max(100_000).default(0).describe("what of the weights is neither wax nor wick"),
  })
  .superRefine(({ sessions, tare_g }, context) => {
    for (const [index, session] of sessions.entries()) {
      if (session.grams_before !== undefined && session.grams_after !== undefined && session.grams_after > session.grams_before)
        context.addIssue({ code: "custom", path: ["sessions", index, "grams_after"], message: "It cannot weigh more after burning than before." });
      if (session.grams_after !== undefined && session.grams_after < tare_g)
        context.addIssue({ code: "custom", path: ["sessions", index, "grams_after"], message: "It cannot weigh less than its vessel: look at the tare." });
    }
  });
export type BurnRequest = z.output<typeof burnRequest>;

const span = z.object({ value: z.number(), low: z.number(), high: z.number() });
export const burnAnswer = z.object({
  safety: z.object({ pass: z.boolean(), reasons: z.array(z.string()) }),
  pool: z.object({
    verdict: z.enum(["small", "right", "large", "not_recorded"]),
    full_at_minute: z.number().nullable(),
  }),
  pool_session: z.number().int().optional().describe("the session by which the pool is judged, from 1"),
  grams_per_hour: span.nullable().describe("with its 95 % interval; null where nothing was weighed"),
  hours_left: span.nullable().describe("to the end of the wax"),
  advice: z.object({ what: z.enum(ADVICE), why: z.string() }),
});
export type BurnAnswer = z.output<typeof burnAnswer>;

/** Returns what burn sessions of one candle say, in the words of the calculation interface. */
export function answerBurn(request: BurnRequest): BurnAnswer {
  const { vessel, sessions, fill, tare_g } = request;
  const start = fill === "half" ? 0.5 : 1;
  // A tapered jar narrows as it burns down; how high the wax stood in it at first is not asked, so it is taken as full to the rim.
  const widthAt = (left: number) => vessel.inner_bottom_mm + (vessel.inner_top_mm - vessel.inner_bottom_mm) * start * left;
  const { safety, pool, grams_per_hour, hours_left, advice } = judgeBurn({ sessions, fill, tare_g, widthAt });
  return {
    safety: { pass: safety.pass, reasons: safety.reasons.map((reason) => reason.words) },
    pool: { verdict: pool.verdict, full_at_minute: pool.full_at_minute },
    ...(pool.session === null ? {} : { pool_session: pool.session }),
    grams_per_hour,
    hours_left,
    advice,
  };
}
