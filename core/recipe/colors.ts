import type { ColorRecipe } from "./schema";

/** Returns how well a color is known to suit: tried with both, with the wax (which changes a dye most), with the scent, or with neither named. */
export function suits(recipe: Pick<ColorRecipe, "waxId" | "fragranceId">, waxId: string, fragranceId: string): "both" | "wax" | "scent" | "any" | null {
  const wax = recipe.waxId === null ? null : recipe.waxId === waxId;
  const scent = recipe.fragranceId === null ? null : recipe.fragranceId === fragranceId;
  if (wax === false) return null;
  if (wax && scent) return "both";
  if (wax) return scent === null ? "wax" : null;
  if (scent === false) return null;
  return scent ? "scent" : "any";
}

const ORDER = ["both", "wax", "scent", "any"] as const;

/** Returns the colors to offer for a wax and a scent, the best known first. */
export function colorsFor<T extends { name: string; recipe: ColorRecipe }>(all: readonly T[], waxId: string, fragranceId: string): T[] {
  return all
    .flatMap((item) => {
      const how = suits(item.recipe, waxId, fragranceId);
      return how ? [{ one: item, at: ORDER.indexOf(how) }] : [];
    })
    .sort((a, b) => a.at - b.at || a.one.name.localeCompare(b.one.name))
    .map(({ one: item }) => item);
}
