import { describe, expect, it } from "vitest";
import { writers } from "./units";

const metric = writers({ mass: "g", temperature: "C", zone: "Europe/Lisbon" });
const imperial = writers({ mass: "oz", temperature: "F", zone: "America/Chicago" });

describe("quantities as the workshop reads them", () => {
  it("writes the same weight and temperature in either's units", () => {
    expect([metric.g(226_796), imperial.g(226_796)]).toEqual(["226.796 g", "8 oz"]);
    expect([metric.g(127_000, 1_000_000), imperial.g(127_000, 2_834_952)]).toEqual(["127 g", "4.5 oz"]);
    expect([metric.t(8_500), imperial.t(8_500)]).toEqual(["85 °C", "185 °F"]);
    expect([metric.range({ low: 5_700, high: 6_300 }), imperial.range({ low: 5_700, high: 6_300 })]).toEqual(["57–63 °C", "134.6–145.4 °F"]);
  });

  it("writes a moment in the workshop's zone, over its summer time too", () => {
    expect(metric.dayClock("2026-01-14T23:30:00.000Z")).toBe("Wed 14 Jan 23:30");
    expect(metric.dayClock("2026-07-14T23:30:00.000Z")).toBe("Wed 15 Jul 00:30");
    expect(metric.clock("2026-07-14T23:30:00.000Z")).toBe("00:30");
    expect(imperial.clock("2026-01-14T23:30:00.000Z")).toBe("17:30");
  });

  it("says how far away a moment is, before and after", () => {
    const now = "2026-03-14T12:00:00.000Z";
    expect(metric.away("2026-03-14T12:00:20.000Z", now)).toBe("now");
    expect(metric.away("2026-03-14T15:10:00.000Z", now)).toBe("in 3 h 10 min");
    expect(metric.away("2026-03-10T12:00:00.000Z", now)).toBe("4 days ago");
  });
});
