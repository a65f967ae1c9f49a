import { type BatchEvent, type BatchPlan, batchOf, leftInPot, ORDER, type OrderEvent, PRESET_PROCESSES, processFrom, randomFrom } from "@hearth/core";
import type { Pool } from "pg";
import { v7 } from "uuid";
import { toEvent } from "../../data/batch-rows";
import type { Database } from "../../data/client";
import { toOrderEvent } from "../../data/order-rows";
import { formulas, formulaVersions } from "../../data/tables/formula";
import { products } from "../../data/tables/product";
import { fragrances, instruments, packs, vessels, waxes } from "../../data/tables/shelf";
import { people, workshops } from "../../data/tables/workshop";

/** The commands that the driver calls, by the names that they have in the program. */
export const BOOK_COMMANDS = [
  "startBatch",
  "saveLot",
  "saveCount",
  "pack",
  "unpack",
  "beginOrder",
  "takeOut",
  "putOnPlan",
  "merge",
  "undoMerge",
  "archive",
  "remove",
] as const;
export type BookCommand = (typeof BOOK_COMMANDS)[number];

/** How the driver reaches the program: entries over HTTP, and commands as pages send them. */
export interface BooksClient {
  /** The status of the answer, and its body. */
  send: (method: "GET" | "POST", path: string, body?: unknown) => Promise<{ status: number; body: unknown }>;
  command: (name: BookCommand, input: object) => Promise<{ ok: boolean; message?: string }>;
}

/** What a workshop of the driver's consists of. */
export interface BooksWorkshop {
  id: string;
  person: string;
  waxes: [string, string];
  oil: string;
  vessels: [string, string];
  box: string;
  version: string;
  scale: string;
  products: [string, string];
}

const DAY_MS = 86_400_000;

/** Puts a workshop with a shelf, a formula and two products into the database, as its owner. The second wax and vessel are twins, to be merged. */
export async function makeBooks(db: Database): Promise<BooksWorkshop> {
  const id = v7();
  const at = new Date(Date.now() - 90 * DAY_MS).toISOString();
  const ids = {
    id,
    person: v7(),
    waxes: [v7(), v7()],
    oil: v7(),
    vessels: [v7(), v7()],
    box: v7(),
    formula: v7(),
    version: v7(),
    scale: v7(),
    products: [v7(), v7()],
  };
  const [soy, twin] = ids.waxes as [string, string];
  const [cup, mug] = ids.vessels as [string, string];
  await db.insert(workshops).values({ id, name: `Books ${id.slice(-6)}`, massUnit: "g", temperatureUnit: "C", timeZone: "UTC", createdAt: at });
  const mine = { workshopId: id };
  await db.insert(people).values({ ...mine, id: ids.person, name: "Wrenna" });
  await db.insert(waxes).values([
    { ...mine, id: soy, name: "plain soy", family: "soy", maxLoadPpm: 120_000 },
    { ...mine, id: twin, name: "plain soy, old bag", family: "soy", maxLoadPpm: 120_000 },
  ]);
  await db.insert(fragrances).values({ ...mine, id: ids.oil, name: "wet slate", kind: "fragrance" });
  await db.insert(packs).values({ ...mine, id: ids.box, name: "pair box", kind: "box" });
  const measures = { material: "metal", statedFillMg: 14_000, workingFillMg: 14_000, innerTopUm: 38_000, innerBottomUm: 38_000, heightUm: 17_000 };
  await db.insert(vessels).values([
    { ...mine, id: cup, name: "cup", ...measures },
    { ...mine, id: mug, name: "cup, second delivery", ...measures },
  ]);
  await db.insert(instruments).values({ ...mine, id: ids.scale, name: "bench scale", kind: "scale", resolutionUg: 1_000_000 });
  const process = processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]);
  const spec = { waxes: [{ id: soy, share: 1 }], fragrances: [{ id: ids.oil, share: 1 }], basis: "wax" as const, loadPpm: 100_000, notes: "", process };
  await db.insert(formulas).values({ ...mine, id: ids.formula, name: "Slate", updatedAt: at });
  await db.insert(formulaVersions).values({ ...mine, id: ids.version, formulaId: ids.formula, number: 1, spec, createdAt: at });
  await db.insert(products).values(
    ids.products.map((product, n) => ({
      ...mine,
      id: product,
      name: n === 0 ? "Slate, by two" : "Slate, single",
      formulaId: ids.formula,
      container: "vessel" as const,
      containerId: cup,
      wickId: null,
      price: 900,
      pack: n === 0 ? 2 : 1,
      packaging: { boxId: n === 0 ? ids.box : null, parts: [] },
    })),
  );
  return ids as unknown as BooksWorkshop;
}

