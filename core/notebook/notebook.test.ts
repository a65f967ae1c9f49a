import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFECTS } from "../defects/defects";
import { METRIC, US_CUSTOMARY } from "../units/measured-text";
import { batchNote } from "./batch-notes";
import { burnNotes } from "./burn-notes";
import { flawNamed, readDay, readFlaws, readLoad, readParts, readScore, readSeen, readTemperature, splitCell } from "./cells";
import { guessReading, isNoteHead, NOTE_FIELDS, NOTE_KINDS, type NotesReading, plainHead } from "./columns";
import { familyNamed, fillNamed, guessNames, matchName, namesUsed, readWick } from "./names";
import { readNoteRows } from "./rows";
import { cellName, columnLetters, type Grid, tableOf } from "./table";

const TODAY = "2026-03-14";
const value = <T>(read: { ok: true; value: T } | { ok: false; message: string }): T | string => (read.ok ? read.value : read.message);
const never = () => false;

/** A sheet as a maker keeps it: a title, merged group headings, comments in cells, dates in three spellings and a sum. */
const MESSY: Grid = [
  ["Pours since we moved to the barn", "", "", "", "", "", "", "", "", "", "", ""],
  ["", "", "", "", "", "", "Temps (F)", "", "", "How it came out", "", ""],
  ["Date", "Wax", "FO", "FO %", "Jar", "#", "Melt", "Add", "Pour", "Tops", "Wet spots", "Notes"],
  ["March 2021", "", "", "", "", "", "", "", "", "", "", ""],
  ["3/14/21", "meadow soy", "rain barrel", "8%", "8 oz tin", "12", "185", "185F", "135 (bit high)", "smooth", "3", "sold fast"],
  ["", "meadow soy", "orchard", "1 oz/lb", "8 oz tin", "6", "~185", "", "150-155", "rough", "0", ""],
  ["14 March 2021", "meadow soy 80 / hive wax 20", "rain barrel", "8", "squat tumbler", "4 jars", "", "", "", "craters 2, frosting", "n/a", "grainy, but fine"],
  ["Total", "", "", "", "", "22", "", "", "", "", "", ""],
];
const read = (grid: Grid, over: Partial<NotesReading> = {}, kind: NotesReading["kind"] = "batches") => {
  const table = tableOf(grid, (head) => isNoteHead(kind, head));
  if (!table) throw new Error("no table");
  return { ...guessReading(kind, table, { units: US_CUSTOMARY, dayOrder: "month" }), ...over };
};
const noted = (reading: NotesReading) => {
  const rows = readNoteRows(reading, TODAY, never);
  const choices = guessNames(namesUsed(rows), { wax: [], fragrance: [], vessel: [], wick: [] });
  return rows.map((row) => ({ row, ...batchNote(row, reading, { ...choices, "vessel:squat tumbler": { name: "squat tumbler", fillMg: 180_000 } }, TODAY) }));
};

