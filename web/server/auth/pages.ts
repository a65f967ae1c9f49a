import { eq, sql } from "drizzle-orm";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { authDatabase, tenantDatabase } from "@/data/client";
import { authRecoveryCodes } from "@/data/tables/auth";
import { whoHasPin } from "@/server/workshops/people";
import { auth } from "./auth";
import { accountOf, deviceOf } from "./session";
import { requiresSignIn } from "./sign-in-mode";

/** Returns the path to go on to after signing in: one of this server, "/" for anything else. */
export const safeRedirectPath = (to: unknown): string => (typeof to === "string" && /^\/(?![/\\])[\w\-./?=&%:]*$/.test(to) ? to : "/");

/** Redirects to the workshop where no sign-in is needed. */
export function requireSignInMode(): void {
  if (!requiresSignIn()) redirect("/");
}

/** The device that a page is opened on, with those who may work on it. */
export async function currentDevice() {
  const device = await deviceOf(await headers());
  return device ? { name: device.name, people: await whoHasPin(tenantDatabase(device.workshopId), device.workshopId) } : null;
}

export const currentAccount = async () => accountOf(await headers());

/** Returns what a browser calls itself, in two words. */
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

/** The account that is signed in, where else it is, and how many printed codes are left; null if none is. */
export async function readAccountPage() {
  const sent = await headers();
  const account = await accountOf(sent);
  if (!account) return null;
  const [sessions, [codes]] = await Promise.all([
    auth().api.listSessions({ headers: sent }),
    authDatabase().select({ n: sql<number>`count(*)::int` }).from(authRecoveryCodes).where(eq(authRecoveryCodes.userId, account.id)),
  ]);
  return {
    account,
    codesLeft: codes?.n ?? 0,
    sessions: sessions
      .map((session) => ({
        id: session.id,
        browser: browserOf(session.userAgent ?? ""),
        address: session.ipAddress || "this machine",
        at: new Date(session.createdAt).toISOString(),
        here: session.id === account.sessionId,
      }))
      .sort((a, b) => Number(b.here) - Number(a.here) || b.at.localeCompare(a.at)),
  };
}
