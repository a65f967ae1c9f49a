import { CHECKED_ORDER, ORDER, type OrderEvent, type OrderPlan, packagingDraw, randomFrom, takeFirst } from "@hearth/core";
import { eq } from "drizzle-orm";
import type { Database } from "../../web/data/client";
import { orderEventRow, orderRow, writeFinishedGoods } from "../../web/data/order-rows";
import { orderEvents, orders, packedPieces, packRuns } from "../../web/data/tables/sales";
import { workshops } from "../../web/data/tables/workshop";
import { costsNow } from "../../web/server/sales/packing";
import { inParts } from "../in-parts";
import { refusalIn } from "../refusal";
import { type DemoBatch, type DemoProduct, demoId, type JarsGone } from "../workshop";
import { shareOfToday } from "./prices";
import type { YearsScenario } from "./scenario";

const DAY = 86_400_000;
const HOUR = 3_600_000;

/** The demo's own orders begin here; what is older is of these years. */
const UNTIL_DAYS = 40;
/** What is not packed by then is sold at the door as it stands. */
const DOOR_AFTER_DAYS = 45;
/** A market every two weeks, and an order in most weeks. */
const MARKETS = ["Fernlow market", "Quillfen fair", "Harbor market", "Town market", "Market at the mill"];
const BUYERS = ["Ilvermoor guest house", "Shop on the quay", "The glass pantry", "Fernlow bookshop", "A wedding table", "Reedham tea room"];
/** Prices and costs rose by this much a year. */
const YEARLY_RISE = 0.03;

interface PackRun {
  id: string;
  product: DemoProduct;
  packs: number;
  left: number;
  at: number;
  pouredAt: number;
}
interface LooseLot {
  batch: DemoBatch;
  containerId: string;
  pouredAt: number;
  releasedAt: number;
  left: number;
  /** Jars with a flaw, which go as seconds. */
  flawed: number;
}
/** What was packed and sold over the years. */
export interface YearsSales {
  packRuns: PackRun[];
  pieces: { packRunId: string; batchId: string; product: string; productId: string; pieces: number }[];
  orders: { id: string; number: number; events: OrderEvent[] }[];
}

const costShare = (at: number, now: number) => shareOfToday((now - at) / DAY, YEARLY_RISE);
/** Returns a price as it was then, in steps of 50 cents. */
const priceAt = (price: number, at: number, now: number) => Math.round((price * costShare(at, now)) / 50) * 50;

/** Returns the jars of a batch that may be sold once it is released, by container. */
function lotsOf(batch: DemoBatch, now: number): LooseLot[] {
  if (!batch.closedAt || !batch.pouredAt) return [];
  const start = now - batch.startedBefore * 1_000;
  const flawed = (batch.flaws ?? []).reduce((sum, flaw) => sum + flaw.jars, 0);
  const made = [
    ...batch.vessels.map(([n, count]) => [demoId(4, n), count] as const),
    ...(batch.molds ?? []).map(([n, count]) => [demoId(0x24, n), count] as const),
  ];
  return made.map(([containerId, count], index) => ({
    batch,
    containerId,
    pouredAt: start + (batch.pouredAt ?? 0) * 1_000,
    releasedAt: start + ((batch.closedAt ?? 0) + 60) * 1_000,
    left: index === 0 ? Math.max(0, count - flawed) : count,
    flawed: index === 0 ? Math.min(count, flawed) : 0,
  }));
}

