import { dayRecord, HOT_WAX, planDemand, workOfDay } from "@hearth/core";
import ICAL from "ical.js";
import { DateTime } from "luxon";
import { v7 } from "uuid";
import { describe, expect, it, vi } from "vitest";
import { GET as calendarFile } from "../web/app/api/calendar/[file]/route";
import { GET as batchSheet } from "../web/app/api/workshops/[workshop]/batches/[batch]/sheet/route";
import { GET as daySheet } from "../web/app/api/workshops/[workshop]/days/[day]/sheet/route";
import { products } from "../web/data/tables/product";
import { lots } from "../web/data/tables/stock";
import { openBatches, readBatch } from "../web/server/batches/batches";
import { appendEvent } from "../web/server/events/batch-store";
import { batchSheets, jarTags } from "../web/server/paper/sheets";
import { countPoured, renewCalendar, saveDay, saveDemand, savePlanning, takeOff } from "../web/server/planning/commands";
import { ALL_OTHERS, readDemandPlan, readPlanNews, readSupplies } from "../web/server/planning/planning";
import { readPaper } from "../web/testing/read-paper";
import { STARTED } from "../web/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "../web/testing/stored-workshop";
import { putDemo } from "./load";
import { PRODUCTS } from "./workshop";

inStoredWorkshop();

const NOW = "2026-03-02T08:00:00.000Z";
const ZONE = "Europe/Berlin";

/** A workshop with the demo in it; gives its place. */
async function demoShop() {
  const id = v7();
  vi.stubEnv("HEARTH_ZONE", ZONE);
  await putDemo(test.db, { id, name: `Shed ${id}` }, new Date(NOW));
  return { id, timeZone: ZONE, place: { workshopId: id, personId: null } };
}
const product = (name: string) => PRODUCTS.find((product) => product.name === name)?.id ?? "";
const wish = (name: string, count: number, wantedOn: string | null) => ({ id: v7(), productId: product(name), count, wantedOn, note: "order" });

