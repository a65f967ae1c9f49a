import { batchOf, type FormulaSpec, PRESET_PROCESSES, processFrom } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { DATABASE } from "@/data/client";
import { forgetSingleton } from "@/data/process-singleton";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { vessels, waxes } from "@/data/tables/shelf";
import { people, workshops } from "@/data/tables/workshop";
import { startBatch } from "@/server/batches/commands";
import { readBatchEvents } from "@/server/events/read-events";
import { saveProcess } from "@/server/formulas/commands";
import { saveFormula } from "@/server/formulas/formula-save";
import { readFormula } from "@/server/formulas/formulas";
import { followersOf, readProcess } from "@/server/formulas/processes";
import { saveOnShelf } from "@/server/inventory/shelf-save";
import { jar } from "@/testing/headers";
import { storedBatch } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { find } from "./find";
import { changeWorkshop, makeWorkshop } from "./workshop-commands";

inStoredWorkshop();

const spec = (over: Partial<FormulaSpec> = {}): FormulaSpec => {
  const process = processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]);
  return {
    waxes: [{ id: stored.wax, share: 1 }],
    fragrances: [{ id: stored.oil, share: 1 }],
    basis: "wax",
    loadPpm: 80_000,
    process,
    notes: "",
    ...over,
  };
};

const product = (over: object = {}) => ({ id: stored.vessel, container: "vessel", count: 10, wick: null, ...over });
const order = (over: object = {}) => ({
  batchId: v7(),
  formulaVersionIds: [stored.version],
  process: "formula",
  products: [product()],
  sparePpm: 0,
  waxScale: stored.scale,
  oilScale: stored.scale,
  ...over,
});

describe("finding by name", () => {
  const names = async (text: string, at = workshopId) => (await find(test.db, at, text)).map((item) => `${item.kind} ${item.name}`);

  it("finds batches by number and formula, and everything on the shelf by its letters, whatever their case", async () => {
    expect(await names("1")).toContain("batch 1: Test formula");
    expect(await names("TEST F")).toEqual(["batch 1: Test formula", "formula Test formula"]);
    expect(await names("soy")).toEqual(["wax test soy"]);
    expect(await names("bench")).toEqual(["instrument bench scale"]);
    const [scale] = await find(test.db, workshopId, "bench");
    expect(scale?.path).toBe("/shelf?kind=instrument&q=bench%20scale");
    expect((await find(test.db, workshopId, "rain"))[0]?.path).toBe(`/shelf/fragrance/${stored.oil}`);
  });

  it("takes signs of a pattern as letters, and looks into no other workshop", async () => {
    expect(await names("%")).toEqual([]);
    expect(await names("_")).toEqual([]);
    expect(await names("soy", await test.workshop())).toEqual([]);
  });

  it("offers at most six of each sort", async () => {
    await test.db.insert(waxes).values(Array.from({ length: 20 }, (_, n) => ({ workshopId, id: v7(), name: `many ${n}`, family: "soy" })));
    expect(await names("many")).toHaveLength(6);
  });
});

