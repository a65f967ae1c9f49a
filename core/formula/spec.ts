import { z } from "zod";
import { profile } from "../heat/profile";
import { LARGEST_LOAD_PERCENT } from "./load";

const part = z.object({ id: z.uuid(), share: z.number().positive().max(1_000_000) });

/** What one version of a formula says. Frozen once a batch has been started from it. */
export const formulaSpec = z
  .object({
    /** Waxes by share of the wax weight; shares are relative, so 75 and 25 read as 3 and 1 do. */
    waxes: z.array(part).min(1, "Choose a wax.").max(8),
    /** Fragrances by share of the fragrance weight; none for an unscented candle. */
    fragrances: z.array(part).max(12),
    basis: z.enum(["wax", "total"]),
    loadPpm: z
      .number()
      .int()
      .min(0)
      .max(LARGEST_LOAD_PERCENT.wax * 10_000),
    profile,
    notes: z.string().max(2_000).default(""),
  })
  .refine((value) => value.basis !== "total" || value.loadPpm <= LARGEST_LOAD_PERCENT.total * 10_000, {
    path: ["loadPpm"],
    error: `A load of the total cannot be above ${LARGEST_LOAD_PERCENT.total} %.`,
  })
  .refine((value) => value.fragrances.length > 0 || value.loadPpm === 0, {
    path: ["fragrances"],
    error: "Choose the fragrance, or set the load to 0 % for an unscented candle.",
  });
export type FormulaSpec = z.output<typeof formulaSpec>;
