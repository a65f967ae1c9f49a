import { z } from "zod";
import { dyePart } from "./schema";

/** How a colour is made: dyes by their doses, in a wax and for a scent where it was tried there; null where it holds for any. */
export const colourRecipe = z.object({
  waxId: z.uuid().nullable(),
  fragranceId: z.uuid().nullable(),
  dyes: z
    .array(dyePart)
    .min(1, "A colour has at least one dye.")
    .max(6)
    .refine((dyes) => new Set(dyes.map((one) => one.id)).size === dyes.length, "The same dye stands here twice: put its doses together."),
});
export type ColourRecipe = z.output<typeof colourRecipe>;

/** How well a colour is known to suit: tried with both, with the wax (which changes a dye most), with the scent, or with neither named. */
export function suits(recipe: Pick<ColourRecipe, "waxId" | "fragranceId">, waxId: string, fragranceId: string): "both" | "wax" | "scent" | "any" | null {
  const wax = recipe.waxId === null ? null : recipe.waxId === waxId;
  const scent = recipe.fragranceId === null ? null : recipe.fragranceId === fragranceId;
  if (wax === false) return null;
  if (wax && scent) return "both";
  if (wax) return scent === null ? "wax" : null;
  if (scent === false) return null;
  return scent ? "scent" : "any";
}

const ORDER = ["both", "wax", "scent", "any"] as const;

/** The colours to offer for a wax and a scent, the best known first. */
export function coloursFor<T extends { name: string; recipe: ColourRecipe }>(all: readonly T[], waxId: string, fragranceId: string): T[] {
  return all
    .flatMap((one) => {
      const how = suits(one.recipe, waxId, fragranceId);
      return how ? [{ one, at: ORDER.indexOf(how) }] : [];
    })
    .sort((a, b) => a.at - b.at || a.one.name.localeCompare(b.one.name))
    .map(({ one }) => one);
}
