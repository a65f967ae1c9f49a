import { and, isNotNull, lt, sql } from "drizzle-orm";
import { authDatabase, databaseWithoutTenant } from "@/data/client";
import { now } from "@/data/clock";
import { authAttempts, authSessions, authVerifications } from "@/data/tables/auth";
import { faultOf, logger } from "./logger";

/** Deletes expired sessions, verifications, sign-in attempts and workshops; returns how many of each, for the log. */
export async function clean(): Promise<Record<string, number>> {
  const auth = authDatabase();
  const moment = new Date(now());
  const gone = (result: { rowCount: number | null }) => result.rowCount ?? 0;
  const sessions = gone(await auth.delete(authSessions).where(lt(authSessions.expiresAt, moment)));
  const verifications = gone(await auth.delete(authVerifications).where(lt(authVerifications.expiresAt, moment)));
  const tries = gone(await auth.delete(authAttempts).where(and(isNotNull(authAttempts.expire), lt(authAttempts.expire, moment.getTime() - 3_600_000))));
  const { rows } = await databaseWithoutTenant().execute<{ gone: number }>(sql`select remove_due_workshops(${now()}) as gone`);
  return { sessions, verifications, tries, workshops: rows[0]?.gone ?? 0 };
}

/** One server at a time cleans: the number of the lock that it holds meanwhile (PostgreSQL's advisory locks). */
const LOCK = 4_382;
const EVERY_MS = 3_600_000;
const FIRST_MS = 60_000;

/** Deletes expired rows unless another server on this database is doing so; returns how many of each, or null. */
export const cleanOnce = (does: () => Promise<Record<string, number>> = clean): Promise<Record<string, number> | null> =>
  databaseWithoutTenant().transaction(async (tx) => {
    const { rows } = await tx.execute<{ mine: boolean }>(sql`select pg_try_advisory_xact_lock(${LOCK}) as mine`);
    return rows[0]?.mine ? does() : null;
  });

/** Cleans every hour for as long as the process runs. A database that is away is asked again the next time. */
export function startCleaning(): void {
  const run = async () => {
    try {
      const did = await cleanOnce();
      if (did) logger().info({ did }, "expired rows were deleted");
    } catch (error) {
      logger().warn({ fault: faultOf(error) }, "expired rows could not be deleted; trying again");
    }
  };
  setTimeout(() => {
    void run();
    setInterval(() => void run(), EVERY_MS).unref();
  }, FIRST_MS).unref();
}
