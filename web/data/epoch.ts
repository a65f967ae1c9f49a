import { sql } from "drizzle-orm";
import type { Database, Transaction } from "./client";

/**
 * Returns which history of entries the database holds: another after a backup was restored or the database was taken back to an earlier moment, so that
 * places in the log of before mean nothing any more. It follows from what PostgreSQL itself keeps: the server, the database in it, and its timeline.
 */
export async function readEpoch(db: Database | Transaction): Promise<string> {
  const { rows } = await db.execute<{ epoch: string }>(
    sql`select concat_ws('.', s.system_identifier, (select oid from pg_database where datname = current_database()), c.timeline_id) as epoch
        from pg_control_system() s, pg_control_checkpoint() c`,
  );
  return rows[0]?.epoch ?? "";
}
