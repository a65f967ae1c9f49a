import {
  addDays,
  type DaySpan,
  dayAt,
  type LineNow,
  linesNow,
  ORDER,
  type OrderEvent,
  type OrderPlan,
  ok,
  orderPlan,
  type Result,
  reject,
  takeFirst,
} from "@hearth/core";
import { group } from "d3-array";
import { and, asc, desc, eq, ilike, lte, max, or, sql } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import { atOneMoment, type Database, type Transaction } from "@/data/client";
import { orderEventRow, orderRow, writeFinishedGoods } from "@/data/order-rows";
import { batches } from "@/data/tables/batch";
import { orderEvents, orderPacks, orders, packedPieces, packRuns } from "@/data/tables/sales";
import { readNewest } from "@/server/events/aggregate-store";
import { appendIn, systemEntry } from "@/server/events/append";
import { orderStore } from "@/server/events/order-store";
import type { Actor } from "@/server/http/context";
import { amongIds } from "@/server/shared/among-ids";
import { containing } from "@/server/shared/natural-sort";
import { type NumberPage, pageByNumber } from "@/server/shared/number-pages";
import { lockWorkshop } from "@/server/workshops/workshops";
import { listSellables, packedNow } from "./finished-goods";
import { type Costs, packIn } from "./packing";

type Row = typeof orders.$inferSelect;

/** An order or market day as a list shows it. */
export interface OrderListed {
  id: string;
  number: number;
  what: OrderPlan["what"];
  name: string;
  whom: string;
  wantedOn: string | null;
  closed: boolean;
  lines: LineNow[];
}
const listed = (row: Row): OrderListed => ({
  id: row.id,
  number: row.number,
  what: row.what,
  name: row.name,
  whom: row.state.whom,
  wantedOn: row.wantedOn,
  closed: row.stage === "closed",
  lines: linesNow(row.state, row.what),
});

/** What orders can be asked for by: words or a number, the day that they are for, and what is in them. */
export interface OrdersAsked extends NumberPage {
  q?: string | undefined;
  /** By the day that it is wanted on; of one without a day, by when it was entered. */
  days?: DaySpan | null;
  product?: string | undefined;
}

const dayOf = (zone: string) => sql`coalesce(${orders.wantedOn}, (${orders.startedAt} at time zone ${zone})::date)`;
/** Returns the number after the last order that is for a day before this one: from there back, the list is of that time. */
export async function orderNumberAt(db: Database, { id, timeZone }: { id: string; timeZone: string }, day: string): Promise<number> {
  const [row] = await db
    .select({ number: max(orders.number) })
    .from(orders)
    .where(and(eq(orders.workshopId, id), sql`${dayOf(timeZone)} < ${day}::date`));
  return (row?.number ?? 0) + 1;
}

/** Returns orders and market days that are open, the one that is wanted first before the others; and a page of those that are closed, newest first. */
export async function listOrders(
  db: Database,
  { id: workshopId, timeZone }: { id: string; timeZone: string },
  asked: OrdersAsked = {},
): Promise<{ open: OrderListed[]; closed: OrderListed[]; older: string | null; newer: string | null }> {
  const { days, product } = asked;
  const like = asked.q ? or(ilike(orders.name, containing(asked.q)), sql`${orders.number}::text = ${asked.q.replace("#", "")}`) : undefined;
  const condition = and(
    eq(orders.workshopId, workshopId),
    like,
    days ? sql`${dayOf(timeZone)} >= ${days.from}::date and ${dayOf(timeZone)} < ${days.until}::date` : undefined,
    product
      ? sql`(exists (select 1 from sale_line l where l.workshop_id = ${workshopId} and l.order_id = ${orders.id} and l.sellable_id = ${product}::uuid)
          or exists (select 1 from sale_goods g where g.workshop_id = ${workshopId} and g.order_id = ${orders.id} and g.sellable_id = ${product}::uuid))`
      : undefined,
  );
  const [open, { rows: closed, ...cursors }] = await Promise.all([
    asked.after === undefined && asked.before === undefined
      ? db
          .select()
          .from(orders)
          .where(and(condition, eq(orders.stage, "open")))
          .orderBy(asc(orders.wantedOn), asc(orders.number))
      : Promise.resolve([]),
    pageByNumber(orders.number, asked, (where, order, most) =>
      db
        .select()
        .from(orders)
        .where(and(condition, eq(orders.stage, "closed"), where))
        .orderBy(order)
        .limit(most),
    ),
  ]);
  return { open: open.map(listed), closed: closed.map(listed), ...cursors };
}

