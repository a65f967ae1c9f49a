import { isCounted, type Ledger, ledger, STOCKED } from "@hearth/core";
import { group } from "d3-array";
import { and, asc, countDistinct, desc, eq, gt, gte, inArray, isNotNull, lt, lte, max, or, sql, sum } from "drizzle-orm";
import type { AnyPgColumn } from "drizzle-orm/pg-core";
import type { Database, Transaction } from "@/data/client";
import { additives, dyes, embeds, fragrances, instruments, molds, packs, vessels, waxes, wicks } from "@/data/tables/shelf";
import { lots, stockCounts, stockUses } from "@/data/tables/stock";
import { people } from "@/data/tables/workshop";
import { dayStart } from "@/server/http/period";
import { naturalSort } from "@/server/shared/natural-sort";
import { SHELF_TABLES, type StockedTable, type ThingTable } from "./tables";

/** Returns what formulas are made of, all of it. */
export async function readMaterials(db: Database | Transaction, workshopId: string) {
  // One after the other, since a transaction has one connection.
  const w = await db.select().from(waxes).where(eq(waxes.workshopId, workshopId)).orderBy(naturalSort(waxes.name));
  const f = await db.select().from(fragrances).where(eq(fragrances.workshopId, workshopId)).orderBy(naturalSort(fragrances.name));
  const a = await db.select().from(additives).where(eq(additives.workshopId, workshopId)).orderBy(naturalSort(additives.name));
  const d = await db.select().from(dyes).where(eq(dyes.workshopId, workshopId)).orderBy(naturalSort(dyes.name));
  return { waxes: w, fragrances: f, additives: a, dyes: d };
}
export type ShelfMaterials = Awaited<ReturnType<typeof readMaterials>>;

/** Returns all that stands on the shelf. */
export async function readShelf(db: Database, workshopId: string) {
  const [materials, k, v, m, i, p, b, e] = await Promise.all([
    readMaterials(db, workshopId),
    db.select().from(wicks).where(eq(wicks.workshopId, workshopId)).orderBy(naturalSort(wicks.name)),
    db.select().from(vessels).where(eq(vessels.workshopId, workshopId)).orderBy(naturalSort(vessels.name)),
    db.select().from(molds).where(eq(molds.workshopId, workshopId)).orderBy(naturalSort(molds.name)),
    db.select().from(instruments).where(eq(instruments.workshopId, workshopId)).orderBy(naturalSort(instruments.name)),
    db.select().from(people).where(eq(people.workshopId, workshopId)).orderBy(naturalSort(people.name)),
    db.select().from(packs).where(eq(packs.workshopId, workshopId)).orderBy(naturalSort(packs.name)),
    db.select().from(embeds).where(eq(embeds.workshopId, workshopId)).orderBy(naturalSort(embeds.name)),
  ]);
  return { ...materials, wicks: k, vessels: v, molds: m, embeds: e, packs: b, instruments: i, people: p };
}
export type Shelf = Awaited<ReturnType<typeof readShelf>>;

/** Returns when the material `t` was last drawn by a batch, by one look into the index. */
const lastDrawn = (workshopId: string) =>
  sql`lateral (select at from stock_use where workshop_id = ${workshopId} and material_id = t.id order by at desc limit 1)`;

/**
 * As much of the shelf as a page begins with: of each kind what was used lately and then what comes first by name, at most
 * `most`, and what is named in `also`, with the parts of its blends. The rest is read when something is looked for.
 */