describe("what is wanted", () => {
  it("is put on the list, changed, counted as poured, taken off and put back, and belongs to its workshop", async () => {
    const shop = await demoShop();
    const before = (await readDemandPlan(test.db, shop)).lines;
    const item = wish("Rain on slate, squat tumbler", 6, "2026-04-20");
    value(await saveDemand(shop.place, item));
    // Pressed twice it stands there once.
    value(await saveDemand(shop.place, item));
    const read = async () => (await readDemandPlan(test.db, shop)).lines.filter((line) => !before.some((old) => old.id === line.id));
    const [line] = await read();
    expect(await read()).toMatchObject([{ id: item.id, count: 6, asked: 6, made: 0, productName: "Rain on slate, squat tumbler" }]);
    value(await saveDemand(shop.place, { ...item, count: 9, version: line?.version }));
    expect(await saveDemand(shop.place, { ...item, count: 4, version: line?.version })).toMatchObject({ ok: false });
    value(await countPoured(shop.place, { lines: [{ id: item.id, count: 5 }] }));
    expect(await read()).toMatchObject([{ count: 4, asked: 9, made: 5 }]);
    value(await countPoured(shop.place, { lines: [{ id: item.id, count: 4 }] }));
    expect(await read()).toEqual([]);
    value(await countPoured(shop.place, { lines: [{ id: item.id, count: -9 }] }));
    value(await takeOff(shop.place, { ids: [item.id], gone: true }));
    expect(await read()).toEqual([]);
    // Another workshop cannot touch it.
    value(await takeOff(here(), { ids: [item.id], gone: false }));
    expect(await read()).toEqual([]);
    value(await takeOff(shop.place, { ids: [item.id], gone: false }));
    expect(await read()).toHaveLength(1);
    expect(await saveDemand(here(), wish("Rain on slate, squat tumbler", 1, null))).toMatchObject({ ok: false, fields: { productId: ["Choose another."] } });
  });

  it("takes from the shelf what a batch would, less what is there, and today says what is wrong", async () => {
    const shop = await demoShop();
    const news = await readPlanNews(test.db, shop, NOW);
    expect(news?.untested).toContain("Walled garden, wide bowl");
    expect(news?.short.length).toBeGreaterThan(0);
    const read = await readDemandPlan(test.db, shop);
    const { draws, stores } = await readSupplies(test.db, shop, read);
    const tumbler = new Map(draws).get(product("Rain on slate, squat tumbler"));
    // 176 g at 8 % of the wax with 5 % spare: 176 × 1.05 ÷ 1.08 of wax, the rest oil; one vessel and one wick.
    const grams = (tumbler ?? []).map(([, amount]) => amount).filter((amount) => amount > 10);
    expect(grams.sort((a, b) => b - a)[0]).toBeCloseTo((176_000 * 1.05) / 1.08, -2);
    expect(grams.reduce((sum, mg) => sum + mg, 0)).toBeCloseTo(176_000 * 1.05, -2);
    expect(stores.every((store) => store.onHand === null || Number.isFinite(store.onHand))).toBe(true);
    expect(await readPlanNews(test.db, { id: workshopId, timeZone: "UTC" }, NOW)).toBeNull();
  });

  it("does not count twice on what a batch that is on has still to take", async () => {
    // The stored batch is started and nothing of it is weighed: ten cups and what fills them are promised to it.
    const shop = { id: workshopId, timeZone: "UTC" };
    const cup = { id: v7(), name: "Cup of rain", formulaId: stored.formula, container: "vessel" as const, containerId: stored.vessel, wickId: null };
    await test.db.insert(products).values({ ...cup, workshopId });
    value(await saveDemand(here(), { id: v7(), productId: cup.id, count: 4, wantedOn: null, note: "" }));
    const supplies = async () => {
      const { stores } = await readSupplies(test.db, shop, await readDemandPlan(test.db, shop));
      return new Map(stores.map((store) => [store.id, store]));
    };
    const before = (await supplies()).get(stored.wax);
    expect(before?.promised).toBeGreaterThan(0);
    expect((await supplies()).get(stored.vessel)).toMatchObject({ promised: 10, counted: true, onHand: null, pack: null });
    // What is weighed of it is drawn, and promised no longer.
    await appendEvent(
      test.db,
      workshopId,
      stored.batch,
      stored.sent({ kind: "weighed", payload: { pot: 0, componentId: stored.wax, mg: 40_000 } }, { happenedAt: STARTED }),
      NOW,
    );
    expect((await supplies()).get(stored.wax)?.promised).toBe((before?.promised ?? 0) - 40_000);
    await test.db.insert(lots).values({ workshopId, id: v7(), kind: "wax", materialId: stored.wax, amount: 5_000_000, cost: 4_200, receivedOn: "2026-01-01" });
    expect((await supplies()).get(stored.wax)).toMatchObject({ pack: { amount: 5_000_000, cost: 4_200 } });
  });

  it("is planned with what the workshop says of itself, and a day is kept as it was left", async () => {
    const shop = await demoShop();
    const { settings, version } = await readDemandPlan(test.db, shop);
    expect(version).toBe(0);
    expect(value(await savePlanning(shop.place, { settings: { ...settings, hands: 2, daysOff: ["2026-03-09"] }, version })).version).toBe(1);
    expect(await savePlanning(shop.place, { settings, version })).toMatchObject({ ok: false });
    expect((await readDemandPlan(test.db, shop)).settings).toMatchObject({ hands: 2, daysOff: ["2026-03-09"] });
    const data = { counts: { [product("Hay loft, squat tumbler")]: 4 }, held: { "x/1": 12 } };
    expect(value(await saveDay(shop.place, { on: "2026-03-05", data, version: 0 })).version).toBe(1);
    expect(await saveDay(shop.place, { on: "2026-03-05", data, version: 0 })).toMatchObject({ ok: false });
    expect(value(await saveDay(shop.place, { on: "2026-03-05", data, version: 1 })).version).toBe(2);
    expect(await saveDay(shop.place, { on: "no day", data, version: 0 })).toMatchObject({ ok: false, fields: { on: [expect.any(String)] } });
  });
});

