import { and, isNotNull, lt, sql } from "drizzle-orm";
import PgBoss from "pg-boss";
import { databaseOfDoor, databaseOfNone } from "@/data/client";
import { now } from "@/data/clock";
import { JOBS, JOBS_SCHEMA, type Job } from "@/data/jobs";
import { doorSessions, doorTries, doorVerifications } from "@/data/tables/door";
import { faultOf, logger } from "./logger";

/** Takes out what is over; gives how much of each, for the log. */
export async function clean(): Promise<Record<string, number>> {
  const door = databaseOfDoor();
  const moment = new Date(now());
  const gone = (result: { rowCount: number | null }) => result.rowCount ?? 0;
  const sessions = gone(await door.delete(doorSessions).where(lt(doorSessions.expiresAt, moment)));
  const verifications = gone(await door.delete(doorVerifications).where(lt(doorVerifications.expiresAt, moment)));
  const tries = gone(await door.delete(doorTries).where(and(isNotNull(doorTries.expire), lt(doorTries.expire, moment.getTime() - 3_600_000))));
  const { rows } = await databaseOfNone().execute<{ gone: number }>(sql`select remove_due_workshops(${now()}) as gone`);
  return { sessions, verifications, tries, workshops: rows[0]?.gone ?? 0 };
}

const DOES: Record<Job, () => Promise<object>> = { clean };
const AGAIN_MS = 10_000;

/** Works at what is to be done by itself, together with all other servers on this database; each job is done by one of them. Gives the way to stop. */
export function startJobs(url: string, does: Record<Job, () => Promise<object>> = DOES): () => Promise<void> {
  let stopped = false;
  let boss: PgBoss | null = null;
  const begin = async () => {
    // It asks for work by itself and listens to nothing, so that it goes through a pooler of connections too.
    const one = new PgBoss({ connectionString: url, schema: JOBS_SCHEMA, migrate: false, max: 2, application_name: "hearth jobs" });
    one.on("error", (error: Error) => logger().warn({ fault: faultOf(error) }, "a job could not be looked for"));
    try {
      await one.start();
      for (const job of Object.keys(JOBS) as Job[]) {
        await one.schedule(job, JOBS[job]);
        await one.work(job, { pollingIntervalSeconds: 30 }, async () => {
          logger().info({ job, did: await does[job]() }, "a job was done");
        });
      }
      boss = one;
      if (stopped) await one.stop({ graceful: false });
    } catch (error) {
      logger().warn({ fault: faultOf(error) }, "jobs could not be begun, and are tried again");
      await one.stop({ graceful: false }).catch(() => undefined);
      if (!stopped) setTimeout(() => void begin(), AGAIN_MS).unref();
    }
  };
  void begin();
  return async () => {
    stopped = true;
    await boss?.stop({ graceful: true, timeout: 5_000 }).catch(() => undefined);
  };
}