export async function readPickList(db: Database, workshopId: string, also: readonly string[], most = 12): Promise<Shelf> {
  const few = async <T extends ThingTable>(table: T): Promise<T["$inferSelect"][]> => {
    const wanted = sql`select t.id from ${table} t left join ${lastDrawn(workshopId)} u on true
      where t.workshop_id = ${workshopId} and not t.archived order by u.at desc nulls last, t.name collate natural_order limit ${most}`;
    const named = also.length > 0 ? inArray(table.id, [...also]) : sql`false`;
    return db
      .select()
      .from(table as ThingTable)
      .where(and(eq(table.workshopId, workshopId), or(sql`${table.id} in (${wanted})`, named)))
      .orderBy(naturalSort(table.name));
  };
  const [w, f, a, d, k, v, m, e, b, i] = await Promise.all([
    few(waxes),
    few(fragrances),
    few(additives),
    few(dyes),
    few(wicks),
    few(vessels),
    few(molds),
    few(embeds),
    few(packs),
    db.select().from(instruments).where(eq(instruments.workshopId, workshopId)).orderBy(naturalSort(instruments.name)),
  ]);
  const parts = w.flatMap((item) => item.blend?.map((part) => part.id) ?? []).filter((id) => !w.some((item) => item.id === id));
  const more = parts.length
    ? await db
        .select()
        .from(waxes)
        .where(and(eq(waxes.workshopId, workshopId), inArray(waxes.id, parts)))
    : [];
  return { waxes: [...w, ...more], fragrances: f, additives: a, dyes: d, wicks: k, vessels: v, molds: m, embeds: e, packs: b, instruments: i, people: [] };
}

/** Returns everything of a shelf of which stock can be. */
export const stockedIn = (shelf: Shelf): string[] =>
  [...shelf.waxes, ...shelf.fragrances, ...shelf.additives, ...shelf.dyes, ...shelf.wicks, ...shelf.vessels, ...shelf.embeds, ...shelf.packs].map(
    (item) => item.id,
  );

/** Returns what a form begins with: a few things of each kind and what is named, with their stock and when each was last drawn. */
export async function pickList(db: Database, workshop: { id: string; timeZone: string }, also: readonly string[], most = 12) {
  const shelf = await readPickList(db, workshop.id, also, most);
  const ids = stockedIn(shelf);
  const [stocks, recentlyUsed] = await Promise.all([readStocks(db, workshop.id, workshop.timeZone, ids), readRecentlyUsed(db, workshop.id, ids)]);
  return { shelf, stocks, recentlyUsed };
}

/** The waxes as bought that a blend can name. */
export const blendParts = (db: Database, workshopId: string) =>
  db
    .select({ id: waxes.id, name: waxes.name, blend: waxes.blend })
    .from(waxes)
    .where(and(eq(waxes.workshopId, workshopId), eq(waxes.archived, false)))
    .orderBy(naturalSort(waxes.name));

/** Returns the names of these waxes and fragrances, by their ids. */
export async function namesOf(db: Database, workshopId: string, ids: readonly string[]): Promise<Record<string, string>> {
  if (ids.length === 0) return {};
  const rows = await Promise.all(
    [waxes, fragrances].map((table) =>
      db
        .select({ id: table.id, name: table.name })
        .from(table as typeof waxes)
        .where(and(eq(table.workshopId, workshopId), inArray(table.id, [...ids]))),
    ),
  );
  return Object.fromEntries(rows.flat().map((row) => [row.id, row.name]));
}

/** Returns when each of these materials was last drawn, by its id, for what is offered first. */
export async function readRecentlyUsed(db: Database, workshopId: string, ids: readonly string[]): Promise<Record<string, string>> {
  if (ids.length === 0) return {};
  const { rows } = await db.execute<{ id: string; at: string }>(
    sql`select t.id::text, u.at from unnest(${`{${ids.join()}}`}::uuid[]) t(id) join ${lastDrawn(workshopId)} u on true`,
  );
  return Object.fromEntries(rows.map((row) => [row.id, new Date(row.at).toISOString()]));
}

/** The stock of one material: what is there, lot by lot; none if nothing of it was ever received or counted. */
export interface Stock {
  onHand: number;
  left: Ledger["left"];
}
export type Stocks = Record<string, Stock>;

