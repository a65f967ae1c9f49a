import { learnedFrom, type Usual, usualFrom } from "@hearth/core";
import { and, desc, eq, inArray, isNotNull } from "drizzle-orm";
import { REAL_STAGES } from "@/data/batch-rows";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { keptOf } from "./events";

/** So many of a workshop's newest pots tell how its pots cool. */
const PLENTY = 12;
/** What was learned from a pot whose log has come so far; forgotten, oldest first, beyond so many. */
const learned = new Map<string, number | null>();
const MOST = 2_000;

/** How pots cool in a workshop, from those it poured last; null while none of them tells. */
export async function usualOf(db: Database, workshopId: string): Promise<Usual | null> {
  const rows = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), inArray(batches.stage, REAL_STAGES), isNotNull(batches.pouredAt)))
    .orderBy(desc(batches.pouredAt), desc(batches.id))
    .limit(PLENTY);
  const told = await Promise.all(
    rows.map(async (row) => {
      const { plan, facts } = await keptOf(db, row);
      const key = `${row.id} ${facts.standing} ${facts.lastAt}`;
      const known = learned.get(key);
      if (known !== undefined) return known;
      const minutes = learnedFrom(plan, facts);
      learned.set(key, minutes);
      if (learned.size > MOST) learned.delete(learned.keys().next().value as string);
      return minutes;
    }),
  );
  return usualFrom(told.filter((one) => one !== null));
}
