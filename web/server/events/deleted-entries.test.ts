import { BATCH, ORDER, PROTOCOLS, protocol, type SentEntry, TRIAL } from "@hearth/core";
import { eq } from "drizzle-orm";
import { v7 } from "uuid";
import { beforeEach, describe, expect, it } from "vitest";
import { products } from "@/data/tables/product";
import { packRuns } from "@/data/tables/sales";
import { lots } from "@/data/tables/stock";
import { beginTrial } from "@/server/burn/commands";
import { beginOrder, pack, takeOut, unpack } from "@/server/sales/commands";
import { brokenBooks } from "@/testing/books/invariants";
import { storedBatch } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { type AggregateStore, readEvents } from "./aggregate-store";
import { appendTo } from "./append";
import { batchStore } from "./batch-store";
import { orderStore } from "./order-store";
import { trialStore } from "./trial-store";

inStoredWorkshop();

const LATER = "2099-01-01T00:00:00.000Z";
const DAY_MS = 86_400_000;
const begun = Date.parse("2026-02-02T09:00:00.000Z");

/** One log as this test works with it, whatever it is about. */
function logOf(store: AggregateStore<never, never, never>, id: string) {
  const send = async (sent: Omit<SentEntry, "id" | "personId" | "instrumentId">) => {
    // As a route takes it: what is no such entry at all does not come further.
    const event = { id: v7(), personId: stored.person, instrumentId: null, ...sent };
    const parsed = store.subject.sent.safeParse(event);
    if (!parsed.success) return { ok: false as const, message: parsed.error.issues[0]?.message ?? "" };
    return appendTo(store, test.db, workshopId, id, event as SentEntry, LATER);
  };
  const events = () => readEvents(store, test.db, workshopId, id) as Promise<SentEntry[]>;
  /** What is kept of it, and of everything that follows from it, but for how many entries there are. */
  const stateNow = async () => {
    const { rows } = await test.pool.query<{ state: object }>(
      `select state from ${store.what === "batch" ? "batch" : store.what === "trial" ? "trial" : "sale_order"} where id = $1`,
      [id],
    );
    const stock = await test.pool.query("select named_id, sum(amount)::text as amount from stock_use where workshop_id = $1 group by 1 order by 1", [
      workshopId,
    ]);
    const gone = await test.pool.query("select id, gone, deleted from pack_run where workshop_id = $1 order by id", [workshopId]);
    const jars = await test.pool.query("select id, loose, loose_of from batch where workshop_id = $1 order by id", [workshopId]);
    return { state: withoutIds(rows[0]?.state), stock: stock.rows, gone: gone.rows, jars: jars.rows };
  };
  return { send, events, state: stateNow, store };
}
/** What an entry is called is another each time that it is entered again. */
const withoutIds = (state: unknown) =>
  JSON.parse(JSON.stringify(state, (key, item) => (["eventId", "id", "effectiveEvents"].includes(key) ? undefined : item)));

/** A payload changed a little: numbers other numbers, what is chosen kept. */
const changed = (payload: unknown, by: (n: number) => number): object =>
  JSON.parse(JSON.stringify(payload), (_key, item) => (typeof item === "number" ? Math.max(0, Math.round(by(item))) : item));

/**
 * Tries everything that can be done to an entry afterwards: to delete it, to undo that, to enter it as it was, and with other numbers. Either it is
 * refused with what stands in the way, and nothing has changed; or all that followed from it goes with it, the books balance, and an undo brings
 * everything back. Gives which event types could be deleted.
 */
