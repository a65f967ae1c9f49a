import { isResold, NO_PACKAGING, type Packaging, packagingDraw, packsFrom, packsOfParts, type Sellable } from "@hearth/core";
import { and, arrayOverlaps, asc, desc, eq, gt, gte, inArray, isNull, ne, or, sql } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulaVersions } from "@/data/tables/formula";
import { demandLines } from "@/data/tables/plan";
import { orderLines, orders, packedPieces, packRuns, sets } from "@/data/tables/sales";
import { packs } from "@/data/tables/shelf";
import { readPickList, readStocks } from "@/server/inventory/shelf";
import { listProducts, type Product } from "@/server/products/products";
import { naturalSort } from "@/server/shared/natural-sort";

const iso = (text: string) => new Date(text).toISOString();

/** Returns a product as something to sell: its own pack. */
export const asSellable = (product: Product): Sellable => ({
  id: product.id,
  name: product.name,
  kind: "product",
  contents: [{ productId: product.id, name: product.name, count: product.pack }],
  packaging: product.packaging ?? NO_PACKAGING,
  price: product.price,
});

export interface SetRow {
  id: string;
  name: string;
  version: number;
  archived: boolean;
  contents: { productId: string; count: number }[];
  packaging: Packaging;
  price: number | null;
  remarks: string;
}

export async function readSet(db: Database | Transaction, workshopId: string, id: string): Promise<SetRow | null> {
  const [row] = await db
    .select()
    .from(sets)
    .where(and(eq(sets.workshopId, workshopId), eq(sets.id, id)));
  return row ?? null;
}

/** Returns all that is sold: products in their packs and sets of several, by name; what is put away is left out. */
export async function listSellables(db: Database | Transaction, workshopId: string): Promise<{ sellables: Sellable[]; products: Product[] }> {
  const products = await listProducts(db, workshopId);
  const names = new Map(products.map((product) => [product.id, product.name]));
  const rows = await db
    .select()
    .from(sets)
    .where(and(eq(sets.workshopId, workshopId), eq(sets.archived, false)))
    .orderBy(naturalSort(sets.name));
  const sellables = [
    ...products.filter((product) => !product.archived).map(asSellable),
    ...rows.map(
      (row): Sellable => ({
        id: row.id,
        name: row.name,
        kind: "set",
        contents: row.contents.map((content) => ({ ...content, name: names.get(content.productId) ?? "something no longer here" })),
        packaging: row.packaging,
        price: row.price,
      }),
    ),
  ];
  return { sellables, products };
}

/** Pieces of a batch that may be packed as a product. */
export interface Loose {
  batchId: string;
  number: number;
  /** Its key within the batch. */
  key: string;
  left: number;
  pouredAt: string;
  /** Why it was released though no burn test of it was recorded; empty if there was one. */
  untested: string;
}

/**
 * Returns what stands loose of each product, the batch that was poured first before the later: of batches of its formula that are released,
 * poured into its container with its wick.
 */
export async function looseLots(tx: Database | Transaction, workshopId: string, products: readonly Product[]): Promise<Map<string, Loose[]>> {
  const out = new Map<string, Loose[]>(products.map((product) => [product.id, []]));
  if (products.length === 0) return out;
  const rows = await tx
    .select({
      id: batches.id,
      number: batches.number,
      pouredAt: batches.pouredAt,
      startedAt: batches.startedAt,
      loose: batches.looseOf,
      untested: sql<string>`coalesce(${batches.state} -> 'released' ->> 'note', '')`,
      formulaId: formulaVersions.formulaId,
    })
    .from(batches)
    .innerJoin(formulaVersions, and(eq(formulaVersions.workshopId, batches.workshopId), eq(formulaVersions.id, batches.formulaVersionId)))
    .where(
      and(
        eq(batches.workshopId, workshopId),
        gt(batches.loose, 0),
        or(
          inArray(
            formulaVersions.formulaId,
            products.map((product) => product.formulaId),
          ),
          arrayOverlaps(
            batches.formulaIds,
            products.map((product) => product.formulaId),
          ),
        ),
      ),
    )
    .orderBy(asc(batches.pouredAt), asc(batches.number));
  for (const row of rows)
    for (const product of products) {
      // A batch from before wicks were written down says nothing of them.
      for (const { key, containerId, wickId, left, formulaId = row.formulaId } of row.loose)
        if (formulaId === product.formulaId && containerId === product.containerId && (wickId === null || wickId === product.wickId))
          out.get(product.id)?.push({ batchId: row.id, number: row.number, key, left, pouredAt: iso(row.pouredAt ?? row.startedAt), untested: row.untested });
    }
  return out;
}

