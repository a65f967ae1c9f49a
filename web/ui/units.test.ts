import { describe, expect, it } from "vitest";
import { formatters } from "./units";

const metric = formatters({ mass: "g", temperature: "C", zone: "Europe/Lisbon" });
const imperial = formatters({ mass: "oz", temperature: "F", zone: "America/Chicago" });

describe("quantities as the workshop reads them", () => {
  it("writes the same weight and temperature in either's units", () => {
    expect([metric.g(226_796), imperial.g(226_796)]).toEqual(["226.796 g", "8 oz"]);
    expect([metric.onScale(127_000, { resolutionUg: 1_000_000 }), imperial.onScale(127_000, { resolutionUg: 2_834_952 })]).toEqual(["127 g", "4.5 oz"]);
    expect([metric.t(8_500), imperial.t(8_500)]).toEqual(["85 °C", "185 °F"]);
    expect([metric.range({ low: 5_700, high: 6_300 }), imperial.range({ low: 5_700, high: 6_300 })]).toEqual(["57–63 °C", "135–145 °F"]);
  });

  it("writes a moment in the workshop's zone, over its summer time too", () => {
    expect(metric.dayClock("2026-01-14T23:30:00.000Z")).toBe("Wed 14 Jan 23:30");
    expect(metric.dayClock("2026-07-14T23:30:00.000Z")).toBe("Wed 15 Jul 00:30");
    expect(metric.clock("2026-07-14T23:30:00.000Z")).toBe("00:30");
    expect(imperial.clock("2026-01-14T23:30:00.000Z")).toBe("17:30");
  });

  it("writes the year of a day unless it is this year's, wherever a day is written", () => {
    const of = (locale: string) => formatters({ mass: "g", temperature: "C", zone: "UTC", locale, today: "2026-03-14" });
    const [us, british] = [of("en-US"), of("en-GB")];
    const old = "2021-11-28T11:56:00.000Z";
    expect([us.day(old), us.dayClock(old), us.onDay("2021-11-28"), us.monthDay(old)]).toEqual([
      "Sun, Nov 28, 2021",
      "Sun, Nov 28, 2021 11:56 am",
      "Sun, Nov 28, 2021",
      "Nov 28, 2021",
    ]);
    expect([british.day(old), british.dayClock(old), british.onDay("2021-11-28"), british.monthDay(old)]).toEqual([
      "Sun 28 Nov 2021",
      "Sun 28 Nov 2021 11:56",
      "Sun 28 Nov 2021",
      "28 Nov 2021",
    ]);
    const now = "2026-02-03T11:56:00.000Z";
    for (const write of [us.day, us.dayClock, us.monthDay, british.day, british.dayClock, british.monthDay]) expect(write(now)).not.toContain("2026");
  });

  it("says how far away a moment is, before and after", () => {
    const now = "2026-03-14T12:00:00.000Z";
    expect(metric.away("2026-03-14T12:00:20.000Z", now)).toBe("now");
    expect(metric.away("2026-03-14T15:10:00.000Z", now)).toBe("in 3 h 10 min");
    expect(metric.away("2026-03-10T12:00:00.000Z", now)).toBe("4 days ago");
  });
});

describe("the manner of a place", () => {
  const us = formatters({ mass: "oz", temperature: "F", zone: "America/New_York", length: "in", pounds: true, locale: "en-US", currency: "USD" });
  const german = formatters({ mass: "g", temperature: "C", zone: "Europe/Berlin", locale: "de-DE", currency: "EUR" });

  it("writes clock, days and dates as the place does", () => {
    const at = "2026-03-15T03:40:00.000Z";
    expect(us.clock(at)).toBe("11:40 pm");
    expect(us.dayClock(at)).toBe("Sat, Mar 14 11:40 pm");
    expect(us.date(at)).toBe("3/14/2026");
    expect(german.dayClock(at)).toBe("Sun, 15. Mar 04:40");
    expect(german.date(at)).toBe("15.3.2026");
    // The night in which the clock goes forward has no half past two.
    expect(us.clock("2026-03-08T06:59:00.000Z")).toBe("1:59 am");
    expect(us.clock("2026-03-08T07:01:00.000Z")).toBe("3:01 am");
  });

  it("writes pounds and ounces from a pound on, and stores alike", () => {
    expect(us.g(453_592)).toBe("1 lb 0 oz");
    expect(us.g(226_796)).toBe("8 oz");
    expect(us.g(566_990)).toBe("1 lb 4 oz");
    expect(us.bulk(9_071_847)).toBe("20 lb 0 oz");
    expect(us.scaleParts(566_990, { resolutionUg: 2_834_952, unit: "lb" })).toEqual({ figure: "1 lb 4", unit: "oz" });
    // What is typed over has no mark between thousands and a point for decimals.
    expect(german.typed.about(12_540)).toBe("12.5 g");
    expect(german.about(12_540)).toBe("12,5 g");
  });

  it("writes lengths, shares and money in the place's own way", () => {
    expect(us.len(77_788)).toBe("3 1/16 in");
    expect(german.len(77_788)).toBe("77,8 mm");
    expect(german.percent(74_100)).toBe("7,41 %");
    expect(german.density(905_000)).toBe("0,905 g/ml");
    expect(us.money(1_250)).toBe("$12.50");
    expect(german.money(1_250).replace(/\s/g, " ")).toBe("12,50 €");
    expect(german.n(12_345.5, 1)).toBe("12.345,5");
  });
});