/** An order or market day of the next days. */
export interface OrderSoon {
  id: string;
  name: string;
  wantedOn: string;
}
/** Orders and market days that are this near need attention. */
const SOON_DAYS = 3;
export const isSoon = (workshop: { id: string; timeZone: string }, now: string) =>
  and(eq(orders.workshopId, workshop.id), eq(orders.stage, "open"), lte(orders.wantedOn, addDays(dayAt(now, workshop.timeZone), SOON_DAYS)));
export async function ordersSoon(db: Database, workshop: { id: string; timeZone: string }, now: string): Promise<OrderSoon[]> {
  const rows = await db
    .select({ id: orders.id, name: orders.name, wantedOn: orders.wantedOn })
    .from(orders)
    .where(isSoon(workshop, now))
    .orderBy(asc(orders.wantedOn));
  return rows.flatMap((row) => (row.wantedOn ? [{ ...row, wantedOn: row.wantedOn }] : []));
}

/** One order with its newest entries; null if the workshop has none such. */
export const readOrder = (db: Database, workshopId: string, id: string) =>
  atOneMoment(db, async (tx) => {
    const row = await orderStore.readRow(tx, workshopId, id, false);
    if (!row) return null;
    const { plan, state } = await orderStore.readState(tx, row);
    return { id: row.id, number: row.number, plan, state, ...(await readNewest(orderStore, tx, workshopId, id)) };
  });

export const orderWanted = z.object({ orderId: z.uuid(), plan: orderPlan });

/** Takes an order, or puts a market day into the calendar. */
export async function beginOrderIn(tx: Transaction, context: Actor, wanted: z.output<typeof orderWanted>): Promise<Result<{ id: string; number: number }>> {
  const workshopId = context.workshop.id;
  await lockWorkshop(tx, workshopId);
  const [existing] = await tx
    .select({ id: orders.id, number: orders.number })
    .from(orders)
    .where(and(eq(orders.workshopId, workshopId), eq(orders.id, wanted.orderId)));
  if (existing) return ok(existing);
  const [top] = await tx
    .select({ top: max(orders.number) })
    .from(orders)
    .where(eq(orders.workshopId, workshopId));
  const number = (top?.top ?? 0) + 1;
  const event = {
    ...systemEntry({ now: context.now, personId: context.person?.id ?? null }, "started", { plan: wanted.plan }),
    arrivedAt: context.now,
  } as OrderEvent;
  const { plan, state } = ORDER.of([event]);
  await tx.insert(orders).values({ workshopId, id: wanted.orderId, number, ...orderRow(plan, state) });
  await tx.insert(orderEvents).values(orderEventRow(workshopId, wanted.orderId, event));
  await writeFinishedGoods(tx, workshopId, wanted.orderId, plan, state, null);
  context.notify?.({ order: wanted.orderId, topics: ["sell", "waiting"] });
  return ok({ id: wanted.orderId, number });
}

export const outWanted = z.object({
  /** Made where the button was pressed: pressing it twice takes them out once. */
  eventId: z.uuid(),
  orderId: z.uuid(),
  lines: z
    .array(z.object({ sellableId: z.uuid(), packs: z.number().int().min(1).max(100_000) }))
    .min(1, "Enter quantities.")
    .max(200),
});