describe("saving a formula", () => {
  it("changes an unused version in place, and makes the next one where a batch was made from it", async () => {
    const made = value(await saveFormula(here(), { id: null, expectedVersion: null, name: "New", spec: spec() }));
    const changed = value(await saveFormula(here(), { id: made.id, expectedVersion: 1, name: "New", spec: spec({ loadPpm: 90_000 }) }));
    expect(changed).toMatchObject({ number: 1, next: false, version: 2 });

    const used = value(await saveFormula(here(), { id: stored.formula, expectedVersion: 1, name: "Test formula", spec: spec({ loadPpm: 90_000 }) }));
    expect(used).toMatchObject({ number: 2, next: true });
    const whole = await readFormula(test.db, workshopId, stored.formula);
    expect(whole?.versions.map((version) => [version.number, version.spec.loadPpm, version.batches])).toEqual([
      [2, 90_000, 0],
      [1, 100_000, 1],
    ]);
  });

  it("makes no version where only the name changes", async () => {
    const same = spec({ loadPpm: 100_000 });
    expect(value(await saveFormula(here(), { id: stored.formula, expectedVersion: 1, name: "Another name", spec: same }))).toMatchObject({
      number: 1,
      next: false,
    });
    expect((await readFormula(test.db, workshopId, stored.formula))?.versions).toHaveLength(1);
  });

  it("refuses a stale save with what stands there now, and writes nothing", async () => {
    value(await saveFormula(here(), { id: stored.formula, expectedVersion: 1, name: "First", spec: spec({ loadPpm: 70_000 }) }));
    const stale = value(await saveFormula(here(), { id: stored.formula, expectedVersion: 1, name: "Second", spec: spec({ loadPpm: 60_000 }) }));
    expect(stale.stale).toMatchObject({ version: 2, name: "First", spec: { loadPpm: 70_000 } });
    expect((await readFormula(test.db, workshopId, stored.formula))?.name).toBe("First");
  });

  it("lets one of two saves at the same instant through", async () => {
    const both = await Promise.all(
      [60_000, 70_000].map((loadPpm) => saveFormula(here(), { id: stored.formula, expectedVersion: 1, name: "Race", spec: spec({ loadPpm }) })),
    );
    expect(both.map((item) => value(item).stale === null).sort()).toEqual([false, true]);
  });

  it("refuses materials of another workshop, and tells faults by field", async () => {
    const elsewhere = await storedBatch(test, await test.workshop());
    expect(await saveFormula(here(), { id: null, expectedVersion: null, name: "X", spec: spec({ waxes: [{ id: elsewhere.wax, share: 1 }] }) })).toMatchObject({
      ok: false,
      fields: { wax: [expect.stringContaining("from the shelf")] },
    });
    expect(await saveFormula(here(), { id: elsewhere.formula, expectedVersion: 1, name: "X", spec: spec() })).toMatchObject({ ok: false });
    expect(await saveFormula(here(), { id: null, expectedVersion: null, name: " ", spec: spec({ loadPpm: -1 }) })).toMatchObject({
      ok: false,
      fields: { name: ["Give the formula a name."], "spec.loadPpm": [expect.any(String)] },
    });
    expect(await test.db.select().from(formulas).where(eq(formulas.workshopId, workshopId))).toHaveLength(1);
  });
});

describe("gel", () => {
  it("is not saved, nor started, with an oil of low or unknown flash point", async () => {
    const gel = value(
      await saveOnShelf(here(), {
        id: null,
        expectedVersion: null,
        kind: "wax",
        values: { name: "clear gel", family: "gel", maxLoadPpm: 30_000, remarks: "" },
      }),
    ).id;
    const formula = (expectedVersion: number | null = null, id: string | null = null) =>
      saveFormula(here(), { id, expectedVersion, name: "Gel", spec: spec({ waxes: [{ id: gel, share: 1 }], loadPpm: 20_000 }) });
    expect(await formula()).toMatchObject({ ok: false, fields: { fragrance: [expect.stringContaining("not on the shelf")] } });
    const flash = (flashPoint: number, expectedVersion: number) =>
      saveOnShelf(here(), {
        id: stored.oil,
        expectedVersion,
        kind: "fragrance",
        values: { name: "test rain", kind: "fragrance", maxLoadPpm: null, flashPoint, remarks: "" },
      });
    await flash(9_000, 1);
    const made = value(await formula());
    // The supplier's sheet is corrected afterwards: the batch is stopped all the same.
    await flash(6_000, 2);
    const version = (await readFormula(test.db, workshopId, made.id))?.versions[0]?.id;
    expect(await startBatch(here(), order({ formulaVersionIds: [version] }))).toMatchObject({
      ok: false,
      message: expect.stringContaining("flashes at 60 °C"),
    });
  });
});