async function tryAll(log: ReturnType<typeof logOf>): Promise<Set<string>> {
  const deleted = new Set<string>();
  const books = async (what: string) => expect(await brokenBooks(test.db, test.pool, workshopId), what).toEqual([]);
  for (const target of await log.events()) {
    if (target.kind === "started" || target.kind === "withdrawn" || target.corrects) continue;
    const before = await log.state();
    const attempt = async (what: string, sent: Pick<SentEntry, "kind" | "payload">, when = target.happenedAt) => {
      const answer = await log.send({ ...sent, happenedAt: when, corrects: target.id } as SentEntry);
      const said = `${what} ${target.kind}: ${answer.ok ? "taken" : answer.message}`;
      await books(said);
      if (!answer.ok) {
        expect(answer.message.length, said).toBeGreaterThan(10);
        expect(await log.state(), said).toEqual(before);
        return false;
      }
      // An undo brings back what was there.
      const newest = (await log.events()).find((event) => event.corrects === target.id && event.id > target.id && !undone.has(event.id));
      if (!newest) throw new Error(`${said}, and it is not there.`);
      undone.add(newest.id);
      const undo = await log.send({ kind: "withdrawn", payload: { why: "", mode: "undo" }, happenedAt: when, corrects: newest.id } as SentEntry);
      expect(undo, `undoing ${said}`).toMatchObject({ ok: true });
      expect(await log.state(), `undoing ${said}`).toEqual(before);
      await books(`undoing ${said}`);
      return true;
    };
    if (await attempt("deleting", { kind: "withdrawn", payload: { why: "", mode: "delete" } })) deleted.add(target.kind);
    await attempt("repeating", { kind: target.kind, payload: target.payload });
    for (const factor of [0.5, 40]) await attempt(`times ${factor}`, { kind: target.kind, payload: changed(target.payload, (n) => n * factor) });
  }
  return deleted;
}
const undone = new Set<string>();
const kindsOf = (subject: { eventTypes: ReadonlyMap<string, unknown> }) =>
  [...subject.eventTypes.keys()].filter((kind) => kind !== "started" && kind !== "withdrawn");

let cup = "";
beforeEach(async () => {
  cup = v7();
  await test.db.insert(products).values({
    workshopId,
    id: cup,
    name: "Cups of rain",
    formulaId: stored.formula,
    container: "vessel",
    containerId: stored.vessel,
    wickId: null,
    price: 900,
    pack: 2,
  });
  await test.db.insert(lots).values({ workshopId, id: v7(), kind: "wax", materialId: stored.wax, amount: 5_000_000, cost: 9_000, receivedOn: "2026-01-02" });
});

/** Enters these one after another, each some minutes later. */
async function enterAll(
  log: ReturnType<typeof logOf>,
  bodies: readonly (Pick<SentEntry, "kind" | "payload"> & { days?: number; corrects?: string })[],
): Promise<string[]> {
  const ids: string[] = [];
  let ms = begun;
  for (const { days = 0, corrects = null, ...body } of bodies) {
    ms += days * DAY_MS + 60_000;
    const answer = await log.send({ ...body, happenedAt: new Date(ms).toISOString(), corrects } as SentEntry);
    expect(answer, `${body.kind} ${JSON.stringify(body.payload)}`).toMatchObject({ ok: true });
    ids.push((await log.events()).at(-1)?.id ?? "");
  }
  return ids;
}

/** The key of a batch's first product. */
const productOf = async (log: ReturnType<typeof logOf>): Promise<string> => {
  const [start] = await log.events();
  return (start as unknown as { payload: { plan: { products: { key: string }[] } } }).payload.plan.products[0]?.key ?? "";
};

