import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { DEFAULT_GRADES, ok, PRESET_PROCESSES, PROTOCOLS, processFrom, protocol, reject } from "@hearth/core";
import { eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it, vi } from "vitest";
import { z } from "zod";
import { POST as importInto } from "@/app/api/workshops/[workshop]/import/route";
import { POST as addNote } from "@/app/api/workshops/[workshop]/notes/route";
import { waxes } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";
import { batchRecordOf } from "@/server/batches/export-record";
import { type Change, notifyPages, subscribeToChanges } from "@/server/http/change-stream";
import { command } from "@/server/http/command";
import { here, inStoredWorkshop, stored, test, workshopId } from "@/testing/stored-workshop";

inStoredWorkshop();

const ROOT = new URL("../../", import.meta.url).pathname;
const none = () => v7();
const process = () => processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]);

/** Every command that can refuse what is well formed: an input that it does. */
const REFUSED: Record<string, () => object | Promise<object>> = {
  askDevice: () => ({ name: "phone", role: "helper" }),
  beginTrial: async () => ({
    trialId: none(),
    name: "x",
    varies: null,
    protocol: protocol.parse(PROTOCOLS[0]),
    productId: null,
    after: null,
    // The first is poured before the second is found missing.
    variants: [
      {
        from: "make",
        formulaVersionId: stored.version,
        container: "vessel",
        containerId: stored.vessel,
        wick: { id: await stored.newWick(), count: 1 },
        testCandles: 1,
        half: false,
        change: {},
      },
      { from: "rack", batchId: none(), product: "x", testCandles: 1 },
    ],
  }),
  restore: () => ({ kind: "wax", id: none() }),
  changeWorkshop: () => ({ id: workshopId, expectedVersion: 99, name: "x", massUnit: "g", temperatureUnit: "C", timeZone: "UTC" }),
  duplicate: () => ({ kind: "wax", id: none(), freshId: none() }),
  eraseCustomer: () => ({ orderId: none() }),
  invite: () => ({ personId: none(), role: "helper" }),
  scheduleWorkshopDeletion: () => ({ go: true, name: "another name" }),
  merge: () => ({ kind: "wax", goneId: stored.wax, keptId: none(), mergeId: none() }),
  pack: () => ({ packRunId: none(), sellableId: none(), packs: 1 }),
  archive: () => ({ kind: "person", id: stored.person, away: true }),
  putOnPlan: () => ({ id: none(), productId: none(), count: 1, wantedOn: null, note: "" }),
  putSupplierSheet: () => ({ id: none(), kind: "wax", materialId: none(), sheet: { on: "2026-01-02", ingredients: [] } }),
  remove: () => ({ kind: "wax", id: stored.wax }),
  saveOilTest: () => ({ id: none(), kind: "mixing", parts: [{ id: none(), drops: 1 }], on: "2026-01-01", verdict: "good", note: "" }),
  deleteOilTest: () => ({ id: none(), gone: true }),
  saveColor: () => ({ id: none(), name: "x", recipe: { waxId: none(), fragranceId: null, dyes: [{ id: none(), by: "drops", amount: 1 }], note: "" } }),
  saveCount: () => ({ kind: "wax", materialId: none(), id: none(), amount: 1 }),
  saveDay: () => ({ on: "2026-03-05", data: {}, version: 7 }),
  saveFormula: () => ({
    id: null,
    freshId: none(),
    expectedVersion: null,
    name: "x",
    spec: { waxes: [{ id: none(), share: 1 }], fragrances: [], basis: "wax", loadPpm: 0, notes: "", process: process() },
  }),
  saveGrades: () => ({ rules: DEFAULT_GRADES, version: 7 }),
  saveLabelling: () => ({ settings: {}, version: 7 }),
  saveLot: () => ({ kind: "wax", materialId: none(), id: none(), expectedVersion: null, code: "", amount: 1, cost: null, receivedOn: "2026-01-02" }),
  saveOnShelf: () => ({ kind: "wax", id: stored.wax, expectedVersion: 99, values: { name: "x", family: "soy" } }),
  savePlanning: () => ({ settings: {}, version: 7 }),
  saveProcess: () => ({ id: none(), expectedVersion: 1, process: process() }),
  saveProduct: () => ({
    id: none(),
    expectedVersion: null,
    name: "x",
    formulaId: none(),
    container: "vessel",
    containerId: none(),
    wickId: null,
    wicks: 1,
    price: null,
    soldBy: "piece",
    pack: 1,
    packCost: null,
    handsSeconds: null,
    heatSeconds: null,
  }),
  saveSet: () => ({
    id: none(),
    expectedVersion: 3,
    name: "x",
    contents: [{ productId: none(), count: 1 }],
    packaging: { boxId: null, parts: [] },
    price: null,
  }),
  saveDemand: () => ({ id: none(), productId: none(), count: 1, wantedOn: null, note: "" }),
  sayWickTest: () => ({ id: none(), expectedVersion: 1, wickTest: "tested" }),
  setPin: () => ({ personId: stored.person, pin: "4821" }),
  recordPastBatch: () => ({
    wanted: {
      batchId: none(),
      formulaVersionIds: [stored.version],
      process: "formula",
      products: [{ id: stored.vessel, container: "vessel", count: 1, part: null, wick: null }],
      sparePpm: 0,
      waxScale: stored.scale,
      oilScale: stored.scale,
      startedAt: "2026-01-05T09:00:00.000Z",
    },
    past: {
      steps: [],
      filled: [],
      thermometerId: null,
      leftMg: null,
      roomCelsius: null,
      warmed: null,
      // Begun, and then refused: nothing was poured.
      inspection: { at: null, flaws: [{ defect: "wet_spot", place: "side", extent: "patch", product: stored.vessel, jars: 1 }] },
      remark: "",
    },
  }),
  startBatch: () => ({
    batchId: none(),
    formulaVersionIds: [stored.version],
    process: "formula",
    products: [{ id: none(), container: "vessel", count: 1, part: null, wick: null }],
    sparePpm: 0,
    waxScale: stored.scale,
    oilScale: stored.scale,
  }),
  takeColorAway: () => ({ id: none(), gone: true }),
  takeNoteAway: () => ({ id: none(), gone: true }),
  takeOut: () => ({ eventId: none(), orderId: none(), lines: [{ sellableId: none(), packs: 1 }] }),
  // The first row is whole, and puts a wax on the shelf; the second has no count.
  importNotes: () => ({
    importId: none(),
    kind: "batches",
    file: "pours.csv",
    grid: [
      ["date", "wax", "jar", "count"],
      ["2024-03-01", "new wax", "tin 180 g", "6"],
      ["2024-03-02", "new wax", "tin 180 g", ""],
    ],
    reading: {
      columns: { day: 0, wax: 1, vessel: 2, count: 3 },
      units: {},
      everywhere: {},
      dayOrder: "day",
      decimalComma: false,
      flawsOn: "every jar",
      leftOut: [],
    },
    names: { "wax:new wax": { name: "new wax", family: "soy" }, "vessel:tin 180 g": { name: "tin 180 g", fillMg: 180_000 } },
  }),
  undoNotes: () => ({ importId: none() }),
  pourRung: () => ({ trialId: none(), productId: none(), choice: "load 80000" }),
  saveFilledRooms: () => ({ productId: none(), rooms: ["bedroom"], isTold: true }),
  takeSheet: () => ({
    kind: "dye",
    sheet: {
      heads: ["name", "kind"],
      rows: [
        ["new rose", "liquid"],
        ["new moss", "no such kind"],
      ],
      decimalComma: false,
    },
    mapping: { name: 0, kind: 1 },
    shown: { new: 2, changed: 0, same: 0 },
  }),
  takeWick: () => ({ trialId: none(), variant: "A", productId: none() }),
  undoBatch: () => ({ batchId: none() }),
  undoMerge: () => ({ mergeId: none() }),
  unpack: () => ({ packRunId: none() }),
};
/** Commands that take whatever is well formed, or that belong to no workshop: each says why. */
const TAKES_ALL: Record<string, string> = {
  beginOrder: "an order is taken whatever is in stock",
  chooseLight: "a cookie of this browser",
  choosePerson: "a cookie of this browser",
  chooseWorkshop: "a cookie of this browser",
  countPoured: "lines that are not there any more are passed over",
  cutDevice: "a device that is not there is out already",
  dropCause: "a cause that is not there is gone already",
  findThings: "it only reads",
  makeWorkshop: "it makes a workshop of its own",
  renewCalendar: "a new address is always given",
  saveCause: "a cause of one's own may say anything",
  saveSeries: "a wick that is not there is passed over",
  saveLabelSheet: "a sheet as it was measured",
  setRole: "needs a second owner to be refused: tested with authentication",
  takeAccess: "needs a last owner to be refused: tested with authentication",
  takeSupplierSheet: "a sheet that is not there is gone already",
  takeOff: "lines that are not there any more are passed over",
};

