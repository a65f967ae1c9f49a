import type { UnitChoice } from "@hearth/core";
import { eq, sql } from "drizzle-orm";
import { databaseWithoutTenant, type Transaction, tenantDatabase } from "@/data/client";
import { workshops } from "@/data/tables/workshop";

export type Workshop = typeof workshops.$inferSelect;

/** Returns the units in which a workshop reads weights, temperatures and lengths. */
export const unitChoiceOf = (workshop: Pick<Workshop, "massUnit" | "temperatureUnit" | "lengthUnit">): UnitChoice => ({
  mass: workshop.massUnit,
  temperature: workshop.temperatureUnit,
  length: workshop.lengthUnit,
});

/** One workshop; null if there is none such. */
export async function readWorkshop(id: string, db = tenantDatabase(id)): Promise<Workshop | null> {
  const [workshop] = await db.select().from(workshops).where(eq(workshops.id, id));
  return workshop ?? null;
}

/**
 * Holds a workshop until the transaction ends: what numbers things, or takes from what is shared, goes one at a time. Rows that point at the workshop
 * are written meanwhile: a stronger lock would deadlock with entries, which hold their batch.
 */
export const lockWorkshop = async (tx: Transaction, id: string): Promise<void> =>
  void (await tx.select({ id: workshops.id }).from(workshops).where(eq(workshops.id, id)).for("no key update"));

/** The workshop whose calendar has this secret address. */
export async function workshopOfCalendar(secret: string): Promise<Workshop | null> {
  const { rows } = await databaseWithoutTenant().execute<{ id: string | null }>(sql`select workshop_of_calendar(${secret}) as id`);
  return rows[0]?.id ? readWorkshop(rows[0].id) : null;
}
