import { z } from "zod";
import { process } from "../process/schema";
import { recipeFaults } from "./faults";
import { LARGEST_LOAD_PERCENT } from "./load";
import { DYE_DOSES, upcastFormula } from "./spec";

const part = z.object({ id: z.uuid(), share: z.number().positive().max(1_000_000) });

/** An additive, in millionths of the wax. */
const additivePart = z.object({ id: z.uuid(), ppm: z.number().int().positive().max(500_000) });

export const dyePart = z
  .object({ id: z.uuid(), by: z.enum(DYE_DOSES), amount: z.number().positive().max(1_000) })
  .refine((item) => item.by !== "percent" || item.amount <= 10, { path: ["amount"], error: "A dye cannot be above 10 % of the wax." });
export type DyePart = z.output<typeof dyePart>;

const what = {
  /** Waxes by share of the wax weight; shares are relative, so 75 and 25 read as 3 and 1 do. */
  waxes: z.array(part).min(1, "Choose a wax.").max(8),
  /** Fragrances by share of the fragrance weight; none for an unscented candle. */
  fragrances: z.array(part).max(12),
  /** Not there in formulas saved before additives and dyes were known. */
  additives: z.array(additivePart).max(8).optional(),
  dyes: z.array(dyePart).max(6).optional(),
  basis: z.enum(["wax", "total"]),
  loadPpm: z
    .number()
    .int()
    .min(0)
    .max(LARGEST_LOAD_PERCENT.wax * 10_000),
  notes: z.string().max(2_000).default(""),
};
/** What goes into a pot: waxes, fragrances, additives and dyes, and the load. */
export const recipe = z.object(what);
export type Recipe = z.output<typeof recipe>;

/** What one version of a formula says: its recipe and how it is worked. Frozen once a batch has been started from it. */
export const formulaSpec = z.object({ ...what, process }).superRefine((value, context) => {
  for (const { path, message } of recipeFaults(value)) context.addIssue({ code: "custom", path, message });
});
export type FormulaSpec = z.output<typeof formulaSpec>;

/** Reads a stored formula of any age. @throws z.ZodError where it cannot be read. */
export const readFormula = (raw: unknown): FormulaSpec => formulaSpec.parse(upcastFormula(raw));

/** How a color is made: dyes by their doses, in a wax and for a scent where it was tried there; null if it holds for any. */
export const colorRecipe = z.object({
  waxId: z.uuid().nullable(),
  fragranceId: z.uuid().nullable(),
  dyes: z
    .array(dyePart)
    .min(1, "A color has at least one dye.")
    .max(6)
    .refine((dyes) => new Set(dyes.map((dye) => dye.id)).size === dyes.length, "The same dye stands here twice: put its doses together."),
});
export type ColorRecipe = z.output<typeof colorRecipe>;