/** Packs in stock, by product or set: lots, the oldest pour first. */
export interface Packed {
  id: string;
  sellableId: string;
  name: string;
  left: number;
  packs: number;
  at: string;
  pouredAt: string;
}
export async function packedNow(tx: Database | Transaction, workshopId: string, sellableIds?: readonly string[]): Promise<Packed[]> {
  const rows = await tx
    .select()
    .from(packRuns)
    .where(
      and(
        eq(packRuns.workshopId, workshopId),
        sql`${packRuns.packs} > ${packRuns.gone} and not ${packRuns.deleted}`,
        sellableIds ? inArray(packRuns.sellableId, [...sellableIds]) : undefined,
      ),
    )
    .orderBy(asc(packRuns.pouredAt), asc(packRuns.at), asc(packRuns.id));
  return rows.map((row) => ({
    id: row.id,
    sellableId: row.sellableId,
    name: row.name,
    left: row.packs - row.gone,
    packs: row.packs,
    at: iso(row.at),
    pouredAt: iso(row.pouredAt),
  }));
}

/** The batches whose pieces are in these packings. */
export async function piecesIn(tx: Database | Transaction, workshopId: string, packRunIds: readonly string[]) {
  if (packRunIds.length === 0) return [];
  return tx
    .select({
      packRunId: packedPieces.packRunId,
      batchId: packedPieces.batchId,
      number: batches.number,
      product: packedPieces.product,
      productId: packedPieces.productId,
      pieces: packedPieces.pieces,
    })
    .from(packedPieces)
    .innerJoin(batches, and(eq(batches.workshopId, packedPieces.workshopId), eq(batches.id, packedPieces.batchId)))
    .where(and(eq(packedPieces.workshopId, workshopId), inArray(packedPieces.packRunId, [...packRunIds])))
    .orderBy(asc(batches.number));
}

/** Returns what is asked for in orders that are open and is not out yet, by thing; of market days those that are still to come. */
async function readShortages(db: Database, workshopId: string, today: string): Promise<Map<string, number>> {
  const rows = await db
    .select({ id: orderLines.sellableId, shortage: sql<number>`sum(${orderLines.shortage})::int` })
    .from(orderLines)
    .innerJoin(orders, and(eq(orders.workshopId, orderLines.workshopId), eq(orders.id, orderLines.orderId)))
    .where(
      and(
        eq(orderLines.workshopId, workshopId),
        gt(orderLines.shortage, 0),
        or(ne(orders.what, "market"), isNull(orders.wantedOn), gte(orders.wantedOn, today)),
      ),
    )
    .groupBy(orderLines.sellableId);
  return new Map(rows.map((row) => [row.id, row.shortage]));
}

/** Returns pieces of each product that are on the plan for an order and not poured yet. */
export async function plannedFor(db: Database, workshopId: string, orderId: string): Promise<Record<string, number>> {
  const rows = await db
    .select({ id: demandLines.productId, pieces: sql<number>`${demandLines.count} - ${demandLines.made}`.mapWith(Number) })
    .from(demandLines)
    .where(
      and(eq(demandLines.workshopId, workshopId), eq(demandLines.orderId, orderId), eq(demandLines.deleted, false), gt(demandLines.count, demandLines.made)),
    );
  return Object.fromEntries(rows.map((row) => [row.id, row.pieces]));
}