describe("a sheet of past batches as people keep it", () => {
  it("is read below its headings, with merged groups, carried dates, comments and units of each cell", () => {
    const reading = read(MESSY);
    expect(reading.table.heads[8]).toBe("Pour");
    expect(reading.units).toMatchObject({ pour: "F", load: "%" });
    const notes = noted(reading);
    expect(notes.map(({ row }) => row.line)).toEqual([5, 6, 7]);
    expect(notes.flatMap(({ faults }) => faults)).toEqual([]);
    const [first, second, third] = notes.map(({ note }) => note);
    expect(first).toMatchObject({ day: "2021-03-14", count: 12, loadPpm: 80_000, heat: 8_500, add: 8_500, pour: 5_722, isLookedAt: true });
    expect(first?.flaws).toEqual([{ defect: "wet_spot", severity: "clear", jars: 3 }]);
    expect(first?.remark).toContain("bit high");
    // The date of the row above, an ounce a pound, the middle of a range; a flaw without a number was on every jar.
    expect(second).toMatchObject({ day: "2021-03-14", loadPpm: 62_500, pour: 6_694, flaws: [{ defect: "rough_top", jars: 6 }] });
    expect(third?.waxes.map((part) => part.share)).toEqual([80, 20]);
    expect(third?.flaws).toEqual([
      { defect: "sinkhole", severity: "clear", jars: 2 },
      { defect: "frosting", severity: "clear", jars: 4 },
    ]);
    expect(third).toMatchObject({ pour: null, isLookedAt: true, count: 4 });
  });

  it("says of each bad row which cell is wrong, and why", () => {
    const bad = MESSY.map((row) => [...row]);
    (bad[4] as string[])[8] = "hot";
    (bad[5] as string[])[5] = "some";
    (bad[6] as string[])[9] = "craters 9";
    (bad[6] as string[])[3] = "";
    const faults = noted(read(bad)).flatMap((item) => item.faults);
    expect(faults.map((fault) => fault.cell)).toEqual(["I5", "F6", "D7", ""]);
    expect(faults[0]?.message).toContain("“hot” is not a temperature");
    expect(faults[2]?.message).toContain("load is missing");
    expect(faults[3]?.message).toContain("9 jars with sinkhole or crater, but 4 were made");
  });

  it("takes what is meant for empty cells, leaves rows out, and counts a bare flaw on one jar if asked", () => {
    const reading = read(MESSY, {
      everywhere: { cure: "2 weeks", room: "70" },
      units: { ...read(MESSY).units, room: "F" },
      leftOut: [5, 7],
      flawsOn: "one jar",
    });
    const [only, ...others] = noted(reading);
    expect(others).toEqual([]);
    expect(only?.note).toMatchObject({ cure: 1_209_600, room: 2_111, flaws: [{ defect: "rough_top", jars: 1 }] });
  });

  it("keeps a throw score without an age in words only, and one with an age as a score", () => {
    const grid = [
      ["Date", "Wax", "Jar", "Count", "CT", "Cure"],
      ["2021-03-01", "meadow soy", "8 oz tin", "6", "7/10", ""],
      ["2021-03-02", "meadow soy", "8 oz tin", "6", "4/5", "14"],
    ];
    const [without, aged] = noted(read(grid)).map(({ note }) => note);
    expect(without).toMatchObject({ cold: null, remark: "Cold throw 7 of 10, age not noted" });
    expect(aged).toMatchObject({ cold: 8, cure: 1_209_600, remark: "" });
  });

  it("reads the load as a share where a spreadsheet keeps percents so, and °C by the figures alone", () => {
    const grid = [
      ["date", "wax", "fo", "fo %", "jar", "qty", "pour temp"],
      ["2021-03-01", "soy", "rain", "0.08", "tin 180 g", "6", "57"],
      ["2021-03-02", "soy", "rain", "0.1", "tin 180 g", "6", "60,5"],
    ];
    const reading = read(grid, { decimalComma: true });
    expect(reading.units).toMatchObject({ load: "share", pour: "C" });
    expect(noted(reading).map(({ note }) => [note.loadPpm, note.pour])).toEqual([
      [80_000, 5_700],
      [100_000, 6_050],
    ]);
  });

  it("never fails on any text: a cell is read, or said to be wrong, in every kind of notebook", () => {
    const texts = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom("185F", "8 %", "3/14/21", "12", "soy + coco", "2 x braid 4", "n/a", "yes", "1 oz/lb", "7/10"),
    );
    fc.assert(
      fc.property(fc.constantFrom(...NOTE_KINDS), fc.array(fc.array(texts, { maxLength: 14 }), { minLength: 1, maxLength: 8 }), (kind, grid) => {
        const table = tableOf(grid, (head) => isNoteHead(kind, head));
        if (!table) return;
        const reading = guessReading(kind, table, { units: METRIC, dayOrder: "day" });
        // Every field from some column, so that every reader meets every text.
        const columns = Object.fromEntries(NOTE_FIELDS[kind].map((item, index) => [item.key, index % Math.max(1, table.heads.length)]));
        for (const row of readNoteRows({ ...reading, columns }, TODAY, never)) for (const fault of row.faults) expect(fault.message).toMatch(/\S{3,}/);
      }),
      { numRuns: 300 },
    );
  });
});