describe("starting a batch", () => {
  it("freezes the amounts and all they rest on: later changes on the shelf do not reach it", async () => {
    const started = value(await startBatch(here(), order()));
    expect(started.number).toBe(2);
    await test.db
      .update(waxes)
      .set({ name: "renamed", maxLoadPpm: 10_000 })
      .where(and(eq(waxes.workshopId, workshopId), eq(waxes.id, stored.wax)));
    const { plan } = batchOf(await readBatchEvents(test.db, workshopId, started.id));
    expect(plan.pots[0]).toMatchObject({ totalMg: 140_000, maxLoadPpm: 120_000, waxFamily: "soy" });
    expect(plan.pots[0]?.components.map((part) => [part.name, part.mg])).toEqual([
      ["test soy", 127_000],
      ["test rain", 13_000],
    ]);
  });

  it("starts one batch where the button is pressed twice, and numbers batches without a gap at the same instant", async () => {
    const twice = order();
    const [a, b] = await Promise.all([startBatch(here(), twice), startBatch(here(), twice)]);
    expect(value(a as never)).toEqual(value(b as never));
    const many = await Promise.all(Array.from({ length: 5 }, () => startBatch(here(), order())));
    expect(many.map((item) => value(item).number).sort()).toEqual([3, 4, 5, 6, 7]);
    expect(await test.db.select().from(batches).where(eq(batches.workshopId, workshopId))).toHaveLength(7);
  });

  it("refuses nothing to fill, vessels of another workshop, and more than a batch can hold", async () => {
    expect(await startBatch(here(), order({ products: [] }))).toMatchObject({
      ok: false,
      fields: { products: [expect.stringContaining("at least one vessel")] },
    });
    expect(await startBatch(here(), order({ products: [product({ count: 0 })] }))).toMatchObject({ ok: false });
    const elsewhere = await storedBatch(test, await test.workshop());
    expect(await startBatch(here(), order({ products: [product({ id: elsewhere.vessel })] }))).toMatchObject({
      ok: false,
      message: expect.stringContaining("no longer on the shelf"),
    });
    expect(await startBatch(here(), order({ formulaVersionIds: [elsewhere.version] }))).toMatchObject({
      ok: false,
      message: expect.stringContaining("no longer in this workshop"),
    });
    expect(await startBatch(here(), order({ products: [product({ count: 100_000 })] }))).toMatchObject({
      ok: false,
      message: expect.stringContaining("1400 kg"),
    });
    expect(await test.db.select().from(batches).where(eq(batches.workshopId, workshopId))).toHaveLength(1);
  });
});

describe("what a page sends", () => {
  it("goes to the workshop that the page shows, whatever another tab has switched to", async () => {
    jar.set("hearth_workshop", await test.workshop());
    const { id } = value(await startBatch(here(), order()));
    const [row] = await test.db.select().from(batches).where(eq(batches.id, id));
    expect(row?.workshopId).toBe(workshopId);
    expect(await startBatch({}, order())).toMatchObject({ ok: false, message: expect.stringContaining("which workshop") });
    expect(await startBatch({ workshopId: v7(), personId: null }, order())).toMatchObject({ ok: false, message: expect.stringContaining("not here any more") });
  });

  it("puts a start down late with its real time, and none that is still to come", async () => {
    const startedAt = "2026-02-01T07:30:00.000Z";
    const { id } = value(await startBatch(here(), order({ startedAt })));
    expect((await readBatchEvents(test.db, workshopId, id))[0]?.happenedAt).toBe(startedAt);
    expect(await startBatch(here(), order({ startedAt: "2999-01-01T00:00:00.000Z" }))).toMatchObject({
      ok: false,
      fields: { startedAt: [expect.any(String)] },
    });
  });

  it("asks for a scale, and refuses more pitchers than anybody has", async () => {
    expect(await startBatch(here(), order({ waxScale: stored.probe }))).toMatchObject({ ok: false, fields: { scale: [expect.any(String)] } });
    expect(await startBatch(here(), order({ products: [product({ count: (90_000 / 14) | 0 })], pitcherMg: 1_000 }))).toMatchObject({
      ok: false,
      fields: { pitcher_capacity_g: [expect.stringContaining("nobody fills more than")] },
    });
  });
});

