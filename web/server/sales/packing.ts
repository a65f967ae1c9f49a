import {
  costOf,
  costOfProduct,
  drawOfPiece,
  isResold,
  type Materials,
  namedIn,
  ok,
  overheadCosts,
  packagingDraw,
  packsOfParts,
  type Result,
  reject,
  resolveCorrections,
  type Sellable,
  takeFirst,
  WeighOutError,
  wouldTake,
} from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { deleteDrawsOfPacks, writeStockUses } from "@/data/stock-uses";
import { packedPieces, packRuns } from "@/data/tables/sales";
import { appendIn, systemEntry } from "@/server/events/append";
import { batchStore } from "@/server/events/batch-store";
import { readBatchEvents } from "@/server/events/read-events";
import type { Actor, Context } from "@/server/http/context";
import { readPickList, readStocks, stockedIn } from "@/server/inventory/shelf";
import { chosenOf } from "@/server/planning/planning";
import { newestSpecs, type Product, takenByProduct } from "@/server/products/products";
import { lockWorkshop } from "@/server/workshops/workshops";
import { type Loose, listSellables, looseLots, piecesIn } from "./finished-goods";

/** What is worked out from for the cost of packs: the products, the newest of each formula, what they name, and the lots that are left. */
interface CostBasis {
  products: readonly Product[];
  specs: Awaited<ReturnType<typeof newestSpecs>>;
  shelf: Awaited<ReturnType<typeof readPickList>>;
  stocks: Awaited<ReturnType<typeof readStocks>>;
  workshop: Context["workshop"];
}

const insideOf = (sellable: Sellable, products: readonly Product[]): Product[] =>
  sellable.contents.flatMap((content) => products.find((product) => product.id === content.productId) ?? []);

/** Returns what one pack costs by the lots that are there now: what is in it, and its packing; null if no lot with a cost covers all of it. */
function costOfPack(sellable: Sellable, { products, specs, shelf, stocks, workshop }: CostBasis): number | null {
  const inside = insideOf(sellable, products);
  if (inside.length !== sellable.contents.length) return null;
  const left = (id: string) => stocks[id]?.left ?? [];
  let cost = 0;
  for (const { id, count } of packagingDraw(sellable.packaging, 1)) {
    const { cost: each, unknown } = costOf(wouldTake(left(id), count));
    if (unknown > 0) return null;
    cost += each;
  }
  for (const product of inside) {
    const spec = specs.get(product.formulaId);
    const container = chosenOf(product, shelf);
    if (!spec || !container) return null;
    try {
      const worked = costOfProduct({ ...product, packCost: null }, drawOfPiece({ spec, vessel: container, sparePpm: 0 }, shelf as Materials), left, workshop);
      if (worked.unpriced.length > 0) return null;
      cost += worked.cost * (sellable.contents.find((content) => content.productId === product.id)?.count ?? 0);
    } catch (error) {
      if (error instanceof WeighOutError) return null;
      throw error;
    }
  }
  const own = sellable.kind === "product" ? inside[0] : undefined;
  return Math.round(
    cost + (own ? overheadCosts({ ...own, pack: 1, handsSeconds: null, heatSeconds: null }, workshop).reduce((sum, costLine) => sum + costLine.cost, 0) : 0),
  );
}

/** What a pack of each costs by the lots of now; null if that is not known. Everything is read once for all of them. */
export type Costs = ReadonlyMap<string, number | null>;
export async function costsNow({ db, workshop }: Pick<Context, "workshop"> & { db: Database | Transaction }, sellableIds: readonly string[]): Promise<Costs> {
  const { sellables, products } = await listSellables(db, workshop.id);
  const asked = sellables.filter((sellable) => sellableIds.includes(sellable.id));
  const inside = asked.flatMap((sellable) => insideOf(sellable, products));
  const specs = await newestSpecs(db, workshop.id, [...new Set(inside.map((product) => product.formulaId))]);
  const named = [
    ...inside.flatMap(takenByProduct),
    ...[...specs.values()].flatMap(namedIn),
    ...asked.flatMap((sellable) => packagingDraw(sellable.packaging, 1).map((draw) => draw.id)),
  ];
  const shelf = await readPickList(db, workshop.id, [...new Set(named)], 0);
  const stocks = await readStocks(db, workshop.id, workshop.timeZone, stockedIn(shelf));
  return new Map(asked.map((sellable) => [sellable.id, costOfPack(sellable, { products, specs, shelf, stocks, workshop })]));
}

export interface PackWanted {
  /** Made where the button was pressed: pressing it twice packs once. */
  packRunId: string;
  sellableId: string;
  packs: number;
  weightsMg: number[];
  /** What is stated on one pack, where it is sold by weight. */
  statedMg: number | null;
}

