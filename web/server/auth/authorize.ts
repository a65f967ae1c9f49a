import { may, type Need, ok, type Result, reject } from "@hearth/core";
import { and, eq, gte, lte } from "drizzle-orm";
import { z } from "zod";
import { type Database, tenantDatabase } from "@/data/client";
import { now } from "@/data/clock";
import { deviceSessions } from "@/data/tables/people";
import { errorResponse, handleRequest } from "@/server/http/respond";
import { readWorkshop, type Workshop } from "@/server/workshops/workshops";
import { type Principal, resolvePrincipal } from "./session";

export type Authorized<T> = Result<T, { status: 401 | 403 | 404 }>;

export const FORBIDDEN = "You do not have access to this. Ask the workshop's owner.";
export const SIGN_IN_FIRST = "Sign in first, or choose yourself on this device. Entries on the device are sent afterwards.";
/** The answer both for a workshop that does not exist and for one of others: nobody learns which. */
export const NO_WORKSHOP = "There is no such workshop.";

/** Returns whether who sent this may do it in that workshop. */
export async function authorize(headers: Headers, workshopId: string, need: Need): Promise<Authorized<Principal>> {
  const who = await resolvePrincipal(headers, workshopId);
  if (who === "nobody") return { ...reject(SIGN_IN_FIRST), status: 401 };
  if (who === "stranger") return { ...reject(NO_WORKSHOP), status: 404 };
  return may(who.role, need) ? ok(who) : { ...reject(FORBIDDEN), status: 403 };
}

/** The workshop's database as one works in it: what is changed there says by whom. */
export const databaseForPrincipal = (workshopId: string, who: Principal, personId = who.personId): Database =>
  tenantDatabase(workshopId, { person: personId, through: who.through });

/** Clocks of a device and of the server disagree a little. */
const SESSION_SLACK_MS = 5 * 60_000;

/**
 * Returns why an entry cannot be logged in that person's name; null if it can. An account logs its own; a device also what waited on it, of somebody who
 * worked on it, by PIN, when it happened.
 */
export async function assertOwnPerson(
  workshopId: string,
  who: Principal,
  { personId, happenedAt }: { personId: string | null; happenedAt: string },
): Promise<string | null> {
  if (who.personId === null || personId === who.personId) return null;
  const at = Date.parse(happenedAt);
  const moment = (ms: number) => new Date(ms).toISOString();
  const [session] =
    who.device && personId
      ? await tenantDatabase(workshopId)
          .select({ at: deviceSessions.startedAt })
          .from(deviceSessions)
          .where(
            and(
              eq(deviceSessions.workshopId, workshopId),
              eq(deviceSessions.deviceId, who.device),
              eq(deviceSessions.personId, personId),
              lte(deviceSessions.startedAt, moment(at + SESSION_SLACK_MS)),
              gte(deviceSessions.endedAt, moment(at - SESSION_SLACK_MS)),
            ),
          )
          .limit(1)
      : [];
  return session ? null : "Entries are recorded under the person who is signed in, or was at this device then. Record it under your own name.";
}

/** The part of the program that each aggregate belongs to. */
export const AREA_OF_AGGREGATE = { batch: "bench", trial: "burn", order: "sell" } as const;

/** A route of one workshop: who may not enter is refused before anything is read. */
export function workshopRoute<S extends z.ZodRawShape, P>(
  need: Need,
  shape: S,
  missing: string,
  run: (request: Request, at: { db: Database; workshop: Workshop; who: Principal; now: string; named: z.output<z.ZodObject<S>> }) => Promise<Response>,
) {
  return (request: Request, { params }: { params: Promise<P> }): Promise<Response> =>
    handleRequest(async () => {
      const at = z.object({ workshop: z.uuid() }).safeParse(await params);
      if (!at.success) return errorResponse(404, missing);
      const entered = await authorize(request.headers, at.data.workshop, need);
      if (!entered.ok) return errorResponse(entered.status, entered.message);
      const named = z.object(shape).safeParse(await params);
      const workshop = named.success ? await readWorkshop(at.data.workshop) : null;
      if (!workshop || !named.success) return errorResponse(404, missing);
      return run(request, { db: databaseForPrincipal(workshop.id, entered.value), workshop, who: entered.value, now: now(), named: named.data });
    });
}