const asked = (path: string) => new Request(`http://127.0.0.1:4380${path}`, { headers: { host: "127.0.0.1:4380" } });

describe("on paper", () => {
  it("a batch has its amounts, its ranges in the unit of the workshop, and a code that opens it, on A4 and on Letter", async () => {
    const shop = await demoShop();
    const [batch] = await openBatches(test.db, shop.id);
    if (!batch) throw new Error("the demo has no batch");
    const params = Promise.resolve({ workshop: shop.id, batch: batch.id });
    const paper = await readPaper(await batchSheet(asked("/x"), { params }), true);
    // A4 is 210 × 297 mm (ISO 216), a point 1/72 in.
    expect(paper.size?.[0]).toBeCloseTo((210 / 25.4) * 72, 1);
    expect(paper.size?.[1]).toBeCloseTo((297 / 25.4) * 72, 1);
    expect(paper.code).toBe(`http://127.0.0.1:4380/w/${shop.id}/bench/${batch.id}`);
    expect(paper.text).toContain(`Batch ${batch.number}`);
    expect(paper.text).toMatch(/\d+–\d+ °C/);
    expect(paper.text).not.toContain("°F");
    expect(paper.text.replace(/\s+/g, " ")).toContain(HOT_WAX);
    // What is printed is embedded, so that it prints alike everywhere.
    for (const font of paper.fonts.split("\n").slice(2).filter(Boolean)) expect(font).toMatch(/\byes\s+yes\b/);
    const letter = await readPaper(await batchSheet(asked("/x?size=letter&what=tags"), { params }));
    expect(letter.size).toEqual([612, 792]);
    const jars = batch.products.reduce((sum, item) => sum + item.count, 0);
    expect(letter.text.match(new RegExp(`Batch ${batch.number}`, "g"))).toHaveLength(Math.min(jars, letter.pages * 18));
    expect(letter.text).toMatch(/of the wax/);
    expect((await batchSheet(asked("/x?size=a5"), { params })).status).toBe(400);
    expect((await batchSheet(asked("/x"), { params: Promise.resolve({ workshop: workshopId, batch: batch.id }) })).status).toBe(404);
  });

  it("a day has a sheet for each pot, whose code opens its plan; a day with nothing says so", async () => {
    const shop = await demoShop();
    const read = await readDemandPlan(test.db, shop);
    const day = planDemand(read.lines, read.products, read.settings, { now: NOW, zone: ZONE }).pots[0]?.day ?? "";
    vi.setSystemTime(new Date(NOW));
    const paper = await readPaper(await daySheet(asked("/x"), { params: Promise.resolve({ workshop: shop.id, day }) }), true);
    vi.useRealTimers();
    expect(paper.pages).toBeGreaterThanOrEqual(1);
    expect(paper.code).toMatch(/^http:\/\/127\.0\.0\.1:4380\/w\/[0-9a-f-]{36}\/plan\?formula=[0-9a-f-]{36}&fill=[0-9a-f-]{36}:\d+/);
    expect(paper.text).toContain("Pot 1");
    const none = await daySheet(asked("/x"), { params: Promise.resolve({ workshop: workshopId, day }) });
    expect(none.status).toBe(404);
    expect(await none.json()).toMatchObject({ error: { message: expect.stringMatching(/Nothing is planned/) } });
  });
});

