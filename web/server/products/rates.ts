import type { Rates } from "@hearth/core";
import { and, eq, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { instruments } from "@/data/tables/shelf";

/** Returns what a workshop counts beside materials: an hour of labor, an hour of heat, and for each candle its share of the tools that have a price and a life. */
export async function readRates(db: Database, workshop: { id: string; handsCost: number | null; heatCost: number | null }): Promise<Rates> {
  const [row] = await db
    .select({ toolCost: sql<number>`coalesce(sum(${instruments.price}::float8 / nullif(${instruments.lifePieces}, 0)), 0)`.mapWith(Number) })
    .from(instruments)
    .where(and(eq(instruments.workshopId, workshop.id), eq(instruments.archived, false)));
  return { handsCost: workshop.handsCost, heatCost: workshop.heatCost, toolCost: row?.toolCost ?? 0 };
}
