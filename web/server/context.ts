import { asc, eq } from "drizzle-orm";
import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { cache } from "react";
import { database } from "@/data/client";
import { clockIsFrozen, now } from "@/data/clock";
import { people, workshops } from "@/data/tables/workshop";

const staffOf = (workshopId: string) =>
  database()
    .select({ id: people.id, name: people.name, putAway: people.putAway })
    .from(people)
    .where(eq(people.workshopId, workshopId))
    .orderBy(asc(people.name))
    .limit(200);

/** How a workshop reads and writes quantities. */
const unitsOf = (workshop: typeof workshops.$inferSelect) => ({
  mass: workshop.massUnit,
  temperature: workshop.temperatureUnit,
  currency: workshop.currency,
  zone: workshop.timeZone,
  length: workshop.lengthUnit,
  pounds: workshop.pounds,
  locale: workshop.locale,
});

/** Where a page is and who acts there: the one place from which every read takes its workshop. */
export const here = cache(async () => {
  const jar = await cookies();
  const db = database();
  const all = await db.select().from(workshops).orderBy(asc(workshops.createdAt), asc(workshops.id)).limit(200);
  const workshop = all.find((one) => one.id === jar.get("hearth_workshop")?.value) ?? all[0];
  if (!workshop) redirect("/workshops");
  const staff = await staffOf(workshop.id);
  const person = staff.find((one) => one.id === jar.get("hearth_person")?.value) ?? staff.find((one) => !one.putAway) ?? staff[0] ?? null;
  return {
    db,
    workshop,
    workshops: all.map(({ id, name }) => ({ id, name })),
    people: staff.filter((one) => !one.putAway || one.id === person?.id).map(({ id, name }) => ({ id, name })),
    person,
    now: now(),
    frozen: clockIsFrozen(),
    units: unitsOf(workshop),
  };
});

/** The workshop that a page named in what it sent, whatever another tab has switched to since; null where there is none. */
export async function within(at: { workshopId: string; personId: string | null }) {
  const db = database();
  const [workshop] = await db.select().from(workshops).where(eq(workshops.id, at.workshopId));
  if (!workshop) return null;
  const staff = await staffOf(workshop.id);
  return { db, workshop, people: staff, person: staff.find((one) => one.id === at.personId) ?? null, now: now() };
}
export type Context = NonNullable<Awaited<ReturnType<typeof within>>>;
