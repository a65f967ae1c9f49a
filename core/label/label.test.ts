import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { LANGUAGES } from "../hazard/sentences";
import { inUnits, METRIC } from "../units/measured-text";
import { burnHours } from "./burn-time";
import { displayPanelMm2, figureHeightByAreaMm, figureHeightMm, netWeight, netWeightText, pictogramMm } from "./net";
import { labelSheet, PAPERS, PRESET_SHEETS, perSheet, placeOf, testSquareAt, testSquareUm } from "./sheet";
import { burnTimeWords, careTexts, LABEL_CONTAINERS, safetyTexts } from "./words";

describe("a stated weight", () => {
  it("is written in both systems, each rounded down (1 oz = 28.349 523 125 g, NIST SP 811)", () => {
    expect(netWeight(200_000)).toEqual({ metric: "200 g", us: "7.0 oz" });
    expect(netWeight(453_593)).toEqual({ metric: "453 g", us: "1 lb" });
    expect(netWeight(500_000)).toEqual({ metric: "500 g", us: "1 lb 1.6 oz" });
    expect(netWeight(1_500_000)).toEqual({ metric: "1.50 kg", us: "3 lb 4.9 oz" });
    expect(netWeight(8_500)).toEqual({ metric: "8.5 g", us: "0.29 oz" });
    expect(netWeight(14_000)).toEqual({ metric: "14 g", us: "0.49 oz" });
    fc.assert(
      fc.property(fc.integer({ min: 3_000, max: 9_000_000 }), (mg) => {
        const { metric, us } = netWeight(mg);
        const [, kilo, grams] = /^(?:([\d.]+) kg|([\d.]+) g)$/.exec(metric) ?? [];
        const said = kilo ? Number(kilo) * 1e6 : Number(grams) * 1e3;
        expect(said).toBeLessThanOrEqual(mg + 1e-6);
        const [, lb = "0"] = /(\d+) lb/.exec(us) ?? [];
        const [, oz = "0"] = /([\d.]+) oz/.exec(us) ?? [];
        const ounces = (Number(lb) * 16 + Number(oz)) * 28_349.523125;
        expect(ounces).toBeLessThanOrEqual(mg + 1e-6);
        expect(mg - ounces).toBeLessThan(mg < 28_349.5 ? 283.5 : 2_834.96);
      }),
    );
  });

  it("has figures as tall as the rules ask: by weight (76/211/EEC, from memory), by area (16 CFR 500.21, from memory)", () => {
    expect([50_000, 50_001, 200_000, 200_001, 1_000_000, 1_000_001].map(figureHeightMm)).toEqual([2, 3, 3, 4, 4, 6]);
    const square = (inches: number) => inches * 25.4 ** 2;
    expect([5, 6, 25, 26, 100, 101].map((value) => Math.round((figureHeightByAreaMm(square(value)) / 25.4) * 1e6) / 1e6)).toEqual([
      1 / 16,
      1 / 8,
      1 / 8,
      3 / 16,
      3 / 16,
      1 / 4,
    ]);
    // A fifteenth of the label, never below 1 cm² (CLP annex I 1.2.1.4, from memory).
    expect(pictogramMm(500)).toBe(10);
    expect(pictogramMm(6_000) ** 2).toBeCloseTo(400, 6);
  });
});

