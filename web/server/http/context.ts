import { areaOfPath } from "@hearth/core";
import { asc, eq } from "drizzle-orm";
import { cookies, headers } from "next/headers";
import { redirect } from "next/navigation";
import { cache } from "react";
import { type Database, type Transaction, tenantSnapshot } from "@/data/client";
import { clockIsFrozen, now } from "@/data/clock";
import { people, type workshops } from "@/data/tables/workshop";
import { authorize, databaseForPrincipal } from "@/server/auth/authorize";
import { accountOf, type Principal, workshopsOfPrincipal, workshopsOfRequest } from "@/server/auth/session";
import { requiresSignIn } from "@/server/auth/sign-in-mode";
import { readWorkshop } from "@/server/workshops/workshops";
import { type Change, changeMark } from "./change-stream";

const staffOf = (db: Database, workshopId: string) =>
  db.select({ id: people.id, name: people.name, archived: people.archived }).from(people).where(eq(people.workshopId, workshopId)).orderBy(asc(people.name));

/** Returns how a workshop reads and writes quantities. */
const unitsOf = (workshop: typeof workshops.$inferSelect) => ({
  mass: workshop.massUnit,
  temperature: workshop.temperatureUnit,
  currency: workshop.currency,
  zone: workshop.timeZone,
  length: workshop.lengthUnit,
  pounds: workshop.pounds,
  locale: workshop.locale,
});

const WITHIN = /^\/w\/([0-9a-f-]{36})(?=\/|$)/;

/** Returns where to say who one is, and to come back from there. */
const signIn = (path: string) => `/sign-in?${new URLSearchParams({ to: path })}`;

/** Returns the workshop that an address means which names none: the one last chosen on this device, or else the oldest. */
export async function defaultWorkshop(): Promise<string> {
  const jar = await cookies();
  const mine = await workshopsOfRequest(await headers());
  const usual = (mine.find((item) => item.id === jar.get("hearth_workshop")?.value) ?? mine[0])?.id;
  return usual ?? redirect(requiresSignIn() && !(await accountOf(await headers())) ? signIn("/") : "/workshops");
}

/** Where a page is and who steps there: the one place from which every read takes its workshop. Who may not see the page does not get here. */
export const requestContext = cache(async () => {
  const [jar, sent] = [await cookies(), await headers()];
  const path = sent.get("x-hearth-path") ?? "";
  const [base, named] = WITHIN.exec(path) ?? [];
  if (!base || !named) redirect("/workshops");
  const inner = path.slice(base.length) || "/";
  // Before anything is read: what is told from here on may be missing in the page.
  const mark = changeMark(named);
  const entered = await authorize(sent, named, { area: areaOfPath(inner), action: "see" });
  if (!entered.ok) {
    if (entered.status === 401) redirect(signIn(path));
    if (entered.status === 404) redirect("/workshops");
    // A helper begins where helpers work; all roles see the bench.
    redirect(inner === "/" ? `${base}/bench` : `${base}/bench?not=${areaOfPath(inner)}`);
  }
  const who = entered.value;
  const db = tenantSnapshot(named);
  const workshop = await readWorkshop(named, db);
  if (!workshop) redirect("/workshops");
  const [all, staff] = await Promise.all([workshopsOfPrincipal(who, workshop), staffOf(db, workshop.id)]);
  const chosen = who.personId ?? jar.get("hearth_person")?.value;
  const person = staff.find((item) => item.id === chosen) ?? (who.personId ? null : (staff.find((item) => !item.archived) ?? staff[0] ?? null));
  return {
    db,
    who,
    workshop,
    mark,
    workshops: all.map(({ id, name }) => ({ id, name })),
    people: staff.filter((item) => !item.archived || item.id === person?.id).map(({ id, name }) => ({ id, name })),
    person,
    now: now(),
    frozen: clockIsFrozen(),
    units: unitsOf(workshop),
  };
});

/** Returns the context of the workshop that a command names, whatever another tab has switched to since; null if there is none. */
export async function commandContext(at: { workshopId: string; personId: string | null }, who: Principal) {
  const workshop = await readWorkshop(at.workshopId);
  if (!workshop) return null;
  const personId = who.personId ?? at.personId;
  const db = databaseForPrincipal(workshop.id, who, personId);
  const staff = await staffOf(db, workshop.id);
  return { db, workshop, who, people: staff, person: staff.find((item) => item.id === personId) ?? null, now: now() };
}
export type Context = NonNullable<Awaited<ReturnType<typeof commandContext>>>;
/** The same while a command runs: its statements belong to one transaction. */
export type CommandContext = Omit<Context, "db"> & {
  db: Transaction;
  /** Adds to what pages are told once it is done: which batch, trial or order it was, which topics, who sees nothing more. */
  notify(change: Omit<Partial<Change>, "workshop">): void;
};
/** In which workshop, by whom and when something is done. */
export type Actor = Pick<Context, "workshop" | "person" | "now"> & Partial<Pick<CommandContext, "notify">>;
