import { LARGEST_NUMBER } from "@hearth/core";
import { and, eq, max, sql } from "drizzle-orm";
import type { Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";

/** The number of a workshop's next batch: one above the highest, or the first that is free where the highest is the last there is. */
export async function nextNumber(tx: Transaction, workshopId: string): Promise<number> {
  const [top] = await tx
    .select({ top: max(batches.number) })
    .from(batches)
    .where(eq(batches.workshopId, workshopId));
  const next = (top?.top ?? 0) + 1;
  if (next <= LARGEST_NUMBER) return next;
  const after = sql`select 1 from ${batches} as following where following.workshop_id = ${workshopId} and following.number = batch.number + 1`;
  const [gap] = await tx
    .select({ number: sql<number>`min(${batches.number}) + 1` })
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), sql`not exists (${after})`));
  return gap?.number ?? 1;
}
