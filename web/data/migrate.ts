import { join } from "node:path";
import { ORDER_STATE_VERSION, STATE_VERSION, TRIAL_STATE_VERSION } from "@hearth/core";
import { and, notInArray, sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { type Database, openDatabase, type Transaction } from "./client";
import { grantProgram } from "./program-role";
import { rebuildBatch, rebuildOrder, rebuildTrial } from "./rebuild-state";
import { enableRowLevelSecurity } from "./row-level-security";
import { batches } from "./tables/batch";
import { orders } from "./tables/sales";
import { trials } from "./tables/trial";

/** Rebuilds, from its entries, the state of each row that an older program wrote. One whose start cannot be read is left as it is. */
async function rebuildOutdated(
  db: Database,
  table: typeof batches | typeof trials | typeof orders,
  version: number,
  rebuild: (tx: Transaction, workshopId: string, id: string) => Promise<boolean>,
): Promise<void> {
  const unreadable: string[] = [];
  const outdated = sql`(${table.plan} is null or (${table.state}->>'format')::int is distinct from ${version})`;
  for (;;) {
    const rows = await db
      .select({ workshopId: table.workshopId, id: table.id })
      .from(table as typeof batches)
      .where(and(outdated, unreadable.length > 0 ? notInArray(table.id, unreadable) : undefined))
      .limit(50);
    if (rows.length === 0) return;
    for (const row of rows) if (!(await db.transaction((tx) => rebuild(tx, row.workshopId, row.id)))) unreadable.push(row.id);
  }
}

/**
 * Brings the database at `url` up to the newest migration, and what is kept beside the log up to the newest shape. Forward
 * only, as the owner of the tables; `program` is the role that then works with them.
 */
export async function migrateDatabase(url: string, program?: string): Promise<void> {
  // A large log takes its time to be brought up.
  const { db, pool } = openDatabase(url, { statement_timeout: 0, lock_timeout: 60_000 });
  try {
    // Several servers may start at once: one brings the database up, the others wait and find it done.
    const held = await pool.connect();
    try {
      await held.query("select pg_advisory_lock(4381)");
      await migrate(db, { migrationsFolder: join(process.cwd(), "web/data/migrations") });
      await enableRowLevelSecurity(pool);
      await rebuildOutdated(db, batches, STATE_VERSION, rebuildBatch);
      await rebuildOutdated(db, trials, TRIAL_STATE_VERSION, rebuildTrial);
      await rebuildOutdated(db, orders, ORDER_STATE_VERSION, rebuildOrder);
      if (program) await grantProgram(pool, program);
    } finally {
      // The lock goes with the connection.
      held.release(true);
    }
  } finally {
    await pool.end();
  }
}