describe("sheets of labels", () => {
  it("that everybody begins with lie on their paper, and the square to check the printer covers no label", () => {
    for (const { name, sheet } of PRESET_SHEETS) {
      expect(labelSheet.safeParse(sheet).success, name).toBe(true);
      const square = testSquareAt(sheet);
      const side = testSquareUm(sheet);
      if (!square) continue;
      expect(square.x + side, name).toBeLessThanOrEqual(PAPERS[sheet.paper].width * 1_000);
      expect(square.y + side, name).toBeLessThanOrEqual(PAPERS[sheet.paper].height * 1_000);
      for (let n = 0; n < perSheet(sheet); n++) {
        const at = placeOf(sheet, n);
        const apart = at.x >= square.x + side || at.x + sheet.width <= square.x || at.y >= square.y + side || at.y + sheet.height <= square.y;
        expect(apart, `${name}, label ${n}`).toBe(true);
      }
    }
  });

  it("are refused where they run off the paper, by how much, and where a round one is no circle", () => {
    const fault = (over: object) =>
      labelSheet.safeParse({ ...PRESET_SHEETS[0]?.sheet, ...over }).error?.issues.map((issue) => inUnits(issue.message, METRIC)) ?? [];
    expect(fault({})).toEqual([]);
    expect(fault({ columns: 4 })).toEqual(["These columns are 59 mm too wide for the paper. Measure again."]);
    expect(fault({ rows: 9 })[0]).toMatch(/rows are 21 mm too long for the paper/);
    expect(fault({ round: true })).toEqual(["A round label is as high as it is wide."]);
  });

  it("are filled across and then down, page by page, no two labels on one place", () => {
    fc.assert(
      fc.property(fc.constantFrom(...PRESET_SHEETS), fc.integer({ min: 0, max: 300 }), ({ sheet }, n) => {
        const [item, other] = [placeOf(sheet, n), placeOf(sheet, n + 1)];
        expect(other.page - item.page).toBe((n + 1) % perSheet(sheet) === 0 ? 1 : 0);
        if (other.page === item.page) expect(other.x - item.x >= sheet.width || other.y - item.y >= sheet.height).toBe(true);
      }),
    );
  });
});

describe("words on labels", () => {
  it("are the four warnings on everything with a flame, in every language, and more by container (EN 15494, from memory)", () => {
    for (const container of LABEL_CONTAINERS)
      for (const language of LANGUAGES) {
        const { always, more } = safetyTexts(container, language, ["Mine."]);
        expect(always.map((item) => item.sign)).toEqual(container === "melt" ? [] : ["unattended", "children", "fuel", "distance"]);
        expect(more.at(-1)).toBe("Mine.");
        expect([...always.map((item) => item.text), ...more, ...careTexts(container, language, true)].join(" ")).not.toMatch(/[{}]|undefined/);
      }
    // 6 mm is 1/4 in; the system of the workshop's country comes first, and its spelling.
    const all = (isUs: boolean) =>
      LABEL_CONTAINERS.flatMap((container) => [
        ...safetyTexts(container, "en", [], isUs).always.map((item) => item.text),
        ...safetyTexts(container, "en", [], isUs).more,
        ...careTexts(container, "en", true, isUs),
      ]).join(" ");
    expect(all(true)).toMatch(/1\/4 in \(6 mm\).*drafts/s);
    expect(all(true)).not.toMatch(/draught|color|mold|\d+ [cm]m \(/);
    expect(all(false)).toMatch(/6 mm \(1\/4 in\)/);
    expect([displayPanelMm2(80, 90) / 25.4 ** 2, displayPanelMm2(150, 90) / 25.4 ** 2].map((value) => Math.round(value * 10) / 10)).toEqual([14, 26.3]);
    expect(netWeightText(1_130_000, false, "fr")).toBe("1,13 kg (2 lb 7,8 oz)");
    expect([netWeightText(200_000, true), netWeightText(200_000, false)]).toEqual(["7.0 oz (200 g)", "200 g (7.0 oz)"]);
    expect(safetyTexts("tealight", "en").more[0]).toMatch(/tealights in a heat-resistant holder/);
    expect(safetyTexts("melt", "en").more[0]).toMatch(/never light it/);
    expect(careTexts("container", "en", false).join(" ")).not.toMatch(/soy/);
  });

  it("say how long it burns as “about”, from the burns: the interval of one more candle (t for 80 %, two test candles: 3.078, Student's tables)", () => {
    expect(burnHours(180_000, [])).toBeNull();
    // 171 g to burn. Rates 4.0 and 4.4: mean 4.2, s 0.2828, off 3.0777 × 0.2828 × √1.5 = 1.066.
    const two = burnHours(180_000, [4, 4.4]);
    expect(two?.low).toBeCloseTo(171 / 5.266, 2);
    expect(two?.high).toBeCloseTo(171 / 3.134, 2);
    expect(burnTimeWords({ low: 32.47, high: 54.57 }, "en")).toBe("Burns for about 32 to 54 hours");
    expect(burnTimeWords({ low: 32.1, high: 32.9 }, "de")).toBe("Brenndauer: etwa 32 Stunden");
    const many = burnHours(180_000, [4, 4.4, 4.1, 4.3, 4.2, 4.2, 4.25, 4.15]);
    expect((many?.high ?? 0) - (many?.low ?? 0)).toBeLessThan(((two?.high ?? 0) - (two?.low ?? 0)) / 2);
  });
});