/** Packs and sells the jars of batches, order by order in the order of time; writes into each batch what became of its jars. */
export function sellYears(batches: readonly DemoBatch[], scenario: YearsScenario, now: Date): YearsSales {
  const random = randomFrom(20_260_315);
  const end = now.getTime();
  const between = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
  const formulaOf = new Map(scenario.formulas.flatMap((formula) => formula.versions.map((version) => [version.id, formula.id] as const)));
  const productOf = new Map(scenario.products.map((product) => [`${product.formulaId} ${product.containerId}`, product]));
  const out: YearsSales = { packRuns: [], pieces: [], orders: [] };
  const loose = new Map<DemoProduct, LooseLot[]>();
  const packed = new Map<DemoProduct, PackRun[]>();
  const waiting = batches.flatMap((batch) => lotsOf(batch, end)).sort((a, b) => a.releasedAt - b.releasedAt);
  const recordGone = (lot: LooseLot, at: number, jars: number, packRun: JarsGone["packRun"], whom: string, isSecond = false) => {
    lot[isSecond ? "flawed" : "left"] -= jars;
    const after = Math.round(at / 1_000 - (end / 1_000 - lot.batch.startedBefore));
    lot.batch.jarsGone?.push({ at: after, containerId: lot.containerId, jars, packRun, whom, isSecond });
  };
  /** Sells what stands loose for long as it is. */
  const sellAtDoor = (lot: LooseLot, until: number) => {
    const at = lot.releasedAt + DOOR_AFTER_DAYS * DAY;
    if (at > until) return;
    if (lot.left > 0) recordGone(lot, at, lot.left, null, "the door");
    if (lot.flawed > 0) recordGone(lot, at, lot.flawed, null, "the door", true);
  };
  let released = 0;
  const advanceTo = (at: number) => {
    for (let lot = waiting[released]; lot && lot.releasedAt <= at; released++, lot = waiting[released]) {
      lot.batch.jarsGone ??= [];
      const product = productOf.get(`${formulaOf.get(lot.batch.version)} ${lot.containerId}`);
      if (product) loose.set(product, [...(loose.get(product) ?? []), lot]);
      else sellAtDoor(lot, end);
    }
    for (const [product, lots] of loose) {
      for (const lot of lots) sellAtDoor(lot, at);
      loose.set(
        product,
        lots.filter((lot) => lot.left + lot.flawed > 0),
      );
    }
  };
  /** Packs up to so many, of what was poured first. */
  const pack = (product: DemoProduct, packs: number, at: number) => {
    const lots = loose.get(product) ?? [];
    const possible = Math.min(packs, Math.floor(lots.reduce((sum, lot) => sum + lot.left, 0) / product.pack));
    if (possible <= 0) return;
    const run: PackRun = { id: demoId(0x31, 1_000 + out.packRuns.length), product, packs: possible, left: possible, at, pouredAt: 0 };
    const { taken } = takeFirst(
      lots.map((lot, index) => ({ id: String(index), left: lot.left })),
      possible * product.pack,
    );
    const parts = product.packaging ? packagingDraw(product.packaging, possible) : [];
    for (const [index, { id, count }] of taken.entries()) {
      const lot = lots[Number(id)] as LooseLot;
      if (index === 0) run.pouredAt = lot.pouredAt;
      recordGone(lot, at, count, { id: run.id, of: product.name, packs: possible, parts: index === 0 ? parts : [] }, "");
      out.pieces.push({ packRunId: run.id, batchId: lot.batch.id, product: lot.containerId, productId: product.id, pieces: count });
    }
    out.packRuns.push(run);
    packed.set(
      product,
      [...(packed.get(product) ?? []), run].sort((a, b) => a.pouredAt - b.pouredAt),
    );
  };
  const sell = (isMarket: boolean, day: number, n: number) => {
    const packedAt = day - DAY;
    advanceTo(packedAt);
    const available = (product: DemoProduct) =>
      (packed.get(product) ?? []).reduce((sum, run) => sum + run.left, 0) +
      Math.floor((loose.get(product) ?? []).reduce((sum, lot) => sum + lot.left, 0) / product.pack);
    const offered = scenario.products
      .filter((product) => available(product) > 3)
      .map((product) => ({ product, rank: random() }))
      .sort((a, b) => a.rank - b.rank)
      .slice(0, isMarket ? between(6, 10) : between(1, 4))
      .map(({ product }) => product);
    if (offered.length === 0) return;
    const crew = demoId(1, n % 3 === 0 ? 1 : 2);
    const events: OrderEvent[] = [];
    const add = (at: number, body: Pick<OrderEvent, "kind" | "payload">) => {
      const moment = new Date(at).toISOString();
      const id = demoId(0x8000 + out.orders.length, events.length + 1);
      events.push({ id, happenedAt: moment, arrivedAt: moment, personId: crew, instrumentId: null, corrects: null, ...body } as OrderEvent);
    };
    const lines = offered.map((product) => ({
      sellable: product.id,
      name: product.name,
      packs: Math.min(available(product), isMarket ? between(4, 14) : between(6, 24)),
      price: priceAt(product.price, day, end),
    }));
    const name = isMarket ? (MARKETS[n % MARKETS.length] as string) : (BUYERS[n % BUYERS.length] as string);
    const plan: OrderPlan = {
      format: 1,
      what: isMarket ? "market" : "order",
      name,
      whom: isMarket ? `stall ${between(1, 40)}` : "",
      wantedOn: new Date(day).toISOString().slice(0, 10),
      lines,
    };
    add(day - between(5, 20) * DAY, { kind: "started", payload: { plan } });
    for (const [index, product] of offered.entries()) {
      const wanted = lines[index]?.packs ?? 0;
      const packedNow = (packed.get(product) ?? []).reduce((sum, run) => sum + run.left, 0);
      if (packedNow < wanted) pack(product, wanted - packedNow, packedAt);
    }
    const finishedGoods = offered.flatMap((product, index) => {
      const runs = packed.get(product) ?? [];
      return takeFirst(runs, lines[index]?.packs ?? 0).taken.flatMap(({ id, count }) => {
        const run = runs.find((item) => item.id === id);
        if (!run) return [];
        run.left -= count;
        return [
          {
            packRun: id,
            sellable: product.id,
            name: product.name,
            price: lines[index]?.price ?? null,
            pouredAt: new Date(run.pouredAt).toISOString(),
            packs: count,
          },
        ];
      });
    });
    if (finishedGoods.length === 0) return;
    add(day, { kind: "shipped", payload: { finishedGoods } });
    for (const [index, { sellable, name: of }] of lines.entries()) {
      const went = finishedGoods.reduce((sum, item) => (item.sellable === sellable ? sum + item.packs : sum), 0);
      const sold = isMarket ? Math.round(went * (0.45 + random() * 0.55)) : went;
      const given = sold < went && random() < 0.1 ? 1 : 0;
      const resolve = (packs: number, to: "sold" | "given" | "back") => {
        if (packs > 0) add(day + (3 + index / 10) * HOUR, { kind: "packsResolved", payload: { sellable, name: of, packs, to, each: null, why: "" } });
      };
      resolve(sold, "sold");
      resolve(given, "given");
      resolve(went - sold - given, "back");
    }
    add(day + 8 * HOUR, { kind: "closed", payload: {} });
    const refusal = refusalIn(ORDER, CHECKED_ORDER, events);
    if (refusal) throw new Error(`An order of the demo holds what the program would not take: ${refusal}`);
    for (const { packRun, back } of ORDER.of(events).state.finishedGoods) {
      const run = out.packRuns.find((item) => item.id === packRun);
      if (run) run.left += back;
    }
    out.orders.push({ id: demoId(0x30, 100 + out.orders.length), number: out.orders.length + 1, events });
    for (const product of offered)
      packed.set(
        product,
        (packed.get(product) ?? []).filter((run) => run.left > 0),
      );
  };
  const morning = Math.floor(end / DAY) * DAY + 8 * HOUR;
  for (let week = Math.floor((scenario.days - 30) / 7), n = 0; week * 7 > UNTIL_DAYS; week--, n++) {
    if (n % 2 === 0) sell(true, morning - week * 7 * DAY, n);
    if (n % 4 !== 3) sell(false, morning - (week * 7 - 3) * DAY, n);
  }
  advanceTo(end);
  return out;
}

