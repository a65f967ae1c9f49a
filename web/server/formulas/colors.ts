import { type ColorRecipe, colorRecipe } from "@hearth/core";
import { and, eq, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { colors } from "@/data/tables/color";
import { naturalSort } from "@/server/shared/natural-sort";

export interface ColorRow {
  id: string;
  name: string;
  recipe: ColorRecipe;
}

/** Returns the colors of a workshop by name; of one thing of the shelf those that name it. */
export async function listColors(db: Database, workshopId: string, of: string | null = null): Promise<ColorRow[]> {
  const rows = await db
    .select({ id: colors.id, name: colors.name, recipe: colors.recipe })
    .from(colors)
    .where(and(eq(colors.workshopId, workshopId), eq(colors.deleted, false), of ? sql`${colors.recipe}::text like ${`%${of}%`}` : undefined))
    .orderBy(naturalSort(colors.name), colors.id);
  return rows.map((row) => ({ ...row, recipe: colorRecipe.parse(row.recipe) }));
}
