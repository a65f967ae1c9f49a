import { type BatchEvent, batchOf, costOf, JAR_STATUSES, jarStatusesOf, ledger, looseOfAll, ORDER, type OrderEvent } from "@hearth/core";
import type { Pool } from "pg";
import { readStocks, readTakenBy } from "@/server/inventory/shelf";
import { toEvent } from "../../data/batch-rows";
import type { Database } from "../../data/client";
import type { EntryRow } from "../../data/entry-rows";
import { toOrderEvent } from "../../data/order-rows";

interface Use {
  eventId: string;
  materialId: string;
  at: string;
  amount: number;
}

/** Returns what must hold of a workshop's books whatever was entered; gives what does not, in words. `costs`: also that no cost is lost between lots and batches. */
export async function brokenBooks(db: Database, pool: Pool, workshopId: string, costs = false): Promise<string[]> {
  const broken: string[] = [];
  const say = (text: string) => void broken.push(text);
  const rows = async <T>(text: string): Promise<T[]> => (await pool.query(text, [workshopId])).rows as T[];
  const events = async <E>(table: string, of: string, read: (row: EntryRow) => E) => {
    const all = new Map<string, E[]>();
    for (const row of await rows<Record<string, unknown>>(`select * from ${table} where workshop_id = $1 order by seq`)) {
      const key = String(row[of]);
      const event = read({
        id: row.id,
        kind: row.kind,
        happenedAt: (row.happened_at as Date).toISOString(),
        arrivedAt: (row.arrived_at as Date).toISOString(),
        personId: row.person_id,
        instrumentId: row.instrument_id,
        corrects: row.corrects,
        deviceAt: null,
        v: row.v,
        payload: row.payload,
      } as EntryRow);
      all.set(key, [...(all.get(key) ?? []), event]);
    }
    return all;
  };
  const same = (a: unknown, b: unknown) => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));

  // Batches: state kept = state folded from the log; jars add up; what is drawn is what standing events draw.
  const logs = await events<BatchEvent>("batch_event", "batch_id", toEvent);
  const merged = new Map(
    (await rows<{ gone_id: string; kept_id: string }>("select gone_id, kept_id from item_alias where workshop_id = $1 and not deleted")).map((row) => [
      row.gone_id,
      row.kept_id,
    ]),
  );
  const keptName = (id: string): string => (merged.has(id) ? keptName(merged.get(id) as string) : id);
  const uses: Use[] = [];
  const packedIn = new Map<string, number>();
  const keptUses = await rows<{ batch_id: string | null; event_id: string; named_id: string; material_id: string; amount: string; at: Date }>(
    "select * from stock_use where workshop_id = $1",
  );
  // Goods that are resold are drawn by the lot of packs, and no longer once it is unpacked.
  const resold = keptUses.filter((keptUse) => keptUse.batch_id === null);
  const runs = await rows<{ id: string; deleted: boolean }>("select id, deleted from pack_run where workshop_id = $1");
  for (const { event_id, material_id, amount, at } of resold) {
    if (runs.find((run) => run.id === event_id)?.deleted !== false) say(`pack run ${event_id.slice(-4)}: it draws, and is not there`);
    uses.push({ eventId: event_id, materialId: material_id, amount: Number(amount), at: at.toISOString() });
  }
  for (const row of await rows<{ id: string; number: number; state: unknown; loose: number; loose_of: unknown; draws_stock: boolean }>(
    "select * from batch where workshop_id = $1",
  )) {
    const { plan, state, uses: drawn } = batchOf(logs.get(row.id) ?? []);
    if (!same(state, row.state)) say(`batch ${row.number}: its kept state is not that of its log`);
    if (!same(looseOfAll(plan, state), row.loose_of)) say(`batch ${row.number}: its loose jars are not those of its log`);
    for (const product of plan.products) {
      const { filled, counts } = jarStatusesOf(plan, state, product.key);
      const sum = JAR_STATUSES.reduce((all, status) => all + counts[status], 0);
      if (sum !== filled) say(`batch ${row.number}: ${sum} jars where ${filled} were poured`);
      for (const status of JAR_STATUSES) if (counts[status] < 0) say(`batch ${row.number}: ${counts[status]} jars ${status}`);
    }
    for (const jarStatus of state.jarStatuses)
      if (jarStatus.packRun)
        packedIn.set(
          `${jarStatus.packRun} ${row.id} ${jarStatus.product}`,
          (packedIn.get(`${jarStatus.packRun} ${row.id} ${jarStatus.product}`) ?? 0) + jarStatus.jars,
        );
    for (const [key, { mg }] of Object.entries(state.weighed)) if (mg < 0) say(`batch ${row.number}: ${mg} mg of ${key} in the pot`);
    const standing = drawn.filter((stockUse) => stockUse.amount > 0);
    if (row.draws_stock) uses.push(...standing.map((stockUse) => ({ ...stockUse, materialId: keptName(stockUse.materialId) })));
    const kept = keptUses
      .filter((keptUse) => keptUse.batch_id === row.id)
      .map((keptUse) => `${keptUse.event_id} ${keptUse.named_id} ${keptUse.material_id} ${keptUse.amount}`);
    const wanted = row.draws_stock
      ? standing.map((stockUse) => `${stockUse.eventId} ${stockUse.materialId} ${keptName(stockUse.materialId)} ${stockUse.amount}`)
      : [];
    if (!same([...kept].sort(), [...wanted].sort())) say(`batch ${row.number}: the ledger holds ${kept.length} draws, its log ${wanted.length}`);
  }

  // Pack runs: jars in them are the jars that batches packed; out + in stock = packed.
  const gone = new Map(
    (await rows<{ pack_run_id: string; n: number }>(`select pack_run_id, sum("out" - back)::int as n from sale_goods where workshop_id = $1 group by 1`)).map(
      (row) => [row.pack_run_id, row.n],
    ),
  );
  const pieces = await rows<{ pack_run_id: string; batch_id: string; product: string; pieces: number; deleted: boolean }>(
    "select p.*, r.deleted from packed_piece p join pack_run r on r.workshop_id = p.workshop_id and r.id = p.pack_run_id where p.workshop_id = $1",
  );
  for (const row of await rows<{ id: string; packs: number; gone: number; deleted: boolean }>("select * from pack_run where workshop_id = $1")) {
    if ((gone.get(row.id) ?? 0) !== row.gone) say(`pack run ${row.id.slice(-4)}: ${row.gone} gone, and ${gone.get(row.id) ?? 0} by the orders`);
    if (row.gone < 0 || row.gone > row.packs) say(`pack run ${row.id.slice(-4)}: ${row.gone} of ${row.packs} packs gone`);
    if (row.deleted && row.gone !== 0) say(`pack run ${row.id.slice(-4)}: unpacked, and ${row.gone} are out`);
  }
  for (const piece of pieces) {
    const key = `${piece.pack_run_id} ${piece.batch_id} ${piece.product}`;
    const wanted = piece.deleted ? 0 : piece.pieces;
    if ((packedIn.get(key) ?? 0) !== wanted) say(`pack run ${piece.pack_run_id.slice(-4)}: ${wanted} jars, and ${packedIn.get(key) ?? 0} by the batch`);
    packedIn.delete(key);
  }
  for (const [key, jars] of packedIn) {
    const isImported = (await rows<{ id: string }>("select id from batch where workshop_id = $1 and not draws_stock")).some((row) => key.includes(row.id));
    if (jars !== 0 && !isImported) say(`${jars} jars are packed in a pack run that is not there`);
  }

  // Orders: state kept = state folded from the log; nothing sold that is not out.
  const orderLogs = await events<OrderEvent>("sale_order_event", "order_id", toOrderEvent);
  for (const row of await rows<{ id: string; number: number; state: unknown }>("select * from sale_order where workshop_id = $1")) {
    const { state } = ORDER.of(orderLogs.get(row.id) ?? []);
    if (!same(state, row.state)) say(`order ${row.number}: its kept state is not that of its log`);
    if (Object.values(state.unplaced).some((packs) => packs > 0)) say(`order ${row.number}: more was sold than was out`);
    for (const stocked of state.finishedGoods)
      if (stocked.out < stocked.sold + stocked.given + stocked.second + stocked.back)
        say(`order ${row.number}: more of ${stocked.name} became of than went out`);
  }

  // Stock: the newest count and what came after it, or all that was received, less one draw for each standing event.
  const lots = await rows<{ id: string; material_id: string; amount: string; cost: string | null; received_on: Date; received_at: Date | null }>(
    "select *, received_on::timestamp at time zone 'UTC' as received_on from lot where workshop_id = $1 and not withdrawn",
  );
  const counts = await rows<{ material_id: string; amount: string; at: Date }>(
    "select * from stock_count where workshop_id = $1 and not withdrawn order by at desc, id desc",
  );
  const stocks = await readStocks(db, workshopId, "UTC");
  const ids = new Set([...lots, ...counts].map((item) => item.material_id));
  for (const id of ids) {
    const count = counts.find((item) => item.material_id === id);
    const since = count ? count.at.getTime() : Number.NEGATIVE_INFINITY;
    const received = lots
      .filter((lot) => lot.material_id === id && (lot.received_at ?? lot.received_on).getTime() > since)
      .reduce((sum, item) => sum + Number(item.amount), count ? Number(count.amount) : 0);
    const drawn = uses.filter((use) => use.materialId === id && Date.parse(use.at) > since).reduce((sum, use) => sum + use.amount, 0);
    if (stocks[id]?.onHand !== received - drawn) say(`stock of ${id.slice(-4)}: ${stocks[id]?.onHand} on hand, ${received - drawn} by lots, counts and draws`);
  }

  if (costs) {
    const taken = new Map<string, { amount: number; cost: number }>();
    for (const { id } of await rows<{ id: string }>("select id from batch where workshop_id = $1"))
      for (const item of await readTakenBy(db, workshopId, id, "UTC")) {
        const there = taken.get(item.materialId) ?? { amount: 0, cost: 0 };
        const cost = item.taken.reduce((sum, part) => sum + (part.cost ?? 0), 0);
        taken.set(item.materialId, { amount: there.amount + item.amount, cost: there.cost + cost });
      }
    for (const id of ids) {
      // What batches say they cost is what their standing draws took of the lots, worked out from the logs over everything at once.
      const draws = uses.filter((use) => use.materialId === id);
      const all = ledger(
        lots
          .filter((lot) => lot.material_id === id)
          .map((lot) => ({
            id: lot.id,
            receivedAt: (lot.received_at ?? lot.received_on).toISOString(),
            amount: Number(lot.amount),
            cost: lot.cost === null ? null : Number(lot.cost),
          })),
        draws.map((use) => ({ id: use.eventId, at: use.at, amount: use.amount })),
        counts.filter((item) => item.material_id === id).map((item) => ({ at: item.at.toISOString(), amount: Number(item.amount) })),
      );
      const drawn = costOf([...all.taken.values()].flat()).cost;
      const made = taken.get(id)?.cost ?? 0;
      if (Math.abs(drawn - made) > 0.01) say(`cost of ${id.slice(-4)}: ${drawn} drawn, ${made} in what was made`);
      // A count writes off what it does not find, and makes up what nobody bought: then lots and batches need not agree.
      if (counts.some((item) => item.material_id === id)) continue;
      const mine = lots.filter((lot) => lot.material_id === id);
      const bought = mine.reduce((sum, item) => sum + Number(item.cost ?? 0), 0);
      const left = (stocks[id]?.left ?? []).reduce((sum, item) => sum + (item.cost ?? 0), 0);
      if (Math.abs(bought - left - made) > 0.01) say(`cost of ${id.slice(-4)}: ${bought} bought, ${left} left, ${made} in what was made`);
    }
  }
  return broken;
}

/** Returns the same with its keys in order, for comparing what JSON keeps in any. */
const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : value && typeof value === "object"
      ? Object.fromEntries(
          Object.entries(value)
            .filter(([, item]) => item !== undefined)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([key, item]) => [key, sorted(item)]),
        )
      : value;
