import { asc, eq } from "drizzle-orm";
import { cookies, headers } from "next/headers";
import { redirect } from "next/navigation";
import { cache } from "react";
import { type Database, databaseOf } from "@/data/client";
import { clockIsFrozen, now } from "@/data/clock";
import { people, type workshops } from "@/data/tables/workshop";
import type { Who } from "./door";
import { namesOfWorkshops, readWorkshop } from "./workshops";

const staffOf = (db: Database, workshopId: string) =>
  db
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

const WITHIN = /^\/w\/([0-9a-f-]{36})(?:\/|$)/;

/** The workshop that an address means which names none: the one last chosen on this device, or else the oldest. */
export async function usualWorkshop(): Promise<string | null> {
  const jar = await cookies();
  const all = await namesOfWorkshops();
  return (all.find((one) => one.id === jar.get("hearth_workshop")?.value) ?? all[0])?.id ?? null;
}

/** Where a page is and who acts there: the one place from which every read takes its workshop. */
export const here = cache(async () => {
  const jar = await cookies();
  const all = await namesOfWorkshops();
  const named = WITHIN.exec((await headers()).get("x-hearth-path") ?? "")?.[1];
  const workshop = named && all.some((one) => one.id === named) ? await readWorkshop(named) : null;
  if (!workshop) redirect("/workshops");
  const db = databaseOf(workshop.id);
  const staff = await staffOf(db, workshop.id);
  const person = staff.find((one) => one.id === jar.get("hearth_person")?.value) ?? staff.find((one) => !one.putAway) ?? staff[0] ?? null;
  return {
    db,
    workshop,
    workshops: all,
    people: staff.filter((one) => !one.putAway || one.id === person?.id).map(({ id, name }) => ({ id, name })),
    person,
    now: now(),
    frozen: clockIsFrozen(),
    units: unitsOf(workshop),
  };
});

/** The workshop that a page named in what it sent, whatever another tab has switched to since; null where there is none. */
export async function within(at: { workshopId: string; personId: string | null }, who: Who) {
  const workshop = await readWorkshop(at.workshopId);
  if (!workshop) return null;
  const db = databaseOf(workshop.id);
  const staff = await staffOf(db, workshop.id);
  return { db, workshop, who, people: staff, person: staff.find((one) => one.id === (who.personId ?? at.personId)) ?? null, now: now() };
}
export type Context = NonNullable<Awaited<ReturnType<typeof within>>>;