describe("a day that was kept", () => {
  it("is what its sheets print, pots that were given up left out; the plan of another day is not in it", async () => {
    const shop = await demoShop();
    const counts = { [product("Rain on slate, squat tumbler")]: 12, [product("Quince and smoke, narrow tin")]: 4 };
    const params = Promise.resolve({ workshop: shop.id, day: "2026-05-09" });
    value(await saveDay(shop.place, { on: "2026-05-09", data: { counts }, version: 0 }));
    const whole = await readPaper(await daySheet(asked("/x"), { params }));
    // 12 × 176 g with 5 % spare do not go into one pitcher of 1.5 kg.
    expect(whole.pages).toBe(3);
    expect(whole.text.match(/6 × squat tumbler, 176 g each/g)).toHaveLength(2);
    expect(whole.text).toContain("4 × narrow tin");
    const { sheets } = { sheets: whole.text.match(/Pot \d\n/g) };
    expect(sheets).toHaveLength(3);
    const [key] = workOfDay(
      dayRecord.parse({ counts }),
      (await readDemandPlan(test.db, shop, ALL_OTHERS)).products.map((product) => ({ ...product, productId: product.id })),
    ).map((work) => work.pot.key);
    value(await saveDay(shop.place, { on: "2026-05-09", data: { counts, gone: { [key ?? ""]: 30 } }, version: 1 }));
    expect((await readPaper(await daySheet(asked("/x"), { params }))).pages).toBe(2);
    expect((await daySheet(asked("/x"), { params: Promise.resolve({ workshop: shop.id, day: "2026-05-10" }) })).status).toBe(404);
    expect((await daySheet(asked("/x"), { params: Promise.resolve({ workshop: shop.id, day: "soon" }) })).status).toBe(404);
  });
});

describe("a sheet of much", () => {
  /** A batch as a maker with ounces, small scales and long names has it. */
  const big = async () => {
    const shop = await demoShop();
    const [batch] = await openBatches(test.db, shop.id);
    const plan = (await readBatch(test.db, shop.id, batch?.id ?? ""))?.plan;
    const [pot] = plan?.pots ?? [];
    const [product] = plan?.products ?? [];
    if (!plan || !pot || !product) throw new Error("the demo has no batch");
    const scale = { id: v7(), name: "letter scale", resolutionUg: 10_000 };
    const components = Array.from({ length: 40 }, (_, n) => ({
      kind: "fragrance" as const,
      id: v7(),
      name: n === 0 ? "Żywokost and smoke of a very long name that goes on and on beyond any label" : `oil ${n}`,
      mg: 700_000,
      scale,
    }));
    return {
      capacities: new Map([[scale.id, 500_000]]),
      sheet: {
        name: "Batch 7",
        day: "2026-03-29",
        address: "http://127.0.0.1:4380/bench/x",
        opens: "opens this batch",
        plan: {
          ...plan,
          pots: [
            {
              ...pot,
              formulaName: "Ægir’s hearth – ½ × Übersee, 漢",
              components,
              pitchers: [1, 2].map(() => ({ totalMg: 14_000_000, components: components.map((component) => ({ id: component.id, mg: 350_000 })) })),
            },
          ],
          products: [{ ...product, count: 20 }],
        },
      },
    };
  };
  const answer = (body: Buffer) => new Response(new Uint8Array(body));

  it("goes on over pages, says parts by pitcher and by what the scale takes, each in the unit of its scale with the workshop's beside it, with every letter that its font has", async () => {
    const { sheet, capacities } = await big();
    const paper = await readPaper(answer(await batchSheets([sheet], "letter", { massUnit: "oz", temperatureUnit: "F", locale: "de-DE" }, capacities)));
    expect(paper.pages).toBeGreaterThan(2);
    expect(paper.text).toContain("Batch 7 (continued)");
    // On a scale that shows grams, in a workshop that reckons in ounces: 700 g are 24,69 oz. Two pitchers of 350 g; a scale that takes 500 g, a fifth of it for the container, takes two parts.
    expect(paper.text).toContain("700,00 g");
    expect(paper.text).toMatch(/= 24,69\d* oz/);
    expect(paper.text).toMatch(/by pitcher: 350,00 g \+ 350,00 g/);
    expect(paper.text).toContain("in 2 parts on this scale");
    expect(paper.text).toContain("Żywokost and smoke");
    expect(paper.text).toContain("Ægir’s hearth – ½ × Übersee, ?");
    expect(paper.text).toContain("29.3.2026");
    for (let n = 1; n < 40; n++) expect(paper.text, `oil ${n}`).toMatch(new RegExp(`oil ${n}\\b`));
  });

  it("has a tag for each jar, on as many pages as that takes, cut to the same size on both papers", async () => {
    const { sheet } = await big();
    for (const [size, width, height] of [
      ["a4", 210, 297],
      ["letter", 215.9, 279.4],
    ] as const) {
      const paper = await readPaper(answer(await jarTags([sheet], size, { massUnit: "g", temperatureUnit: "C", locale: "en-GB" })));
      expect(paper.size?.map((points) => Math.round((points / 72) * 254) / 10)).toEqual([width, height]);
      expect(paper.pages).toBe(Math.ceil(20 / (3 * Math.floor((height - 10) / 40))));
      expect(paper.text).toContain("29/03/2026");
    }
  });
});

