import { isCounted, type Ledger, ledger, STOCKED } from "@hearth/core";
import { group } from "d3-array";
import { and, asc, count, eq, gt, max, sql, sum } from "drizzle-orm";
import { DateTime } from "luxon";
import type { Database, Transaction } from "@/data/client";
import { additives, dyes, fragrances, instruments, moulds, vessels, waxes, wicks } from "@/data/tables/shelf";
import { lots, stockCounts, stockUses } from "@/data/tables/stock";
import { people } from "@/data/tables/workshop";
import { byKind } from "./by-kind";

/** What formulas are made of. */
export async function readMaterials(db: Database | Transaction, workshopId: string) {
  // One after the other, since a transaction has one connection.
  const w = await db.select().from(waxes).where(eq(waxes.workshopId, workshopId)).orderBy(asc(waxes.name)).limit(2_000);
  const f = await db.select().from(fragrances).where(eq(fragrances.workshopId, workshopId)).orderBy(asc(fragrances.name)).limit(2_000);
  const a = await db.select().from(additives).where(eq(additives.workshopId, workshopId)).orderBy(asc(additives.name)).limit(2_000);
  const d = await db.select().from(dyes).where(eq(dyes.workshopId, workshopId)).orderBy(asc(dyes.name)).limit(2_000);
  return { waxes: w, fragrances: f, additives: a, dyes: d };
}
export type ShelfMaterials = Awaited<ReturnType<typeof readMaterials>>;

/** All that stands on the shelf. */
export async function readShelf(db: Database, workshopId: string) {
  const [materials, k, v, m, i, p] = await Promise.all([
    readMaterials(db, workshopId),
    db.select().from(wicks).where(eq(wicks.workshopId, workshopId)).orderBy(asc(wicks.name)).limit(2_000),
    db.select().from(vessels).where(eq(vessels.workshopId, workshopId)).orderBy(asc(vessels.name)).limit(2_000),
    db.select().from(moulds).where(eq(moulds.workshopId, workshopId)).orderBy(asc(moulds.name)).limit(2_000),
    db.select().from(instruments).where(eq(instruments.workshopId, workshopId)).orderBy(asc(instruments.name)).limit(500),
    db.select().from(people).where(eq(people.workshopId, workshopId)).orderBy(asc(people.name)).limit(500),
  ]);
  return { ...materials, wicks: k, vessels: v, moulds: m, instruments: i, people: p };
}
export type Shelf = Awaited<ReturnType<typeof readShelf>>;

/** The stock of one material: what is there, lot by lot; none where nothing of it was ever received or counted. */
export interface Stock {
  onHand: number;
  left: Ledger["left"];
}
export type Stocks = Record<string, Stock>;

/** The newest standing count of each material. */
const lastCounts = (db: Database, workshopId: string) =>
  db
    .selectDistinctOn([stockCounts.materialId], { materialId: stockCounts.materialId, at: stockCounts.at, amount: stockCounts.amount })
    .from(stockCounts)
    .where(and(eq(stockCounts.workshopId, workshopId), eq(stockCounts.withdrawn, false)))
    .orderBy(stockCounts.materialId, sql`${stockCounts.at} desc`);

/** When a lot came: its moment where that is known, or the beginning of its day in the workshop's own zone. */
const receivedAt = (lot: { receivedOn: string; receivedAt: string | null }, zone: string): string =>
  lot.receivedAt ?? DateTime.fromISO(lot.receivedOn, { zone }).startOf("day").toUTC().toISO() ?? lot.receivedOn;

/** What is there of everything. What was drawn is summed by the database, so that years of batches cost one row each material. */
export async function readStocks(db: Database, workshopId: string, zone: string): Promise<Stocks> {
  const newest = lastCounts(db, workshopId).as("newest");
  const [received, counts, drawn] = await Promise.all([
    db
      .select()
      .from(lots)
      .where(and(eq(lots.workshopId, workshopId), eq(lots.withdrawn, false))),
    lastCounts(db, workshopId),
    db
      .select({ materialId: stockUses.materialId, amount: sum(stockUses.amount).mapWith(Number), at: max(stockUses.at) })
      .from(stockUses)
      .leftJoin(newest, eq(newest.materialId, stockUses.materialId))
      .where(and(eq(stockUses.workshopId, workshopId), sql`(${newest.at} is null or ${stockUses.at} > ${newest.at})`))
      .groupBy(stockUses.materialId),
  ]);
  const out: Stocks = {};
  const grouped = <T extends { materialId: string }>(rows: T[]) => group(rows, (one) => one.materialId);
  const by = new Map<unknown, Map<string, unknown[]>>([received, counts, drawn].map((rows) => [rows, grouped<{ materialId: string }>(rows)]));
  for (const id of new Set([...received, ...counts].map((one) => one.materialId))) {
    const of = <T extends { materialId: string }>(rows: T[]) => (by.get(rows)?.get(id) ?? []) as T[];
    const book = ledger(
      of(received).map((lot) => ({ ...lot, receivedAt: receivedAt(lot, zone) })),
      of(drawn).map((one) => ({ id: "drawn", at: one.at ?? "", amount: one.amount })),
      of(counts),
    );
    out[id] = { onHand: book.onHand, left: book.left };
  }
  return out;
}