/** Takes packs out with an order: of what is packed the oldest first; what is short is packed there and then, where enough stands released. */
export async function takeOutIn(tx: Transaction, context: Actor, wanted: z.output<typeof outWanted>, costs: Costs): Promise<Result<{ packed: number }>> {
  const workshopId = context.workshop.id;
  const row = await orderStore.readRow(tx, workshopId, wanted.orderId, true);
  if (!row) return reject("This order is no longer in this workshop.");
  const [existing] = await tx
    .select({ id: orderEvents.id })
    .from(orderEvents)
    .where(and(eq(orderEvents.workshopId, workshopId), eq(orderEvents.id, wanted.eventId)));
  if (existing) return ok({ packed: 0 });
  const { sellables } = await listSellables(tx, workshopId);
  // One at a time: two orders must not take the same packs.
  await lockWorkshop(tx, workshopId);
  const finishedGoods: Extract<OrderEvent, { kind: "shipped" }>["payload"]["finishedGoods"] = [];
  let packed = 0;
  for (const line of wanted.lines) {
    const sellable = sellables.find((sellable) => sellable.id === line.sellableId);
    if (!sellable) return reject("An item is no longer for sale. Check the order.");
    const price = row.state.lines.find((line) => line.sellable === sellable.id)?.price ?? sellable.price;
    const available = await packedNow(tx, workshopId, [sellable.id]);
    const first = takeFirst(available, line.packs);
    if (first.short > 0) {
      const made = await packIn(tx, context, { packRunId: v7(), sellableId: sellable.id, packs: first.short, weightsMg: [], statedMg: null }, costs);
      if (!made.ok) return reject(`${sellable.name}: ${line.packs - first.short} packed. ${made.message}`, { [sellable.id]: [made.message] });
      packed += first.short;
    }
    const now = first.short > 0 ? await packedNow(tx, workshopId, [sellable.id]) : available;
    for (const { id, count } of takeFirst(now, line.packs).taken) {
      const lot = now.find((item) => item.id === id);
      if (lot) finishedGoods.push({ packRun: id, sellable: sellable.id, name: sellable.name, price, pouredAt: lot.pouredAt, packs: count });
    }
  }
  const sent = systemEntry({ now: context.now, personId: context.person?.id ?? null }, "shipped", { finishedGoods }, { id: wanted.eventId });
  const [answer] = await appendIn(orderStore, tx, workshopId, wanted.orderId, [{ sent, now: context.now }]);
  if (answer && !answer.ok) return reject(answer.message, answer.fields);
  return ok({ packed });
}

/** Where the jars of batches are now, for a recall: in packs that are there, out, sold, given. */
export interface RecallRow {
  batchId: string;
  number: number;
  pieces: number;
  product: string;
  packRunId: string;
  packed: string;
  packs: number;
  /** Packs that are still there. */
  here: number;
  out: {
    orderId: string;
    number: number;
    what: OrderPlan["what"];
    name: string;
    whom: string;
    on: string | null;
    out: number;
    sold: number;
    given: number;
    second: number;
    back: number;
  }[];
}
export async function whereNow(db: Database, workshopId: string, batchIds: readonly string[]): Promise<RecallRow[]> {
  if (batchIds.length === 0) return [];
  const rows = await db
    .select({ piece: packedPieces, packRun: packRuns, number: batches.number })
    .from(packedPieces)
    .innerJoin(packRuns, and(eq(packRuns.workshopId, packedPieces.workshopId), eq(packRuns.id, packedPieces.packRunId)))
    .innerJoin(batches, and(eq(batches.workshopId, packedPieces.workshopId), eq(batches.id, packedPieces.batchId)))
    .where(and(eq(packedPieces.workshopId, workshopId), amongIds(packedPieces.batchId, batchIds), eq(packRuns.deleted, false)))
    .orderBy(asc(batches.number), asc(packRuns.at));
  const ids = [...new Set(rows.map((row) => row.packRun.id))];
  const out =
    ids.length === 0
      ? []
      : await db
          .select({ finishedGoods: orderPacks, order: orders })
          .from(orderPacks)
          .innerJoin(orders, and(eq(orders.workshopId, orderPacks.workshopId), eq(orders.id, orderPacks.orderId)))
          .where(and(eq(orderPacks.workshopId, workshopId), amongIds(orderPacks.packRunId, ids)))
          .orderBy(desc(orders.number));
  const outOf = group(out, (item) => item.finishedGoods.packRunId);
  return rows.map(({ piece, packRun, number }) => ({
    batchId: piece.batchId,
    number,
    pieces: piece.pieces,
    product: piece.product,
    packRunId: packRun.id,
    packed: packRun.name,
    packs: packRun.packs,
    here: packRun.packs - packRun.gone,
    out: (outOf.get(packRun.id) ?? []).map(({ finishedGoods, order }) => ({
      orderId: order.id,
      number: order.number,
      what: order.what,
      name: order.name,
      whom: order.state.whom,
      on: order.wantedOn,
      out: finishedGoods.out,
      sold: finishedGoods.sold,
      given: finishedGoods.given,
      second: finishedGoods.second,
      back: finishedGoods.back,
    })),
  }));
}
