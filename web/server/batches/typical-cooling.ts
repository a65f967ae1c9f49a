import { learnedFrom, stirringOf, type TypicalCooling, typicalFrom } from "@hearth/core";
import { and, desc, eq, inArray, isNotNull, sql } from "drizzle-orm";
import { REAL_STAGES } from "@/data/batch-rows";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { readBatchState } from "@/server/events/read-events";

/** So many of a workshop's newest pots tell how its pots cool. */
const PLENTY = 12;
/** What a pot told: minutes for a kilogram, and by how much more than the heat balance the oil dropped it. */
interface Told {
  minutes: number | null;
  stirring: number | null;
}
/** What was learned from a pot whose log has come so far; forgotten, oldest first, beyond so many. */
const learned = new Map<string, Told>();
const MAX_SHOWN = 2_000;

/** Returns what a pot's log tells, once for each state of it: the plan and the state are read only if it is unknown yet. */
async function toldBy(db: Database, workshopId: string, id: string, state: string): Promise<Told> {
  const key = `${id} ${state}`;
  const known = learned.get(key);
  if (known !== undefined) return known;
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, id)));
  const kept = row && (await readBatchState(db, row));
  const told = kept ? { minutes: learnedFrom(kept.plan, kept.state), stirring: stirringOf(kept.plan, kept.state) } : { minutes: null, stirring: null };
  learned.set(key, told);
  if (learned.size > MAX_SHOWN) learned.delete(learned.keys().next().value as string);
  return told;
}

/** Returns how pots cool in a workshop, from those it poured last; null while none of them tells. */
export async function typicalCooling(db: Database, workshopId: string): Promise<TypicalCooling | null> {
  const rows = await db
    .select({ id: batches.id, state: sql<string>`concat(${batches.state} ->> 'effectiveEvents', ' ', ${batches.state} ->> 'lastAt')` })
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), inArray(batches.stage, REAL_STAGES), isNotNull(batches.pouredAt)))
    .orderBy(desc(batches.pouredAt), desc(batches.id))
    .limit(PLENTY);
  const told = await Promise.all(rows.map(({ id, state }) => toldBy(db, workshopId, id, state)));
  return typicalFrom(
    told.flatMap((item) => item.minutes ?? []),
    told.flatMap((item) => item.stirring ?? []),
  );
}
