import { wilson } from "@hearth/core";
import fc from "fast-check";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { describeGap, describeLogged, formatPercentShare, formatShareRange, formatShares } from "@/ui/logged";
import { type Formats, Ground, type Units, useUnits } from "@/ui/units";
import { Shares } from "./shares";

const METRIC: Units = { mass: "g", temperature: "C", zone: "UTC" };
const US: Units = { mass: "oz", temperature: "F", length: "in", zone: "UTC", locale: "en-US" };
const draw = (element: React.ReactElement, units: Units) =>
  renderToStaticMarkup(
    <Ground units={units} now="2026-03-14T12:00:00.000Z" frozen>
      {element}
    </Ground>,
  );
/** What a page would write with these units. */
function said(units: Units, say: (formats: Formats) => string): string {
  const Say = () => <i>{say(useUnits())}</i>;
  return /<i>(.*)<\/i>/.exec(draw(<Say />, units))?.[1] ?? "";
}
const level = (name: string, k: number, n: number) => ({ level: name, n, k, ...wilson(k, n) });
/** The levels in the order in which they are drawn. */
const order = (levels: ReturnType<typeof level>[], units = METRIC) =>
  [...draw(<Shares levels={levels} />, units).matchAll(/<span class="">([^<]*)<\/span>/g)].map((match) => match[1]);

describe("rates by level", () => {
  it("lie as their levels do on a scale, whatever was the most; names stand as they came", () => {
    expect(order([level("inside the range", 7, 41), level("above the range", 15, 18), level("below the range", 0, 5)])).toEqual([
      "below the range",
      "inside the range",
      "above the range",
    ]);
    expect(order([level("8 to 10 % of the wax", 1, 9), level("10 to 12 % of the wax", 1, 9), level("-4 to 0 % of the wax", 1, 9)])).toEqual([
      "-4 to 0 % of the wax",
      "8 to 10 % of the wax",
      "10 to 12 % of the wax",
    ]);
    expect(order([level("narrow tin", 3, 90), level("bowl", 1, 9)])).toEqual(["narrow tin", "bowl"]);
  });

  it("say counts and the interval, and temperatures in the reader's own unit only", () => {
    const markup = draw(<Shares levels={[level("above the range", 15, 18)]} />, METRIC);
    expect(markup).toContain("15 of 18");
    expect(markup).toContain("61 % to 94 %");
    expect(order([level("16 to 20 °C", 1, 9)])).toEqual(["16 °C to 20 °C"]);
    expect(order([level("16 to 20 °C", 1, 9)], US)).toEqual(["61 °F to 68 °F"]);
  });
});

describe("a range", () => {
  it("never has two ends that read alike, unless they are the same", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 1e-5, max: 0.2, noNaN: true }), (low, width) => {
        const [, from, to] = /^(.*) % to (.*) %$/.exec(said(METRIC, (units) => formatShares(units, { low, high: low + width }))) ?? [];
        expect(from).toBeTruthy();
        expect(from).not.toBe(to);
      }),
      { numRuns: 60 },
    );
    expect(said(METRIC, (units) => formatShares(units, { low: 0.0961, high: 0.1043 }))).toBe("9.6 % to 10.4 %");
    expect(said(METRIC, (units) => formatShares(units, { low: 0.1, high: 0.1 }))).toBe("10 % to 10 %");
    expect(said(METRIC, (units) => formatShareRange(units, 6.11, 6.14, 1))).toBe("6.11 to 6.14");
  });
});

describe("what was recorded", () => {
  it("is written in the units of the workshop, as a choice, or with its own unit", () => {
    expect(said(METRIC, (units) => describeLogged(units, "pour_c", 72))).toBe("72 °C");
    expect(said(US, (units) => describeLogged(units, "pour_c", 72))).toBe("162 °F");
    expect(said(METRIC, (units) => describeGap(units, "pour_c", 9))).toBe("9 °C");
    expect(said(US, (units) => describeGap(units, "pour_c", 9))).toBe("16.2 °F");
    expect(said(METRIC, (units) => describeLogged(units, "load_percent_of_wax", 7.987))).toBe("8 %");
    expect(said(METRIC, (units) => describeLogged(units, "vessel_diameter_mm", 76))).toBe("76 mm");
    expect(said(US, (units) => describeLogged(units, "vessel_diameter_mm", 76.2))).toBe("3 in");
    expect(said(METRIC, (units) => describeLogged(units, "left_in_pitcher_g", 14))).toBe("14 g");
    expect(said(METRIC, (units) => describeLogged(units, "dye_drops_per_lb", 6.25))).toBe("13.8 drops per kg");
    expect(said(METRIC, (units) => describeLogged(units, "vessel_warmed", false))).toBe("no");
    expect(said(METRIC, (units) => describeLogged(units, "wicks", 3))).toBe("3");
    expect(said(METRIC, (units) => formatPercentShare(units, 0.1234))).toBe("12 %");
    expect(said(METRIC, (units) => formatPercentShare(units, 0.0042))).toBe("0.4 %");
  });
});
