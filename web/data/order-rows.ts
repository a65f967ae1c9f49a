import { CHECKED_ORDER, linesNow, type OrderEvent, type OrderPlan, type OrderState } from "@hearth/core";
import { and, asc, eq, inArray, sql } from "drizzle-orm";
import type { Transaction } from "./client";
import { entryRows } from "./entry-rows";
import { orderLines, orderPacks, packRuns } from "./tables/sales";

const rows = entryRows<OrderEvent>(CHECKED_ORDER);
export const toOrderEvent = rows.toEvent;
export const orderEventRow = (workshopId: string, orderId: string, event: OrderEvent) => ({
  ...rows.toRow(event),
  workshopId,
  orderId,
});

/** Returns what the order's row repeats of what follows from its entries. */
export const orderRow = (plan: OrderPlan, state: OrderState) => ({
  what: plan.what,
  name: state.name,
  wantedOn: state.wantedOn,
  stage: state.closed ? ("closed" as const) : ("open" as const),
  plan,
  state,
  startedAt: state.startedAt,
  lastAt: state.lastAt,
});

/** Writes what is asked, what went out, and what of each packing is gone; nothing where an entry changed none of it. */
export async function writeFinishedGoods(
  tx: Transaction,
  workshopId: string,
  orderId: string,
  plan: OrderPlan,
  state: OrderState,
  old: OrderState | null,
): Promise<void> {
  const said = (orderState: OrderState) => JSON.stringify([orderState.finishedGoods, orderState.lines, orderState.closed !== null]);
  if (old && said(old) === said(state)) return;
  const condition = and(eq(orderLines.workshopId, workshopId), eq(orderLines.orderId, orderId));
  await tx.delete(orderLines).where(condition);
  const asked = linesNow(state, plan.what).filter((line) => line.asked > 0);
  if (asked.length > 0)
    await tx.insert(orderLines).values(
      asked.map((line) => ({
        workshopId,
        orderId,
        sellableId: line.sellable,
        name: line.name,
        asked: line.asked,
        // What is closed wants nothing any more.
        shortage: state.closed ? 0 : line.shortage,
      })),
    );
  if (old && JSON.stringify(old.finishedGoods) === JSON.stringify(state.finishedGoods)) return;
  await tx.delete(orderPacks).where(and(eq(orderPacks.workshopId, workshopId), eq(orderPacks.orderId, orderId)));
  const touched = [...new Set([...state.finishedGoods, ...(old?.finishedGoods ?? [])].map((packsOut) => packsOut.packRun))];
  if (touched.length === 0) return;
  const mineToo = and(eq(packRuns.workshopId, workshopId), inArray(packRuns.id, touched));
  // Held before what is gone is summed: an order that is written at the same moment would not be in the sum.
  const held = await tx.select({ id: packRuns.id, each: packRuns.costEach }).from(packRuns).where(mineToo).orderBy(asc(packRuns.id)).for("no key update");
  const costs = new Map(held.map((row) => [row.id, row.each]));
  /** Returns what packs that are gone had cost; none of them cost nothing. */
  const costOf = (packRun: string, gone: number) => {
    const each = costs.get(packRun) ?? null;
    return gone === 0 ? 0 : each === null ? null : each * gone;
  };
  if (state.finishedGoods.length > 0)
    await tx.insert(orderPacks).values(
      state.finishedGoods.map(({ packRun, sellable, price: _p, pouredAt: _q, ...rest }) => ({
        ...rest,
        workshopId,
        orderId,
        packRunId: packRun,
        sellableId: sellable,
        what: plan.what,
        at: state.soldAt[sellable] ?? state.lastAt,
        cost: costOf(packRun, rest.sold + rest.given + rest.second),
      })),
    );
  await tx
    .update(packRuns)
    .set({
      gone: sql`(select coalesce(sum(g.out - g.back), 0)::int from sale_goods g where g.workshop_id = ${workshopId} and g.pack_run_id = ${packRuns.id})`,
    })
    .where(mineToo);
}