/** The life of a batch up to the release, every event type of it but those that a command enters or that end it another way. */
async function liveBatch(of: typeof stored) {
  const log = logOf(batchStore as never, of.batch);
  const product = await productOf(log);
  const poured = { step: "pour", filled: [{ product, count: 10 }], leftMg: 2_000, roomCelsius: 2_100, warmed: "no" };
  const rough = { defect: "rough_top", place: "top", extent: "patch" };
  await enterAll(log, [
    { kind: "weighed", payload: { pot: 0, componentId: of.wax, mg: 127_000 } },
    { kind: "weighed", payload: { pot: 0, componentId: of.oil, mg: 13_000 } },
    { kind: "counted", payload: { pot: 0, componentId: of.dye, n: 6 } },
    { kind: "rescaled", payload: { pot: 0, targets: [{ componentId: of.wax, mg: 128_000 }] } },
    { kind: "read", payload: { step: "heat", shown: 8_500, correction: 0 } },
    { kind: "melted", payload: { pot: 0, how: "plate", water: false } },
    { kind: "observed", payload: { step: "add", cues: ["touch"] } },
    { kind: "transferred", payload: { pot: 0, how: "spilt", mg: 14_000, other: null } },
    { kind: "weighed", payload: { pot: 0, componentId: of.wax, mg: 12_700 } },
    { kind: "heated", payload: { pot: 0 } },
    { kind: "stirred", payload: { step: "stir", seconds: 120 } },
    { kind: "stepDone", payload: { step: "set" } },
    { kind: "prepared", payload: { checks: ["dry"] } },
    { kind: "swapped", payload: { product, jars: 1, reason: "cracked" } },
    { kind: "poured", payload: poured },
    { kind: "located", payload: { shelf: "upper", sun: false, draft: false } },
    { kind: "room", payload: { mean: 2_000, low: 1_900, high: 2_100, readings: 3 } },
    { kind: "flaw", payload: { product, defect: "rough_top", place: "top", severity: "slight", jars: 1 }, days: 2 },
    { kind: "jarsInspected", payload: { product, jars: 4, flaws: [rough] } },
    { kind: "jarsInspected", payload: { product, jars: 6, flaws: [] } },
    { kind: "inspected", payload: { jars: 10 } },
  ]);
  const [repair] = await enterAll(log, [{ kind: "repaired", payload: { product, defect: "rough_top", jars: 2, how: "heat gun", mg: null }, days: 3 }]);
  await enterAll(log, [
    { kind: "repairChecked", payload: { repair, held: 2 }, days: 4 },
    { kind: "smelled", payload: { score: 6, room: "small" }, days: 1 },
    { kind: "released", payload: { note: "" }, days: 20 },
    { kind: "statusChanged", payload: { product, jars: 2, from: "rack", to: "sold", whom: "" } },
    { kind: "note", payload: { text: "fine" } },
  ]);
  return { log, product };
}

