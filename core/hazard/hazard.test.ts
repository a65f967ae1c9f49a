import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { answerHazard, HAZARD_CLASSES, type HazardRequest, hazardRequest } from "./hazard";

type Ingredient = HazardRequest["parts"][number]["ingredients"][number];
const has = (name: string, percent: number, classes: string[], more: Partial<Ingredient> = {}): Ingredient => ({ name, percent, classes, ...more });
/** One part that is the whole, so that percents of it are percents of the candle. */
const candle = (...ingredients: Ingredient[]) => answerHazard({ parts: [{ percent: 100, ingredients }] });

describe("the label of a mixture, Regulation (EC) 1272/2008, annex I (from memory)", () => {
  it("comes to the worked values: 8 % of the wax names the sensitiser, 10 % classifies it", () => {
    const ingredients = [has("a", 12, ["Skin Sens. 1B"]), has("b", 35, ["Aquatic Chronic 2"])];
    const light = answerHazard({ parts: [{ percent: 7.407, ingredients }] });
    expect(light).toMatchObject({ classes: ["Aquatic Chronic 3"], signal: null, pictograms: [], h: ["H412"], euh: ["EUH208"], contains: ["a"], draft: true });
    expect(light.working.find((one) => one.rule.startsWith("skin sensitiser"))?.value).toBeCloseTo(0.889, 3);
    expect(light.working.find((one) => one.rule.includes("10 · C₂ + C₃"))).toMatchObject({ met: true });
    expect(answerHazard({ parts: [{ percent: 9.091, ingredients }] })).toMatchObject({
      classes: ["Skin Sens. 1", "Aquatic Chronic 3"],
      signal: "Warning",
      pictograms: ["GHS07"],
      h: ["H317", "H412"],
      euh: [],
      contains: ["a"],
    });
  });

  it.each([
    ["skin corrosion from 5 %, which damages the eye", [has("x", 5, ["Skin Corr. 1"])], ["Skin Corr. 1", "Eye Dam. 1"], "Danger", ["GHS05"], ["H314"]],
    [
      "between 1 and 5 % it irritates; from 3 % the eye is damaged",
      [has("x", 3, ["Skin Corr. 1"])],
      ["Skin Irrit. 2", "Eye Dam. 1"],
      "Danger",
      ["GHS05"],
      ["H315", "H318"],
    ],
    ["irritants from 10 %", [has("x", 6, ["Skin Irrit. 2"]), has("y", 4, ["Skin Irrit. 2"])], ["Skin Irrit. 2"], "Warning", ["GHS07"], ["H315"]],
    [
      "ten times the corrosive with the irritant",
      [has("x", 0.6, ["Skin Corr. 1"]), has("y", 4, ["Skin Irrit. 2"])],
      ["Skin Irrit. 2"],
      "Warning",
      ["GHS07"],
      ["H315"],
    ],
    ["an eye sum from 10 %", [has("x", 10, ["Eye Irrit. 2"])], ["Eye Irrit. 2"], "Warning", ["GHS07"], ["H319"]],
    ["one of both classes once", [has("x", 2.9, ["Skin Corr. 1", "Eye Dam. 1"])], ["Skin Irrit. 2", "Eye Irrit. 2"], "Warning", ["GHS07"], ["H315", "H319"]],
    ["a strong sensitiser from a tenth of a percent", [has("x", 0.1, ["Skin Sens. 1A"])], ["Skin Sens. 1"], "Warning", ["GHS07"], ["H317"]],
    [
      "harm to the unborn from 3 %, or 0.3 %",
      [has("x", 3, ["Repr. 2"]), has("y", 0.3, ["Repr. 1"])],
      ["Repr. 1", "Repr. 2"],
      "Danger",
      ["GHS08"],
      ["H360", "H361"],
    ],
    ["not below", [has("x", 2.9, ["Repr. 2"]), has("y", 0.9, ["Carc. 2"]), has("z", 19, ["STOT SE 3"])], [], null, [], []],
    [
      "water, acute and chronic: one sentence",
      [has("x", 2.5, ["Aquatic Acute 1", "Aquatic Chronic 1"], { m: 10 })],
      ["Aquatic Acute 1", "Aquatic Chronic 1"],
      "Warning",
      ["GHS09"],
      ["H410"],
    ],
    ["water by ten times", [has("x", 2.5, ["Aquatic Chronic 1"], { m: 1 })], ["Aquatic Chronic 2"], null, ["GHS09"], ["H411"]],
    ["what a liquid would bear a candle does not", [has("x", 30, ["Asp. Tox. 1", "Flam. Liq. 3"])], [], null, [], []],
    ["swallowed: 100 / (30 / 500)", [has("x", 30, ["Acute Tox. 4 oral"])], ["Acute Tox. 4 oral"], "Warning", ["GHS07"], ["H302"]],
    ["swallowed, by its own estimate: 100 / (30 / 1500)", [has("x", 30, ["Acute Tox. 4 oral"], { ate_oral_mg_kg: 1_500 })], [], null, [], []],
  ] as const)("%s", (_why, ingredients, classes, signal, pictograms, h) => {
    expect(candle(...(ingredients as unknown as Ingredient[]))).toMatchObject({ classes, signal, pictograms, h });
  });

  it("takes a limit of the sheet before the generic one, and adds one ingredient of two oils together", () => {
    const own = { specific_limits: [{ class: "Skin Sens. 1B", percent: 0.5 }] };
    expect(candle(has("a", 0.5, ["Skin Sens. 1B"], own)).classes).toEqual(["Skin Sens. 1"]);
    expect(candle(has("a", 0.06, ["Skin Sens. 1B"], own))).toMatchObject({ classes: [], euh: ["EUH208"], contains: ["a"] });
    expect(candle(has("x", 1, ["Eye Dam. 1"], { specific_limits: [{ class: "Eye Dam. 1", percent: 1 }] })).classes).toEqual(["Eye Dam. 1"]);
    const both = answerHazard({
      parts: [
        { percent: 4, ingredients: [has("a", 15, ["Skin Sens. 1"])] },
        { percent: 4, ingredients: [has("a", 15, ["Skin Sens. 1"])] },
      ],
    });
    expect(both.classes).toEqual(["Skin Sens. 1"]);
  });

  it("names others beside the one that classifies, without the sentence of those that are not; and says what was missing", () => {
    const answer = candle(
      has("a", 1, ["Skin Sens. 1"]),
      has("b", 0.2, ["Skin Sens. 1"]),
      has("c", 0.01, ["Skin Sens. 1"]),
      has("d", 1, ["Acute Tox. 4 oral", "Aquatic Chronic 1"]),
    );
    expect(answer).toMatchObject({ euh: [], contains: ["a", "b"] });
    expect(answer.missing).toHaveLength(2);
    expect(answer.missing.join(" ")).toMatch(/ATE \(oral\) of d: 500 mg\/kg.*M-factor of d: 1 was taken/);
  });

  const RANK = ["Skin Irrit. 2", "Skin Corr. 1", "Eye Irrit. 2", "Eye Dam. 1", "Skin Sens. 1", "Carc. 2", "Repr. 2", "Aquatic Acute 1"];
  const some = fc.array(
    fc.record({
      percent: fc.double({ min: 0, max: 30, noNaN: true }),
      classes: fc.subarray(HAZARD_CLASSES as string[], { maxLength: 3 }),
      m: fc.constantFrom(1, 10),
    }),
    { minLength: 1, maxLength: 6 },
  );
  const worst = (answer: ReturnType<typeof answerHazard>) => {
    const water = [4, 3, 2, 1].findLastIndex((n) => answer.classes.includes(`Aquatic Chronic ${n}`));
    const skin = answer.classes.includes("Skin Corr. 1") ? 2 : answer.classes.includes("Skin Irrit. 2") ? 1 : 0;
    const eye = answer.classes.includes("Eye Dam. 1") ? 2 : answer.classes.includes("Eye Irrit. 2") ? 1 : 0;
    return [water, skin, eye, ...RANK.slice(4).map((name) => Number(answer.classes.includes(name)))];
  };
  it("is never milder with more of an ingredient, and the same where one is split in two of its classes and the rule sums", () => {
    fc.assert(
      fc.property(some, fc.nat(5), fc.double({ min: 1, max: 3, noNaN: true }), (list, at, times) => {
        const made = list.map((one, n) => has(`i${n}`, one.percent, one.classes, { m: one.m }));
        const before = worst(candle(...made));
        const after = worst(candle(...made.map((one, n) => (n === at % made.length ? { ...one, percent: Math.min(100, one.percent * times) } : one))));
        for (const [n, rank] of before.entries()) expect(after[n]).toBeGreaterThanOrEqual(rank);
        const split = made.flatMap((one) => [
          { ...one, percent: one.percent / 2 },
          { ...one, name: `${one.name}'`, percent: one.percent / 2 },
        ]);
        expect(worst(candle(...split)).slice(0, 3)).toEqual(before.slice(0, 3));
      }),
      { numRuns: 400 },
    );
  });

  it("refuses a class that it does not know, by its name", () => {
    const read = hazardRequest.safeParse({ parts: [{ percent: 8, ingredients: [{ name: "a", percent: 3, classes: ["Skin Sens. 9"] }] }] });
    expect(read.success).toBe(false);
    expect(read.error?.issues[0]?.message).toContain("“Skin Sens. 9”");
    expect(hazardRequest.safeParse({ parts: [] }).success).toBe(false);
    expect(hazardRequest.safeParse({ parts: [{ percent: 101, ingredients: [] }] }).success).toBe(false);
  });
});