/** The newest standing count of each material; of two at the same moment the one whose id was made later. */
const lastCounts = (db: Database, workshopId: string, only?: readonly string[]) =>
  db
    .selectDistinctOn([stockCounts.materialId], { materialId: stockCounts.materialId, at: stockCounts.at, amount: stockCounts.amount })
    .from(stockCounts)
    .where(and(eq(stockCounts.workshopId, workshopId), eq(stockCounts.withdrawn, false), only ? inArray(stockCounts.materialId, [...only]) : undefined))
    .orderBy(stockCounts.materialId, desc(stockCounts.at), desc(stockCounts.id));

/** Returns when a lot came: its moment where that is known, or the beginning of its day in the workshop's own zone. */
export const receivedAt = (lot: { receivedOn: string; receivedAt: string | null }, zone: string): string => lot.receivedAt ?? dayStart(lot.receivedOn, zone);

/** Returns what is there of everything. What was drawn is summed by the database, so that years of batches cost one row each material. */
export async function readStocks(db: Database | Transaction, workshopId: string, zone: string, only?: readonly string[]): Promise<Stocks> {
  if (only?.length === 0) return {};
  const among = (column: AnyPgColumn) => (only ? inArray(column, [...only]) : undefined);
  const newest = lastCounts(db, workshopId).as("newest");
  const [received, counts, drawn] = await Promise.all([
    db
      .select()
      .from(lots)
      .where(and(eq(lots.workshopId, workshopId), eq(lots.withdrawn, false), among(lots.materialId))),
    lastCounts(db, workshopId, only),
    db
      .select({ materialId: stockUses.materialId, amount: sum(stockUses.amount).mapWith(Number), at: max(stockUses.at) })
      .from(stockUses)
      .leftJoin(newest, eq(newest.materialId, stockUses.materialId))
      .where(and(eq(stockUses.workshopId, workshopId), sql`(${newest.at} is null or ${stockUses.at} > ${newest.at})`, among(stockUses.materialId)))
      .groupBy(stockUses.materialId),
  ]);
  const out: Stocks = {};
  const grouped = <T extends { materialId: string }>(rows: T[]) => group(rows, (item) => item.materialId);
  const by = new Map<unknown, Map<string, unknown[]>>([received, counts, drawn].map((rows) => [rows, grouped<{ materialId: string }>(rows)]));
  for (const id of new Set([...received, ...counts].map((item) => item.materialId))) {
    const of = <T extends { materialId: string }>(rows: T[]) => (by.get(rows)?.get(id) ?? []) as T[];
    const book = ledger(
      of(received).map((lot) => ({ ...lot, receivedAt: receivedAt(lot, zone) })),
      of(drawn).map((item) => ({ id: "drawn", at: item.at ?? "", amount: item.amount })),
      of(counts),
    );
    out[id] = { onHand: book.onHand, left: book.left };
  }
  return out;
}

/** Returns what is low: less there than the shelf says there should be. Only what has a mark to be low at is looked at. */
export async function readLow(db: Database, workshopId: string, zone: string) {
  const marked = await Promise.all(
    STOCKED.map(async (kind) => {
      const table: StockedTable = SHELF_TABLES[kind];
      const rows = await db
        .select({ id: table.id, name: table.name, low: table.low })
        .from(table)
        .where(and(eq(table.workshopId, workshopId), eq(table.archived, false), isNotNull(table.low)))
        .orderBy(naturalSort(table.name));
      return rows.map((row) => ({ ...row, kind }));
    }),
  );
  const rows = marked.flat();
  const stocks = await readStocks(
    db,
    workshopId,
    zone,
    rows.map((row) => row.id),
  );
  return rows.flatMap(({ kind, id, name, low }) => {
    const onHand = stocks[id]?.onHand;
    return onHand !== undefined && low !== null && onHand < low ? [{ kind, id, name, onHand, counted: isCounted(kind) }] : [];
  });
}

