import type { Pool } from "pg";
import pg from "pg";
import PgBoss from "pg-boss";

/** Where jobs wait: a schema of its own, apart from what is kept of workshops. */
export const JOBS_SCHEMA = "hearth_jobs";

/** What is to be done by itself, and when (cron, in UTC). Each is done once, however many servers there are. */
export const JOBS = {
  /** What is over: sign-ins, links, codes, tries, and workshops whose thirty days are past. */
  clean: "17 * * * *",
} as const;
export type Job = keyof typeof JOBS;

/** Makes the tables of the jobs, as the owner; `program` may then work with them. */
export async function makeJobs(url: string, pool: Pool, program: string | undefined): Promise<void> {
  const boss = new PgBoss({ connectionString: url, schema: JOBS_SCHEMA, max: 1, supervise: false, schedule: false });
  boss.on("error", () => undefined);
  await boss.start();
  for (const job of Object.keys(JOBS))
    if (!(await boss.getQueue(job))) await boss.createQueue(job, { name: job, policy: "singleton", retryLimit: 3, retryDelay: 60 });
  await boss.stop({ graceful: false });
  if (!program) return;
  const [schema, name] = [pg.escapeIdentifier(JOBS_SCHEMA), pg.escapeIdentifier(program)];
  for (const statement of [
    `grant usage on schema ${schema} to ${name}`,
    `grant select, insert, update, delete on all tables in schema ${schema} to ${name}`,
    `grant usage on all sequences in schema ${schema} to ${name}`,
    `grant execute on all functions in schema ${schema} to ${name}`,
  ])
    await pool.query(statement);
}
