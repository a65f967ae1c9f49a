import { type Grid, guessNames, guessReading, isNoteHead, type NameChoices, type NoteKind, namesUsed, readNoteRows, tableOf, US_CUSTOMARY } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { batchEvents, batches } from "@/data/tables/batch";
import { outcomes } from "@/data/tables/finding";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { noteImports } from "@/data/tables/note-import";
import { fragrances, vessels, waxes, wicks } from "@/data/tables/shelf";
import { stockUses } from "@/data/tables/stock";
import { burnOutcomes, trialEvents, trials } from "@/data/tables/trial";
import { throwScores } from "@/server/burn/throw-scores";
import { appendEvent } from "@/server/events/batch-store";
import { findingsOf, flawRates } from "@/server/findings/findings";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { importNotes, undoNotes } from "./commands";

inStoredWorkshop();

const GRID: Grid = [
  ["Date", "Wax", "Scent", "Load", "Vessel", "Fill", "Count", "Wick", "Melt", "Add", "Pour temp", "Cure", "Tops", "Wet spots", "CT", "HT", "HT room", "Notes"],
  ["2024-03-01", "barn soy", "orchard", "8 %", "tin", "180 g", "10", "braid 4", "185 F", "185 F", "150 F", "14", "rough", "2", "7", "8", "bedroom", "first"],
  ["2024-03-08", "barn soy", "orchard", "8 %", "tin", "180 g", "12", "braid 4", "185 F", "185 F", "135 F", "14", "smooth", "0", "6", "", "", ""],
  ["2024-03-15", "barn soy", "orchard", "10 %", "tin", "180 g", "12", "2 x braid 4", "185 F", "", "135 F", "", "", "", "", "", "", ""],
  ["2024-04-01", "barn soy 80 / hive wax 20", "", "", "tin", "180 g", "6", "", "", "", "", "", "smooth", "", "", "", "", ""],
];
/** What a page sends of a grid, with what it proposes taken as it is. */
function asked(grid: Grid, kind: NoteKind = "batches", over: { names?: NameChoices; importId?: string; leftOut?: number[] } = {}) {
  const table = tableOf(grid, (head) => isNoteHead(kind, head));
  if (!table) throw new Error("no table");
  const { kind: _kind, table: _table, ...reading } = guessReading(kind, table, { units: US_CUSTOMARY, dayOrder: "month" });
  const rows = readNoteRows({ ...reading, kind, table }, "2026-01-01", () => false);
  const names = guessNames(namesUsed(rows), { wax: [], fragrance: [], vessel: [], wick: [] });
  return {
    importId: over.importId ?? v7(),
    kind,
    file: "pours.xlsx",
    grid,
    reading: { ...reading, leftOut: over.leftOut ?? [] },
    names: { ...names, ...over.names },
  };
}
const countOfRows = async (): Promise<Record<string, number>> => {
  const counts: Record<string, number> = {};
  for (const [name, table] of Object.entries({
    batches,
    batchEvents,
    outcomes,
    trials,
    trialEvents,
    burnOutcomes,
    formulas,
    formulaVersions,
    waxes,
    fragrances,
    vessels,
    wicks,
    stockUses,
  }))
    counts[name] = await test.db.$count(table, eq(table.workshopId, workshopId));
  return counts;
};
const notedBatches = () =>
  test.db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.drawsStock, false)))
    .orderBy(batches.number);

