import {
  besideMaterials,
  costOf,
  costOfProduct,
  drawOfPiece,
  type Materials,
  NO_PACKING,
  namedIn,
  type Packing,
  packingDraw,
  type Sellable,
  takeFirst,
  WeighOutError,
  wouldTake,
} from "@hearth/core";
import { and, asc, desc, eq, gt, gte, inArray, sql } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulaVersions } from "@/data/tables/formula";
import { orderLines, packedPieces, packings, sets } from "@/data/tables/goods";
import { wanted } from "@/data/tables/plan";
import { packs } from "@/data/tables/shelf";
import { appendIn, entryBy } from "./append";
import type { Context } from "./context";
import { BATCHES } from "./keep-batch";
import { tellPages } from "./live";
import { naturally } from "./naturally";
import { listProducts, newestSpecs, type Product } from "./products";
import { done, type Outcome, refused } from "./result";
import { chosenOf } from "./season";
import { readFewOf, readStocks, stockedIn } from "./shelf";

const MOST = 2_000;
const iso = (text: string) => new Date(text).toISOString();

/** A product as something to sell: its own pack. */
export const asSellable = (one: Product): Sellable => ({
  id: one.id,
  name: one.name,
  kind: "product",
  contents: [{ productId: one.id, name: one.name, count: one.pack }],
  packing: one.packing ?? NO_PACKING,
  price: one.price,
});

