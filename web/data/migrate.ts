import { fileURLToPath } from "node:url";
import { batchOf, FACTS_FORMAT, TRIAL, TRIAL_FORMAT } from "@hearth/core";
import { and, eq, isNull, notInArray, or, sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { keepApart } from "./apart";
import { rowOf, toEvent } from "./batch-rows";
import { type Database, openDatabase } from "./client";
import { makeJobs } from "./jobs";
import { writeOutcomes } from "./outcome-rows";
import { grantProgram } from "./program-role";
import { writeStockUses } from "./stock-uses";
import { batchEvents, batches } from "./tables/batch";
import { trialEvents, trials } from "./tables/trial";
import { toTrialEvent, trialRow, writeBurns } from "./trial-rows";

/**
 * Works the kept state and the ledger of stock out anew for batches that an older program wrote: from their entries, which stay as they are. A batch
 * whose start cannot be read is left as it is.
 */
async function workOutFacts(db: Database): Promise<void> {
  const unreadable: string[] = [];
  for (;;) {
    const rows = await db
      .select({ workshopId: batches.workshopId, id: batches.id, drawsStock: batches.drawsStock })
      .from(batches)
      .where(
        and(
          or(isNull(batches.facts), isNull(batches.plan), sql`(${batches.facts}->>'format')::int <> ${FACTS_FORMAT}`),
          unreadable.length > 0 ? notInArray(batches.id, unreadable) : undefined,
        ),
      )
      .limit(50);
    if (rows.length === 0) return;
    for (const row of rows) {
      const mine = and(eq(batchEvents.workshopId, row.workshopId), eq(batchEvents.batchId, row.id));
      await db.transaction(async (tx) => {
        await tx
          .select({ id: batches.id })
          .from(batches)
          .where(and(eq(batches.workshopId, row.workshopId), eq(batches.id, row.id)))
          .for("no key update");
        const events = (await tx.select().from(batchEvents).where(mine)).map(toEvent);
        if (!events.some((event) => event.kind === "started")) {
          unreadable.push(row.id);
          return;
        }
        const { plan, facts, uses } = batchOf(events);
        await tx
          .update(batches)
          .set(rowOf(plan, facts))
          .where(and(eq(batches.workshopId, row.workshopId), eq(batches.id, row.id)));
        await writeOutcomes(tx, row.workshopId, row.id, plan, facts, null);
        if (row.drawsStock) await writeStockUses(tx, row.workshopId, row.id, uses, true);
      });
    }
  }
}

/** The same for burn trials. */
async function workOutTrials(db: Database): Promise<void> {
  for (;;) {
    const rows = await db
      .select({ workshopId: trials.workshopId, id: trials.id })
      .from(trials)
      .where(sql`(${trials.facts}->>'format')::int <> ${TRIAL_FORMAT}`)
      .limit(50);
    if (rows.length === 0) return;
    for (const { workshopId, id } of rows)
      await db.transaction(async (tx) => {
        const mine = and(eq(trials.workshopId, workshopId), eq(trials.id, id));
        await tx.select({ id: trials.id }).from(trials).where(mine).for("no key update");
        const events = await tx
          .select()
          .from(trialEvents)
          .where(and(eq(trialEvents.workshopId, workshopId), eq(trialEvents.trialId, id)));
        const { plan, facts } = TRIAL.of(events.map(toTrialEvent));
        await tx.update(trials).set(trialRow(plan, facts)).where(mine);
        await writeBurns(tx, workshopId, id, plan, facts, null);
      });
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
      await migrate(db, { migrationsFolder: fileURLToPath(new URL("./migrations", import.meta.url)) });
      await keepApart(pool);
      await workOutFacts(db);
      await workOutTrials(db);
      await makeJobs(url, pool, program);
      if (program) await grantProgram(pool, program);
    } finally {
      // The lock goes with the connection.
      held.release(true);
    }
  } finally {
    await pool.end();
  }
}
