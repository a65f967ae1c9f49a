import { describe, expect, it } from "vitest";
import { parseWhen, readDay } from "./when";

const NOW = "2026-03-14T14:20:00.000Z";
const read = (text: string, zone = "UTC") => {
  const parsed = parseWhen(text, NOW, zone);
  return parsed.ok ? parsed.value : parsed.message;
};

describe("a day that lies ahead", () => {
  const today = "2026-11-25";
  const ahead = (text: string, locale?: string) => readDay(text, today, locale, true);

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
    expect(readDay("28 Nov", today)).toBe("2025-11-28");
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

  it("refuses the future with how far ahead it is, and what is no time", () => {
    expect(read("15:00")).toMatch(/15:00 is 40 min ahead of now \(14:20\)/);
    expect(read("14:21")).toBe("2026-03-14T14:21:00.000Z");
    expect(read("25:00")).toMatch(/not a time/);
    expect(read("noonish")).toMatch(/not a time/);
  });
});
