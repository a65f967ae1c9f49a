import type { ForecastView } from "@hearth/core";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { Ground, type Units } from "@/ui/units";
import { PotFinding } from "./finding";

const finding = { at: 66, worse: "above" as const, flawed: 51, of: 100, otherFlawed: 0, otherOf: 60, p: 0.01, wax: "soft soy", flaw: "rough top" };
const ahead = (at: string) => ({ enters: { at, low: at, high: at } }) as unknown as ForecastView;
/** The words on the page, without tags. */
const said = (props: Partial<Parameters<typeof PotFinding>[0]>, units: Partial<Units> = {}) =>
  renderToStaticMarkup(
    <Ground units={{ mass: "g", temperature: "C", zone: "UTC", ...units }} now="2026-03-14T12:00:00.000Z" frozen>
      <PotFinding finding={finding} newest={null} ahead={null} {...props} />
    </Ground>,
  ).replace(/<[^>]+>/g, "");

describe("what the workshop's own batches say at the pot", () => {
  it("is told with both sides, in the units of the workshop, before there is a reading and once it is cool enough", () => {
    const plain = "Poured above 66 °C, your soft soy came out with rough top in 51 of 100 jars; at or below it in none of 60. See findings";
    expect(said({})).toBe(plain);
    expect(said({ newest: 6_600 })).toBe(plain);
    expect(said({}, { temperature: "F" })).toContain("Poured above 151 °F");
  });

  it("says how long to wait where the pot is too hot, by the forecast where there is one", () => {
    expect(said({ newest: 7_100, ahead: ahead("2026-03-14T12:22:00.000Z") })).toContain("in none of 60: wait 22 min, until about 12:22.");
    expect(said({ newest: 7_100 })).toContain("in none of 60: wait until it has cooled to that.");
    // What was forecast is over, and nobody has read it since.
    expect(said({ newest: 7_100, ahead: ahead("2026-03-14T11:59:00.000Z") })).toContain("wait until it has cooled to that");
  });

  it("asks to warm up what is too cool where that is the worse side", () => {
    const cold = { ...finding, worse: "below" as const };
    expect(said({ finding: cold, newest: 6_000 })).toMatch(/^▲ Poured at or below 66 °C.*; above it in none of 60: warm it up again before you pour/);
    expect(said({ finding: cold, newest: 7_000 })).not.toContain("warm it up");
  });
});
