"use server";

import { isCurrency } from "@hearth/core";
import { and, eq, isNotNull } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { cookies } from "next/headers";
import { v7 } from "uuid";
import { z } from "zod";
import { database } from "@/data/client";
import { now } from "@/data/clock";
import { lots } from "@/data/tables/stock";
import { people, workshops } from "@/data/tables/workshop";
import { done, freeCommand, type Outcome, refused } from "@/server/outcome";

const zone = z.string().refine(
  (value) => {
    try {
      new Intl.DateTimeFormat("en", { timeZone: value });
      return true;
    } catch {
      return false;
    }
  },
  { error: "This time zone is not known. Write it like Europe/Lisbon, or UTC." },
);
const settings = {
  name: z.string().trim().min(1, "Give the workshop a name.").max(120),
  massUnit: z.enum(["g", "oz"]),
  temperatureUnit: z.enum(["C", "F"]),
  timeZone: zone,
  currency: z
    .string()
    .trim()
    .toUpperCase()
    .refine(isCurrency, { error: "This currency is not known. Write its three letters, like EUR or USD." })
    .default("EUR"),
};

/** Makes an empty workshop with its first person, and goes there. */
export async function makeWorkshop(input: unknown): Promise<Outcome<{ id: string }>> {
  return freeCommand(z.object({ ...settings, person: z.string().trim().min(1, "Give a first name.").max(120) }), input, async ({ person, ...wanted }) => {
    const id = v7();
    await database().transaction(async (tx) => {
      await tx.insert(workshops).values({ id, ...wanted, createdAt: now() });
      await tx.insert(people).values({ workshopId: id, id: v7(), name: person });
    });
    const jar = await cookies();
    jar.set("hearth_workshop", id, { maxAge: 31_536_000, sameSite: "lax", path: "/" });
    jar.delete("hearth_person");
    revalidatePath("/", "layout");
    return done({ id });
  });
}

/** Changes a workshop's name, units or zone. What is stored does not change: only how it is read. */
export async function changeWorkshop(input: unknown): Promise<Outcome<{ version: number }>> {
  return freeCommand(z.object({ ...settings, id: z.uuid(), expectedVersion: z.number().int() }), input, async ({ id, expectedVersion, ...wanted }) => {
    const [costly] = await database()
      .select({ currency: workshops.currency })
      .from(workshops)
      .innerJoin(lots, eq(lots.workshopId, workshops.id))
      .where(and(eq(workshops.id, id), isNotNull(lots.cost)))
      .limit(1);
    if (costly && costly.currency !== wanted.currency) {
      const why = `What lots cost is written down in ${costly.currency} already, and is not converted. Keep ${costly.currency}, or make another workshop.`;
      return refused(why, { currency: [why] });
    }
    const changed = await database()
      .update(workshops)
      .set({ ...wanted, version: expectedVersion + 1 })
      .where(and(eq(workshops.id, id), eq(workshops.version, expectedVersion)))
      .returning({ version: workshops.version });
    const row = changed[0];
    if (!row) return refused("Somebody else changed this workshop in the meantime. Your typing is kept: reload to see theirs.");
    revalidatePath("/", "layout");
    return done(row);
  });
}
