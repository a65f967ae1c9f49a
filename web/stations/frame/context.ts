import { asc, eq } from "drizzle-orm";
import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { cache } from "react";
import { database } from "@/data/client";
import { clockIsFrozen, now } from "@/data/clock";
import { people, workshops } from "@/data/tables/workshop";

/** Where we are and who acts: the one place from which every read and command takes its workshop. */
export const here = cache(async () => {
  const jar = await cookies();
  const db = database();
  const all = await db.select().from(workshops).orderBy(asc(workshops.createdAt), asc(workshops.id)).limit(200);
  const workshop = all.find((one) => one.id === jar.get("hearth_workshop")?.value) ?? all[0];
  if (!workshop) redirect("/workshops");
  const staff = await db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(eq(people.workshopId, workshop.id))
    .orderBy(asc(people.name))
    .limit(200);
  const person = staff.find((one) => one.id === jar.get("hearth_person")?.value) ?? staff[0] ?? null;
  return {
    db,
    workshop,
    workshops: all.map(({ id, name }) => ({ id, name })),
    people: staff,
    person,
    now: now(),
    frozen: clockIsFrozen(),
    units: { mass: workshop.massUnit, temperature: workshop.temperatureUnit, currency: workshop.currency, zone: workshop.timeZone },
  };
});