/** What is low: less there than the shelf says there should be. */
export async function readLow(db: Database, workshopId: string, zone: string) {
  const [shelf, stocks] = await Promise.all([readShelf(db, workshopId), readStocks(db, workshopId, zone)]);
  const kinds = byKind(shelf);
  return STOCKED.flatMap((kind) =>
    (kinds[kind] as { id: string; name: string; low: number | null }[]).flatMap(({ id, name, low }) => {
      const onHand = stocks[id]?.onHand;
      return onHand !== undefined && low !== null && onHand < low ? [{ kind, id, name, onHand, counted: isCounted(kind) }] : [];
    }),
  );
}

const HISTORY = 40;

/** One material's lots and counts, newest first, and how many batches drew on it. */
export async function readStockHistory(db: Database, workshopId: string, materialId: string) {
  const [received, counts, used] = await Promise.all([
    db
      .select()
      .from(lots)
      .where(and(eq(lots.workshopId, workshopId), eq(lots.materialId, materialId)))
      .orderBy(sql`${lots.receivedOn} desc`, sql`${lots.id} desc`)
      .limit(HISTORY),
    db
      .select()
      .from(stockCounts)
      .where(and(eq(stockCounts.workshopId, workshopId), eq(stockCounts.materialId, materialId)))
      .orderBy(sql`${stockCounts.at} desc`)
      .limit(HISTORY),
    db
      .select({ batches: count(), amount: sum(stockUses.amount).mapWith(Number) })
      .from(stockUses)
      .where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.materialId, materialId))),
  ]);
  return { lots: received, counts: counts.map((one) => ({ ...one, at: new Date(one.at).toISOString() })), used: used[0] ?? { batches: 0, amount: 0 } };
}
export type StockHistory = Awaited<ReturnType<typeof readStockHistory>>;

/** What one batch took from which lots, by material. */
export async function readTakenBy(db: Database, workshopId: string, batchId: string, zone: string) {
  const mine = await db
    .select()
    .from(stockUses)
    .where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.batchId, batchId)));
  const codes = new Map<string, string>();
  const taken = await Promise.all(
    mine.map(async (use) => {
      const [received, before] = await Promise.all([
        db
          .select()
          .from(lots)
          .where(and(eq(lots.workshopId, workshopId), eq(lots.materialId, use.materialId), eq(lots.withdrawn, false))),
        db
          .select({ at: stockCounts.at, amount: stockCounts.amount })
          .from(stockCounts)
          .where(
            and(
              eq(stockCounts.workshopId, workshopId),
              eq(stockCounts.materialId, use.materialId),
              eq(stockCounts.withdrawn, false),
              sql`${stockCounts.at} < ${use.at}`,
            ),
          )
          .orderBy(sql`${stockCounts.at} desc`)
          .limit(1),
      ]);
      for (const lot of received) codes.set(lot.id, lot.code);
      const counted = before[0];
      const [earlier] = await db
        .select({ amount: sum(stockUses.amount).mapWith(Number) })
        .from(stockUses)
        .where(
          and(
            eq(stockUses.workshopId, workshopId),
            eq(stockUses.materialId, use.materialId),
            sql`(${stockUses.at}, ${stockUses.batchId}) < (${use.at}, ${use.batchId})`,
            counted ? gt(stockUses.at, counted.at) : undefined,
          ),
        );
      const draws = [
        // All that was drawn before stands in for itself as one draw just before this one.
        ...(earlier?.amount ? [{ id: "!before", at: use.at, amount: earlier.amount }] : []),
        { id: use.batchId, at: use.at, amount: use.amount },
      ];
      const book = ledger(
        received.map((lot) => ({ ...lot, receivedAt: receivedAt(lot, zone) })),
        draws,
        before,
      );
      return {
        materialId: use.materialId,
        amount: use.amount,
        taken: (book.taken.get(use.batchId) ?? []).map((one) => ({ ...one, code: one.lotId ? (codes.get(one.lotId) ?? "") : null })),
      };
    }),
  );
  return taken;
}
export type TakenByBatch = Awaited<ReturnType<typeof readTakenBy>>;