describe("a notebook of past batches", () => {
  it("comes in whole: batches that are closed, drew no stock, and count with what they hold and no more", async () => {
    const before = await countOfRows();
    const done = value(await importNotes(here(), asked(GRID)));
    expect(done).toMatchObject({ batches: 4, trials: 1, formulas: 2, already: 0 });
    const after = await countOfRows();
    expect(after.stockUses).toBe(before.stockUses);
    expect((after.waxes ?? 0) - (before.waxes ?? 0)).toBe(2);
    const rows = await notedBatches();
    expect(rows.map((row) => [row.stage, row.loose, row.pouredAt?.slice(0, 10)])).toEqual([
      ["closed", 0, "2024-03-01"],
      ["closed", 0, "2024-03-08"],
      ["closed", 0, "2024-03-15"],
      ["closed", 0, "2024-04-01"],
    ]);
    const counted = await test.db.select().from(outcomes).where(eq(outcomes.workshopId, workshopId)).orderBy(outcomes.pouredAt);
    const noted = counted.filter((row) => row.pouredAt.startsWith("2024"));
    expect(
      noted.map((row) => [
        row.looked,
        row.jars,
        row.load,
        row.pourC === null ? null : Math.round(row.pourC),
        row.process,
        row.pourSide,
        row.halves,
        row.cureDays,
      ]),
    ).toEqual([
      [true, 10, 8, 66, null, null, null, null],
      [true, 12, 8, 57, null, null, null, null],
      [false, 12, 10, 57, null, null, null, null],
      [true, 6, 0, null, null, null, null, null],
    ]);
    // Nothing of the plan that was filled in to hold the notes stands in the record.
    for (const row of noted)
      expect(
        Object.keys(row.record).every((key) =>
          ["heat_c", "add_c", "pour_c", "load_percent_of_wax", "asked_load_percent", "max_load_percent", "room_c", "wicks"].includes(key),
        ),
      ).toBe(true);
    const rates = await flawRates(test.db, workshopId);
    expect(rates.find((rate) => rate.defect === "rough_top")).toMatchObject({ jars: 10 });
    expect((await findingsOf(test.db, workshopId, "rough_top")).find((factor) => factor.name === "wax")?.levels.map((level) => level.level)).toContain(
      "barn soy",
    );
    const scores = await throwScores(test.db, workshopId);
    expect(scores.map((score) => [score.throw, score.score, Math.round(score.ageDays ?? 0)]).sort()).toEqual([
      ["cold", 6, 14],
      ["cold", 7, 14],
      ["hot", 8, 14],
    ]);
  });

  it("takes the same formula for the same recipe, and a version for each load", async () => {
    value(await importNotes(here(), asked(GRID)));
    const rows = await notedBatches();
    expect(rows[0]?.formulaVersionId).toBe(rows[1]?.formulaVersionId);
    expect(rows[2]?.formulaVersionId).not.toBe(rows[0]?.formulaVersionId);
    expect(rows[2]?.formulaIds).toEqual(rows[0]?.formulaIds);
  });

  it("is the same once however often it is imported, under the same button or again", async () => {
    const first = asked(GRID);
    value(await importNotes(here(), first));
    const after = await countOfRows();
    value(await importNotes(here(), first));
    expect(value(await importNotes(here(), asked(GRID)))).toMatchObject({ batches: 0, already: 4 });
    expect(await countOfRows()).toEqual(after);
  });

  it("is refused whole, with the row and the cell, where one row is wrong, unless that row is left out", async () => {
    const before = await countOfRows();
    const bad = GRID.map((row) => [...row]);
    (bad[2] as string[])[10] = "warm";
    (bad[3] as string[])[6] = "";
    const outcome = await importNotes(here(), asked(bad));
    expect(outcome).toMatchObject({
      ok: false,
      message: expect.stringMatching(/^Row 3, K3: Poured at: .* 1 more rows? ha(?:s|ve) errors?\. Nothing was imported\.$/),
    });
    expect(await countOfRows()).toEqual(before);
    expect(value(await importNotes(here(), asked(bad, "batches", { leftOut: [3, 4] })))).toMatchObject({ batches: 2 });
  });

  it("uses what is on the shelf where a name is matched to it", async () => {
    const before = await countOfRows();
    const request = asked(GRID);
    const names = { ...request.names, "wax:barn soy": { id: stored.wax }, "vessel:tin": { id: stored.vessel } };
    value(await importNotes(here(), { ...request, names }));
    const after = await countOfRows();
    expect(after.waxes).toBe((before.waxes ?? 0) + 1);
    expect(after.vessels).toBe(before.vessels);
    expect(await importNotes(here(), { ...asked(GRID), names: { ...request.names, "vessel:tin": { id: v7() } } })).toMatchObject({ ok: false });
  });

  it("is undone in one act, and leaves nothing behind", async () => {
    const before = await countOfRows();
    const { importId } = value(await importNotes(here(), asked(GRID)));
    expect(value(await undoNotes(here(), { importId }))).toEqual({ kept: [] });
    expect(await countOfRows()).toEqual(before);
    // Undone twice is undone once.
    expect(value(await undoNotes(here(), { importId }))).toEqual({ kept: [] });
    expect(value(await importNotes(here(), asked(GRID)))).toMatchObject({ batches: 4 });
  });

  it("is not undone once something was added to one of its batches; nobody deletes one of its entries by itself", async () => {
    const { importId } = value(await importNotes(here(), asked(GRID)));
    const [first] = await notedBatches();
    const note = stored.sent({ kind: "note", payload: { text: "still smells" } }, { happenedAt: "2026-01-07T09:00:00.000Z" });
    expect(await appendEvent(test.db, workshopId, first?.id ?? "", note, "2097-01-01T00:00:00.000Z")).toMatchObject({ ok: true });
    expect(await undoNotes(here(), { importId })).toMatchObject({ ok: false, message: expect.stringContaining("later entries") });
    expect(await notedBatches()).toHaveLength(4);
    await expect(test.owner.query("delete from batch_event where batch_id = $1", [(await notedBatches())[1]?.id])).rejects.toThrow("append-only");
    await expect(test.owner.query("delete from trial_event where workshop_id = $1", [workshopId])).rejects.toThrow("append-only");
  });

  it("keeps what something else uses by the time it is undone", async () => {
    const { importId } = value(await importNotes(here(), asked(GRID)));
    const [made] = await test.db.select().from(noteImports).where(eq(noteImports.workshopId, workshopId));
    const wax = made?.created.shelf.find((item) => item.kind === "wax")?.id ?? "";
    const [version] = await test.db
      .select()
      .from(formulaVersions)
      .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, stored.version)));
    await test.db
      .update(formulaVersions)
      .set({ spec: { ...(version?.spec as object), waxes: [{ id: wax, share: 1 }] } })
      .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, stored.version)));
    expect(value(await undoNotes(here(), { importId }))).toEqual({ kept: ["1 thing on the shelf"] });
    expect(await test.db.$count(waxes, and(eq(waxes.workshopId, workshopId), eq(waxes.id, wax)))).toBe(1);
  });
});

