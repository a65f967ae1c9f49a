import { asc, eq } from "drizzle-orm";
import type { Database } from "@/data/client";
import { fragrances, instruments, vessels, waxes } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";

/** All that stands on the shelf. */
export async function readShelf(db: Database, workshopId: string) {
  const [w, f, v, i, p] = await Promise.all([
    db.select().from(waxes).where(eq(waxes.workshopId, workshopId)).orderBy(asc(waxes.name)).limit(500),
    db.select().from(fragrances).where(eq(fragrances.workshopId, workshopId)).orderBy(asc(fragrances.name)).limit(500),
    db.select().from(vessels).where(eq(vessels.workshopId, workshopId)).orderBy(asc(vessels.name)).limit(500),
    db.select().from(instruments).where(eq(instruments.workshopId, workshopId)).orderBy(asc(instruments.name)).limit(500),
    db.select().from(people).where(eq(people.workshopId, workshopId)).orderBy(asc(people.name)).limit(500),
  ]);
  return { waxes: w, fragrances: f, vessels: v, instruments: i, people: p };
}
export type Shelf = Awaited<ReturnType<typeof readShelf>>;
