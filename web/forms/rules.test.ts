import { describe, expect, it } from "vitest";
import { formatters } from "@/ui/units";
import { isNews } from "./fields";
import { countRule, durationRule, massRule, moneyRule, percentRule, temperatureRule, whenRule } from "./rules";

const grams = formatters({ mass: "g", temperature: "C", zone: "Europe/Lisbon", currency: "EUR" });
const ounces = formatters({ mass: "oz", temperature: "F", zone: "America/Chicago", currency: "JPY" });

/** What a field takes from a text, and what it says that it understood. */
function said<T>(rule: { parse: (text: string) => { ok: true; value: T } | { ok: false; code: string }; echo?: (value: T) => string }, text: string) {
  const read = rule.parse(text);
  return read.ok ? [read.value, rule.echo?.(read.value) ?? ""] : read.code;
}

describe("a number without a unit", () => {
  it("means the unit shown at its field, and the field says what was understood", () => {
    expect(said(massRule(grams), "43.7")).toEqual([43_700, "43.7 g"]);
    expect(said(massRule(ounces), "8")).toEqual([226_796, "8 oz"]);
    expect(said(massRule(grams), "1 lb 4 oz")).toEqual([566_990, "566.99 g"]);
    expect(said(temperatureRule(ounces), "174")).toEqual([7_889, "174 °F"]);
    expect(said(temperatureRule(grams), "185F")).toEqual([8_500, "85 °C"]);
    expect(said(durationRule(3_600), "2")).toEqual([120, "2 min"]);
    expect(said(durationRule(3_600), "90 s")).toEqual([90, "1 min 30 s"]);
    expect(said(percentRule({ least: 0, most: 100, name: "a spare" }), "12,5")).toEqual([125_000, "12.5 %"]);
    expect(said(moneyRule(grams), "18,40")).toEqual([1_840, "€18.40"]);
    expect(said(moneyRule(ounces), "300")).toEqual([300, "¥300"]);
    expect(said(countRule({ least: 0, most: 40, name: "jars" }), "12")).toEqual([12, ""]);
  });

  it("is refused with a code where it cannot be; nothing is taken only where nothing may be", () => {
    expect(said(massRule(grams), "0")).toBe("too-small");
    expect(said(massRule(grams, { zero: true }), "0 g")).toEqual([0, "0 g"]);
    expect(said(massRule(grams, { most: 1_000_000 }), "1,2 kg")).toBe("too-large");
    expect(said(massRule(grams), "8 fl oz")).toBe("volume");
    expect(said(moneyRule(ounces), "3.5")).toBe("too-fine");
  });

  it("says a time in the workshop's own zone, and nothing for now", () => {
    const rule = whenRule("2026-03-14T14:20:00.000Z", ounces);
    expect(said(rule, "08:15")).toEqual(["2026-03-14T13:15:00.000Z", "Sat 14 Mar 08:15"]);
    expect(said(rule, "")).toEqual([null, ""]);
    expect(said(rule, "2026-03-15 09:00")).toBe("too-large");
  });
});

describe("what a field says below itself", () => {
  it.each([
    ["8 %", "8", "%", false],
    ["8 %", "8", "% of the wax", false],
    ["7.1 oz", "7.1", "oz", false],
    ["7.1 oz", "7.1 oz", "oz", false],
    ["29.4 °C", "85F", "°C", true],
    ["1 lb 4 oz", "20 oz", "lb", true],
    ["€18.50", "18.5", "", true],
    ["", "8", "%", false],
  ])("“= %s” at %j in %s is news: %s", (echo, value, unit, news) => {
    expect(isNews(echo, value, unit)).toBe(news);
  });
});