export interface SetRow {
  id: string;
  name: string;
  version: number;
  putAway: boolean;
  contents: { productId: string; count: number }[];
  packing: Packing;
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

/** All that is sold: products in their packs and sets of several, by name; what is put away is left out. */
export async function listSellables(db: Database | Transaction, workshopId: string): Promise<{ sellables: Sellable[]; products: Product[] }> {
  const products = await listProducts(db, workshopId);
  const names = new Map(products.map((one) => [one.id, one.name]));
  const rows = await db
    .select()
    .from(sets)
    .where(and(eq(sets.workshopId, workshopId), eq(sets.putAway, false)))
    .orderBy(naturally(sets.name))
    .limit(MOST);
  const sellables = [
    ...products.filter((one) => !one.putAway).map(asSellable),
    ...rows.map(
      (row): Sellable => ({
        id: row.id,
        name: row.name,
        kind: "set",
        contents: row.contents.map((one) => ({ ...one, name: names.get(one.productId) ?? "something no longer here" })),
        packing: row.packing,
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
}

/**
 * What stands loose of each product, the batch that was poured first before the later: of batches of its formula that are released,
 * poured into its body with its wick.
 */
export async function looseLots(tx: Database | Transaction, workshopId: string, products: readonly Product[]): Promise<Map<string, Loose[]>> {
  const out = new Map<string, Loose[]>(products.map((one) => [one.id, []]));
  if (products.length === 0) return out;
  const rows = await tx
    .select({
      id: batches.id,
      number: batches.number,
      pouredAt: batches.pouredAt,
      startedAt: batches.startedAt,
      loose: batches.looseOf,
      formulaId: formulaVersions.formulaId,
    })
    .from(batches)
    .innerJoin(formulaVersions, and(eq(formulaVersions.workshopId, batches.workshopId), eq(formulaVersions.id, batches.formulaVersionId)))
    .where(
      and(
        eq(batches.workshopId, workshopId),
        gt(batches.loose, 0),
        inArray(
          formulaVersions.formulaId,
          products.map((one) => one.formulaId),
        ),
      ),
    )
    .orderBy(asc(batches.pouredAt), asc(batches.number))
    .limit(MOST);
  for (const row of rows)
    for (const product of products) {
      if (product.formulaId !== row.formulaId) continue;
      // A batch from before wicks were written down says nothing of them.
      for (const { key, bodyId, wickId, left } of row.loose)
        if (bodyId === product.bodyId && (wickId === null || wickId === product.wickId))
          out.get(product.id)?.push({ batchId: row.id, number: row.number, key, left, pouredAt: iso(row.pouredAt ?? row.startedAt) });
    }
  return out;
}

/** Packs that are there, of each thing: lots, the oldest pour first. */
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
    .from(packings)
    .where(
      and(
        eq(packings.workshopId, workshopId),
        sql`${packings.packs} > ${packings.gone} and not ${packings.undone}`,
        sellableIds ? inArray(packings.sellableId, [...sellableIds]) : undefined,
      ),
    )
    .orderBy(asc(packings.pouredAt), asc(packings.at), asc(packings.id))
    .limit(MOST);
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
export async function piecesIn(tx: Database | Transaction, workshopId: string, packingIds: readonly string[]) {
  if (packingIds.length === 0) return [];
  return tx
    .select({
      packingId: packedPieces.packingId,
      batchId: packedPieces.batchId,
      number: batches.number,
      product: packedPieces.product,
      productId: packedPieces.productId,
      pieces: packedPieces.pieces,
    })
    .from(packedPieces)
    .innerJoin(batches, and(eq(batches.workshopId, packedPieces.workshopId), eq(batches.id, packedPieces.batchId)))
    .where(and(eq(packedPieces.workshopId, workshopId), inArray(packedPieces.packingId, [...packingIds])))
    .orderBy(asc(batches.number));
}

/** What is asked for in orders that are open and is not out yet, by thing; of market days those that are still to come. */
async function lackingNow(db: Database, workshopId: string): Promise<Map<string, number>> {
  const rows = await db
    .select({ id: orderLines.sellableId, lacking: sql<number>`sum(${orderLines.lacking})::int` })
    .from(orderLines)
    .where(and(eq(orderLines.workshopId, workshopId), gt(orderLines.lacking, 0)))
    .groupBy(orderLines.sellableId);
  return new Map(rows.map((row) => [row.id, row.lacking]));
}

/** Finished goods: of each thing that is sold, what is packed, what stands loose, what is asked for, and what is on the plan. */
export interface GoodsRow {
  sellable: Sellable;
  packed: number;
  /** Packs that the loose pieces are enough for; the same pieces can be enough for several things. */
  loose: number;
  pieces: number;
  lacking: number;
  planned: number;
  lots: (Packed & { batches: number[] })[];
  test: Product["wickTest"] | null;
}
export async function goodsNow(db: Database, workshopId: string): Promise<GoodsRow[]> {
  const { sellables, products } = await listSellables(db, workshopId);
  const [loose, there, lacking, planned] = await Promise.all([
    looseLots(db, workshopId, products),
    packedNow(db, workshopId),
    lackingNow(db, workshopId),
    db
      .select({ id: wanted.productId, pieces: sql<number>`sum(${wanted.count} - ${wanted.made})::int` })
      .from(wanted)
      .where(and(eq(wanted.workshopId, workshopId), eq(wanted.gone, false), gt(wanted.count, wanted.made)))
      .groupBy(wanted.productId),
  ]);
  const pieces = await piecesIn(
    db,
    workshopId,
    there.map((one) => one.id),
  );
  const onPlan = new Map(planned.map((row) => [row.id, row.pieces]));
  const looseBy = new Map([...loose].map(([id, lots]) => [id, lots.reduce((sum, one) => sum + one.left, 0)]));
  const least = (of: Sellable, by: ReadonlyMap<string, number>) =>
    Math.min(...of.contents.map((one) => Math.floor((by.get(one.productId) ?? 0) / Math.max(1, one.count))));
  return sellables.map((sellable) => {
    const lots = there.filter((one) => one.sellableId === sellable.id);
    return {
      sellable,
      packed: lots.reduce((sum, one) => sum + one.left, 0),
      loose: least(sellable, looseBy),
      pieces: looseBy.get(sellable.id) ?? 0,
      lacking: lacking.get(sellable.id) ?? 0,
      planned: least(sellable, onPlan),
      lots: lots.map((one) => ({ ...one, batches: [...new Set(pieces.filter((each) => each.packingId === one.id).map((each) => each.number))] })),
      test: sellable.kind === "product" ? (products.find((one) => one.id === sellable.id)?.wickTest ?? null) : null,
    };
  });
}

/** What one pack costs by the lots that are there now: what is in it, and its packing; null where no lot with a cost covers all of it. */
async function costOfPack(
  db: Database,
  workshop: { id: string; timeZone: string; handsCost: number | null; heatCost: number | null },
  sellable: Sellable,
  products: readonly Product[],
): Promise<number | null> {
  const inside = sellable.contents.flatMap((one) => products.find((product) => product.id === one.productId) ?? []);
  if (inside.length !== sellable.contents.length) return null;
  const specs = await newestSpecs(
    db,
    workshop.id,
    inside.map((one) => one.formulaId),
  );
  const draws = packingDraw(sellable.packing, 1);
  const named = inside.flatMap((one) => [one.bodyId, ...(one.wickId ? [one.wickId] : [])]);
  const shelf = await readFewOf(db, workshop.id, [...named, ...[...specs.values()].flatMap(namedIn), ...draws.map((one) => one.id)], 0);
  const stocks = await readStocks(db, workshop.id, workshop.timeZone, stockedIn(shelf));
  const left = (id: string) => stocks[id]?.left ?? [];
  let cost = 0;
  for (const { id, count } of draws) {
    const { cost: each, unknown } = costOf(wouldTake(left(id), count));
    if (unknown > 0) return null;
    cost += each;
  }
  for (const product of inside) {
    const spec = specs.get(product.formulaId);
    const body = chosenOf(product, shelf);
    if (!spec || !body) return null;
    try {
      const worked = costOfProduct({ ...product, packCost: null }, drawOfPiece({ spec, vessel: body, sparePpm: 0 }, shelf as Materials), left, workshop);
      if (worked.unpriced.length > 0) return null;
      cost += worked.cost * (sellable.contents.find((one) => one.productId === product.id)?.count ?? 0);
    } catch (error) {
      if (error instanceof WeighOutError) return null;
      throw error;
    }
  }
  const own = sellable.kind === "product" ? inside[0] : undefined;
  return Math.round(
    cost + (own ? besideMaterials({ ...own, pack: 1, handsSeconds: null, heatSeconds: null }, workshop).reduce((sum, one) => sum + one.cost, 0) : 0),
  );
}

/** What a pack of each costs by the lots of now; null where that is not known. Read before a transaction, which has one connection. */
export type Costs = ReadonlyMap<string, number | null>;
export async function costsNow({ db, workshop }: Pick<Context, "db" | "workshop">, sellableIds: readonly string[]): Promise<Costs> {
  const { sellables, products } = await listSellables(db, workshop.id);
  const out = new Map<string, number | null>();
  for (const one of sellables) if (sellableIds.includes(one.id)) out.set(one.id, await costOfPack(db, workshop, one, products));
  return out;
}

export interface PackWanted {
  /** Made where the button was pressed: pressing it twice packs once. */
  packingId: string;
  sellableId: string;
  packs: number;
  weightsMg: number[];
  /** What is stated on one pack, where it is sold by weight. */
  statedMg: number | null;
}

/** Packs within a transaction: pieces leave the rack of their batches, oldest first, and the packing parts are drawn. All or nothing. */
export async function packIn(tx: Transaction, context: Context, wantedPack: PackWanted, costs: Costs): Promise<Outcome<{ id: string }>> {
  const mine = context.workshop.id;
  const [again] = await tx
    .select({ id: packings.id })
    .from(packings)
    .where(and(eq(packings.workshopId, mine), eq(packings.id, wantedPack.packingId)));
  if (again) return done({ id: again.id });
  const { sellables, products } = await listSellables(tx, mine);
  const sellable = sellables.find((one) => one.id === wantedPack.sellableId);
  if (!sellable) return refused("This is not sold any more. Choose another product or set.", { sellableId: ["Choose another."] });
  const inside = products.filter((one) => sellable.contents.some((each) => each.productId === one.id));
  const loose = await looseLots(tx, mine, inside);
  const pieces: { loose: Loose; productId: string; count: number }[] = [];
  for (const one of sellable.contents) {
    const lots = loose.get(one.productId) ?? [];
    const { taken, short } = takeFirst(
      lots.map((lot) => ({ id: `${lot.batchId} ${lot.key}`, left: lot.left })),
      one.count * wantedPack.packs,
    );
    if (short > 0) {
      const why = `${one.count * wantedPack.packs - short} of ${one.count * wantedPack.packs} ${one.name} are there and released. Pack fewer, or release more.`;
      return refused(why, { packs: [why] });
    }
    for (const each of taken) {
      const lot = lots.find((other) => `${other.batchId} ${other.key}` === each.id);
      if (lot) pieces.push({ loose: lot, productId: one.productId, count: each.count });
    }
  }
  const parts = packingDraw(sellable.packing, wantedPack.packs);
  for (const [at, one] of pieces.entries()) {
    const sent = entryBy({ now: context.now, personId: context.person?.id ?? null }, "packed", {
      packing: wantedPack.packingId,
      of: sellable.name,
      product: one.loose.key,
      jars: one.count,
      packs: wantedPack.packs,
      // Boxes, lids and labels stand once, with the first of the batches.
      parts: at === 0 ? parts : [],
    });
    const [answer] = await appendIn(BATCHES, tx, mine, one.loose.batchId, [{ sent, now: context.now }]);
    if (answer && !answer.ok) return refused(`Batch ${one.loose.number}: ${answer.message}`);
  }
  const oldest = pieces.map((one) => one.loose.pouredAt).sort((a, b) => Date.parse(a) - Date.parse(b))[0] ?? context.now;
  await tx.insert(packings).values({
    workshopId: mine,
    id: wantedPack.packingId,
    sellableId: sellable.id,
    name: sellable.name,
    packs: wantedPack.packs,
    at: context.now,
    pouredAt: oldest,
    costEach: costs.get(sellable.id) ?? null,
    weightsMg: wantedPack.weightsMg,
    statedMg: wantedPack.statedMg,
    personId: context.person?.id ?? null,
  });
  const sums = new Map<string, { batchId: string; product: string; productId: string; pieces: number }>();
  for (const one of pieces) {
    const key = `${one.loose.batchId} ${one.loose.key}`;
    const there = sums.get(key);
    sums.set(key, { batchId: one.loose.batchId, product: one.loose.key, productId: one.productId, pieces: (there?.pieces ?? 0) + one.count });
  }
  await tx.insert(packedPieces).values([...sums.values()].map((one) => ({ ...one, workshopId: mine, packingId: wantedPack.packingId })));
  await tellPages(tx, { workshop: mine });
  return done({ id: wantedPack.packingId });
}

/** Takes packs apart again, where none of them went out: the pieces stand on the rack as before, and the packing parts are back. */
export async function unpackIn(tx: Transaction, context: Context, packingId: string): Promise<Outcome<{ id: string }>> {
  const mine = context.workshop.id;
  const [row] = await tx
    .select()
    .from(packings)
    .where(and(eq(packings.workshopId, mine), eq(packings.id, packingId)))
    .for("update");
  if (!row || row.undone) return refused("These packs are not here any more.");
  if (row.gone > 0) return refused(`${row.gone} of them went out. Count them back first.`);
  for (const batchId of new Set((await piecesIn(tx, mine, [packingId])).map((one) => one.batchId))) {
    const { rows } = await tx.execute<{ id: string }>(sql`
      select e.id::text from batch_event e where e.workshop_id = ${mine} and e.batch_id = ${batchId} and e.kind = 'packed'
        and e.payload->>'packing' = ${packingId} and not exists
        (select 1 from batch_event c where c.workshop_id = e.workshop_id and c.corrects = e.id)`);
    for (const { id } of rows) {
      const sent = entryBy({ now: context.now, personId: context.person?.id ?? null }, "withdrawn", { why: "unpacked", whole: true }, { corrects: id });
      const [answer] = await appendIn(BATCHES, tx, mine, batchId, [{ sent, now: context.now }]);
      if (answer && !answer.ok) return refused(answer.message);
    }
  }
  await tx
    .update(packings)
    .set({ undone: true })
    .where(and(eq(packings.workshopId, mine), eq(packings.id, packingId)));
  await tellPages(tx, { workshop: mine });
  return done({ id: packingId });
}

/** Packs made lately, newest first, with the batches in them. */
export async function latelyPacked(db: Database, workshopId: string, since: string, most = 20) {
  const rows = await db
    .select()
    .from(packings)
    .where(and(eq(packings.workshopId, workshopId), eq(packings.undone, false), gte(packings.at, since)))
    .orderBy(desc(packings.at))
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
      .filter((one) => one.packingId === row.id)
      .map(({ batchId, number, product, productId, pieces: many }) => ({ batchId, number, product, productId, pieces: many })),
  }));
}
export type LatelyPacked = Awaited<ReturnType<typeof latelyPacked>>[number];

/** All packing parts of the shelf. */
export const listPacks = (db: Database, workshopId: string) =>
  db.select().from(packs).where(eq(packs.workshopId, workshopId)).orderBy(naturally(packs.name)).limit(MOST);

/** The bodies of products as they are packed, and what they state. */
export async function insidesOf(db: Database, workshopId: string, products: readonly Product[]) {
  const shelf = await readFewOf(
    db,
    workshopId,
    products.map((one) => one.bodyId),
    0,
  );
  return products.flatMap((product) => {
    const vessel = shelf.vessels.find((one) => one.id === product.bodyId);
    const mould = shelf.moulds.find((one) => one.id === product.bodyId);
    const body = vessel ?? (mould ? { ...mould, body: "mould" as const } : null);
    if (!body) return [];
    const { name, innerTopUm, innerBottomUm, heightUm } = body;
    return [
      {
        productId: product.id,
        statedMg: vessel?.statedFillMg ?? mould?.fillMg ?? 0,
        soldByWeight: product.soldBy === "weight",
        body: {
          body: vessel ? ("vessel" as const) : ("mould" as const),
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

/** One packing; null where the workshop has none such. */
export async function packingAt(db: Database, workshopId: string, id: string) {
  const [row] = await db
    .select()
    .from(packings)
    .where(and(eq(packings.workshopId, workshopId), eq(packings.id, id)));
  return row ?? null;
}
