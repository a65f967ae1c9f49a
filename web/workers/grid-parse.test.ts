import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { batchNote, guessNames, guessReading, isNoteHead, METRIC, namesUsed, readNoteRows, tableOf } from "@hearth/core";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gridOfFile, gridOfText } from "./grid-parse";

/**
 * One notebook as other programs write it: made by openpyxl 3 (Python), then saved by LibreOffice 7.4 as XLSX and CSV in five locales, with its dates, decimal
 * marks and separators. Merged headings, a percent format, a sum and a second sheet are in it.
 */
const DIRECTORY = join(import.meta.dirname, "../testing/fixtures/notebooks");
const FILES = readdirSync(DIRECTORY).sort();

const bytesOf = (name: string) => new Uint8Array(readFileSync(join(DIRECTORY, name)));

/** Returns the batches of a file's notes, as they would be imported. */
async function notesOf(name: string) {
  const read = await gridOfFile(bytesOf(name), name);
  if (!read.ok) throw new Error(read.message);
  const table = tableOf(read.sheets[0]?.grid ?? [], (head) => isNoteHead("batches", head));
  if (!table) throw new Error("no table");
  const reading = guessReading("batches", table, { units: METRIC, dayOrder: "day", decimalComma: read.decimalComma });
  const rows = readNoteRows(reading, "2026-01-01", () => false);
  const choices = guessNames(namesUsed(rows), { wax: [], fragrance: [], vessel: [], wick: [] });
  return rows.map((row) => batchNote(row, reading, choices, "2026-01-01"));
}

describe("a notebook of another program", () => {
  it("is there in five locales and two formats, and from a library", () => {
    expect(FILES).toHaveLength(11);
  });

  it.each(FILES)("is the same batches from %s", async (name) => {
    const all = await notesOf(name);
    expect(all.flatMap(({ faults }) => faults)).toEqual([]);
    expect(all.map(({ note }) => note)).toMatchObject([
      {
        line: 4,
        day: "2024-03-01",
        loadPpm: 80_000,
        count: 12,
        heat: 8_500,
        pour: 5_750,
        cure: 1_209_600,
        isLookedAt: true,
        flaws: [],
        cold: 7.5,
        remark: "first of the year",
      },
      {
        line: 5,
        day: "2024-03-14",
        loadPpm: 100_000,
        count: 6,
        add: 8_450,
        pour: 6_600,
        flaws: [
          { defect: "rough_top", jars: 6 },
          { defect: "wet_spot", jars: 2 },
        ],
      },
      { line: 6, day: "2024-03-14", loadPpm: 0, scents: [], count: 4, add: null, cold: null },
      {
        line: 7,
        day: "2024-12-02",
        loadPpm: 65_000,
        waxes: [{ share: 80 }, { share: 20 }],
        wick: { count: 2 },
        heat: 8_850,
        flaws: [
          { defect: "frosting", jars: 3 },
          { defect: "wet_spot", jars: 1 },
        ],
      },
    ]);
    expect(all[0]?.note.vessel).toBe("vessel:squat tin");
  });

  it("has the sheets of a workbook that hold something", async () => {
    const read = await gridOfFile(bytesOf("openpyxl.xlsx"), "openpyxl.xlsx");
    expect(read.ok && read.sheets.map((sheet) => sheet.name)).toEqual(["Pours", "Prices"]);
  });

  it("is refused with what to do where it is no sheet", async () => {
    const of = async (bytes: number[], name: string) => {
      const read = await gridOfFile(new Uint8Array(bytes), name);
      return read.ok ? "" : read.message;
    };
    expect(await of([0x50, 0x4b, 3, 4, 0, 0], "pours.xlsx")).toContain("cannot be read");
    expect(await of([0x50, 0x4b, 3, 4], "pours.ods")).toContain("ODS");
    expect(await of([0xd0, 0xcf, 0x11, 0xe0], "pours.xls")).toContain("XLS");
    expect(await of([], "pours.csv")).toContain("empty");
    expect(await of([65, 0, 66], "pours.csv")).toContain("not a text file");
  });

  it("comes back from CSV as it was written, whatever is in its cells", () => {
    const cell = fc.string({ unit: fc.constantFrom("a", "7", ",", ";", '"', "\n", " ", "é", "%"), maxLength: 8 }).map((text) => text.trim());
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 2, maxLength: 4 }), { minLength: 2, maxLength: 5 }), (rows) => {
        const grid = [["date", "wax", "jar"], ...rows];
        const text = grid.map((row) => row.map((item) => `"${item.replaceAll('"', '""')}"`).join(",")).join("\r\n");
        const read = gridOfText(text);
        expect(read.ok && read.sheets[0]?.grid).toEqual(grid);
      }),
    );
  });
});
