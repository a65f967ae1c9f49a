import type { z } from "zod";
import { type Profile, processOfProfile } from "../process/upcast";
import type * as schema from "./schema";

export type Recipe = z.output<typeof schema.recipe>;
/** What one version of a formula says: its recipe and how it is worked. Frozen once a batch has been started from it. */
export type FormulaSpec = z.output<typeof schema.formulaSpec>;
export type DyePart = z.output<typeof schema.dyePart>;

/** How a dye is dosed: drops or pieces to a pound of wax, or percent of the wax. */
export const DYE_DOSES = ["drops", "pieces", "percent"] as const;
export type DyeDose = (typeof DYE_DOSES)[number];

/** Everything of the shelf that a recipe names, by its id: waxes, fragrances, additives, dyes, in this order. */
export const namedIn = (one: Pick<Recipe, "waxes" | "fragrances" | "additives" | "dyes">): string[] =>
  [...one.waxes, ...one.fragrances, ...(one.additives ?? []), ...(one.dyes ?? [])].map((part) => part.id);

/** Brings a formula that was saved with a profile of three ranges up to one with a process. */
export function upcastFormula(raw: unknown): unknown {
  if (!raw || typeof raw !== "object" || !("profile" in raw)) return raw;
  const { profile, ...rest } = raw as { profile: Profile } & Record<string, unknown>;
  return { ...rest, process: processOfProfile(profile) };
}