export interface StepTold {
  /** What was done, for the report of a violation. */
  what: string;
  /** The operations, by name. */
  names: string[];
  /** Statuses of answers over HTTP, and whether anything was taken. */
  statuses: number[];
  taken: boolean;
}

interface Log<E> {
  id: string;
  events: E[];
}

/** Random operations on one workshop, each reaching the program as a page or another program would. The same seed draws the same numbers. */
export function booksDriver(client: BooksClient, pool: Pool, shop: BooksWorkshop, seed: number) {
  const next = randomFrom(seed);
  const whole = (low: number, high: number) => low + Math.floor(next() * (high - low + 1));
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(next() * list.length)];
  const rows = async <T>(text: string, values: unknown[] = []): Promise<T[]> => (await pool.query(text, [shop.id, ...values])).rows as T[];
  const instant = (ms: number) => new Date(ms).toISOString();

  const batches = () => rows<{ id: string; stage: string }>("select id, stage from batch where workshop_id = $1 order by number desc limit 14");
  const logOfBatch = async (id: string): Promise<Log<BatchEvent>> => ({
    id,
    events: (await pool.query("select * from batch_event where workshop_id = $1 and batch_id = $2 order by seq", [shop.id, id])).rows.map((row) =>
      toEvent(camel(row)),
    ),
  });
  const logOfOrder = async (id: string): Promise<Log<OrderEvent>> => ({
    id,
    events: (await pool.query("select * from sale_order_event where workshop_id = $1 and order_id = $2 order by seq", [shop.id, id])).rows.map((row) =>
      toOrderEvent(camel(row)),
    ),
  });
  const anOrder = async () => pick(await rows<{ id: string }>("select id from sale_order where workshop_id = $1 order by number desc limit 6"));
  const runs = () =>
    rows<{ id: string; sellable_id: string; packs: number }>("select id, sellable_id, packs from pack_run where workshop_id = $1 order by at desc limit 8");

  const told: StepTold = { what: "", names: [], statuses: [], taken: false };
  const send = async (path: string, body: unknown, method: "GET" | "POST" = "POST") => {
    const answer = await client.send(method, `/api/workshops/${shop.id}${path}`, body);
    told.statuses.push(answer.status);
    if (answer.status < 300) told.taken = true;
    return answer;
  };
  const command = async (name: BookCommand, input: object) => {
    const outcome = await client.command(name, input);
    if (outcome.ok) told.taken = true;
    return outcome;
  };

  const entry = (body: object, happenedAt: string, more: object = {}) => ({
    id: v7(),
    happenedAt,
    personId: shop.person,
    instrumentId: null,
    corrects: null,
    ...body,
    ...more,
  });
  /** Returns a moment after the last entry of a log; now and then one before it, as of an entry logged late. Never ahead of now. */
  const momentOf = (events: readonly { happenedAt: string }[], jump = 0): string => {
    const last = Math.max(...events.map((event) => Date.parse(event.happenedAt)));
    return instant(next() < 0.06 ? last - whole(1, 600) * 1_000 : Math.min(Date.now(), last + jump + whole(1, 40) * 60_000));
  };

  /** Returns what a maker might enter into a batch next, or might not. */
  function batchBody(plan: BatchPlan, events: readonly BatchEvent[]): { body: { kind: string; payload: object }; jump?: number } {
    const { state } = batchOf(events);
    const parts = plan.pots[0]?.components ?? [];
    const product = plan.products[0]?.key ?? "";
    const part = pick(parts);
    const rack = { product, jars: whole(1, 5) };
    const choices: [number, () => { body: { kind: string; payload: object }; jump?: number }][] = [
      [8, () => ({ body: { kind: "weighed", payload: { pot: 0, componentId: part?.id, mg: whole(1, 130) * 1_000 } } })],
      [
        2,
        () => {
          const left = leftInPot(plan, state, 0);
          return {
            body: {
              kind: "transferred",
              payload: {
                pot: 0,
                how: pick(["spilt", "discarded", "melts"]),
                mg: pick([null, left || 1, Math.max(1, Math.round(left * next()))]),
                other: null,
                ...(next() < 0.5 ? { again: pick(["missing", "all", "none"]) } : {}),
                ...(next() < 0.2 ? { backMg: whole(1, 40_000) } : {}),
              },
            },
          };
        },
      ],
      [
        6,
        () => ({
          body: {
            kind: "poured",
            payload: { step: "pour", filled: next() < 0.5 ? [] : [{ product, count: whole(0, 14) }], leftMg: null, roomCelsius: null, warmed: null },
          },
        }),
      ],
      [
        4,
        () => ({
          body: {
            kind: "jarsInspected",
            payload: { product, jars: whole(1, 6), flaws: next() < 0.15 ? [{ defect: "cracked_glass", place: "side", extent: "third" }] : [] },
          },
          jump: 20 * DAY_MS,
        }),
      ],
      [3, () => ({ body: { kind: "inspected", payload: { jars: whole(1, 10) } }, jump: DAY_MS })],
      [5, () => ({ body: { kind: "released", payload: { note: "" } } })],
      [
        5,
        () => ({
          body: {
            kind: "statusChanged",
            payload: {
              ...rack,
              from: pick(["rack", "rack", "sold", "testing", "second"]),
              to: pick(["sold", "testing", "melted", "broken", "rack", "given"]),
              whom: "",
            },
          },
        }),
      ],
      [1, () => ({ body: { kind: "repaired", payload: { ...rack, defect: "rough_top", how: "heat gun", mg: null } } })],
      [1, () => ({ body: { kind: "closed", payload: { missing: [] } } })],
      [1, () => ({ body: { kind: "abandoned", payload: { why: "", wax: "kept", mg: null } } })],
      [1, () => ({ body: { kind: "note", payload: { text: "seen again" } } })],
      // What only a command of the program enters.
      [
        1,
        () => ({ body: { kind: "packed", payload: { packRun: v7(), of: "ghost", product, jars: 1, packs: 1, parts: [{ id: shop.box, count: 1_000_000 }] } } }),
      ],
    ];
    let roll = next() * choices.reduce((sum, [weight]) => sum + weight, 0);
    for (const [weight, make] of choices) {
      roll -= weight;
      if (roll <= 0) return make();
    }
    return { body: { kind: "note", payload: { text: "x" } } };
  }

  /** Returns an entry of a log changed a little, deleted, or one of its deletions undone. */
  function correctionOf(events: readonly (BatchEvent | OrderEvent)[]): object | null {
    const target = pick(events.filter((event) => event.kind !== "started"));
    if (!target) return null;
    if (next() < 0.6 || target.kind === "withdrawn")
      return entry({ kind: "withdrawn", payload: { why: "", mode: next() < 0.8 ? "delete" : "undo" } }, instant(Date.now()), { corrects: target.id });
    const changed = JSON.parse(JSON.stringify(target.payload), (_key, item) =>
      typeof item === "number" && next() < 0.5 ? Math.max(1, Math.round(item * next() * 2)) : item,
    ) as object;
    return entry({ kind: target.kind, payload: changed }, target.happenedAt, { corrects: target.id });
  }

  const line = () => ({ sellableId: pick(shop.products), packs: whole(1, 4) });
  const operations: Record<string, [number, () => Promise<unknown>]> = {
    start: [
      3,
      async () =>
        command("startBatch", {
          batchId: v7(),
          formulaVersionIds: [shop.version],
          process: "formula",
          products: [{ id: shop.vessels[0], container: "vessel", count: whole(4, 12), part: null, wick: null }],
          sparePpm: 0,
          waxScale: shop.scale,
          oilScale: shop.scale,
          startedAt: instant(Date.now() - whole(40, 60) * DAY_MS),
        }),
    ],
    enter: [
      40,
      async () => {
        const batch = pick(await batches());
        if (!batch) return;
        const { events } = await logOfBatch(batch.id);
        const { plan } = batchOf(events);
        const { body, jump } = batchBody(plan, events);
        told.what += ` ${body.kind} in ${batch.id.slice(-4)} ${JSON.stringify(body.payload)}`;
        await send(`/batches/${batch.id}/events`, entry(body, momentOf(events, jump)));
      },
    ],
    "walk on": [
      14,
      async () => {
        // The shortest way to jars that may be packed, so that there is something to sell.
        const batch = pick((await batches()).filter((batch) => batch.stage === "pot" || batch.stage === "rack"));
        if (!batch) return;
        const { events } = await logOfBatch(batch.id);
        const { plan, state } = batchOf(events);
        const product = plan.products[0]?.key ?? "";
        const count = plan.products[0]?.count ?? 1;
        const body =
          Object.keys(state.pours).length === 0
            ? { kind: "poured", payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null } }
            : !state.lookedAt
              ? { kind: "inspected", payload: { jars: count } }
              : { kind: "released", payload: { note: "" } };
        told.what += ` ${body.kind} in ${batch.id.slice(-4)} of ${product.slice(-4)}`;
        await send(`/batches/${batch.id}/events`, entry(body, momentOf(events, body.kind === "inspected" ? 20 * DAY_MS : 0)));
      },
    ],
    correct: [
      22,
      async () => {
        const isBatch = next() < 0.7;
        const of = isBatch ? pick(await batches()) : await anOrder();
        if (!of) return;
        const log = isBatch ? await logOfBatch(of.id) : await logOfOrder(of.id);
        const body = correctionOf(log.events);
        if (!body) return;
        const { corrects, kind } = body as { corrects: string; kind: string };
        told.what += ` ${kind} of ${log.events.find((event) => event.id === corrects)?.kind} in ${isBatch ? "batch" : "order"} ${of.id.slice(-4)}`;
        await send(`/${isBatch ? "batches" : "orders"}/${of.id}/events`, body);
      },
    ],
    receive: [
      5,
      async () => {
        const [kind, materialId] = pick([
          ["wax", shop.waxes[0]],
          ["wax", shop.waxes[1]],
          ["fragrance", shop.oil],
          ["vessel", shop.vessels[0]],
          ["vessel", shop.vessels[1]],
          ["pack", shop.box],
        ] as const) ?? ["wax", shop.waxes[0]];
        await command("saveLot", {
          kind,
          materialId,
          id: v7(),
          expectedVersion: null,
          code: "",
          amount: kind === "vessel" || kind === "pack" ? whole(5, 60) : whole(50, 900) * 1_000,
          cost: next() < 0.8 ? whole(100, 5_000) : null,
          receivedOn: instant(Date.now() - whole(0, 70) * DAY_MS).slice(0, 10),
        });
      },
    ],
    count: [
      4,
      async () => {
        const [kind, materialId] = pick([
          ["wax", shop.waxes[0]],
          ["wax", shop.waxes[1]],
          ["fragrance", shop.oil],
          ["vessel", shop.vessels[0]],
        ] as const) ?? ["wax", shop.waxes[0]];
        const [old] = await rows<{ id: string; amount: string }>(
          "select id, amount from stock_count where workshop_id = $1 and material_id = $2 and not withdrawn order by at desc limit 1",
          [materialId],
        );
        const withdraws = old && next() < 0.3;
        await command("saveCount", {
          kind,
          materialId,
          id: withdraws ? old.id : v7(),
          amount: withdraws ? Number(old.amount) : whole(0, 600) * (kind === "vessel" ? 1 : 1_000),
          withdrawn: Boolean(withdraws),
        });
      },
    ],
    pack: [10, async () => command("pack", { packRunId: v7(), sellableId: pick(shop.products), packs: whole(1, 4) })],
    unpack: [
      8,
      async () => {
        // Mostly of packs that are all there still, which it is not refused for.
        const untouched = await rows<{ id: string }>("select id from pack_run where workshop_id = $1 and not deleted and gone = 0 order by at desc limit 4");
        await command("unpack", { packRunId: pick(next() < 0.7 ? untouched : await runs())?.id ?? v7() });
      },
    ],
    order: [
      4,
      async () => {
        const lines = shop.products
          .filter(() => next() < 0.7)
          .map((sellable) => ({ sellable, name: "Slate", packs: whole(1, 6), price: next() < 0.8 ? 900 : null }));
        await command("beginOrder", {
          orderId: v7(),
          plan: { format: 1, what: pick(["order", "market"]), name: `Order ${whole(1, 999)}`, whom: "", wantedOn: null, lines },
        });
      },
    ],
    ship: [
      8,
      async () => {
        const order = await anOrder();
        const lines = [line(), ...(next() < 0.4 ? [line()] : [])];
        if (order) await command("takeOut", { eventId: v7(), orderId: order.id, lines });
      },
    ],
    "put out by entry": [
      10,
      async () => {
        // Mostly of packs that are there, with an order that is open.
        const open = await rows<{ id: string }>("select id from sale_order where workshop_id = $1 and stage = 'open' order by number desc limit 6");
        const left = await rows<{ id: string; sellable_id: string; packs: number }>(
          "select id, sellable_id, packs - gone as packs from pack_run where workshop_id = $1 and packs > gone and not deleted",
        );
        const [order, all] = [pick(open), next() < 0.7 ? left : await runs()];
        const some = [pick(all), pick(all), pick(all)].filter((item) => item !== undefined).slice(0, whole(1, 3));
        if (!order || some.length === 0) return;
        const { events } = await logOfOrder(order.id);
        const finishedGoods = some.map((item) => ({
          packRun: item.id,
          sellable: item.sellable_id,
          name: "Slate",
          price: 900,
          pouredAt: instant(Date.now() - DAY_MS),
          packs: whole(1, 2),
        }));
        await send(`/orders/${order.id}/events`, entry({ kind: "shipped", payload: { finishedGoods } }, momentOf(events)));
      },
    ],
    sell: [
      10,
      async () => {
        const order = await anOrder();
        if (!order) return;
        const { events } = await logOfOrder(order.id);
        const { state } = ORDER.of(events);
        const sellable = pick(state.finishedGoods)?.sellable ?? pick(shop.products);
        const body =
          next() < 0.1
            ? { kind: "closed", payload: {} }
            : {
                kind: "packsResolved",
                payload: { sellable, name: "Slate", packs: whole(1, 3), to: pick(["sold", "given", "second", "back"]), each: null, why: "" },
              };
        told.what += ` ${body.kind}`;
        await send(`/orders/${order.id}/events`, entry(body, momentOf(events)));
      },
    ],
    plan: [
      2,
      async () =>
        command("putOnPlan", {
          id: v7(),
          productId: pick(shop.products),
          count: whole(1, 20),
          wantedOn: null,
          note: "",
          orderId: (await anOrder())?.id ?? null,
        }),
    ],
    merge: [
      2,
      async () => {
        const [kind, [kept, gone]] = next() < 0.5 ? (["wax", shop.waxes] as const) : (["vessel", shop.vessels] as const);
        const [open] = await rows<{ id: string }>("select id from item_alias where workshop_id = $1 and kind = $2 and not deleted limit 1", [kind]);
        await (open ? command("undoMerge", { mergeId: open.id }) : command("merge", { kind, keptId: kept, goneId: gone, mergeId: v7() }));
      },
    ],
    tidy: [
      2,
      async () => {
        const [kind = "", id = ""] = pick([
          ["wax", shop.waxes[1]],
          ["vessel", shop.vessels[1]],
          ["product", shop.products[1]],
        ] as string[][]) as string[];
        return command(next() < 0.5 ? "remove" : "archive", { kind, id, away: next() < 0.5 });
      },
    ],
    import: [
      2,
      async () => {
        const batch = pick(await batches());
        if (!batch) return;
        const record = await send(`/batches/${batch.id}/record`, undefined, "GET");
        if (record.status !== 200) return;
        const spoiled =
          next() < 0.6
            ? JSON.parse(
                JSON.stringify(record.body)
                  .replaceAll(batch.id, v7())
                  .replace(/"jars":\d+/, `"jars":${whole(1, 90_000)}`),
              )
            : record.body;
        told.taken = false;
        await send("/import", spoiled);
      },
    ],
    "read a record": [1, async () => void (await send(`/batches/${pick(await batches())?.id ?? v7()}/log?after=0`, undefined, "GET"))],
  };
  const names = Object.keys(operations);
  const total = names.reduce((sum, name) => sum + (operations[name]?.[0] ?? 0), 0);
  const choose = (): string => {
    let roll = next() * total;
    for (const name of names) {
      roll -= operations[name]?.[0] ?? 0;
      if (roll <= 0) return name;
    }
    return "enter";
  };

  /** Returns one step: an operation, or several at once. */
  async function step(): Promise<StepTold> {
    told.statuses = [];
    told.taken = false;
    const together = next() < 0.12 ? Array.from({ length: whole(2, 8) }, choose) : [choose()];
    told.names = together;
    told.what = together.join(" + ");
    await Promise.all(together.map((name) => operations[name]?.[1]()));
    return { ...told };
  }
  return { step, names };
}

/** A row of the database under the names of the tables in code. */
const camel = (row: Record<string, unknown>): never =>
  Object.fromEntries(
    Object.entries(row).map(([key, item]) => [
      key.replace(/_([a-z])/g, (_all, letter: string) => letter.toUpperCase()),
      item instanceof Date ? item.toISOString() : item,
    ]),
  ) as never;
