import { parseDay } from "@hearth/core";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { parseStepTime, parseWhen, stepMoment } from "./when";

const NOW = "2026-03-14T14:20:00.000Z";
const read = (text: string, zone = "UTC") => {
  const parsed = parseWhen(text, NOW, zone);
  return parsed.ok ? parsed.value : parsed.message;
};

describe("a day that lies ahead", () => {
  const today = "2026-11-25";
  const ahead = (text: string, locale?: string) => parseDay(text, today, locale, true);

  it("without its year is the next such day, and today is today", () => {
    expect(ahead("28 Nov")).toBe("2026-11-28");
    expect(ahead("25 Nov")).toBe("2026-11-25");
    expect(ahead("14 Mar")).toBe("2027-03-14");
    expect(ahead("today")).toBe("2026-11-25");
    expect(ahead("3/14", "en-US")).toBe("2027-03-14");
    // With its year it is that day, even where it is over: whoever asks says so.
    expect(ahead("1 Mar 2026")).toBe("2026-03-01");
    expect(ahead("soon")).toBeNull();
    expect(ahead("31 Jun")).toBeNull();
    // Of what has happened the last such day is meant.
    expect(parseDay("28 Nov", today)).toBe("2025-11-28");
  });
});

describe("when something happened", () => {
  it("reads a time of today in the workshop's own zone, a full date, or now", () => {
    expect(read("10:42")).toBe("2026-03-14T10:42:00.000Z");
    expect(read("10:42", "Asia/Tokyo")).toBe("2026-03-14T01:42:00.000Z");
    expect(read("2026-03-13 23:05")).toBe("2026-03-13T23:05:00.000Z");
    expect(read("")).toBeNull();
    expect(read("now")).toBeNull();
  });

  it("reads the clock and the day as a place writes them", () => {
    const us = (text: string) => {
      const parsed = parseWhen(text, NOW, "UTC", "en-US");
      return parsed.ok ? parsed.value : parsed.message;
    };
    expect(us("1:05 pm")).toBe("2026-03-14T13:05:00.000Z");
    expect(us("12:10 am")).toBe("2026-03-14T00:10:00.000Z");
    expect(us("3/13/2026 11:05 pm")).toBe("2026-03-13T23:05:00.000Z");
    expect(us("Mar 12 9am")).toBe("2026-03-12T09:00:00.000Z");
    expect(us("13:05 pm")).toMatch(/not a time.*10:42 am/);
    // Without a year the day that was last is meant.
    expect(us("12/24 8:00")).toBe("2025-12-24T08:00:00.000Z");
    expect(read("13/03/2026 23:05")).toBe("2026-03-13T23:05:00.000Z");
    expect(read("yesterday 10:42")).toBe("2026-03-13T10:42:00.000Z");
  });

  it("takes the latest that is not ahead, where clocks go back or a clock of twelve hours leaves it open", () => {
    const at = (text: string, now: string, zone: string, locale?: string) => {
      const parsed = parseWhen(text, now, zone, locale);
      return parsed.ok ? parsed.value : parsed.message;
    };
    // The second 2:40 of the night in which clocks go back (01:40 UTC), and the first.
    expect(at("02:35", "2026-10-25T01:40:00.000Z", "Europe/Vienna")).toBe("2026-10-25T01:35:00.000Z");
    expect(at("02:35", "2026-10-25T00:40:00.000Z", "Europe/Vienna")).toBe("2026-10-25T00:35:00.000Z");
    expect(at("02:50", "2026-10-25T01:40:00.000Z", "Europe/Vienna")).toBe("2026-10-25T00:50:00.000Z");
    expect(at("1:05 am", "2026-11-01T06:10:00.000Z", "America/New_York", "en-US")).toBe("2026-11-01T06:05:00.000Z");
    expect(at("11:40", "2026-03-14T23:45:00.000Z", "UTC", "en-US")).toBe("2026-03-14T23:40:00.000Z");
    expect(at("11:40", "2026-03-14T14:00:00.000Z", "UTC", "en-US")).toBe("2026-03-14T11:40:00.000Z");
    expect(at("12:10", "2026-03-14T14:00:00.000Z", "UTC", "en-US")).toBe("2026-03-14T12:10:00.000Z");
    expect(at("12:10", "2026-03-14T00:30:00.000Z", "UTC", "en-US")).toBe("2026-03-14T00:10:00.000Z");
    // With am or pm, or on a clock of 24 hours, it is as it is written.
    expect(at("11:40 am", "2026-03-14T23:45:00.000Z", "UTC", "en-US")).toBe("2026-03-14T11:40:00.000Z");
    expect(at("11:40", "2026-03-14T23:45:00.000Z", "UTC", "en-GB")).toBe("2026-03-14T11:40:00.000Z");
  });

  it("refuses the future with how far ahead it is, and what is no time", () => {
    expect(read("15:00")).toMatch(/15:00 is 40 min ahead of now \(14:20\)/);
    expect(read("14:21")).toBe("2026-03-14T14:21:00.000Z");
    expect(read("25:00")).toMatch(/not a time/);
    expect(read("noonish")).toMatch(/not a time/);
  });
});

