import { CHECKED_ORDER, ORDER_STATE_VERSION, type OrderEvent, type OrderPlan, type OrderState, orderPlan } from "@hearth/core";
import { and, asc, eq, inArray } from "drizzle-orm";
import { orderEventRow, orderRow, toOrderEvent, writeFinishedGoods } from "@/data/order-rows";
import { orderEvents, orders, packRuns } from "@/data/tables/sales";
import { lockWorkshop } from "@/server/workshops/workshops";
import { type AggregateStore, readEvents } from "./aggregate-store";

const condition = (workshopId: string, id: string) => and(eq(orders.workshopId, workshopId), eq(orders.id, id));
type Row = typeof orders.$inferSelect;
const EVENTS = { eventTable: orderEvents, aggregateId: orderEvents.orderId, toEvent: toOrderEvent };

/** How orders and market days are kept: with an entry go what is asked, what is out, and what of each packing is left. */
export const orderStore: AggregateStore<OrderState, OrderPlan, OrderEvent, Row> = {
  ...EVENTS,
  what: "order",
  subject: CHECKED_ORDER,
  toRow: orderEventRow,
  aggregateTable: orders,
  columns: (_row, plan, state) => orderRow(plan, state),
  readRow: async (tx, workshopId, id, lock) => {
    const asked = tx.select().from(orders).where(condition(workshopId, id));
    return (await (lock ? asked.for("no key update") : asked))[0] ?? null;
  },
  readState: async (tx, row) =>
    row.state.format === ORDER_STATE_VERSION
      ? { plan: orderPlan.parse(row.plan), state: row.state }
      : CHECKED_ORDER.of(await readEvents(EVENTS, tx, row.workshopId, row.id)),
  // Packs go out of pack runs that are there, whatever led to it: an entry, a correction, an undo. What a page shows may be older than what another took.
  checkOutside: async (tx, { workshopId, before, after }) => {
    if (JSON.stringify(before.finishedGoods) === JSON.stringify(after.finishedGoods)) return null;
    // Whatever moves packs goes one at a time: two that hold some of them, in another order, would wait for each other.
    await lockWorkshop(tx, workshopId);
    const more = after.finishedGoods.flatMap((stocked) => {
      const earlier = before.finishedGoods.find((other) => other.packRun === stocked.packRun);
      const packs = stocked.out - stocked.back - (earlier ? earlier.out - earlier.back : 0);
      return packs > 0 ? [{ ...stocked, packs }] : [];
    });
    if (more.length === 0) return null;
    const rows = await tx
      .select()
      .from(packRuns)
      .where(
        and(
          eq(packRuns.workshopId, workshopId),
          inArray(
            packRuns.id,
            more.map((item) => item.packRun),
          ),
        ),
      )
      .orderBy(asc(packRuns.id))
      .for("no key update");
    for (const item of more) {
      const run = rows.find((row) => row.id === item.packRun && row.sellableId === item.sellable);
      if (run?.deleted) return { field: "finishedGoods", message: `These ${item.name} were unpacked: they cannot be shipped. Pack again first.` };
      const left = run ? run.packs + run.oversold - run.gone : 0;
      if (item.packs > left)
        return {
          field: "finishedGoods",
          message: `${left} × ${item.name} ${left === 1 ? "is" : "are"} left of these packs, and ${item.packs} would be shipped. Check the stock.`,
        };
    }
    return null;
  },
  writeDerived: (tx, { workshopId, id, plan, state, before }) => writeFinishedGoods(tx, workshopId, id, plan, state, before),
};
