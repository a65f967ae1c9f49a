import { join } from "node:path";
import { ORDER_STATE_VERSION, STATE_VERSION, TRIAL_STATE_VERSION } from "@hearth/core";
import { and, isNull, notInArray, or, sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { type Database, openDatabase } from "./client";
import { grantProgram } from "./program-role";
import { rebuildBatch, rebuildOrder, rebuildTrial } from "./rebuild-state";
import { enableRowLevelSecurity } from "./row-level-security";
import { batches } from "./tables/batch";
import { orders } from "./tables/sales";
import { trials } from "./tables/trial";

/** Rebuilds the kept state and the ledger of stock of batches that an older program wrote. A batch whose start cannot be read is left as it is. */
async function rebuildBatches(db: Database): Promise<void> {
  const unreadable: string[] = [];
  for (;;) {
    const rows = await db
      .select({ workshopId: batches.workshopId, id: batches.id })
      .from(batches)
      .where(
        and(
          or(isNull(batches.state), isNull(batches.plan), sql`(${batches.state}->>'format')::int <> ${STATE_VERSION}`),
          unreadable.length > 0 ? notInArray(batches.id, unreadable) : undefined,
        ),
      )
      .limit(50);
    if (rows.length === 0) return;
    for (const row of rows) if (!(await db.transaction((tx) => rebuildBatch(tx, row.workshopId, row.id)))) unreadable.push(row.id);
  }
}

/** The same for burn trials. */
async function rebuildTrials(db: Database): Promise<void> {
  const unreadable: string[] = [];
  for (;;) {
    const rows = await db
      .select({ workshopId: trials.workshopId, id: trials.id })
      .from(trials)
      .where(and(sql`(${trials.state}->>'format')::int <> ${TRIAL_STATE_VERSION}`, unreadable.length > 0 ? notInArray(trials.id, unreadable) : undefined))
      .limit(50);
    if (rows.length === 0) return;
    for (const row of rows) if (!(await db.transaction((tx) => rebuildTrial(tx, row.workshopId, row.id)))) unreadable.push(row.id);
  }
}

/** The same for orders and market days. */
async function rebuildOrders(db: Database): Promise<void> {
  const unreadable: string[] = [];
  for (;;) {
    const rows = await db
      .select({ workshopId: orders.workshopId, id: orders.id })
      .from(orders)
      .where(and(sql`(${orders.state}->>'format')::int <> ${ORDER_STATE_VERSION}`, unreadable.length > 0 ? notInArray(orders.id, unreadable) : undefined))
      .limit(50);
    if (rows.length === 0) return;
    for (const row of rows) if (!(await db.transaction((tx) => rebuildOrder(tx, row.workshopId, row.id)))) unreadable.push(row.id);
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
      await rebuildBatches(db);
      await rebuildTrials(db);
      await rebuildOrders(db);
      if (program) await grantProgram(pool, program);
    } finally {
      // The lock goes with the connection.
      held.release(true);
    }
  } finally {
    await pool.end();
  }
}