describe("a burn notebook, one row a check", () => {
  it("becomes candles with their sessions, and a verdict only where one was noted", () => {
    const grid = [
      ["Candle", "Date", "Wax", "Jar", "Wick", "Hours", "Melt pool (in)", "Flame", "Mushroom", "Pass/fail"],
      ["A", "5/1/21", "meadow soy", "8 oz tin", "braid 4", "1", "1 1/2", "good", "no", ""],
      ["A", "5/1/21", "meadow soy", "8 oz tin", "braid 4", "2.5", "2.5", "a bit big", "yes", ""],
      ["A", "5/2/21", "meadow soy", "8 oz tin", "braid 4", "2", "3", "steady", "no", "PASS"],
      ["B", "5/1/21", "meadow soy", "8 oz tin", "braid 5", "30 h", "2", "", "", ""],
    ];
    const reading = read(grid, {}, "burns");
    const rows = readNoteRows(reading, TODAY, never);
    const { notes, faults } = burnNotes(rows, reading, guessNames(namesUsed(rows), { wax: [], fragrance: [], vessel: [], wick: [] }));
    expect(notes.map((note) => [note.name, note.checks.length, note.decided])).toEqual([["A", 3, "passed"]]);
    expect(notes[0]?.checks.map((check) => [check.after, check.values.pool])).toEqual([
      [3_600, 38_100],
      [9_000, 63_500],
      [7_200, 76_200],
    ]);
    expect([...faults].filter(([, all]) => all.length > 0).map(([line, all]) => [line, all[0]?.cell])).toEqual([[5, "F5"]]);
  });
});

describe("cells", () => {
  it.each([
    ["3/14/21", "month", "2021-03-14"],
    ["3/4/21", "month", "2021-03-04"],
    ["3/4/98", "month", "1998-03-04"],
    ["3/4/21", "day", "2021-04-03"],
    ["14.3.2021", "month", "2021-03-14"],
    ["2021-03-14 10:30", "day", "2021-03-14"],
    ["2021-03-14T00:00:00.000Z", "day", "2021-03-14"],
    ["March 14th, 2021", "day", "2021-03-14"],
    ["14-Mar-21", "day", "2021-03-14"],
    ["Sunday, 14 March 2021", "day", "2021-03-14"],
  ] as const)("reads the day %s, %s first, as %s", (text, order, day) => {
    expect(value(readDay(text, order, TODAY))).toBe(day);
  });
  it("refuses a day that no calendar has", () => {
    for (const text of ["31/2/2021", "soon", "13/13/21", ""]) expect(readDay(text, "day", TODAY).ok, text).toBe(false);
  });

  it.each([
    ["8%", "%", 80_000],
    ["8", "%", 80_000],
    ["0.08", "share", 80_000],
    ["1 oz/lb", "%", 62_500],
    ["1.5oz per pound", "%", 93_750],
    ["1 oz pp", "%", 62_500],
    ["80 g per kg", "%", 80_000],
    ["1", "oz/lb", 62_500],
  ] as const)("reads the load %s in a column of %s as %i millionths", (text, unit, ppm) => {
    expect(value(readLoad(text, unit))).toBe(ppm);
  });
  it("refuses a load that no wax holds", () => {
    expect(value(readLoad("8", "share"))).toContain("more fragrance than any wax holds");
  });

  it("reads temperatures with their own unit, and the middle of a range", () => {
    expect([readTemperature("185F", "C"), readTemperature("135–140 F", "C"), readTemperature("57", "C")].map(value)).toEqual([8_500, 5_861, 5_700]);
    expect(readTemperature("140-135", "F").ok).toBe(false);
  });

  it("reads blends, and leaves a name with a sign in it whole where the shelf knows it", () => {
    expect(readParts("80 % soy + 20 % coconut", never)).toEqual([
      { name: "soy", share: 80 },
      { name: "coconut", share: 20 },
    ]);
    expect(readParts("soy/coconut 80:20", never).map((part) => part.share)).toEqual([80, 20]);
    expect(readParts("soy 80 / coconut", never).map((part) => part.share)).toEqual([80, 20]);
    expect(readParts("sage & salt", never)).toEqual([{ name: "sage & salt", share: null }]);
    expect(readParts("sage + salt", (name) => name === "sage + salt")).toEqual([{ name: "sage + salt", share: null }]);
    expect(readParts("wax 464", never)).toEqual([{ name: "wax 464", share: null }]);
  });

  it("names every flaw by its own name, and by what makers call it", () => {
    for (const defect of DEFECTS) expect(flawNamed(defect.name)?.id, defect.name).toBe(defect.id);
    expect(["wet spots", "Rough top", "sink holes", "cratered", "jump lines", "tunneled"].map((text) => flawNamed(text)?.id)).toEqual([
      "wet_spot",
      "rough_top",
      "sinkhole",
      "sinkhole",
      "wrinkles",
      "tunnelling",
    ]);
    expect(flawNamed("grainy")).toBeNull();
    expect(readFlaws("slight frosting on 2 of 12; bad wet spots, none").flaws).toEqual([
      { defect: "frosting", jars: 2, severity: "slight" },
      { defect: "wet_spot", jars: null, severity: "severe" },
    ]);
    expect(readFlaws("no issues")).toEqual({ flaws: [], isLookedAt: true, unknown: [] });
    expect(readFlaws("lovely day")).toEqual({ flaws: [], isLookedAt: false, unknown: ["lovely day"] });
    expect(["3", "yes", "no", "2/12", "perhaps"].map((text) => value(readSeen(text)))).toEqual([
      3,
      null,
      0,
      2,
      expect.stringContaining("not a number of jars"),
    ]);
  });

  it("reads scores out of ten, whatever they are out of", () => {
    expect(["7", "7/10", "3.5/5", "★★★", "7,5"].map((text) => value(readScore(text)))).toEqual([7, 7, 7, 6, 7.5]);
    expect(["12", "strong"].map((text) => readScore(text).ok)).toEqual([false, false]);
  });

  it("parts a cell from its remark, and takes a dash or a question mark for nothing", () => {
    expect(splitCell("135 (bit high)")).toEqual({ value: "135", comment: "bit high" });
    expect(["–", "n/a", "?", "  "].map((text) => splitCell(text).value)).toEqual(["", "", "", ""]);
    expect(splitCell("~185?").value).toBe("185");
  });
});

