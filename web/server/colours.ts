import { type ColourRecipe, colourRecipe } from "@hearth/core";
import { and, eq, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { colours } from "@/data/tables/colour";
import { naturally } from "./naturally";

export interface Colour {
  id: string;
  name: string;
  recipe: ColourRecipe;
}

const MOST_COLOURS = 500;

/** The colours of a workshop by name; of one thing of the shelf those that name it. */
export async function listColours(db: Database, workshopId: string, of: string | null = null): Promise<Colour[]> {
  const rows = await db
    .select({ id: colours.id, name: colours.name, recipe: colours.recipe })
    .from(colours)
    .where(and(eq(colours.workshopId, workshopId), eq(colours.gone, false), of ? sql`${colours.recipe}::text like ${`%${of}%`}` : undefined))
    .orderBy(naturally(colours.name), colours.id)
    .limit(MOST_COLOURS);
  return rows.map((row) => ({ ...row, recipe: colourRecipe.parse(row.recipe) }));
}
