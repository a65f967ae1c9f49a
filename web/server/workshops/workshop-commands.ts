"use server";

import { isCurrency, isLocale, ok, parseRooms, type Result, reject } from "@hearth/core";
import { and, eq, isNotNull, type SQL } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { cookies, headers } from "next/headers";
import { v7 } from "uuid";
import { z } from "zod";
import { tenantDatabase } from "@/data/client";
import { now } from "@/data/clock";
import { members } from "@/data/tables/people";
import { products } from "@/data/tables/product";
import { lots } from "@/data/tables/stock";
import { people, workshops } from "@/data/tables/workshop";
import { accountOf } from "@/server/auth/session";
import { requiresSignIn } from "@/server/auth/sign-in-mode";
import { command, freeCommand } from "@/server/http/command";
import { YEAR_LONG_COOKIE } from "@/server/http/cookie";

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
  name: z.string().trim().min(1, "Enter a name for the workshop.").max(120),
  massUnit: z.enum(["g", "oz"]),
  temperatureUnit: z.enum(["C", "F"]),
  timeZone: zone,
  lengthUnit: z.enum(["mm", "in"]).default("mm"),
  pounds: z.boolean().default(false),
  locale: z.string().refine(isLocale, { error: "Choose one of the list." }).default("en-GB"),
  handsCost: z.number().int().min(0).max(1e9).nullable().default(null),
  heatCost: z.number().int().min(0).max(1e9).nullable().default(null),
  rooms: z
    .string()
    .max(1_000)
    .refine((text) => parseRooms(text).ok, { error: "Enter one room on each line, like: living room, large." })
    .default(""),
  currency: z
    .string()
    .trim()
    .toUpperCase()
    .refine(isCurrency, { error: "This currency is not known. Write its three letters, like EUR or USD." })
    .default("EUR"),
};

const changed = z.object({ ...settings, id: z.uuid(), expectedVersion: z.number().int() });

const made = z.object({
  ...settings,
  /** Made where the button was pressed: pressing it twice makes one workshop. */
  id: z.uuid().optional(),
  person: z.string().trim().min(1, "Give a first name.").max(120),
});

/** Makes an empty workshop with its first person, and goes there. */
export async function makeWorkshop(input: unknown): Promise<Result<{ id: string }>> {
  return freeCommand(made, input, async ({ person, id = v7(), ...wanted }) => {
    const account = await accountOf(await headers());
    if (requiresSignIn() && !account) return reject("Sign in with an account first.");
    const personId = v7();
    await tenantDatabase(id, { person: personId, through: account ? "an account" : "this machine" }).transaction(async (tx) => {
      const fresh = await tx
        .insert(workshops)
        .values({ id, ...wanted, createdAt: now() })
        .onConflictDoNothing()
        .returning({ id: workshops.id });
      if (fresh.length === 0) return;
      await tx.insert(people).values({ workshopId: id, id: personId, name: person });
      if (account) await tx.insert(members).values({ workshopId: id, personId, role: "owner", accountId: account.id });
    });
    const jar = await cookies();
    jar.set("hearth_workshop", id, YEAR_LONG_COOKIE);
    jar.delete("hearth_person");
    revalidatePath("/", "layout");
    return ok({ id });
  });
}

/** Changes a workshop's name, units or zone. What is stored does not change: only how it is read. */
export async function changeWorkshop(input: unknown): Promise<Result<{ version: number }>> {
  const id = (input as { id?: unknown } | null)?.id;
  return command("people", changed, { workshopId: id, personId: null }, input, async ({ id: _, expectedVersion, ...wanted }, { db, workshop }) => {
    const keepsMoney = async (table: typeof lots | typeof products, set: SQL | undefined, why: string) => {
      const rows = await db
        .select({ id: table.id })
        .from(table)
        .where(and(eq(table.workshopId, workshop.id), set))
        .limit(1);
      return rows.length > 0 && workshop.currency !== wanted.currency ? reject(why, { currency: [why] }) : null;
    };
    const kept =
      (await keepsMoney(
        lots,
        isNotNull(lots.cost),
        `Lots have costs in ${workshop.currency} already, and costs are not converted. Keep ${workshop.currency}, or create another workshop.`,
      )) ??
      (await keepsMoney(
        products,
        isNotNull(products.price),
        `Products have prices in ${workshop.currency} already, and prices are not converted. Keep ${workshop.currency}, or create another workshop.`,
      ));
    if (kept) return kept;
    const [row] = await db
      .update(workshops)
      .set({ ...wanted, version: expectedVersion + 1 })
      .where(and(eq(workshops.id, workshop.id), eq(workshops.version, expectedVersion)))
      .returning({ version: workshops.version });
    if (!row) return reject("Somebody else changed this workshop. Your typing is kept: reload to see theirs.");
    return ok(row);
  });
}