/** Returns packs within a transaction: pieces leave the rack of their batches, oldest first, and the packing parts are drawn. All or nothing. */
export async function packIn(tx: Transaction, context: Actor, wantedPack: PackWanted, costs: Costs): Promise<Result<{ id: string }>> {
  const workshopId = context.workshop.id;
  // One at a time: what stands loose is read only once nobody else can take it.
  await lockWorkshop(tx, workshopId);
  const [existing] = await tx
    .select({ id: packRuns.id })
    .from(packRuns)
    .where(and(eq(packRuns.workshopId, workshopId), eq(packRuns.id, wantedPack.packRunId)));
  if (existing) return ok({ id: existing.id });
  const { sellables, products } = await listSellables(tx, workshopId);
  const sellable = sellables.find((sellable) => sellable.id === wantedPack.sellableId);
  if (!sellable) return reject("This is no longer for sale. Choose another product or set.", { sellableId: ["Choose another."] });
  const inside = products.filter((product) => sellable.contents.some((each) => each.productId === product.id));
  const loose = await looseLots(tx, workshopId, inside);
  const pieces: { loose: Loose; productId: string; count: number }[] = [];
  for (const content of sellable.contents) {
    const lots = loose.get(content.productId) ?? [];
    const { taken, short } = takeFirst(
      lots.map((lot) => ({ id: `${lot.batchId} ${lot.key}`, left: lot.left })),
      content.count * wantedPack.packs,
    );
    if (short > 0) {
      const why = `${content.count * wantedPack.packs - short} of ${content.count * wantedPack.packs} ${content.name} are released. Pack fewer, or release more.`;
      return reject(why, { packs: [why] });
    }
    for (const each of taken) {
      const lot = lots.find((other) => `${other.batchId} ${other.key}` === each.id);
      if (lot) pieces.push({ loose: lot, productId: content.productId, count: each.count });
    }
  }
  const parts = packagingDraw(sellable.packaging, wantedPack.packs);
  if (isResold(sellable)) {
    const stocks = await readStocks(
      tx,
      workshopId,
      context.workshop.timeZone,
      parts.map((part) => part.id),
    );
    const enough = packsOfParts(sellable.packaging, (id) => stocks[id]?.onHand ?? null);
    if (enough !== null && enough < wantedPack.packs) {
      const why = `${enough} of ${wantedPack.packs} ${sellable.name} are on the shelf. Take fewer, or receive more.`;
      return reject(why, { packs: [why] });
    }
  }
  const oldest = pieces.map((piece) => piece.loose.pouredAt).sort((a, b) => Date.parse(a) - Date.parse(b))[0] ?? context.now;
  await tx.insert(packRuns).values({
    workshopId: workshopId,
    id: wantedPack.packRunId,
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
  // Of each product of a batch once, also where several products of a set are poured alike.
  const sums = new Map<string, { batchId: string; number: number; product: string; productId: string; pieces: number }>();
  for (const { loose: lot, productId, count } of pieces) {
    const key = `${lot.batchId} ${lot.key}`;
    sums.set(key, { batchId: lot.batchId, number: lot.number, product: lot.key, productId, pieces: (sums.get(key)?.pieces ?? 0) + count });
  }
  // The pack run first: an entry that packs jars into one that is not there is refused.
  if (sums.size > 0)
    await tx
      .insert(packedPieces)
      .values([...sums.values()].map(({ number: _number, ...rest }) => ({ ...rest, workshopId: workshopId, packRunId: wantedPack.packRunId })));
  // No batch draws what goods that are resold are made of.
  if (isResold(sellable)) {
    const uses = parts.map(({ id, count }) => ({ eventId: wantedPack.packRunId, materialId: id, at: context.now, amount: count }));
    await writeStockUses(tx, workshopId, null, uses, false);
  }
  for (const [index, sum] of [...sums.values()].entries()) {
    const sent = systemEntry({ now: context.now, personId: context.person?.id ?? null }, "packed", {
      packRun: wantedPack.packRunId,
      of: sellable.name,
      product: sum.product,
      jars: sum.pieces,
      packs: wantedPack.packs,
      // Boxes, lids and labels stand once, with the first of the batches.
      parts: index === 0 ? parts : [],
    });
    const [answer] = await appendIn(batchStore, tx, workshopId, sum.batchId, [{ sent, now: context.now, own: true }]);
    if (answer && !answer.ok) return reject(`Batch ${sum.number}: ${answer.message}`);
  }
  return ok({ id: wantedPack.packRunId });
}

/** Takes packs apart again, where none of them went out: the pieces stand on the rack as before, and the packing parts are back. */
export async function unpackIn(tx: Transaction, context: Actor, packRunId: string): Promise<Result<{ id: string }>> {
  const workshopId = context.workshop.id;
  await lockWorkshop(tx, workshopId);
  const [row] = await tx
    .select()
    .from(packRuns)
    .where(and(eq(packRuns.workshopId, workshopId), eq(packRuns.id, packRunId)))
    .for("no key update");
  if (!row || row.deleted) return reject("These packs no longer exist.");
  if (row.gone > 0) return reject(`${row.gone} of them were shipped. Record their return first.`);
  await tx
    .update(packRuns)
    .set({ deleted: true })
    .where(and(eq(packRuns.workshopId, workshopId), eq(packRuns.id, packRunId)));
  await deleteDrawsOfPacks(tx, workshopId, packRunId);
  for (const batchId of new Set((await piecesIn(tx, workshopId, [packRunId])).map((piece) => piece.batchId))) {
    const packed = resolveCorrections(await readBatchEvents(tx, workshopId, batchId)).flatMap(({ event, supersededBy }) =>
      !supersededBy && event.kind === "packed" && event.payload.packRun === packRunId ? [event] : [],
    );
    for (const { id } of packed) {
      const sent = systemEntry({ now: context.now, personId: context.person?.id ?? null }, "withdrawn", { why: "unpacked", mode: "delete" }, { corrects: id });
      const [answer] = await appendIn(batchStore, tx, workshopId, batchId, [{ sent, now: context.now, own: true }]);
      if (answer && !answer.ok) return reject(answer.message);
    }
  }
  return ok({ id: packRunId });
}
