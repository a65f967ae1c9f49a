import { z } from "zod";

const minute = z.number().int().min(-1_440).max(14_400);

/** The saved plan of a day at the pots: the products, and the steps that were fixed, lost or left out. Minutes from its beginning. */
export const dayRecord = z.object({
  /** Pieces by product. */
  counts: z.record(z.uuid(), z.number().int().min(1).max(100_000)).default({}),
  /** Minutes after midnight at which it begins. */
  begin: z.number().int().min(0).max(1_439).default(540),
  hands: z.number().int().min(1).max(9).default(1),
  burners: z.number().int().min(1).max(20).default(2),
  pitchers: z.number().int().min(1).max(40).default(4),
  pitcherMg: z.number().int().min(10_000).max(100_000_000).default(1_500_000),
  sparePpm: z.number().int().min(0).max(500_000).default(50_000),
  /** Steps that are held to a time, by "pot/step". */
  held: z.record(z.string().max(200), minute).default({}),
  /** When nobody works. */
  breaks: z
    .array(z.object({ from: minute, minutes: z.number().int().min(1).max(1_440) }))
    .max(20)
    .default([]),
  /** What fell out, and from when on. */
  lost: z
    .array(z.object({ of: z.enum(["hands", "burner", "pitcher"]), from: minute }))
    .max(40)
    .default([]),
  /** Pots that were abandoned, and when. */
  gone: z.record(z.string().max(160), minute).default({}),
});
export type DayRecord = z.output<typeof dayRecord>;
