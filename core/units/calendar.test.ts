import fc from "fast-check";
import { DateTime } from "luxon";
import { afterEach, describe, expect, it } from "vitest";
import {
  addDays,
  dayAt,
  daysBetween,
  keepZoneOffsets,
  minutesAt,
  readDayAs,
  readZoneOffsets,
  timeOn,
  wallAt,
  weekdayOf,
  writeClock,
  writeDay,
} from "./calendar";

// Checked against luxon, a time-zone library that is not ours. The zones change their clocks in spring and autumn, by an hour, by
// half an hour (Lord Howe), at midnight (Santiago, so that a day has no beginning), or never.
const ZONES = ["UTC", "Europe/Berlin", "America/New_York", "Asia/Kolkata", "Australia/Lord_Howe", "America/Santiago", "Pacific/Auckland"];
const moments = fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2032, 0, 1) });

describe("days and clocks of a place", () => {
  it("show at any moment what a time-zone library shows", () => {
    fc.assert(
      fc.property(moments, fc.constantFrom(...ZONES), (ms, zone) => {
        const expected = DateTime.fromMillis(ms, { zone, locale: "en" });
        expect(dayAt(ms, zone)).toBe(expected.toISODate());
        expect(minutesAt(ms, zone)).toBe(expected.hour * 60 + expected.minute);
        expect(writeClock(wallAt(ms, zone), 24, true)).toBe(expected.toFormat("HH:mm:ss"));
        expect(writeClock(wallAt(ms, zone), 12)).toBe(expected.toFormat("h:mm a").toLowerCase());
        expect(weekdayOf(dayAt(ms, zone))).toBe(expected.weekday);
        for (const pattern of ["ccc d LLL", "dd/LL/yyyy", "L/d/yyyy", "ccc, d. LLL"])
          expect(writeDay(dayAt(ms, zone), pattern)).toBe(expected.toFormat(pattern));
      }),
    );
  });

  it("find the moment of a time of day, on days with 23, 24 and 25 hours", () => {
    fc.assert(
      fc.property(moments, fc.integer({ min: 0, max: 1_439 }), fc.constantFrom(...ZONES), (ms, minutes, zone) => {
        const day = dayAt(ms, zone);
        const expected = DateTime.fromISO(day, { zone }).set({ hour: Math.floor(minutes / 60), minute: minutes % 60 });
        const ours = timeOn(day, minutes, zone);
        // Of a time that the wall shows twice ours is the first; the library may give the second.
        const first = expected.getPossibleOffsets()[0] as DateTime;
        expect(ours).toBe(Math.min(first.toMillis(), expected.toMillis()));
      }),
      { numRuns: 400 },
    );
    // Common practice of calendars: what the clocks leave out in spring is as much later.
    expect(new Date(timeOn("2026-03-29", 150, "Europe/Berlin")).toISOString()).toBe("2026-03-29T01:30:00.000Z");
    expect(new Date(timeOn("2026-10-25", 150, "Europe/Berlin")).toISOString()).toBe("2026-10-25T00:30:00.000Z");
    expect(timeOn("2026-10-26", 540, "Europe/Berlin") - timeOn("2026-10-25", 0, "Europe/Berlin")).toBe(34 * 3_600_000);
  });

  it("are counted in days, whatever the clocks do", () => {
    fc.assert(
      fc.property(moments, fc.integer({ min: -800, max: 800 }), (ms, days) => {
        const day = dayAt(ms, "UTC");
        expect(addDays(day, days)).toBe(DateTime.fromISO(day, { zone: "UTC" }).plus({ days }).toISODate());
        expect(daysBetween(day, addDays(day, days))).toBe(days);
      }),
    );
  });

  it("are read back as they are written, and no day is made up", () => {
    expect(readDayAs("14/3", "d/L")).toEqual({ year: null, month: 3, day: 14 });
    expect(readDayAs("March 14 2026", "LLL d yyyy")).toEqual({ year: 2026, month: 3, day: 14 });
    expect(readDayAs("14.3.2026", "d.L.yyyy")).toEqual({ year: 2026, month: 3, day: 14 });
    expect(readDayAs("14x3x2026", "d.L.yyyy")).toBeNull();
    for (const none of ["29/2/2026", "31/4/2026", "0/1/2026", "1/13/2026"]) expect(readDayAs(none, "d/L/yyyy"), none).toBeNull();
  });
});

describe("the offsets of a zone that were read elsewhere", () => {
  const PERIOD = [Date.UTC(2025, 1, 3, 7), Date.UTC(2027, 3, 9, 13)] as const;
  // Nothing of a test stays with the next.
  afterEach(() => {
    for (const zone of ZONES) keepZoneOffsets({ zone, changes: [], until: 0 });
  });

  it("hold from the moments at which a time-zone library changes its clocks", () => {
    for (const zone of [...ZONES, "Africa/Casablanca"]) {
      const { changes, until } = readZoneOffsets(zone, ...PERIOD);
      expect(until).toBe(PERIOD[1]);
      for (const [index, [from, offset]] of changes.entries()) {
        const at = (ms: number) => DateTime.fromMillis(ms, { zone }).offset * 60_000;
        expect(at(from), `${zone} from ${new Date(from).toISOString()}`).toBe(offset);
        const before = changes[index - 1];
        if (before) expect([at(from - 1), at(before[0])], zone).toEqual([before[1], before[1]]);
      }
    }
  });

  it("say the same as the platform within their period, and leave the rest to it", () => {
    fc.assert(
      fc.property(moments, fc.constantFrom(...ZONES), (ms, zone) => {
        const asked = wallAt(ms, zone);
        keepZoneOffsets(readZoneOffsets(zone, ...PERIOD));
        expect(wallAt(ms, zone)).toEqual(asked);
      }),
    );
  });

  it("are what is shown where the device's own data is older", () => {
    const [begin, until] = PERIOD;
    keepZoneOffsets({ zone: "UTC", changes: [[begin, 3_600_000]], until });
    expect([begin - 1, begin, until - 1, until].map((ms) => wallAt(ms, "UTC").hour - new Date(ms).getUTCHours())).toEqual([0, 1, 1, 0]);
  });
});
