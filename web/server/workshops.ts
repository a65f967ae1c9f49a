import { eq, sql } from "drizzle-orm";
import { databaseOf, databaseOfNone } from "@/data/client";
import { workshops } from "@/data/tables/workshop";

export type Workshop = typeof workshops.$inferSelect;

/** One workshop; null where there is none such. */
export async function readWorkshop(id: string): Promise<Workshop | null> {
  const [workshop] = await databaseOf(id).select().from(workshops).where(eq(workshops.id, id));
  return workshop ?? null;
}

/** The workshop whose calendar has this secret address. */
export async function workshopOfCalendar(secret: string): Promise<Workshop | null> {
  const { rows } = await databaseOfNone().execute<{ id: string | null }>(sql`select workshop_of_calendar(${secret}) as id`);
  return rows[0]?.id ? readWorkshop(rows[0].id) : null;
}
