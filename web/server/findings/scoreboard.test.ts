import { guessNames, guessReading, isNoteHead, METRIC, namesUsed, readNoteRows, sumScores, type ThrowScore, tableOf, type WaxScores } from "@hearth/core";
import { sql } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { throwScores } from "@/server/burn/throw-scores";
import { importNotes } from "@/server/notebook/commands";
import { here, inStoredWorkshop, test, value, workshopId } from "@/testing/stored-workshop";
import { OPENED_FIGURES, openedFigure, throwSums, waxScoreboard } from "./scoreboard";

inStoredWorkshop();

/** Twelve batches of two waxes and a blend, with what was noted of them. */
const GRID = [
  ["Date", "Wax", "Vessel", "Fill", "Count", "Pour C", "Cure", "Tops", "Wet spots", "CT", "HT", "HT room"],
  ...Array.from({ length: 12 }, (_, n) => {
    const wax = ["barn soy", "prairie coco", "barn soy 80 / hive wax 20"][n % 3] as string;
    return [
      `2024-01-${String(n + 1).padStart(2, "0")}`,
      wax,
      "tin",
      "180 g",
      "10",
      String(55 + n),
      "14",
      n % 3 === 0 && n > 5 ? "rough 4" : "smooth",
      String(n % 2),
      String(5 + (n % 3)),
      "7",
      "bedroom",
    ];
  }),
];
async function withNotes() {
  const table = tableOf(GRID, (head) => isNoteHead("batches", head));
  if (!table) throw new Error("no table");
  const { kind, table: _table, ...reading } = guessReading("batches", table, { units: METRIC, dayOrder: "day" });
  const rows = readNoteRows({ ...reading, kind, table }, "2026-01-01", () => false);
  const names = guessNames(namesUsed(rows), { wax: [], fragrance: [], vessel: [], wick: [] });
  value(await importNotes(here(), { importId: v7(), kind, file: "pours.csv", grid: GRID, reading, names }));
}
const workshop = () => ({ id: workshopId, rooms: "" });

