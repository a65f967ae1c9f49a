import { CHECKED_ORDER, ORDER_FORMAT, type OrderEvent, type OrderFacts, type OrderPlan, orderPlan } from "@hearth/core";
import { and, asc, eq, inArray } from "drizzle-orm";
import { orderEventRow, orderRow, toOrderEvent, writeGoods } from "@/data/order-rows";
import { orderEvents, orders, packings } from "@/data/tables/goods";
import { entriesOf, type Keeper } from "./keeper";
import { readOnce } from "./read-once";
import { lockWorkshop } from "./workshops";

const mine = (workshopId: string, id: string) => and(eq(orders.workshopId, workshopId), eq(orders.id, id));
type Row = typeof orders.$inferSelect;
const OF = { table: orderEvents as never, of: orderEvents.orderId, toEvent: toOrderEvent } as Pick<
  Keeper<OrderFacts, OrderPlan, OrderEvent>,
  "table" | "of" | "toEvent"
>;

const planOf = readOnce((stored) => orderPlan.parse(stored));

/** How orders and market days are kept: with an entry go what is asked, what is out, and what of each packing is left. */
export const ORDERS: Keeper<OrderFacts, OrderPlan, OrderEvent, Row> = {
  ...OF,
  what: "order",
  subject: CHECKED_ORDER,
  ofRow: (row) => (row as unknown as typeof orderEvents.$inferSelect).orderId,
  toRow: orderEventRow as never,
  rows: orders,
  columns: (_row, plan, facts) => orderRow(plan, facts),
  row: async (tx, workshopId, id, lock) => {
    const asked = tx.select().from(orders).where(mine(workshopId, id));
    return (await (lock ? asked.for("no key update") : asked))[0] ?? null;
  },
  kept: async (tx, row) =>
    row.facts.format === ORDER_FORMAT ? { plan: planOf(row.plan), facts: row.facts } : CHECKED_ORDER.of(await entriesOf(OF, tx, row.workshopId, row.id)),
  // Packs go out of pack runs that are there, whatever led to it: an entry, a correction, an undo. What a page shows may be older than what another took.
  outside: async (tx, { workshopId, before, after }) => {
    if (JSON.stringify(before.goods) === JSON.stringify(after.goods)) return null;
    // Whatever moves packs goes one at a time: two that hold some of them, in another order, would wait for each other.
    await lockWorkshop(tx, workshopId);
    const more = after.goods.flatMap((one) => {
      const earlier = before.goods.find((other) => other.packing === one.packing);
      const packs = one.out - one.back - (earlier ? earlier.out - earlier.back : 0);
      return packs > 0 ? [{ ...one, packs }] : [];
    });
    if (more.length === 0) return null;
    const rows = await tx
      .select()
      .from(packings)
      .where(
        and(
          eq(packings.workshopId, workshopId),
          inArray(
            packings.id,
            more.map((one) => one.packing),
          ),
        ),
      )
      .orderBy(asc(packings.id))
      .for("no key update");
    for (const one of more) {
      const run = rows.find((row) => row.id === one.packing && row.sellableId === one.sellable);
      if (run?.undone) return { field: "goods", message: `These ${one.name} were unpacked: they can be out no more. Pack them again first.` };
      const left = run ? run.packs + run.oversold - run.gone : 0;
      if (one.packs > left)
        return {
          field: "goods",
          message: `${left} × ${one.name} ${left === 1 ? "is" : "are"} left of that pack run, and ${one.packs} would go out. Look at the stock again.`,
        };
    }
    return null;
  },
  follow: (tx, { workshopId, id, plan, facts, before }) => writeGoods(tx, workshopId, id, plan, facts, before),
};