describe("a process of the workshop's own", () => {
  const process = () => ({ ...processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]), name: "Mine" });

  it("makes a version with each change, refuses a stale one, and a name that is taken whatever its capitals", async () => {
    const made = value(await saveProcess(here(), { id: null, expectedVersion: null, process: process() }));
    const hotter = { ...process(), ceiling: 9_500 };
    expect(value(await saveProcess(here(), { id: made.id, expectedVersion: 1, process: hotter }))).toMatchObject({ number: 2, version: 2 });
    expect(value(await saveProcess(here(), { id: made.id, expectedVersion: 2, process: hotter }))).toMatchObject({ number: 2, version: 3 });
    expect(await saveProcess(here(), { id: made.id, expectedVersion: 1, process: process() })).toMatchObject({ ok: false });
    expect((await readProcess(test.db, workshopId, made.id))?.versions.map((version) => version.process.ceiling)).toEqual([9_500, 9_333]);
    expect(await saveProcess(here(), { id: null, expectedVersion: null, process: { ...process(), name: "MINE" } })).toMatchObject({
      ok: false,
      fields: { name: [expect.any(String)] },
    });
    const { id } = value(await startBatch(here(), order({ process: `own:${made.id}` })));
    expect(batchOf(await readBatchEvents(test.db, workshopId, id)).plan.process).toMatchObject({ name: "Mine", from: { id: made.id, number: 2 } });
  });

  it("says which formulas follow it, on which version, and which of them went their own way since", async () => {
    const made = value(await saveProcess(here(), { id: null, expectedVersion: null, process: process() }));
    const from = { id: made.id, number: 1 };
    const formula = async (name: string, worked: object) =>
      value(await saveFormula(here(), { id: null, expectedVersion: null, name, spec: spec({ process: worked as FormulaSpec["process"] }) })).id;
    const [faithful, own] = [await formula("Faithful", { ...process(), from }), await formula("Own way", { ...process(), ceiling: 9_000, from })];
    await formula("Another process", process());
    const away = await formula("Put away", { ...process(), from });
    await test.db.update(formulas).set({ archived: true }).where(eq(formulas.id, away));
    await saveProcess(here(), { id: made.id, expectedVersion: 1, process: { ...process(), ceiling: 9_500 } });
    const kept = await readProcess(test.db, workshopId, made.id);
    const follow = await followersOf(test.db, workshopId, made.id, kept?.versions ?? []);
    expect(follow.map((follower) => [follower.id, follower.number, follower.changed])).toEqual([
      [faithful, 1, false],
      [own, 1, true],
    ]);
    expect(await followersOf(test.db, await test.workshop(), made.id, kept?.versions ?? [])).toEqual([]);
  });
});

describe("the shelf", () => {
  const cup = {
    name: "cup",
    material: "metal",
    statedFillMg: 14_000,
    workingFillMg: 14_000,
    soldByWeight: true,
    innerTopUm: 38_000,
    innerBottomUm: 38_000,
    heightUm: 17_000,
  };

  it("holds the net weight as a floor where a vessel is sold by weight", async () => {
    expect(await saveOnShelf(here(), { id: null, expectedVersion: null, kind: "vessel", values: { ...cup, workingFillMg: 12_500 } })).toMatchObject({
      ok: false,
      fields: { "values.workingFillMg": [expect.stringContaining("cannot be below the net weight")] },
    });
    expect(
      await saveOnShelf(here(), {
        id: null,
        expectedVersion: null,
        kind: "vessel",
        values: { ...cup, name: "second cup", workingFillMg: 12_500, soldByWeight: false },
      }),
    ).toMatchObject({ ok: true });
  });

  it("takes a name once, whatever its capitals", async () => {
    expect(await saveOnShelf(here(), { id: null, expectedVersion: null, kind: "vessel", values: { ...cup, name: "CUP" } })).toMatchObject({
      ok: false,
      fields: { "values.name": [expect.stringContaining("of this name already")] },
    });
  });

  it("refuses a stale change and keeps the newer one", async () => {
    const change = (workingFillMg: number) => saveOnShelf(here(), { id: stored.vessel, expectedVersion: 1, kind: "vessel", values: { ...cup, workingFillMg } });
    expect(await change(15_000)).toMatchObject({ ok: true });
    expect(await change(16_000)).toMatchObject({ ok: false, message: expect.stringContaining("Somebody else changed this") });
    expect((await test.db.select().from(vessels).where(eq(vessels.workshopId, workshopId)))[0]?.workingFillMg).toBe(15_000);
  });

  it("takes every kind of thing, and nothing that makes no sense", async () => {
    const put = (kind: string, values: object) => saveOnShelf(here(), { id: null, expectedVersion: null, kind, values });
    expect(await put("wax", { name: "palm", family: "palm", maxLoadPpm: null, remarks: "" })).toMatchObject({ ok: true });
    expect(await put("fragrance", { name: "moss", kind: "essential oil", maxLoadPpm: 40_000, flashPoint: 6_000, remarks: "" })).toMatchObject({ ok: true });
    expect(await put("instrument", { name: "stick", kind: "glass", correction: -120, resolutionUg: null })).toMatchObject({ ok: true });
    expect(await put("person", { name: "Udo-like" })).toMatchObject({ ok: true });
    expect(await put("wax", { name: "", family: "palm", maxLoadPpm: 2_000_000, remarks: "" })).toMatchObject({
      ok: false,
      fields: { "values.name": [expect.any(String)], "values.maxLoadPpm": [expect.any(String)] },
    });
    expect(await put("instrument", { name: "odd", kind: "probe", correction: 9_000, resolutionUg: null })).toMatchObject({ ok: false });
    expect(await put("crayon", { name: "red" })).toMatchObject({ ok: false });
  });
});

