import { LANGUAGES, supplierSheet } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { GET as buyers } from "@/app/api/workshops/[workshop]/buyers/route";
import { GET as labels } from "@/app/api/workshops/[workshop]/labels/route";
import { products } from "@/data/tables/product";
import { vessels } from "@/data/tables/shelf";
import { workshops } from "@/data/tables/workshop";
import { appendEvent } from "@/server/events/batch-store";
import { putSupplierSheet, takeSupplierSheet } from "@/server/inventory/commands";
import { batchesOfFormula, hazardOfBatch, hazardOfRecipe, sheetsOf } from "@/server/inventory/safety-data-sheets";
import { readPaper } from "@/testing/read-paper";
import { STARTED } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { saveLabelling, saveLabelSheet } from "./commands";
import { listLabelSheets } from "./label-settings";

inStoredWorkshop();

const MM = 72 / 25.4;
const params = () => Promise.resolve({ workshop: workshopId });
const get = (path: string) => new Request(`http://127.0.0.1:4380/?${path}`, { headers: { host: "127.0.0.1:4380" } });
const label = (query: string) => labels(get(query), { params: params() });

async function aProduct(over: object = {}): Promise<string> {
  const id = v7();
  await test.db.insert(products).values({
    workshopId,
    id,
    name: "Cup of rain",
    formulaId: stored.formula,
    container: "vessel",
    containerId: stored.vessel,
    wickId: null,
    labelContainer: "container",
    pack: 6,
    ...over,
  });
  return id;
}
const OIL = [
  { name: "rain accord", percent: 12, classes: ["Skin Sens. 1B"] },
  { name: "rain musk", percent: 35, classes: ["Aquatic Chronic 2"] },
];
const putSheet = (materialId: string, kind: "wax" | "fragrance", ingredients: object[], on = "2026-01-10") =>
  putSupplierSheet(here(), { id: v7(), kind, materialId, sheet: { on, ingredients } });

describe("supplier's sheets", () => {
  it("are kept with their day, the newest counting, taken away and put back; and none of a day to come", async () => {
    value(await putSheet(stored.oil, "fragrance", OIL, "2026-01-10"));
    value(await putSheet(stored.oil, "fragrance", [], "2025-06-01"));
    expect((await sheetsOf(test.db, workshopId, stored.oil)).map((sheet) => sheet.sheet.on)).toEqual(["2026-01-10", "2025-06-01"]);
    expect(await putSheet(stored.oil, "fragrance", [], "2999-01-01")).toMatchObject({ ok: false, fields: { "sheet.on": [expect.any(String)] } });
    expect(await putSheet(stored.wax, "fragrance", [])).toMatchObject({ ok: false });
    const [newest] = await sheetsOf(test.db, workshopId, stored.oil);
    value(await takeSupplierSheet(here(), { id: newest?.id, gone: true }));
    expect((await sheetsOf(test.db, workshopId, stored.oil)).map((sheet) => sheet.sheet.on)).toEqual(["2025-06-01"]);
    value(await takeSupplierSheet(here(), { id: newest?.id, gone: false }));
    expect(await sheetsOf(test.db, await test.workshop(), stored.oil)).toEqual([]);
  });

  it("make the label of a formula, and of a batch by what was really weighed", async () => {
    value(await putSheet(stored.oil, "fragrance", OIL));
    value(await putSheet(stored.wax, "wax", []));
    const recipe = { waxes: [{ id: stored.wax, share: 1 }], fragrances: [{ id: stored.oil, share: 1 }], basis: "wax" as const, loadPpm: 80_000, notes: "" };
    const planned = await hazardOfRecipe(test.db, workshopId, recipe);
    expect(planned).toMatchObject({
      without: [],
      answer: { classes: ["Aquatic Chronic 3"], euh: ["EUH208"] },
      loads: [{ class: "Aquatic Chronic 3", loadPpm: 76_900 }, { class: "EUH208" }],
    });
    // The stored batch is planned at 10 % of the wax; 8 % of it is what went in.
    expect((await hazardOfBatch(test.db, workshopId, stored.batch))?.whole.answer.classes).toEqual(["Skin Sens. 1", "Aquatic Chronic 3"]);
    const put = async (container: object, minute: number) => {
      const sent = { ...stored.sent(container as never), happenedAt: new Date(Date.parse(STARTED) + minute * 60_000).toISOString() };
      const answer = await appendEvent(test.db, workshopId, stored.batch, sent as never, "2026-11-01T00:00:00Z");
      if (!answer.ok) throw new Error(answer.message);
    };
    await put({ kind: "weighed", payload: { pot: 0, componentId: stored.wax, mg: 127_000 } }, 1);
    await put({ kind: "weighed", payload: { pot: 0, componentId: stored.oil, mg: 10_160 } }, 2);
    const batch = await hazardOfBatch(test.db, workshopId, stored.batch);
    expect(batch).toMatchObject({ number: 1, whole: { answer: { classes: ["Aquatic Chronic 3"] } }, pots: [{ planned: [] }] });
    await put({ kind: "poured", payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null } }, 60);
    const crossing = await batchesOfFormula(test.db, workshopId, stored.formula, await hazardOfRecipe(test.db, workshopId, { ...recipe, loadPpm: 100_000 }));
    expect(crossing).toMatchObject([{ number: 1, crosses: true, classes: ["Aquatic Chronic 3", "EUH208"] }]);
  });
});