/** Returns one material's lots and counts, newest first, and how many batches drew on it. */
export async function readStockHistory(db: Database, workshopId: string, materialId: string) {
  const [received, counts, used] = await Promise.all([
    db
      .select()
      .from(lots)
      .where(and(eq(lots.workshopId, workshopId), eq(lots.materialId, materialId)))
      .orderBy(sql`${lots.receivedOn} desc`, sql`${lots.id} desc`),
    db
      .select()
      .from(stockCounts)
      .where(and(eq(stockCounts.workshopId, workshopId), eq(stockCounts.materialId, materialId)))
      .orderBy(sql`${stockCounts.at} desc`),
    db
      .select({ batches: countDistinct(stockUses.batchId), amount: sum(stockUses.amount).mapWith(Number) })
      .from(stockUses)
      .where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.materialId, materialId))),
  ]);
  return { lots: received, counts: counts.map((item) => ({ ...item, at: new Date(item.at).toISOString() })), used: used[0] ?? { batches: 0, amount: 0 } };
}
export type StockHistory = Awaited<ReturnType<typeof readStockHistory>>;

/** Returns what one batch took from which lots, by material. */
export async function readTakenBy(db: Database, workshopId: string, batchId: string, zone: string) {
  const own = await db
    .select()
    .from(stockUses)
    .where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.batchId, batchId)))
    .orderBy(asc(stockUses.at), asc(stockUses.eventId));
  return Promise.all(
    [...group(own, (item) => item.materialId)].map(async ([materialId, uses]) => {
      const [first, last] = [uses[0]?.at ?? "", uses.at(-1)?.at ?? ""];
      const ofIt = and(eq(stockUses.workshopId, workshopId), eq(stockUses.materialId, materialId));
      const [received, counts] = await Promise.all([
        db
          .select()
          .from(lots)
          .where(and(eq(lots.workshopId, workshopId), eq(lots.materialId, materialId), eq(lots.withdrawn, false))),
        db
          .select({ at: stockCounts.at, amount: stockCounts.amount })
          .from(stockCounts)
          .where(
            and(eq(stockCounts.workshopId, workshopId), eq(stockCounts.materialId, materialId), eq(stockCounts.withdrawn, false), lt(stockCounts.at, last)),
          )
          .orderBy(asc(stockCounts.at), asc(stockCounts.id)),
      ]);
      const counted = counts.findLast((item) => Date.parse(item.at) < Date.parse(first));
      const [[earlier], meanwhile] = await Promise.all([
        db
          .select({ amount: sum(stockUses.amount).mapWith(Number) })
          .from(stockUses)
          .where(and(ofIt, lt(stockUses.at, first), counted ? gt(stockUses.at, counted.at) : undefined)),
        db
          .select({ id: stockUses.eventId, at: stockUses.at, amount: stockUses.amount })
          .from(stockUses)
          .where(and(ofIt, gte(stockUses.at, first), lte(stockUses.at, last))),
      ]);
      const book = ledger(
        received.map((lot) => ({ ...lot, receivedAt: receivedAt(lot, zone) })),
        // All that was drawn before stands in for itself as one draw just before the first of these.
        [...(earlier?.amount ? [{ id: "!before", at: first, amount: earlier.amount }] : []), ...meanwhile],
        counts.filter((item) => !counted || Date.parse(item.at) >= Date.parse(counted.at)),
      );
      const codes = new Map(received.map((lot) => [lot.id, lot.code]));
      const taken = uses.flatMap((use) => book.taken.get(use.eventId) ?? []);
      return {
        materialId,
        /** Of what is there; null if nothing of it was ever received. */
        kind: received[0]?.kind ?? null,
        amount: uses.reduce((all, item) => all + item.amount, 0),
        taken: [...group(taken, (item) => item.lotId)].map(([lotId, parts]) => ({
          lotId,
          amount: parts.reduce((all, item) => all + item.amount, 0),
          cost: parts.some((part) => part.cost === null) ? null : parts.reduce((all, item) => all + (item.cost ?? 0), 0),
          code: lotId ? (codes.get(lotId) ?? "") : null,
        })),
      };
    }),
  );
}
export type TakenByBatch = Awaited<ReturnType<typeof readTakenBy>>;
