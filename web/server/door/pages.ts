import { eq, sql } from "drizzle-orm";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { databaseOf, databaseOfDoor } from "@/data/client";
import { doorRecoveries } from "@/data/tables/door";
import { whoHasPin } from "../people";
import { auth } from "./auth";
import { asksWho } from "./mode";
import { accountOf, deviceOf } from "./who";

/** Where a page of the door leads on to: a path of this server, and nothing else. */
export const onward = (to: unknown): string => (typeof to === "string" && /^\/(?![/\\])[\w\-./?=&%:]*$/.test(to) ? to : "/");

/** A page of the door stands open only where people say who they are. */
export function atTheDoor(): void {
  if (!asksWho()) redirect("/");
}

/** The device that a page is opened on, with those who may work on it. */
export async function deviceHere() {
  const device = await deviceOf(await headers());
  return device ? { name: device.name, people: await whoHasPin(databaseOf(device.workshopId), device.workshopId) } : null;
}

export const accountHere = async () => accountOf(await headers());

/** What a browser calls itself, in two words. */
function browserOf(agent: string): string {
  const which = /Edg\//.test(agent)
    ? "Edge"
    : /Firefox\//.test(agent)
      ? "Firefox"
      : /Chrom(e|ium)\//.test(agent)
        ? "Chrome"
        : /Safari\//.test(agent)
          ? "Safari"
          : "a browser";
  const on = /iPhone|iPad/.test(agent)
    ? "iOS"
    : /Android/.test(agent)
      ? "Android"
      : /Mac OS/.test(agent)
        ? "macOS"
        : /Windows/.test(agent)
          ? "Windows"
          : /Linux/.test(agent)
            ? "Linux"
            : "";
  return on ? `${which} on ${on}` : which;
}

/** The account that is signed in, where else it is, and how many printed codes are left; null where none is. */
export async function accountPage() {
  const sent = await headers();
  const account = await accountOf(sent);
  if (!account) return null;
  const [sessions, [codes]] = await Promise.all([
    auth().api.listSessions({ headers: sent }),
    databaseOfDoor().select({ n: sql<number>`count(*)::int` }).from(doorRecoveries).where(eq(doorRecoveries.userId, account.id)),
  ]);
  return {
    account,
    codesLeft: codes?.n ?? 0,
    sessions: sessions
      .map((one) => ({
        id: one.id,
        browser: browserOf(one.userAgent ?? ""),
        address: one.ipAddress || "this machine",
        at: new Date(one.createdAt).toISOString(),
        here: one.id === account.sessionId,
      }))
      .sort((a, b) => Number(b.here) - Number(a.here) || b.at.localeCompare(a.at)),
  };
}
