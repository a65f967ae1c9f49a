import { may, type Need } from "@hearth/core";
import { and, eq, gte, lte } from "drizzle-orm";
import { z } from "zod";
import { type Database, databaseOf } from "@/data/client";
import { now } from "@/data/clock";
import { deviceSessions } from "@/data/tables/people";
import { answering, refuse } from "../respond";
import { readWorkshop, type Workshop } from "../workshops";
import { type Who, whoIn } from "./who";

export type Entered<T> = { ok: true; value: T } | { ok: false; status: 401 | 403 | 404; message: string };

export const NOT_YOURS = "You may not do this here. Ask the workshop's owner.";
export const SIGN_IN = "Say who you are first: sign in, or choose yourself on this device. What is kept on the device is sent afterwards.";
/** The same for what is not there and for what is not theirs: nobody learns which. */
export const NO_WORKSHOP = "There is no such workshop.";

/** Whether who sent this may do it in that workshop. */
export async function enter(headers: Headers, workshopId: string, need: Need): Promise<Entered<Who>> {
  const who = await whoIn(headers, workshopId);
  if (who === "nobody") return { ok: false, status: 401, message: SIGN_IN };
  if (who === "stranger") return { ok: false, status: 404, message: NO_WORKSHOP };
  return may(who.role, need) ? { ok: true, value: who } : { ok: false, status: 403, message: NOT_YOURS };
}

/** The workshop's database as one works in it: what is changed there says by whom. */
export const databaseFor = (workshopId: string, who: Who, personId = who.personId): Database =>
  databaseOf(workshopId, { person: personId, through: who.through });

/** Clocks of a device and of the server disagree a little. */
const SESSION_SLACK_MS = 5 * 60_000;

/**
 * Why an entry cannot be logged in that person's name; null where it can. An account logs its own; a device also what waited on it, of somebody who
 * worked on it, by PIN, when it happened.
 */
export async function notOwn(workshopId: string, who: Who, { personId, happenedAt }: { personId: string | null; happenedAt: string }): Promise<string | null> {
  if (who.personId === null || personId === who.personId) return null;
  const at = Date.parse(happenedAt);
  const moment = (ms: number) => new Date(ms).toISOString();
  const [session] =
    who.device && personId
      ? await databaseOf(workshopId)
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
  return session ? null : "Entries are logged in the name of who is signed in, or was at this device when it happened. Log it in your own name.";
}

/** The part of the program that each subject of the log belongs to. */
export const AREA_OF = { batch: "bench", trial: "burn", order: "sell" } as const;

/** A route of one workshop: who may not enter is refused before anything is read. */
export function atWorkshop<S extends z.ZodRawShape, P>(
  need: Need,
  shape: S,
  missing: string,
  act: (request: Request, at: { db: Database; workshop: Workshop; who: Who; now: string; named: z.output<z.ZodObject<S>> }) => Promise<Response>,
) {
  return (request: Request, { params }: { params: Promise<P> }): Promise<Response> =>
    answering(async () => {
      const at = z.object({ workshop: z.uuid() }).safeParse(await params);
      if (!at.success) return refuse(404, missing);
      const entered = await enter(request.headers, at.data.workshop, need);
      if (!entered.ok) return refuse(entered.status, entered.message);
      const named = z.object(shape).safeParse(await params);
      const workshop = named.success ? await readWorkshop(at.data.workshop) : null;
      if (!workshop || !named.success) return refuse(404, missing);
      return act(request, { db: databaseFor(workshop.id, entered.value), workshop, who: entered.value, now: now(), named: named.data });
    });
}
