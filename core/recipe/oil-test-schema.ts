import { z } from "zod";
import { isoDay } from "../units/day";
import { OIL_TEST_KINDS, OIL_TEST_VERDICTS } from "./oil-test";

/** A test of an oil, or of a blend of oils, before any wax is melted. */
export const oilTest = z.object({
  id: z.uuid(),
  kind: z.enum(OIL_TEST_KINDS),
  /** The oils with their drops; one for a mixing test, which is three parts of mineral oil to one of it. */
  parts: z
    .array(z.object({ id: z.uuid(), drops: z.number().int().min(1, "At least one drop.").max(1_000) }))
    .min(1, "Choose an oil.")
    .max(8, "At most eight oils."),
  on: isoDay(),
  verdict: z.enum(OIL_TEST_VERDICTS),
  note: z.string().trim().max(2_000).default(""),
});
export type OilTest = z.output<typeof oilTest>;
