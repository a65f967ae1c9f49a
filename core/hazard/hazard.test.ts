import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { answerHazard } from "./hazard";
import { HAZARD_CLASSES } from "./rules";
import { type HazardRequest, hazardRequest } from "./schema";

type Ingredient = HazardRequest["parts"][number]["ingredients"][number];
const has = (name: string, percent: number, classes: string[], more: Partial<Ingredient> = {}): Ingredient => ({ name, percent, classes, ...more });
/** One part that is the whole, so that percents of it are percents of the candle. */
const candle = (...ingredients: Ingredient[]) => answerHazard({ parts: [{ percent: 100, ingredients }] });

describe("the label of a mixture, Regulation (EC) 1272/2008, annex I (from memory)", () => {
  it("comes to the worked values: 8 % of the wax names the sensitiser, 10 % classifies it", () => {
    const ingredients = [has("a", 12, ["Skin Sens. 1B"]), has("b", 35, ["Aquatic Chronic 2"])];
    const light = answerHazard({ parts: [{ percent: 7.407, ingredients }] });
    expect(light).toMatchObject({ classes: ["Aquatic Chronic 3"], signal: null, pictograms: [], h: ["H412"], euh: ["EUH208"], contains: ["a"], draft: true });
    expect(light.working.find((item) => item.rule.startsWith("skin sensitizer"))?.value).toBeCloseTo(0.889, 3);
    expect(light.working.find((item) => item.rule.includes("10 · C₂ + C₃"))).toMatchObject({ met: true });
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
    ["touched: 100 / (60 / 1100)", [has("x", 60, ["Acute Tox. 4 dermal"])], ["Acute Tox. 4 dermal"], "Warning", ["GHS07"], ["H312"]],
    ["touched: 100 / (40 / 300)", [has("x", 40, ["Acute Tox. 3 dermal"])], ["Acute Tox. 3 dermal"], "Danger", ["GHS06"], ["H311"]],
    ["inhaled as dust: 100 / (30 / 1.5)", [has("x", 30, ["Acute Tox. 4 inhalation"])], ["Acute Tox. 4 inhalation"], "Warning", ["GHS07"], ["H332"]],
    ["inhaled as vapor: 100 / (30 / 11)", [has("x", 30, ["Acute Tox. 4 inhalation"], { inhaled_as: "vapor" })], [], null, [], []],
    ["an allergy of the breath from 1 %", [has("x", 1, ["Resp. Sens. 1"])], ["Resp. Sens. 1"], "Danger", ["GHS08"], ["H334"]],
    ["the stronger kind from 0.1 %", [has("x", 0.1, ["Resp. Sens. 1A"])], ["Resp. Sens. 1"], "Danger", ["GHS08"], ["H334"]],
    ["organs, once, from 10 %", [has("x", 10, ["STOT SE 1"])], ["STOT SE 1"], "Danger", ["GHS08"], ["H370"]],
    ["organs, once, between 1 and 10 %", [has("x", 1, ["STOT SE 1"])], ["STOT SE 2"], "Warning", ["GHS08"], ["H371"]],
    ["organs, again and again", [has("x", 10, ["STOT RE 1"]), has("y", 10, ["STOT RE 2"])], ["STOT RE 1"], "Danger", ["GHS08"], ["H372"]],
    ["organs, of the second category", [has("x", 10, ["STOT RE 2"])], ["STOT RE 2"], "Warning", ["GHS08"], ["H373"]],
    ["through milk from 0.3 %", [has("x", 0.3, ["Lact."])], ["Lact."], null, [], ["H362"]],
    [
      "drowsiness from 20 %, apart from irritation",
      [has("x", 15, ["STOT SE 3"]), has("y", 20, ["STOT SE 3 H336"])],
      ["STOT SE 3 H336"],
      "Warning",
      ["GHS07"],
      ["H336"],
    ],
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

  it("joins one substance by its name whatever its case, by its CAS and by its EC number; and asks about near spellings", () => {
    const two = (a: Ingredient, b: Ingredient) =>
      answerHazard({
        parts: [
          { percent: 6, ingredients: [a] },
          { percent: 6, ingredients: [b] },
        ],
      });
    const sens = (name: string, more: Partial<Ingredient> = {}) => has(name, 10, ["Skin Sens. 1B"], more);
    // 0.6 % each are 1.2 % of one, above the 1 % that classifies.
    for (const [a, b] of [
      [sens("Linalool"), sens("linalool")],
      [sens("BETA-IONONE"), sens("beta ionone")],
      [sens("linalool", { cas: "78-70-6" }), sens("3,7-dimethyl-1,6-octadien-3-ol", { cas: "78-70-6" })],
      [sens("linalool", { ec: "201-134-4" }), sens("something else", { ec: "201-134-4" })],
    ] as const)
      expect(two(a, b)).toMatchObject({ classes: ["Skin Sens. 1"], pictograms: ["GHS07"], signal: "Warning", alike: [] });
    expect(two(sens("Linalool"), sens("Linalol"))).toMatchObject({ classes: [], euh: ["EUH208"], alike: [["Linalool", "Linalol"]] });
    // Numbers of their own tell them apart; short names and unlike ones are not asked about.
    expect(two(sens("Geraniol", { cas: "106-24-1" }), sens("Geranial", { cas: "141-27-5" })).alike).toEqual([]);
    expect(two(sens("alpha-ionone"), sens("beta-ionone")).alike).toEqual([]);
    // A third that bears the number of the one and the name of the other makes them one.
    const three = answerHazard({
      parts: [{ percent: 6, ingredients: [sens("a", { cas: "78-70-6" }), sens("b"), sens("B", { cas: "78-70-6" })] }],
    });
    expect(three.working.find((item) => item.rule.startsWith("skin sensitizer"))?.value).toBeCloseTo(1.8, 9);
  });

  it("counts a corrosive ingredient below its class by the sheet's own limits, and toward the eye", () => {
    const limits = (...list: [string, number][]) => ({ specific_limits: list.map(([name, percent]) => ({ class: name, percent })) });
    // As sodium hydroxide and hydrogen peroxide in annex VI (from memory).
    const lye = limits(["Skin Corr. 1", 5], ["Skin Irrit. 2", 0.5]);
    expect(candle(has("a", 0.6, ["Skin Corr. 1"], lye))).toMatchObject({ classes: ["Skin Irrit. 2"], h: ["H315"] });
    expect(candle(has("a", 0.4, ["Skin Corr. 1"], lye)).classes).toEqual([]);
    const peroxide = limits(["Eye Dam. 1", 8], ["Eye Irrit. 2", 5]);
    expect([4, 5, 8].map((c) => candle(has("a", c, ["Eye Dam. 1"], peroxide)).classes)).toEqual([[], ["Eye Irrit. 2"], ["Eye Dam. 1"]]);
    // A mixture that corrodes the skin damages the eye; H314 says both.
    expect(candle(has("a", 1, ["Skin Corr. 1"], limits(["Skin Corr. 1", 0.5])))).toMatchObject({
      classes: ["Skin Corr. 1", "Eye Dam. 1"],
      h: ["H314"],
      pictograms: ["GHS05"],
    });
  });

  it("names a sensitizer from a tenth of the generic limit, though its own is higher (table 3.4.6, note 1)", () => {
    const own = { specific_limits: [{ class: "Skin Sens. 1B", percent: 10 }] };
    expect([0.09, 0.1, 0.5, 9.9].map((c) => candle(has("a", c, ["Skin Sens. 1B"], own)).euh)).toEqual([[], ["EUH208"], ["EUH208"], ["EUH208"]]);
    expect(candle(has("a", 10, ["Skin Sens. 1B"], own))).toMatchObject({ classes: ["Skin Sens. 1"], euh: [] });
    expect(candle(has("a", 0.1, ["Resp. Sens. 1"])).euh).toEqual(["EUH208"]);
  });

  it("leaves the exclamation mark out beside the skull whatever for, and beside breathing allergies for the skin (article 26)", () => {
    expect(candle(has("a", 60, ["Acute Tox. 3 oral"]), has("b", 2, ["Skin Sens. 1"]))).toMatchObject({ pictograms: ["GHS06"], h: ["H301", "H317"] });
    expect(candle(has("a", 2, ["Resp. Sens. 1"]), has("b", 2, ["Skin Sens. 1"])).pictograms).toEqual(["GHS08"]);
    expect(candle(has("a", 2, ["Resp. Sens. 1"]), has("b", 30, ["STOT SE 3"])).pictograms).toEqual(["GHS07", "GHS08"]);
  });

  it("uses the cut-off values of table 1.1 where that is chosen, and says what it would change either way", () => {
    const ingredients = ["a", "b", "c", "d"].map((name) => has(name, 9, ["Aquatic Chronic 2"]));
    const parts = [{ percent: 7.407, ingredients }];
    // 0.667 % of the candle each: below 1 % none counts.
    expect(answerHazard({ parts })).toMatchObject({ classes: ["Aquatic Chronic 3"], cut_offs: false, otherwise: { classes: [], h: [] } });
    expect(answerHazard({ parts, cut_offs: true })).toMatchObject({ classes: [], cut_offs: true, otherwise: { classes: ["Aquatic Chronic 3"], h: ["H412"] } });
    expect(answerHazard({ parts: [{ percent: 100, ingredients: [has("a", 30, ["Skin Irrit. 2"])] }] }).otherwise).toBeNull();
    // Divided by M, and no higher than a limit of its own.
    const strong = (percent: number) => candleWith(has("a", percent, ["Aquatic Chronic 1"], { m: 1_000 }));
    expect(strong(0.03)).toMatchObject({ classes: ["Aquatic Chronic 1"] });
    expect(candleWith(has("a", 0.5, ["Eye Dam. 1"], { specific_limits: [{ class: "Eye Dam. 1", percent: 0.5 }] })).classes).toEqual(["Eye Dam. 1"]);
  });
  const candleWith = (...ingredients: Ingredient[]) => answerHazard({ parts: [{ percent: 100, ingredients }], cut_offs: true });

  it("keeps the M-factors of acute and chronic harm apart", () => {
    expect(candle(has("a", 2.5, ["Aquatic Acute 1", "Aquatic Chronic 1"], { m_acute: 10, m_chronic: 1 }))).toMatchObject({
      classes: ["Aquatic Acute 1", "Aquatic Chronic 2"],
      h: ["H400", "H411"],
      missing: [],
    });
    expect(candle(has("a", 2.5, ["Aquatic Acute 1", "Aquatic Chronic 1"], { m: 10 })).classes).toEqual(["Aquatic Acute 1", "Aquatic Chronic 1"]);
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
        const made = list.map((item, n) => has(`i${n}`, item.percent, item.classes, { m: item.m }));
        const before = worst(candle(...made));
        const after = worst(candle(...made.map((item, n) => (n === at % made.length ? { ...item, percent: Math.min(100, item.percent * times) } : item))));
        for (const [n, rank] of before.entries()) expect(after[n]).toBeGreaterThanOrEqual(rank);
        const split = made.flatMap((item) => [
          { ...item, percent: item.percent / 2 },
          { ...item, name: `${item.name}'`, percent: item.percent / 2 },
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
    // More than the whole, of the candle or of a part, is refused where it stands.
    const paths = (parts: unknown) => hazardRequest.safeParse({ parts }).error?.issues.map((issue) => issue.path.join("."));
    expect(
      paths([
        { percent: 80, ingredients: [] },
        { percent: 80, ingredients: [] },
      ]),
    ).toEqual(["parts"]);
    expect(paths([{ percent: 8, ingredients: [has("a", 90, []), has("b", 90, [])] }])).toEqual(["parts.0.ingredients"]);
    expect(paths([{ percent: 8, ingredients: [has("a", 50, []), has("b", 50, [])] }])).toBeUndefined();
    // Short names as the regulation and sheets write them.
    for (const [written, name] of [
      ["Acute Tox. 4 (dermal)", "Acute Tox. 4 dermal"],
      ["Acute Tox. 3 H331", "Acute Tox. 3 inhalation"],
      ["Acute Tox. 3 inhal.", "Acute Tox. 3 inhalation"],
      ["Skin Corr. 1B", "Skin Corr. 1"],
      ["Repr. 1B", "Repr. 1"],
      ["STOT SE 3 (H335)", "STOT SE 3"],
      ["STOT SE 3, H336", "STOT SE 3 H336"],
      ["Lact.", "Lact."],
    ] as const)
      expect(hazardRequest.parse({ parts: [{ percent: 8, ingredients: [has("a", 50, [written])] }] }).parts[0]?.ingredients[0]?.classes).toEqual([name]);
  });
});
