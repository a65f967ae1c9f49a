import { batchOf, ORDER, TRIAL } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { rowOf, toEvent } from "./batch-rows";
import type { Transaction } from "./client";
import { orderRow, toOrderEvent, writeFinishedGoods } from "./order-rows";
import { writeOutcomes } from "./outcome-rows";
import { writeStockUses } from "./stock-uses";
import { batchEvents, batches } from "./tables/batch";
import { orderEvents, orders } from "./tables/sales";
import { trialEvents, trials } from "./tables/trial";
import { toTrialEvent, trialRow, writeBurns } from "./trial-rows";

/** Works out anew, from its entries, all that is kept of a batch beside its log. Returns whether its start could be read; where not, nothing is changed. */
export async function rebuildBatch(tx: Transaction, workshopId: string, batchId: string): Promise<boolean> {
  const ofThis = and(eq(batches.workshopId, workshopId), eq(batches.id, batchId));
  const [row] = await tx.select({ drawsStock: batches.drawsStock }).from(batches).where(ofThis).for("no key update");
  const log = and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.batchId, batchId));
  const events = (await tx.select().from(batchEvents).where(log)).map(toEvent);
  if (!row || !events.some((event) => event.kind === "started")) return false;
  const { plan, state, uses } = batchOf(events);
  await tx.update(batches).set(rowOf(plan, state)).where(ofThis);
  await writeOutcomes(tx, workshopId, batchId, plan, state, null);
  if (row.drawsStock) await writeStockUses(tx, workshopId, batchId, uses, true);
  return true;
}

/** Recalculates, from its entries, all that is kept of a burn trial beside its log. Returns whether its start could be read. */
export async function rebuildTrial(tx: Transaction, workshopId: string, trialId: string): Promise<boolean> {
  const ofThis = and(eq(trials.workshopId, workshopId), eq(trials.id, trialId));
  await tx.select({ id: trials.id }).from(trials).where(ofThis).for("no key update");
  const log = and(eq(trialEvents.workshopId, workshopId), eq(trialEvents.trialId, trialId));
  const events = (await tx.select().from(trialEvents).where(log)).map(toTrialEvent);
  if (!events.some((event) => event.kind === "started")) return false;
  const { plan, state } = TRIAL.of(events);
  await tx.update(trials).set(trialRow(plan, state)).where(ofThis);
  await writeBurns(tx, workshopId, trialId, plan, state, null);
  return true;
}

/** Recalculates, from its entries, all that is kept of an order beside its log. Returns whether its start could be read. */
export async function rebuildOrder(tx: Transaction, workshopId: string, orderId: string): Promise<boolean> {
  const ofThis = and(eq(orders.workshopId, workshopId), eq(orders.id, orderId));
  await tx.select({ id: orders.id }).from(orders).where(ofThis).for("no key update");
  const log = and(eq(orderEvents.workshopId, workshopId), eq(orderEvents.orderId, orderId));
  const events = (await tx.select().from(orderEvents).where(log)).map(toOrderEvent);
  if (!events.some((event) => event.kind === "started")) return false;
  const { plan, state } = ORDER.of(events);
  await tx.update(orders).set(orderRow(plan, state)).where(ofThis);
  await writeFinishedGoods(tx, workshopId, orderId, plan, state, null);
  return true;
}