describe("a button that is pressed twice", () => {
  it("makes one of a thing, however fast", async () => {
    const freshId = v7();
    const formula = () => saveFormula(here(), { id: null, freshId, expectedVersion: null, name: "Pressed twice", spec: spec() });
    const both = await Promise.all([formula(), formula()]);
    expect(both.map((item) => value(item).id)).toEqual([freshId, freshId]);
    expect(await test.db.select().from(formulas).where(eq(formulas.name, "Pressed twice"))).toHaveLength(1);
    expect(await test.db.select().from(formulaVersions).where(eq(formulaVersions.formulaId, freshId))).toHaveLength(1);

    const id = v7();
    const workshop = () => makeWorkshop({ id, name: "Twice", massUnit: "g", temperatureUnit: "C", timeZone: "UTC", person: "Ilvo" });
    await Promise.all([workshop(), workshop()]);
    expect(await test.db.select().from(workshops).where(eq(workshops.id, id))).toHaveLength(1);
    expect(await test.db.select().from(people).where(eq(people.workshopId, id))).toHaveLength(1);
  });
});

describe("workshops", () => {
  it("are made with their first person, and keep what is stored when their units change", async () => {
    const made = value(await makeWorkshop({ name: "Fresh", massUnit: "oz", temperatureUnit: "F", timeZone: "America/Chicago", person: "Ilvo" }));
    expect(jar.get("hearth_workshop")).toBe(made.id);
    expect(await test.db.select({ name: people.name }).from(people).where(eq(people.workshopId, made.id))).toEqual([{ name: "Ilvo" }]);
    const change = (expectedVersion: number, timeZone = "UTC") =>
      changeWorkshop({ id: workshopId, expectedVersion, name: "Now in ounces", massUnit: "oz", temperatureUnit: "F", timeZone });
    expect(await change(1)).toEqual({ ok: true, value: { version: 2 } });
    expect(await change(1)).toMatchObject({ ok: false, message: expect.stringContaining("Somebody else") });
    expect(await change(2, "Mars/Olympus")).toMatchObject({ ok: false, fields: { timeZone: [expect.stringContaining("not known")] } });
    expect((await test.db.select().from(vessels).where(eq(vessels.workshopId, workshopId)))[0]?.statedFillMg).toBe(14_000);
  });

  it("do not see one another's formulas", async () => {
    const other = await test.workshop();
    expect(await readFormula(test.db, other, stored.formula)).toBeNull();
    expect(await test.db.select().from(formulaVersions).where(eq(formulaVersions.workshopId, other))).toEqual([]);
    expect((await test.db.select().from(workshops).where(eq(workshops.id, other)))[0]?.version).toBe(1);
  });
});

describe("while the database is not available", () => {
  it("a command says so and loses nothing, instead of failing", async () => {
    forgetSingleton(DATABASE);
    process.env.DATABASE_URL = "postgresql://nobody@127.0.0.1:1/none";
    try {
      expect(await makeWorkshop({ name: "Never", massUnit: "g", temperatureUnit: "C", timeZone: "UTC", person: "Ilvo" })).toMatchObject({
        ok: false,
        message: expect.stringContaining("database is not available"),
      });
    } finally {
      forgetSingleton(DATABASE);
      process.env.DATABASE_URL = test.url;
    }
  });
});
