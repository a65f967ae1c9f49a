import { containerLines } from "@hearth/core";
import { and, eq, inArray } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { packs } from "@/data/tables/shelf";
import { readBatchState } from "@/server/events/read-events";
import { readTakenBy } from "./shelf";

/** Returns what a batch took from which lots, by the names that its plan froze. */
export async function lotsUsedWithNames(db: Database, workshopId: string, batchId: string, zone: string) {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)));
  if (!row) return [];
  const { plan } = await readBatchState(db, row);
  const names = new Map([
    ...plan.pots.flatMap((pot) => pot.components.map((part) => [part.id, part.name] as const)),
    ...plan.products.flatMap((product) => containerLines(product, 1).map((line) => [line.materialId, line.name] as const)),
  ]);
  const taken = await readTakenBy(db, workshopId, batchId, zone);
  const packaging = taken.filter((use) => use.kind === "pack").map((use) => use.materialId);
  if (packaging.length > 0)
    for (const item of await db
      .select({ id: packs.id, name: packs.name })
      .from(packs)
      .where(and(eq(packs.workshopId, workshopId), inArray(packs.id, packaging))))
      names.set(item.id, item.name);
  return taken.map((use) => ({ ...use, name: names.get(use.materialId) ?? "" }));
}