describe("labels on paper", () => {
  it("lie where the sheet says, on A4 and on Letter, in each language, with fonts that print alike everywhere", async () => {
    const product = await aProduct();
    for (const [sheet, width, height] of [
      ["a4-2x4", 210, 297],
      ["letter-2x5", 215.9, 279.4],
    ] as const)
      for (const language of LANGUAGES) {
        const paper = await readPaper(await label(`product=${product}&kind=safety&sheet=${sheet}&lang=${language}&count=9&from=2`));
        // ISO 216 and ANSI sizes; a point is 1/72 in.
        expect(paper.size?.[0]).toBeCloseTo(width * MM, 0);
        expect(paper.size?.[1]).toBeCloseTo(height * MM, 0);
        expect(paper.pages).toBe(sheet === "a4-2x4" ? 2 : 1);
        for (const font of paper.fonts.split("\n").slice(2).filter(Boolean)) expect(font).toMatch(/\byes\s+yes\b/);
        const said = paper.text.replace(/\s+/g, " ");
        expect(said).toContain({ en: "10 cm (4 in)", de: "10 cm Abstand", fr: "au moins 10 cm" }[language]);
      }
    const { sheet } = (await listLabelSheets(test.db, workshopId)).find((labelSheet) => labelSheet.id === "a4-2x4") ?? {};
    if (!sheet) throw new Error("the sheet is missing");
    const { words } = await readPaper(await label(`product=${product}&kind=safety&sheet=a4-2x4&count=9&from=2`));
    const firsts = words.filter((word) => word.word === "Never" && word.bottom - word.y > 0);
    // The four warnings and “Never use water”: twice a label.
    expect(firsts).toHaveLength(18);
    const left = (n: number) => (sheet.left + (n % 2) * (sheet.width + sheet.gapAcross)) / 1_000;
    const top = (n: number) => (sheet.top + Math.floor(n / 2) * (sheet.height + sheet.gapDown)) / 1_000;
    for (const word of words) {
      const inside = [...Array(8).keys()].some(
        (n) =>
          word.x / MM >= left(n) &&
          word.right / MM <= left(n) + sheet.width / 1_000 &&
          word.y / MM >= top(n) &&
          word.bottom / MM <= top(n) + sheet.height / 1_000,
      );
      expect(inside, `${word.word} at ${word.x} ${word.y}`).toBe(true);
    }
    // The first place is left free on the first page, and the second page begins with what is over.
    expect(words.some((word) => word.page === 0 && word.x / MM < left(1) && word.y / MM < top(2))).toBe(false);
    expect(words.filter((word) => word.page === 1 && word.word === "Never")).toHaveLength(4);
  });

  it("state the weight rounded down in both systems, in figures as tall as the rules ask, of a piece or of the pack", async () => {
    const product = await aProduct();
    const { words, text } = await readPaper(await label(`product=${product}&kind=net&sheet=a4-2x4`));
    expect(text.replace(/\s+/g, " ")).toContain("Net weight 14 g (0.49 oz)");
    // By 76/211/EEC up to 50 g: 2 mm. Figures are two thirds of the letters' box.
    const figure = words.find((word) => word.word === "14");
    expect(((figure?.bottom ?? 0) - (figure?.y ?? 0)) / MM).toBeGreaterThan(2 / 0.9);
    expect((await readPaper(await label(`product=${product}&kind=net&sheet=a4-2x4&of=pack`))).text).toMatch(/84 g \(2\.9 oz\)/);
  });

  it("carry a hazard draft that says on its face what it rests on, and a code that a decoder reads", async () => {
    const product = await aProduct();
    const bare = (await readPaper(await label(`product=${product}&kind=hazard&sheet=a4-2x4`))).text.replace(/\s+/g, " ");
    expect(bare).toContain("Incomplete: no supplier's sheet of test soy, test rain.");
    expect(bare).toContain("Draft: to be checked by a competent person.");
    expect(bare).not.toContain("Not classified");
    value(await putSheet(stored.oil, "fragrance", OIL));
    value(await putSheet(stored.wax, "wax", []));
    const full = (await readPaper(await label(`product=${product}&kind=hazard&sheet=a4-2x4&lang=en,de&batch=${stored.batch}`))).text.replace(/\s+/g, " ");
    for (const said of [
      "Warning",
      "Achtung",
      "May cause an allergic skin reaction.",
      "Contains: rain accord",
      "Enthält: rain accord",
      "Batch 1",
      "Draft:",
      "Entwurf:",
    ])
      expect(full).toContain(said);
    expect(full).not.toContain("Incomplete");
    const code = await readPaper(await label(`product=${product}&kind=buyer&sheet=a4-2x4&batch=${stored.batch}`), true, 200);
    expect(code.code).toBe(`http://127.0.0.1:4380/api/workshops/${workshopId}/buyers?product=${product}&batch=${stored.batch}`);
    value(
      await saveLabelling(here(), {
        version: 0,
        settings: { format: 1, maker: "Fern shed, Mill lane 3", own: ["Not for lanterns."], base: "https://example.org/candles/" },
      }),
    );
    expect((await readPaper(await label(`product=${product}&kind=buyer&sheet=a4-2x4&batch=${stored.batch}`), true, 200)).code).toBe(
      "https://example.org/candles/candle-1-cup-of-rain.html",
    );
    const own = (await readPaper(await label(`product=${product}&kind=safety&sheet=a4-2x4`))).text.replace(/\s+/g, " ");
    expect(own).toContain("Not for lanterns.");
    expect(own).toContain("Fern shed, Mill lane 3");
    expect(await saveLabelling(here(), { version: 1, settings: { format: 1, maker: "", own: [], base: "javascript:x" } })).toMatchObject({ ok: false });
  });

  it("say who made it, how to reach them and the UFI on a hazard label, begin a fire-safety label for the US with the signal word, and write the decimal mark of their language", async () => {
    const product = await aProduct();
    const settings = {
      format: 1 as const,
      maker: "Fern shed",
      address: "Mill lane 3",
      phone: "000 555 0134",
      own: [],
      base: "",
      cutOffs: false,
      ufis: { [stored.formula]: "a1c2-d3e4-f5g6-h7j8" },
    };
    const { version } = value(await saveLabelling(here(), { version: 0, settings }));
    const read = async (query: string) => (await readPaper(await label(`product=${product}&sheet=a4-2x4&${query}`))).text.replace(/\s+/g, " ");
    const hazard = await read("kind=hazard");
    for (const said of ["Fern shed", "Mill lane 3", "Phone 000 555 0134", "UFI: A1C2-D3E4-F5G6-H7J8"]) expect(hazard).toContain(said);
    expect(await read("kind=net&lang=de")).toContain("Nettogewicht 14 g (0,49 oz)");
    expect(await read("kind=safety")).not.toContain("WARNING");
    await test.db.update(workshops).set({ locale: "en-US" }).where(eq(workshops.id, workshopId));
    expect(await read("kind=safety")).toMatch(/^\s*WARNING: To prevent fire/);
    expect(await read("kind=safety&lang=de")).not.toContain("WARNING");
    // The figures follow the package's display panel, whatever the label: 3.2 mm for a jar of 80 × 90 mm, also on a small label.
    const height = async (sheet: string) => {
      const { words } = await readPaper(await label(`product=${product}&kind=net&sheet=${sheet}`));
      const figure = words.find((word) => word.word === "oz" || word.word === "14" || word.word?.startsWith("0.49"));
      return ((figure?.bottom ?? 0) - (figure?.y ?? 0)) / MM;
    };
    await test.db
      .update(vessels)
      .set({ outerUm: 80_000, outerHeightUm: 90_000 })
      .where(and(eq(vessels.workshopId, workshopId), eq(vessels.id, stored.vessel)));
    const [small, large] = [await height("a4-3x8"), await height("a4-2x4")];
    expect(small).toBeCloseTo(large, 1);
    expect(small).toBeGreaterThan(3.175 / 0.9);
    expect(await saveLabelling(here(), { version, settings: { ...settings, ufis: { [stored.formula]: "A1C2" } } })).toMatchObject({ ok: false });
  });

  it("come with a square of 20 mm to check the printer, as a picture before they are printed, and are refused where they do not fit", async () => {
    const product = await aProduct();
    const test_ = await readPaper(await label(`product=${product}&kind=safety&sheet=a4-2x4&test=1`));
    expect(test_.text).toContain("20 mm square");
    const svg = await (await label(`product=${product}&kind=safety&sheet=a4-2x4&as=svg`)).text();
    expect(svg).toMatch(/^<svg .*viewBox="0 0 280\.63 191\.91"/);
    expect(svg).toContain("unattended");
    const small = v7();
    const sheet = { paper: "a4", round: true, rows: 2, columns: 2, width: 14_000, height: 14_000, left: 10_000, top: 10_000, gapAcross: 0, gapDown: 0 };
    value(await saveLabelSheet(here(), { id: small, name: "dots", sheet }));
    expect(await saveLabelSheet(here(), { id: v7(), name: "wide", sheet: { ...sheet, columns: 16 } })).toMatchObject({
      ok: false,
      fields: { "sheet.columns": [expect.stringMatching(/too wide for the paper/)] },
    });
    for (const as of ["pdf", "svg"]) {
      const answer = await label(`product=${product}&kind=hazard&sheet=${small}&as=${as}`);
      expect(answer.status).toBe(400);
      expect(await answer.text()).toMatch(/does not fit a label of 14 × 14 mm/);
    }
    expect((await label(`product=${v7()}&kind=safety`)).status).toBe(404);
    expect((await label(`product=${product}&lang=xx`)).status).toBe(400);
  });
});