/** Finished goods: of each thing that is sold, what is packed, what stands loose, what is asked for, and what is on the plan. */
export interface FinishedGoodsRow {
  sellable: Sellable;
  packed: number;
  /** Packs that the loose pieces are enough for; the same pieces can be enough for several things. */
  loose: number;
  pieces: number;
  shortage: number;
  planned: number;
  lots: (Packed & { batches: number[] })[];
  test: Product["wickTest"] | null;
  /** Batches of it that were released though no burn test of them was recorded, and why. */
  untested: { number: number; why: string }[];
}
/** `today`: the workshop's day, by which a market day is over; `zone`: its time zone. */
export async function readFinishedGoods(db: Database, workshopId: string, today: string, zone: string): Promise<FinishedGoodsRow[]> {
  const { sellables, products } = await listSellables(db, workshopId);
  const [loose, available, shortage, planned] = await Promise.all([
    looseLots(db, workshopId, products),
    packedNow(db, workshopId),
    readShortages(db, workshopId, today),
    db
      .select({ id: demandLines.productId, pieces: sql<number>`sum(${demandLines.count} - ${demandLines.made})::int` })
      .from(demandLines)
      .where(and(eq(demandLines.workshopId, workshopId), eq(demandLines.deleted, false), gt(demandLines.count, demandLines.made)))
      .groupBy(demandLines.productId),
  ]);
  const pieces = await piecesIn(
    db,
    workshopId,
    available.map((item) => item.id),
  );
  const onPlan = new Map(planned.map((row) => [row.id, row.pieces]));
  const looseBy = new Map([...loose].map(([id, lots]) => [id, lots.reduce((sum, item) => sum + item.left, 0)]));
  const stocks = await readStocks(
    db,
    workshopId,
    zone,
    sellables.filter(isResold).flatMap((sellable) => packagingDraw(sellable.packaging, 1).map((part) => part.id)),
  );
  const onShelf = (sellable: Sellable) => packsOfParts(sellable.packaging, (id) => stocks[id]?.onHand ?? null) ?? 0;
  return sellables.map((sellable) => {
    const lots = available.filter((item) => item.sellableId === sellable.id);
    return {
      sellable,
      packed: lots.reduce((sum, item) => sum + item.left, 0),
      loose: isResold(sellable) ? onShelf(sellable) : packsFrom(sellable.contents, looseBy),
      pieces: looseBy.get(sellable.id) ?? 0,
      shortage: shortage.get(sellable.id) ?? 0,
      planned: packsFrom(sellable.contents, onPlan),
      lots: lots.map((lot) => ({ ...lot, batches: [...new Set(pieces.filter((each) => each.packRunId === lot.id).map((each) => each.number))] })),
      untested: sellable.contents
        .flatMap((content) => loose.get(content.productId) ?? [])
        .filter((item, index, all) => item.untested !== "" && all.findIndex((other) => other.batchId === item.batchId) === index)
        .map((item) => ({ number: item.number, why: item.untested })),
      test: sellable.kind === "product" ? (products.find((product) => product.id === sellable.id)?.wickTest ?? null) : null,
    };
  });
}

/** Returns packs made lately, newest first, with the batches in them. */
export async function recentlyPacked(db: Database, workshopId: string, since: string, most = 20) {
  const rows = await db
    .select()
    .from(packRuns)
    .where(and(eq(packRuns.workshopId, workshopId), eq(packRuns.deleted, false), gte(packRuns.at, since)))
    .orderBy(desc(packRuns.at))
    .limit(most);
  const pieces = await piecesIn(
    db,
    workshopId,
    rows.map((row) => row.id),
  );
  return rows.map((row) => ({
    id: row.id,
    sellableId: row.sellableId,
    name: row.name,
    packs: row.packs,
    gone: row.gone,
    at: iso(row.at),
    weightsMg: row.weightsMg,
    statedMg: row.statedMg,
    batches: pieces
      .filter((piece) => piece.packRunId === row.id)
      .map(({ batchId, number, product, productId, pieces: many }) => ({ batchId, number, product, productId, pieces: many })),
  }));
}
export type RecentlyPacked = Awaited<ReturnType<typeof recentlyPacked>>[number];

/** Returns all packing parts of the shelf. */
export const listPacks = (db: Database, workshopId: string) => db.select().from(packs).where(eq(packs.workshopId, workshopId)).orderBy(naturalSort(packs.name));

/** Returns the container of each product and the weight that it states. */
export async function insidesOf(db: Database, workshopId: string, products: readonly Product[]) {
  const shelf = await readPickList(
    db,
    workshopId,
    products.map((product) => product.containerId),
    0,
  );
  return products.flatMap((product) => {
    const vessel = shelf.vessels.find((vessel) => vessel.id === product.containerId);
    const mold = shelf.molds.find((mold) => mold.id === product.containerId);
    const container = vessel ?? (mold ? { ...mold, container: "mold" as const } : null);
    if (!container) return [];
    const { name, innerTopUm, innerBottomUm, heightUm } = container;
    return [
      {
        productId: product.id,
        statedMg: vessel?.statedFillMg ?? mold?.fillMg ?? 0,
        soldByWeight: product.soldBy === "weight",
        container: {
          container: vessel ? ("vessel" as const) : ("mold" as const),
          name,
          innerTopUm,
          innerBottomUm,
          heightUm,
          outerUm: vessel?.outerUm ?? null,
          outerHeightUm: vessel?.outerHeightUm ?? null,
        },
      },
    ];
  });
}

/** One packing; null if the workshop has none such. */
export async function packRunAt(db: Database, workshopId: string, id: string) {
  const [row] = await db
    .select()
    .from(packRuns)
    .where(and(eq(packRuns.workshopId, workshopId), eq(packRuns.id, id)));
  return row ?? null;
}
