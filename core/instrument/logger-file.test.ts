import { DateTime } from "luxon";
import { describe, expect, it } from "vitest";
import { readLogger, thinned } from "./logger-file";

const at = (manner: Partial<Parameters<typeof readLogger>[1]> = {}) => ({ zone: "Europe/Berlin", monthFirst: false, ...manner });
const table = (text: string, by = ",") =>
  text
    .trim()
    .split("\n")
    .map((row) => row.split(by));
const read = (text: string, by = ",", manner = at()) => {
  const file = readLogger(table(text, by), manner);
  if (!file.ok) throw new Error(file.message);
  return file.value;
};

describe("the file of a temperature logger", () => {
  it("is read whatever stands above its table, with decimal commas, and its times in the workshop's zone", () => {
    const file = read(
      `Logger 7;shed\nSerial;00123\n\nNr;Datum;Uhrzeit;Temperatur °C\n1;14.03.2026;09:20:05;84,35\n2;14.03.2026;09:21:05;83,9\n3;14.03.2026;defekt;--\n`,
      ";",
    );
    expect(file.readings).toEqual([
      { at: "2026-03-14T08:20:05.000Z", celsius: 8_435 },
      { at: "2026-03-14T08:21:05.000Z", celsius: 8_390 },
    ]);
    expect(file).toMatchObject({ skipped: 1, zoned: false });
  });

  it("keeps a zone that is said, and takes °F by head or by cell", () => {
    expect(read("timestamp,temp (F)\n2026-03-14T09:20:00+01:00,185\n2026-03-14 08:21:00Z,183.2").readings).toEqual([
      { at: "2026-03-14T08:20:00.000Z", celsius: 8_500 },
      { at: "2026-03-14T08:21:00.000Z", celsius: 8_400 },
    ]);
    expect(read("time,temperature\n1773476400,85 °C\n1773476460000,183.2F").readings.map((reading) => reading.celsius)).toEqual([8_500, 8_400]);
  });

  it("tells months from days by what cannot be a month, and otherwise by how the workshop writes", () => {
    const day = (text: string, monthFirst: boolean) => read(`date time,temp\n${text},60`, ",", at({ zone: "UTC", monthFirst })).readings[0]?.at.slice(0, 16);
    expect(day("03/14/2026 2:20 PM", false)).toBe("2026-03-14T14:20");
    expect(day("14/03/2026 14:20", true)).toBe("2026-03-14T14:20");
    expect(day("03/04/2026 12:05 am", true)).toBe("2026-03-04T00:05");
    expect(day("03/04/2026 00:05", false)).toBe("2026-04-03T00:05");
  });

  it("places local times over the change of clocks as a time-zone library does", () => {
    for (const wall of ["2026-03-29 01:59:00", "2026-03-29 03:01:00", "2026-10-25 01:30:00", "2026-10-25 04:30:00"]) {
      const theirs = DateTime.fromSQL(wall, { zone: "Europe/Berlin" }).toUTC().toISO({ suppressMilliseconds: false });
      expect(read(`time,temp\n${wall},60`).readings[0]?.at).toBe(theirs);
    }
  });

  it("reads a row of units beneath the heads, and the column of temperatures that is chosen", () => {
    const text = "time,ambient temp,probe temp\n,°F,°F\n2026-03-14 10:00,70.1,183.2\n2026-03-14 10:01,70,182.3";
    const first = read(text, ",", at({ zone: "UTC" }));
    expect(first).toMatchObject({
      skipped: 0,
      column: 1,
      columns: [
        { at: 1, name: "ambient temp" },
        { at: 2, name: "probe temp" },
      ],
    });
    expect(first.readings.map((reading) => reading.celsius)).toEqual([2_117, 2_111]);
    expect(read(text, ",", at({ zone: "UTC", column: 2 })).readings.map((reading) => reading.celsius)).toEqual([8_400, 8_350]);
    expect(read("time,temp\n(yyyy-mm-dd hh:mm),(C)\n2026-03-14 10:00,60", ",", at({ zone: "UTC" }))).toMatchObject({ skipped: 0 });
  });

  it.each([
    ["2026/03/14 10:00", "2026-03-14T10:00"],
    ["2026.3.4 9:05", "2026-03-04T09:05"],
    ["14 Mar 2026 10:00", "2026-03-14T10:00"],
    ["14-Mar-2026 10:00:30", "2026-03-14T10:00"],
    ["Mar 14, 2026 2:05 pm", "2026-03-14T14:05"],
    ["March 14 2026 12:05 am", "2026-03-14T00:05"],
  ])("reads %s", (text, expected) => {
    expect(read(`date time;temp\n${text};60`, ";", at({ zone: "UTC" })).readings[0]?.at.slice(0, 16)).toBe(expected);
  });

  it.each(["2026-02-31 10:00", "31/02/2026 10:00", "31 Feb 2026 10:00", "2026-02-31T10:00:00Z", "2026-03-14 24:10", "14 Foo 2026 10:00"])(
    "refuses %s, and moves no date",
    (text) => {
      expect(readLogger(table(`date time;temp\n${text};60`, ";"), at())).toMatchObject({ ok: false });
    },
  );

  it("keeps both passes of the hour that comes twice where clocks go back, whichever way the rows run", () => {
    const walls = Array.from({ length: 180 }, (_, n) => new Date(Date.parse("2026-10-25T00:00:00Z") + n * 60_000)).map((ms) =>
      DateTime.fromJSDate(ms, { zone: "Europe/Berlin" }).toFormat("yyyy-MM-dd HH:mm"),
    );
    const rows = walls.map((wall, n) => `${wall},${90 - n * 0.1}`);
    for (const all of [rows, [...rows].reverse()]) {
      const { readings } = read(`time,temp\n${all.join("\n")}`);
      expect(readings).toHaveLength(180);
      expect(readings.map((reading) => Date.parse(reading.at))).toEqual(Array.from({ length: 180 }, (_, n) => Date.parse("2026-10-25T00:00:00Z") + n * 60_000));
      expect(readings.every((reading, n) => n === 0 || reading.celsius < (readings[n - 1]?.celsius ?? 0))).toBe(true);
    }
  });

  it("puts rows in order, takes a moment once, and says what to do where nothing can be read", () => {
    expect(read("time,temp\n2026-03-14 10:02Z,61\n2026-03-14 10:01Z,62\n2026-03-14 10:02Z,60.5").readings.map((reading) => reading.celsius)).toEqual([
      6_200, 6_050,
    ]);
    expect(readLogger(table("a,b\n1,2"), at())).toMatchObject({ ok: false, message: expect.stringContaining("“time” and “temperature”") });
    expect(readLogger(table("time,temp\nsoon,hot\n2026-13-40 10:00,60\n2026-03-14 10:00,900"), at())).toMatchObject({
      ok: false,
      message: expect.stringContaining("None of its 3 rows"),
    });
  });

  it("is thinned without losing its ends", () => {
    const many = Array.from({ length: 1_000 }, (_, n) => ({ at: new Date(n * 1_000).toISOString(), celsius: n }));
    const few = thinned(many, 120);
    expect(few).toHaveLength(120);
    expect([few[0], few.at(-1)]).toEqual([many[0], many.at(-1)]);
    expect(thinned(many.slice(0, 5), 120)).toHaveLength(5);
  });
});