describe("the page for who bought it", () => {
  it("says what it is and how to burn it, needs nothing else, and tells none of the workshop's secrets", async () => {
    const product = await aProduct({ name: 'Cup "of" <rain>', price: 1_234, remarks: "costs us 2" });
    value(await putSheet(stored.oil, "fragrance", OIL));
    value(await putSheet(stored.wax, "wax", []));
    const answer = await buyers(get(`product=${product}&batch=${stored.batch}&lang=en,fr&save=1`), { params: params() });
    const html = await answer.text();
    expect(answer.headers.get("content-disposition")).toBe('attachment; filename="candle-1-cup-of-rain.html"');
    expect(html).toContain("Cup &#34;of&#34; &#60;rain&#62;");
    for (const said of [
      "Never leave a burning candle unattended.",
      "Ne jamais laisser",
      "First burn:",
      "Batch 1",
      "14 g (0.49 oz)",
      "May cause an allergic skin reaction.",
    ])
      expect(html).toContain(said);
    // Neither recipe, supplier, price nor remark; and nothing that is fetched from elsewhere.
    for (const secret of ["test rain", "test soy", "10 %", "12.34", "costs us", "Test formula"]) expect(html).not.toContain(secret);
    expect(html).not.toMatch(/<script|src=|href=|url\(|@import/);
    expect((await buyers(get(`product=${product}&batch=${v7()}`), { params: params() })).status).toBe(404);
    expect((await buyers(get(`product=${product}`), { params: Promise.resolve({ workshop: await test.workshop() }) })).status).toBe(404);
    expect(supplierSheet.safeParse({ on: "2026-01-10", ingredients: OIL }).success).toBe(true);
  });
});