describe("the calendar", () => {
  it("is read by a calendar library as it was meant, at a secret address that can be renewed", async () => {
    const shop = await demoShop();
    const { key } = value(await renewCalendar(shop.place, {}));
    const get = (file: string) => calendarFile(asked("/x"), { params: Promise.resolve({ file }) });
    const answer = await get(`${key}.ics`);
    expect(answer.headers.get("content-type")).toBe("text/calendar; charset=utf-8");
    const text = await answer.text();
    // RFC 5545: lines end in CRLF and are folded at 75 octets.
    for (const line of text.split("\r\n")) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    const calendar = new ICAL.Component(ICAL.parse(text));
    const events = calendar.getAllSubcomponents("vevent").map((allSubcomponent) => new ICAL.Event(allSubcomponent));
    expect(events.length).toBeGreaterThan(10);
    expect(new Set(events.map((event) => event.uid)).size).toBe(events.length);
    const batches = (await openBatches(test.db, shop.id)).filter((openBatch) => openBatch.times);
    for (const batch of batches) {
      const set = events.find((event) => event.uid === `${batch.id}-set@hearth-jar`);
      expect(set?.startDate.toJSDate().toISOString().slice(0, 19)).toBe(batch.times?.setAt.slice(0, 19));
      const cured = events.find((event) => event.uid === `${batch.id}-cured@hearth-jar`);
      expect(cured?.startDate.isDate).toBe(true);
      expect(cured?.startDate.toString()).toBe(DateTime.fromISO(batch.times?.sellFrom ?? "", { zone: ZONE }).toISODate());
    }
    expect(events.some((event) => event.summary.startsWith("Pour "))).toBe(true);
    expect(events.some((event) => event.summary.startsWith("Wanted: 24 × Rain on slate, squat tumbler"))).toBe(true);

    // The first pot of a day begins when the workshop opens, by its own wall, before the clocks change and after; each has its own time.
    const next = new Date().getUTCFullYear() + 1;
    for (const day of [`${next}-02-20`, `${next}-07-20`]) value(await saveDemand(shop.place, wish("Rain on slate, sample cup", 6, day)));
    const later = new ICAL.Component(ICAL.parse(await (await get(`${key}.ics`)).text()))
      .getAllSubcomponents("vevent")
      .map((allSubcomponent) => new ICAL.Event(allSubcomponent));
    const ofPours = later.filter((event) => event.summary.startsWith("Pour "));
    const pours = ofPours.map((ofPour) => DateTime.fromJSDate(ofPour.startDate.toJSDate(), { zone: ZONE }));
    const days = new Set(pours.map((pour) => pour.toISODate()));
    expect(days.size).toBeLessThan(pours.length);
    for (const day of days) {
      const [first] = pours.filter((pour) => pour.toISODate() === day).sort((a, b) => a.toMillis() - b.toMillis());
      expect(first?.toFormat("HH:mm")).toBe("09:00");
      // One pair of hands pours one pot after the other.
      const ends = ofPours.filter((_one, index) => pours[index]?.toISODate() === day).map((ofPour) => ofPour.endDate.toJSDate().getTime());
      expect(new Set(ends).size).toBe(ends.length);
    }
    expect(new Set(pours.map((pour) => pour.offset)).size).toBe(2);

    const { key: other } = value(await renewCalendar(shop.place, {}));
    expect(other).not.toBe(key);
    expect((await get(`${key}.ics`)).status).toBe(404);
    expect((await get("no.ics")).status).toBe(404);
    expect((await get(`${other}.ics`)).status).toBe(200);
  });
});