describe("the scoreboard", () => {
  it("has a line for each wax and each blend, with the figures that plain SQL gives", async () => {
    await withNotes();
    const { lines } = await waxScoreboard(test.db, workshop());
    const noted = lines.filter((line) => line.fromNotes > 0);
    expect(noted.map((line) => [line.wax, line.batches, line.jars])).toEqual([
      ["80 % barn soy + 20 % hive wax", 4, 40],
      ["barn soy", 4, 40],
      ["prairie coco", 4, 40],
    ]);
    const soy = lines.find((line) => line.wax === "barn soy");
    // Batches of days 1, 4, 7 and 10: poured at 55, 58, 61 and 64 °C; four rough jars in each of the last two; wet spots on one jar of every second.
    expect(soy?.pour).toEqual({ low: 55, middle: 59.5, high: 64, batches: 4 });
    expect(soy?.smoothTops).toMatchObject({ share: 32 / 40, jars: 40, batches: 4 });
    expect(soy?.noWetSpots).toMatchObject({ share: 38 / 40 });
    expect(soy?.throws.coldOld).toMatchObject({ mean: 5, batches: 4, scores: 4 });
    expect(soy?.throws.hotSmall).toMatchObject({ mean: 7, batches: 4 });
    expect(soy?.throws.coldYoung).toBeNull();
    for (const line of lines) {
      const { rows } = await test.db.execute<{ jars: number; batches: number }>(
        sql`select sum(jars)::int jars, count(distinct batch_id)::int batches from outcome where workshop_id = ${workshopId} and wax = ${line.wax}`,
      );
      expect(rows[0]).toEqual({ jars: line.jars, batches: line.batches });
      for (const share of [line.smoothTops, line.noWetSpots]) if (share) expect(share.low <= share.share && share.share <= share.high).toBe(true);
    }
  });

  it("opens every figure to the batches it is of, and they make up the figure", async () => {
    await withNotes();
    const { lines } = await waxScoreboard(test.db, workshop());
    const [, line] = lines.filter((item) => item.fromNotes > 0);
    const wax = line?.wax ?? "";
    for (const figure of OPENED_FIGURES) {
      const { batches, total } = await openedFigure(test.db, workshop(), { wax, figure });
      const sum = batches.reduce((all, batch) => all + (batch.value ?? 0), 0);
      const made = {
        batches: line?.jars,
        pour: (line?.pour?.batches ?? 0) * 59.5,
        add: 0,
        tops: (line?.smoothTops?.share ?? 0) * (line?.smoothTops?.jars ?? 0),
        wet: (line?.noWetSpots?.share ?? 0) * (line?.noWetSpots?.jars ?? 0),
        coldYoung: 0,
        coldOld: (line?.throws.coldOld?.mean ?? 0) * 4,
        hotSmall: (line?.throws.hotSmall?.mean ?? 0) * 4,
        hotLarge: 0,
      }[figure];
      expect(sum, figure).toBeCloseTo(made ?? 0, 6);
      expect(total, figure).toBe(batches.length);
    }
    expect(await openedFigure(test.db, workshop(), { wax, figure: "batches", most: 2 })).toMatchObject({ batches: [{}, {}], total: 4 });
  });

  it("sums throw up as its single scores do, cold by age and hot by the size of the room, and leaves out what is not known", async () => {
    await withNotes();
    // One person smells each batch young and old, on the seventh day too, another young, and somebody who is not named old.
    await test.owner.query(
      `update outcome o set smells = (select jsonb_agg(jsonb_build_object('at', o.poured_at + days * interval '1 day', 'personId', person, 'score', 3 + length(o.batch_id::text || person) % 5 + days / 10.0))
         from (values (3, 'ada'), (7, 'ada'), (30, 'ada'), (6.9, 'bo'), (8, null)) smell(days, person)) where workshop_id = $1 and wax <> ''`,
      [workshopId],
    );
    await test.owner.query(
      `update trial set state = jsonb_set(state, '{ratings}', state -> 'ratings' || jsonb_build_array(
         state -> 'ratings' -> 0 || '{"room": "Living Room", "scorer": "ada", "score": 4.5}', state -> 'ratings' -> 0 || '{"room": "shed"}', state -> 'ratings' -> 0 || '{"room": "living room", "scorer": "bo"}'))
       where workshop_id = $1 and jsonb_array_length(state -> 'ratings') > 0`,
      [workshopId],
    );
    const scores = await throwScores(test.db, workshopId);
    const sums = await throwSums(test.db, workshop());
    const isIn = {
      coldYoung: (score: ThrowScore) => score.throw === "cold" && (score.ageDays ?? 99) < 7,
      coldOld: (score: ThrowScore) => score.throw === "cold" && (score.ageDays ?? 0) >= 7,
      hotSmall: (score: ThrowScore) => score.throw === "hot" && score.room === "bedroom",
      hotLarge: (score: ThrowScore) => score.throw === "hot" && score.room?.toLowerCase() === "living room",
    };
    for (const [column, of] of Object.entries(isIn) as [keyof typeof isIn, (score: ThrowScore) => boolean][]) {
      const mine = scores.filter(of);
      expect(mine.length, column).toBeGreaterThan(0);
      // Sums are compared in any order of scores.
      const byName = (a: { wax: string }, b: { wax: string }) => (a.wax < b.wax ? -1 : 1);
      const byScorer = (a: { scorer: string }, b: { scorer: string }) => (a.scorer < b.scorer ? -1 : 1);
      const plain = (all: readonly WaxScores[]) => all.map((item) => ({ ...item, scorers: [...item.scorers].sort(byScorer) })).sort(byName);
      const expected = plain(sumScores(mine.map(({ batch, ...score }) => ({ ...score, batch: batch ?? "" }))));
      expect(plain(sums[column])).toEqual(
        expected.map((item) => ({
          ...item,
          scorers: item.scorers.map((own) => ({ ...own, sum: expect.closeTo(own.sum, 9), squares: expect.closeTo(own.squares, 9) })),
        })),
      );
    }
    expect(scores.some((score) => score.room === "shed")).toBe(true);
  });

  it("costs a blend by its parts, and says nothing where a part has no lot", async () => {
    await withNotes();
    await test.owner.query(
      `insert into lot (workshop_id, id, kind, material_id, code, amount, cost, received_on) select workshop_id, gen_random_uuid(), 'wax', id, 'a', 1000000, case name when 'barn soy' then 500 else 1500 end, '2024-01-01'
       from wax where workshop_id = $1 and name in ('barn soy', 'hive wax')`,
      [workshopId],
    );
    const { lines } = await waxScoreboard(test.db, workshop());
    const costOf = (wax: string) => lines.find((line) => line.wax === wax)?.costPerKg;
    expect(lines.find((line) => line.wax === "80 % barn soy + 20 % hive wax")?.costOf.map(({ name }) => name)).toEqual(["barn soy", "hive wax"]);
    expect([costOf("barn soy"), costOf("80 % barn soy + 20 % hive wax"), costOf("prairie coco")]).toEqual([500, 700, null]);
  });
});
