import { and, eq, inArray } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batchEvents } from "@/data/tables/batch";
import { orderEvents } from "@/data/tables/sales";
import { trialEvents } from "@/data/tables/trial";

/** Returns where entries stand in the logs of a workshop, for those that are there at all. */
export async function entryPositions(db: Database, workshopId: string, ids: readonly string[]): Promise<{ id: string; seq: number }[]> {
  const places = await Promise.all(
    [batchEvents, trialEvents, orderEvents].map((table) =>
      db
        .select({ id: table.id, seq: table.seq })
        .from(table as typeof batchEvents)
        .where(and(eq(table.workshopId, workshopId), inArray(table.id, [...ids]))),
    ),
  );
  return places.flat();
}