/** Everything that is kept of the workshop, as one text. */
async function stateOf(): Promise<string> {
  const { rows } = await test.owner.query<{ name: string }>(
    "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'workshop_id' order by 1",
  );
  const parts = rows.map(
    ({ name }) => `(select '${name}' as name, md5(coalesce(string_agg(t::text, '|' order by t::text), '')) as sum from "${name}" t where workshop_id = $1)`,
  );
  const { rows: all } = await test.owner.query<{ all: string }>(
    `select string_agg(name || ' ' || sum, E'\n' order by name) as all from (${parts.join(" union all ")}) s`,
    [workshopId],
  );
  return all[0]?.all ?? "";
}

/** Returns the files with commands, which are all in the server's folders. */
const commandFiles = (): string[] =>
  readdirSync(join(ROOT, "server"), { recursive: true, encoding: "utf8" })
    .map((file) => `server/${file}`)
    .filter((file) => /\.ts$/.test(file) && readFileSync(join(ROOT, file), "utf8").startsWith('"use server"'));

describe("what is refused", () => {
  it("leaves nothing behind, whichever command refused it", async () => {
    const files = commandFiles();
    const found: string[] = [];
    for (const file of files) {
      const module = (await import(join(ROOT, file))) as Record<string, unknown>;
      for (const [name, step] of Object.entries(module)) {
        if (typeof step !== "function") continue;
        found.push(name);
        const input = REFUSED[name];
        if (!input) continue;
        const asked = await input();
        const before = await stateOf();
        const outcome = (await (step.length < 2 ? step(asked) : step(here(), asked))) as { ok: boolean; message?: string };
        expect(outcome, name).toMatchObject({ ok: false, message: expect.stringMatching(/\w{3}/) });
        expect(outcome.message, name).not.toMatch(/does not say which workshop|cannot be read|Invalid/);
        expect(await stateOf(), name).toBe(before);
      }
    }
    // A new command is put into one of the lists.
    expect(found.filter((name) => !(name in REFUSED) && !(name in TAKES_ALL))).toEqual([]);
    expect([...Object.keys(REFUSED), ...Object.keys(TAKES_ALL)].filter((name) => !found.includes(name))).toEqual([]);
  }, 60_000);

  it("is rolled back, and told to nobody, also where something was written before it was refused or failed", async () => {
    const put = (end: () => Promise<never> | ReturnType<typeof reject>) =>
      command("shelf", z.object({}), here(), {}, async (_none, { db, workshop }) => {
        await db.insert(waxes).values({ workshopId: workshop.id, id: v7(), name: "half done", family: "soy" });
        return end();
      });
    const before = await stateOf();
    expect(await put(() => reject("no"))).toMatchObject({ ok: false, message: "no" });
    await expect(
      put(async () => {
        throw new Error("broken");
      }),
    ).rejects.toThrow("broken");
    expect(await stateOf()).toBe(before);
    expect(await command("shelf", z.object({}), here(), {}, async () => ok(1))).toEqual({ ok: true, value: 1 });
  });

  it("is told to nobody, and what is done to every page of the workshop, once and by the one place that runs commands", async () => {
    const heard: Change[] = [];
    const leave = subscribeToChanges((change) => void (change.workshop === workshopId ? heard.push(change) : 0));
    // It hears once it hears itself.
    await vi.waitFor(async () => {
      await notifyPages(test.db, { workshop: workshopId });
      await new Promise((wait) => setTimeout(wait, 30));
      expect(heard.length).toBeGreaterThan(0);
    }, 5_000);
    heard.length = 0;
    const run = (outcome: () => ReturnType<typeof reject> | ReturnType<typeof ok<number>>, action: "see" | "change" = "change") =>
      command("shelf", z.object({}), here(), {}, async () => outcome(), action);
    await run(() => reject("no"));
    await run(() => ok(1), "see");
    await run(() => ok(1));
    await vi.waitFor(() => expect(heard).toEqual([{ workshop: workshopId, topics: ["shelf", "stock"] }]), 5_000);
    // No command tells it by itself, or asks the pages to be drawn anew.
    const words = commandFiles().filter((file) => /notifyPages\(\w+, \{ workshop: \S+ \}\)|revalidatePath\(/.test(readFileSync(join(ROOT, file), "utf8")));
    // But for the one that makes a workshop, which is of none yet.
    expect(words).toEqual(["server/workshops/workshop-commands.ts"]);
    leave();
  });

  it("leaves nothing behind of a record or a note that a route refuses", async () => {
    const record = await batchRecordOf(test.db, workshopId, stored.batch);
    const other = await test.workshop();
    const at = (id: string) => ({ params: Promise.resolve({ workshop: id }) });
    const send = (id: string, body: unknown) => importInto(new Request("http://127.0.0.1/", { method: "POST", body: JSON.stringify(body) }), at(id));
    expect((await send(other, record)).status).toBe(200);
    // The same formula with another recipe, a wax and a person that are not here yet.
    const changed = structuredClone(record) as NonNullable<typeof record>;
    const [wax] = changed.waxes;
    changed.batch.id = v7();
    changed.events = changed.events.map((event) => ({ ...event, id: v7() }));
    changed.people.push({ id: v7(), name: "Ghost of a refused import" });
    changed.waxes.push({ ...wax, id: v7(), name: "ghost wax" } as typeof wax & object);
    changed.formulaVersion.spec.loadPpm += 1_000;
    const counts = async () => [await test.db.$count(waxes, eq(waxes.workshopId, other)), await test.db.$count(people, eq(people.workshopId, other))];
    const before = await counts();
    const answer = await send(other, changed);
    expect(answer.status).toBe(409);
    expect(JSON.stringify(await answer.json())).toMatch(/Nothing was imported/);
    expect(await counts()).toEqual(before);
    // What cannot have been is refused with its place.
    for (const [spoil, words] of [
      [
        (copy: NonNullable<typeof record>) =>
          Object.assign(copy.events[0] as object, { happenedAt: "2199-01-01T00:00:00.000Z", arrivedAt: "2199-01-01T00:00:00.000Z" }),
        /Entry 1 of 1 \(started\) is dated 2199-01-01/,
      ],
      [
        (copy: NonNullable<typeof record>) => {
          const [start] = copy.events;
          const product = (start as { payload: { plan: { products: { key: string }[] } } }).payload.plan.products[0]?.key;
          const entry = (kind: string, payload: object, n: number) => ({
            ...start,
            id: v7(),
            happenedAt: `2026-02-0${n}T10:00:00.000Z`,
            arrivedAt: `2026-02-0${n}T10:00:00.000Z`,
            kind,
            payload,
            v: kind === "poured" ? 2 : 1,
          });
          copy.events.push(
            entry("poured", { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null }, 3) as never,
            entry("statusChanged", { product, jars: 90_000, from: "rack", to: "sold", whom: "" }, 4) as never,
          );
        },
        /Entry 3 of 3 \(statusChanged\): 10 are on the rack\./,
      ],
    ] as const) {
      const copy = structuredClone(record) as NonNullable<typeof record>;
      copy.batch.id = v7();
      copy.events = copy.events.map((event) => ({ ...event, id: v7() }));
      spoil(copy);
      const refusal = await send(await test.workshop(), copy);
      expect(refusal.status).toBe(409);
      expect(((await refusal.json()) as { error: { message: string } }).error.message).toMatch(words);
    }
    const state = await stateOf();
    const note = await addNote(
      new Request("http://127.0.0.1/", {
        method: "POST",
        body: JSON.stringify({ id: v7(), kind: "batch", of: v7(), text: "x", personId: null, pictures: [] }),
      }),
      at(workshopId),
    );
    expect(note.status).toBeGreaterThanOrEqual(400);
    expect(await stateOf()).toBe(state);
  });
});