describe("when a step was done, by the one before it", () => {
  const BEFORE = "2026-03-10T22:15:30.000Z";
  const after = (text: string, locale?: string, before = BEFORE) => {
    const parsed = parseStepTime(text, NOW, "UTC", locale);
    if (!parsed.ok) return parsed.message;
    if (parsed.value === null) return null;
    const moment = stepMoment(parsed.value, before, NOW, "UTC", locale);
    return moment.ok ? moment.value : moment.message;
  };

  it("reads a time of day as the next such moment, a length of time as so long after it, and nothing as not noted", () => {
    expect(after("22:40")).toBe("2026-03-10T22:40:00.000Z");
    // The minute of the step before is not before it.
    expect(after("22:15")).toBe(BEFORE);
    expect(after("1:05")).toBe("2026-03-11T01:05:00.000Z");
    expect(after("10:40", "en-US")).toBe("2026-03-10T22:40:00.000Z");
    expect(after("1:05 am", "en-US")).toBe("2026-03-11T01:05:00.000Z");
    expect(after("35 min")).toBe("2026-03-10T22:50:30.000Z");
    expect(after("+ 35")).toBe("2026-03-10T22:50:30.000Z");
    expect(after("1 h 10 min")).toBe("2026-03-10T23:25:30.000Z");
    expect(after("2026-03-11 14:00")).toBe("2026-03-11T14:00:00.000Z");
    expect(after("")).toBeNull();
  });

  it("asks where a clock would come round again only the next day, and refuses what is ahead or no time", () => {
    expect(after("21:00")).toMatch(/before the step before it/);
    expect(after("10 days")).toMatch(/future/);
    expect(after("later")).toMatch(/how long after the step before, like 35 min/);
    expect(after("8:30", undefined, NOW)).toMatch(/before the step before it/);
  });

  it("never gives a moment before the step before it, whatever the clock and the place", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 23 }),
        fc.integer({ min: 0, max: 59 }),
        fc.integer({ min: 0, max: 86_400 }),
        fc.constantFrom("en-US", "en-GB", "de-DE"),
        (hour, minute, second, locale) => {
          const before = new Date(Date.UTC(2026, 2, 8) + second * 1_000).toISOString();
          const at = after(`${hour}:${String(minute).padStart(2, "0")}`, locale, before) as string;
          if (/before the step/.test(at)) return;
          expect(Date.parse(at)).toBeGreaterThanOrEqual(Date.parse(before));
          expect(Date.parse(at) - Date.parse(before)).toBeLessThanOrEqual(12 * 3_600_000);
        },
      ),
    );
  });
});