describe("everything that was entered", () => {
  it("of a batch is deleted, corrected and brought back, or says what stands in the way", async () => {
    const of = await storedBatch(test, workshopId, 7, { dyed: true });
    await test.db.update(products).set({ formulaId: of.formula, containerId: of.vessel }).where(eq(products.id, cup));
    const { log } = await liveBatch(of);
    value(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 2 }));
    await enterAll(log, [{ kind: "closed", payload: { missing: [] }, days: 400 }]);
    const other = logOf(batchStore as never, stored.batch);
    await enterAll(other, [
      { kind: "weighed", payload: { pot: 0, componentId: stored.wax, mg: 100_000 } },
      { kind: "abandoned", payload: { why: "", wax: "kept", mg: null } },
    ]);
    const divided = logOf(batchStore as never, (await storedBatch(test, workshopId, 8, { divided: true })).batch);
    await enterAll(divided, [{ kind: "split", payload: { step: "split-2", mg: 80_000 } }]);
    const eventTypes = new Set([...(await log.events()), ...(await other.events()), ...(await divided.events())].map((sentEntry) => sentEntry.kind));
    expect(kindsOf(BATCH).filter((kind) => !eventTypes.has(kind))).toEqual([]);
    const deleted = await tryAll(log);
    for (const kind of [...(await tryAll(other)), ...(await tryAll(divided))]) deleted.add(kind);
    // What jars, packs and a release rest on stays; all else can go.
    expect(
      kindsOf(BATCH)
        .filter((kind) => !deleted.has(kind))
        .sort(),
    ).toEqual(["inspected", "packed", "poured", "released", "repaired"]);
  }, 120_000);

  it("of an order is deleted, corrected and brought back, or says what stands in the way", async () => {
    const batch = logOf(batchStore as never, stored.batch);
    await enterAll(batch, [
      { kind: "poured", payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null }, days: 1 },
      { kind: "inspected", payload: { jars: 10 }, days: 20 },
      { kind: "released", payload: { note: "" } },
    ]);
    const packRunId = v7();
    value(await pack(here(), { packRunId, sellableId: cup, packs: 4 }));
    const orderId = v7();
    const line = { sellable: cup, name: "Cups of rain", packs: 3, price: 900 };
    value(await beginOrder(here(), { orderId, plan: { format: 1, what: "order", name: "Fern", whom: "", wantedOn: null, lines: [line] } }));
    value(await takeOut(here(), { eventId: v7(), orderId, lines: [{ sellableId: cup, packs: 3 }] }));
    const log = logOf(orderStore as never, orderId);
    const went = (packs: number, to: string) => ({
      kind: "packsResolved",
      payload: { sellable: cup, name: "Cups of rain", packs, to, each: null, why: "" },
      days: 400,
    });
    await enterAll(log, [
      went(2, "sold"),
      went(1, "back"),
      { kind: "asked", payload: { name: "Fern", whom: "by the mill", wantedOn: "2026-12-05", lines: [{ ...line, packs: 2 }] }, days: 500 },
      { kind: "note", payload: { text: "picked up" }, days: 600 },
      { kind: "closed", payload: {}, days: 700 },
    ]);
    expect(await unpack(here(), { packRunId })).toMatchObject({ ok: false, message: expect.stringMatching(/2 of them were shipped/) });
    const eventTypes = new Set((await log.events()).map((event) => event.kind));
    expect(kindsOf(ORDER).filter((kind) => !eventTypes.has(kind))).toEqual([]);
    const deleted = await tryAll(log);
    expect(kindsOf(ORDER).filter((kind) => !deleted.has(kind))).toEqual(["shipped", "packsResolved"]);
    const [run] = await test.db.select().from(packRuns).where(eq(packRuns.id, packRunId));
    expect(run).toMatchObject({ packs: 4, gone: 2 });
  }, 120_000);

  it("of a burn trial is deleted, corrected and brought back, or says what stands in the way, and its jars are where it says", async () => {
    const trialId = v7();
    const begunTrial = value(
      await beginTrial(here(), {
        trialId,
        name: "Which wick",
        varies: null,
        protocol: protocol.parse(PROTOCOLS[0]),
        productId: null,
        after: null,
        variants: [
          {
            from: "make",
            formulaVersionId: stored.version,
            container: "vessel",
            containerId: stored.vessel,
            wick: { id: await stored.newWick(), count: 1 },
            testCandles: 2,
            half: false,
            change: {},
          },
        ],
      }),
    );
    const [batchId = ""] = begunTrial.batches;
    const batch = logOf(batchStore as never, batchId);
    const product = await productOf(batch);
    const later = { days: 400 };
    await enterAll(batch, [
      { kind: "poured", payload: { step: "pour", filled: [{ product, count: 2 }], leftMg: null, roomCelsius: null, warmed: null }, ...later },
    ]);
    const log = logOf(trialStore as never, trialId);
    await enterAll(log, [
      { kind: "lit", payload: { testCandle: "A1", trimUm: 5_000, air: [], early: "" }, days: 500 },
      { kind: "checked", payload: { testCandle: "A1", flame: "steady", poolUm: 30_000 } },
      { kind: "present", payload: {} },
      { kind: "throwScored", payload: { testCandle: "A1", throw: "hot", room: "small", score: 6 } },
      { kind: "extinguished", payload: { testCandle: "A1", why: "protocol", sign: "" } },
      { kind: "weighed", payload: { testCandle: "A1", session: 1, when: "after", mg: 12_000 } },
      { kind: "codesRevealed", payload: {} },
      { kind: "decided", payload: { variant: "A", verdict: "passed", why: "" } },
      { kind: "stopped", payload: { testCandle: "A1", why: "the wax is used up" } },
      { kind: "note", payload: { text: "fine" } },
      { kind: "closed", payload: {} },
    ]);
    const eventTypes = new Set((await log.events()).map((event) => event.kind));
    expect(kindsOf(TRIAL).filter((kind) => !eventTypes.has(kind))).toEqual([]);
    const testCandlesOf = async () => {
      const { rows } = await test.pool.query<{ n: number }>(
        `select coalesce(sum((f->>'jars')::int), 0)::int as n from batch, jsonb_array_elements(state->'jarStatuses') f where batch.id = $1 and f->>'to' = 'testing'`,
        [batchId],
      );
      return rows[0]?.n;
    };
    expect(await testCandlesOf()).toBe(1);
    await tryAll(log);
    expect(await testCandlesOf()).toBe(1);
    // A trial in which nothing was ever lit has its jars on the rack.
    const all = await log.events();
    for (const event of all.filter((sentEntry) => !sentEntry.corrects && !["started", "note", "present", "codesRevealed"].includes(sentEntry.kind)).reverse())
      expect(
        await log.send({ kind: "withdrawn", payload: { why: "", mode: "delete" }, happenedAt: event.happenedAt, corrects: event.id } as SentEntry),
        event.kind,
      ).toMatchObject({ ok: true });
    expect(await testCandlesOf()).toBe(0);
  }, 120_000);
});