describe("other notebooks", () => {
  it("of burns become trials that are closed, with the sessions, looks and verdicts that were noted", async () => {
    const grid = [
      ["Candle", "Date", "Wax", "Scent", "Load", "Vessel", "Fill", "Wick", "Hours", "Melt pool (in)", "Flame", "HT", "Room", "Pass"],
      ["A", "5/1/24", "barn soy", "orchard", "8", "tin", "180 g", "braid 4", "1", "1.5", "good", "", "", ""],
      ["A", "5/1/24", "barn soy", "orchard", "8", "tin", "180 g", "braid 4", "4", "2.5", "large", "7", "kitchen", ""],
      ["A", "5/2/24", "barn soy", "orchard", "8", "tin", "180 g", "braid 4", "2", "2.5", "steady", "", "", "pass"],
      ["B", "5/1/24", "barn soy", "orchard", "8", "tin", "180 g", "braid 5", "1", "1", "small", "", "", "fail"],
    ];
    const before = await countOfRows();
    const { importId, trials: many } = value(await importNotes(here(), asked(grid, "burns")));
    expect(many).toBe(1);
    const burned = await test.db.select().from(burnOutcomes).where(eq(burnOutcomes.workshopId, workshopId)).orderBy(burnOutcomes.testCandle);
    expect(burned.map((row) => [row.wickName, row.sessions, row.decided])).toEqual([
      ["braid 4", 2, "passed"],
      ["braid 5", 1, "failed"],
    ]);
    expect((await throwScores(test.db, workshopId)).map((score) => [score.throw, score.score])).toEqual([["hot", 7]]);
    value(await undoNotes(here(), { importId }));
    expect(await countOfRows()).toEqual(before);
  });

  it("of recipes become formulas with the temperatures that they say; one that is there already is not made twice", async () => {
    const grid = [
      ["Recipe", "Wax", "Scent", "Load", "Pour", "Cure", "Notes"],
      ["Orchard tin", "barn soy", "orchard 60 / smoke 40", "1 oz/lb", "135", "2 weeks", "stir slowly"],
      ["Plain", "barn soy", "", "", "", "", ""],
    ];
    expect(value(await importNotes(here(), asked(grid, "recipes")))).toMatchObject({ formulas: 2, batches: 0 });
    const rows = await test.db.select().from(formulas).where(eq(formulas.workshopId, workshopId));
    expect(rows.map((row) => row.name)).toEqual(expect.arrayContaining(["Orchard tin", "Plain"]));
    expect(value(await importNotes(here(), asked(grid, "recipes")))).toMatchObject({ formulas: 0 });
  });
});