/**
 * Writes what was packed and sold; what packs cost is what they cost by the lots of today, less what prices rose. What was given up costs the
 * same share of its price as the others in the middle.
 */
export async function putYearsSales(db: Database, workshopId: string, sales: YearsSales, now: Date): Promise<void> {
  const [workshop] = await db.select().from(workshops).where(eq(workshops.id, workshopId));
  if (!workshop) return;
  const sold = [...new Set(sales.packRuns.map((run) => run.product))];
  const costs = await costsNow(
    { db, workshop },
    sold.map((product) => product.id),
  );
  const shares = sold.flatMap((product) => (costs.get(product.id) ?? 0) / product.price || []).sort((a, b) => a - b);
  const usualShare = shares[Math.floor(shares.length / 2)] ?? 0;
  await db.transaction(async (tx) => {
    await inParts(sales.packRuns, (part) =>
      tx.insert(packRuns).values(
        part.map(({ id, product, packs, at, pouredAt }) => {
          const cost = costs.get(product.id) ?? product.price * usualShare;
          return {
            workshopId,
            id,
            sellableId: product.id,
            name: product.name,
            packs,
            at: new Date(at).toISOString(),
            pouredAt: new Date(pouredAt).toISOString(),
            costEach: Math.round(cost * costShare(at, now.getTime())),
          };
        }),
      ),
    );
    await inParts(sales.pieces, (part) => tx.insert(packedPieces).values(part.map((piece) => ({ ...piece, workshopId }))));
    for (const { id, number, events } of sales.orders) {
      const { plan, state } = ORDER.of(events);
      await tx.insert(orders).values({ workshopId, id, number, ...orderRow(plan, state) });
      await tx.insert(orderEvents).values(events.map((event) => orderEventRow(workshopId, id, event)));
      await writeFinishedGoods(tx, workshopId, id, plan, state, null);
    }
  });
}
