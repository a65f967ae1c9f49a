import { lesserOf, type Role } from "@hearth/core";
import { and, eq, gt, isNotNull, isNull, sql } from "drizzle-orm";
import { databaseWithoutTenant, tenantDatabase } from "@/data/client";
import { now } from "@/data/clock";
import { devices, members } from "@/data/tables/people";
import { people } from "@/data/tables/workshop";
import { hashOf } from "./secrets";
import { requiresSignIn } from "./sign-in-mode";

/** Who sent a request, as far as one workshop is concerned. */
export interface Principal {
  role: Role;
  /** By whom entries are logged; null if the page says it, as on a machine that needs no sign-in. */
  personId: string | null;
  /** By what that is known, as the audit log tells it. */
  through: string;
  /** The device of the workshop that it comes from. */
  device?: string;
  account?: string;
}

/** Somebody at this machine, where nobody else can reach it: whoever it is may do everything. */
export const LOCAL_OWNER: Principal = { role: "owner", personId: null, through: "this machine" };

export const DEVICE_COOKIE = "hearth_device";

const SEEN_MS = 60_000;

/** Returns the device that sent this, by its cookie: of which workshop, and its secret. */
export function deviceCookie(headers: Headers): { workshopId: string; token: string } | null {
  const cookie = (headers.get("cookie") ?? "").split(/;\s*/).find((text) => text.startsWith(`${DEVICE_COOKIE}=`));
  // Another program on the same host may have set it to anything: what is no cookie of ours is none.
  const [, workshopId, token] = /^([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})\.([\w-]{43})$/.exec(cookie?.slice(DEVICE_COOKIE.length + 1) ?? "") ?? [];
  return workshopId && token ? { workshopId, token } : null;
}

/** Returns where a device was joined and not cut off since, and who works on it. */
export async function deviceOf(headers: Headers) {
  const cookie = deviceCookie(headers);
  if (!cookie) return null;
  const db = tenantDatabase(cookie.workshopId);
  const [device] = await db
    .select({
      id: devices.id,
      name: devices.name,
      role: devices.role,
      personId: people.id,
      seenAt: devices.seenAt,
      personRole: members.role,
    })
    .from(devices)
    .leftJoin(people, and(eq(people.workshopId, devices.workshopId), eq(people.id, devices.personId), gt(devices.personUntil, now())))
    .leftJoin(members, and(eq(members.workshopId, people.workshopId), eq(members.personId, people.id)))
    .where(and(eq(devices.workshopId, cookie.workshopId), eq(devices.tokenHash, hashOf(cookie.token)), isNotNull(devices.joinedAt), isNull(devices.cutAt)));
  if (!device) return null;
  // Once a minute is enough to say when a device was last seen.
  if (device.seenAt === null || Date.parse(now()) - Date.parse(device.seenAt) > SEEN_MS)
    await db
      .update(devices)
      .set({ seenAt: now() })
      .where(and(eq(devices.workshopId, cookie.workshopId), eq(devices.id, device.id)));
  return { ...device, workshopId: cookie.workshopId };
}

/** The account that signed in with this browser; null if none did, or its sign-in was ended. */
export async function accountOf(headers: Headers): Promise<{ id: string; name: string; email: string; twoFactor: boolean; sessionId: string } | null> {
  if (!requiresSignIn() || !/(^|;\s*)(__Secure-)?hearth\.session_token=/.test(headers.get("cookie") ?? "")) return null;
  // The library is large, and alone on a machine nobody signs in.
  const { auth } = await import("./auth");
  const found = await auth().api.getSession({ headers, query: { disableCookieCache: true } });
  if (!found) return null;
  const { user, session } = found;
  return { id: user.id, name: user.name, email: user.email, twoFactor: Boolean(user.twoFactorEnabled), sessionId: session.id };
}

/** Returns who sent this, in one workshop; "nobody" where it does not say, "stranger" where it is somebody with nothing to do there. */
export async function resolvePrincipal(headers: Headers, workshopId: string): Promise<Principal | "nobody" | "stranger"> {
  if (!requiresSignIn()) return LOCAL_OWNER;
  const device = await deviceOf(headers);
  if (device?.workshopId === workshopId)
    // A viewer changes nothing, and so works on no device; what it may see is not for every hand that picks one up.
    return device.personId && device.personRole && device.personRole !== "viewer"
      ? { role: lesserOf(device.role, device.personRole), personId: device.personId, through: device.name, device: device.id }
      : "nobody";
  const account = await accountOf(headers);
  if (!account) return device ? "stranger" : "nobody";
  const [member] = await tenantDatabase(workshopId)
    .select({ role: members.role, personId: members.personId })
    .from(members)
    .where(and(eq(members.workshopId, workshopId), eq(members.accountId, account.id)));
  return member ? { ...member, through: "an account", account: account.id } : "stranger";
}

interface Named {
  id: string;
  name: string;
  role: Role;
}
/** Returns all workshops of a machine on which nobody signs in. */
const allWorkshops = async (): Promise<Named[]> =>
  (await databaseWithoutTenant().execute<{ id: string; name: string }>(sql`select id, name from workshop_names()`)).rows.map((row) => ({
    ...row,
    role: "owner",
  }));
const workshopsOf = async (account: string): Promise<Named[]> =>
  (await databaseWithoutTenant().execute<{ id: string; name: string; role: Role }>(sql`select id, name, role from workshops_of_account(${account})`)).rows;

/** The workshops that somebody may work in, the oldest first. */
export async function workshopsOfRequest(headers: Headers): Promise<Named[]> {
  if (!requiresSignIn()) return allWorkshops();
  const device = await deviceOf(headers);
  if (device) {
    const { rows } = await tenantDatabase(device.workshopId).execute<{ id: string; name: string }>(sql`select id, name from workshop`);
    return rows.map((row) => ({ ...row, role: lesserOf(device.role, device.personRole ?? "viewer") }));
  }
  const account = await accountOf(headers);
  return account ? workshopsOf(account.id) : [];
}

/** Returns the workshops of somebody who is already known. */
export const workshopsOfPrincipal = async (who: Principal, inside: { id: string; name: string }): Promise<Named[]> =>
  who.account ? workshopsOf(who.account) : who.device ? [{ ...inside, role: who.role }] : allWorkshops();

/** Returns whether somebody may come in at all, to whatever workshop: what belongs to none is answered to no passer-by. */
export const isSignedIn = async (headers: Headers): Promise<boolean> => !requiresSignIn() || Boolean((await deviceOf(headers)) ?? (await accountOf(headers)));