describe("names", () => {
  it("are matched to the shelf whatever their capitals, signs and small slips, but never to another size", () => {
    const shelf = [
      { id: "1", name: "Meadow soy" },
      { id: "2", name: "braid 4" },
      { id: "3", name: "braid 5" },
    ];
    expect(matchName("meadow-soy", shelf)).toEqual({ id: "1", name: "Meadow soy", isSame: true });
    expect(matchName("medow soy", shelf)).toMatchObject({ id: "1", isSame: false });
    expect(matchName("braid 6", shelf)).toBeNull();
    expect(matchName("hive wax", shelf)).toBeNull();
  });
  it("are kept as most rows spell them", () => {
    const row = (wax: string) => ({ line: 1, values: { wax: [{ name: wax, share: null }] }, comments: [], faults: [] });
    expect(namesUsed(["Barn Soy", "barn soy", "barn soy"].map(row))).toMatchObject([{ name: "barn soy", rows: 3 }]);
  });
  it("tell a wax's family, a vessel's fill, and how many wicks there are", () => {
    expect(["Golden Soy", "beeswax pastilles", "Coco-soy", "pillar wax", "mystery"].map(familyNamed)).toEqual(["soy", "beeswax", "blend", "paraffin", "other"]);
    expect([fillNamed("180 g jar"), fillNamed("squat tumbler")]).toEqual([180_000, null]);
    expect(fillNamed("8 oz tin")).toBeCloseTo(8 * 29.5735 * 740, -3);
    expect(["2 x braid 4", "braid 4 x2", "double braid 4", "braid 4"].map(readWick)).toEqual([
      { name: "braid 4", count: 2 },
      { name: "braid 4", count: 2 },
      { name: "braid 4", count: 2 },
      { name: "braid 4", count: 1 },
    ]);
  });
});

describe("columns", () => {
  it("are known by no heading of two fields of one kind of notebook, but where their cells tell them apart", () => {
    for (const kind of NOTE_KINDS)
      for (const { label } of NOTE_FIELDS[kind]) {
        const fields = NOTE_FIELDS[kind].filter((item) => item.heads.test(plainHead(label)));
        expect(fields.length, `${kind}: ${label}`).toBeLessThan(2);
      }
    expect(isNoteHead("batches", "Pour Temp (°F)")).toBe(true);
    expect(isNoteHead("batches", "Pour temp. F")).toBe(true);
  });
  it("have the letters that a spreadsheet gives them", () => {
    expect([0, 25, 26, 51, 52, 701, 702].map(columnLetters)).toEqual(["A", "Z", "AA", "AZ", "BA", "ZZ", "AAA"]);
    expect(cellName(5, 12)).toBe("F12");
  });
});
