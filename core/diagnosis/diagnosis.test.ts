import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFECTS } from "../defects/defects";
import { WAX_FAMILIES } from "../materials/fields";
import { aBatch, at, presetProcess } from "../testing/batch";
import { changePlace } from "./change";
import { answerDiagnose, CAUSES, customCause, type DiagnoseRequest, diagnose, diagnoseRequest } from "./diagnosis";
import { diagnosisOf, outcomesOf } from "./of-batch";
import { keyOf, type RecordKeyName } from "./record";

const asked = (body: unknown): DiagnoseRequest => diagnoseRequest.parse(body);
const ORDER = ["supported", "not_recorded", "contradicted"];
const SOY = { wax_family: "soy", ranges: { pour_c: [57, 63], add_c: [83, 87], ceiling_c: 93 } };

/** Values that a record may have under a key, over all that it takes. */
function valuesOf(name: RecordKeyName): (number | boolean)[] {
  const { kind, least = 0, most = 0 } = keyOf(name);
  if (kind === "yes-no") return [true, false];
  return [...Array.from({ length: 41 }, (_, n) => least + ((most - least) * n) / 40), ...Array.from({ length: 200 }, (_, n) => n / 2)].filter(
    (value) => value >= least && value <= most,
  );
}

describe("causes of flaws", () => {
  it("stand there for every flaw, each under a name of its own, in words and with a reason", () => {
    for (const { id } of DEFECTS) expect(CAUSES.filter((cause) => cause.defect === id).length, id).toBeGreaterThan(0);
    for (const cause of CAUSES) {
      expect(DEFECTS.map(({ id }) => id)).toContain(cause.defect);
      expect(cause.id).toMatch(new RegExp(`^${cause.defect}\\.[a-z_]+$`));
      expect(cause.words, cause.id).toMatch(/^\S.{2,}$/);
      expect(cause.reason, cause.id).toMatch(/^[A-Z].+\.$/);
      // What is to be changed is something that a record can say.
      if (cause.change) expect(cause.key, cause.id).not.toBeNull();
    }
    expect(new Set(CAUSES.map((cause) => cause.id)).size).toBe(CAUSES.length);
    // Of one flaw no two causes rest on the same test of the same key.
    const rests = CAUSES.filter((cause) => cause.test).map((cause) => JSON.stringify([cause.defect, cause.key, cause.test]));
    expect(new Set(rests).size).toBe(rests.length);
  });

  it("can each be borne out by one record and ruled out by another, where they rest on something that is recorded", () => {
    const families = WAX_FAMILIES.filter((waxFamily) => waxFamily !== "blend" && waxFamily !== "other");
    for (const item of CAUSES) {
      if (item.key === null || item.test === null) continue;
      const name = item.key;
      const verdicts = new Set<string>();
      for (const wax_family of families)
        for (const value of valuesOf(name)) {
          const record = { vessel_diameter_mm: 80, vessel_height_mm: 90, max_load_percent: 10, asked_load_percent: 8, [name]: value };
          const answer = answerDiagnose(asked({ ...SOY, wax_family, defect: item.defect, record }));
          verdicts.add(answer.causes.find((cause) => cause.id === item.id)?.verdict ?? "left out");
        }
      expect([...verdicts], item.id).toEqual(expect.arrayContaining(["supported", "contradicted"]));
    }
  });

  it("says of a rough top that it was poured 9 °C above the range, and to pour within it", () => {
    const answer = answerDiagnose(
      asked({
        ...SOY,
        defect: "rough_top",
        record: { pour_c: 72, add_c: 85, load_percent_of_wax: 8, vessel_warmed: true, stir_minutes: 2, cure_days: 7 },
      }),
    );
    expect(answer.class).toBe("cosmetic");
    expect(answer.causes[0]).toMatchObject({
      id: "rough_top.poured_hot",
      key: "pour_c",
      verdict: "supported",
      evidence: { measured: 72, limit: 63, unit: "°C" },
    });
    expect(answer.causes[0]?.reason).toContain("9 °C above 63 °C");
    expect(answer.causes.map((cause) => cause.verdict)).toEqual(["supported", "not_recorded", "not_recorded", "contradicted"]);
    expect(answer.change_next).toMatchObject({ what: "pour_c", from: 72, to: 60 });
  });

  it("concludes nothing from what was not recorded, or has no limit to be held against", () => {
    const answer = answerDiagnose(asked({ defect: "rough_top" }));
    expect(new Set(answer.causes.map((cause) => cause.verdict))).toEqual(new Set(["not_recorded"]));
    expect(answer.change_next).toBeNull();
    const open = answerDiagnose(asked({ defect: "wrinkles", record: { pour_c: 40 } }));
    expect(open.causes.find((cause) => cause.key === "pour_c")).toMatchObject({ verdict: "not_recorded" });
    expect(open.causes.find((cause) => cause.key === "pour_c")?.reason).toContain("No limit is known");
  });

  it("asks for one change, of a supported cause, never past a range or a limit", () => {
    const change = (defect: string, record: object, ranges: object = SOY.ranges, family = "soy") =>
      diagnose(asked({ wax_family: family, defect, ranges, record })).change;
    expect(change("wrinkles", { pour_c: 50, vessel_warmed: false })).toMatchObject({ what: "pour_c", to: 60 });
    expect(change("wrinkles", { pour_c: 60, vessel_warmed: false })).toMatchObject({ what: "vessel_warmed", from: false, to: true });
    // The ceiling comes before the middle of a range that goes past it.
    expect(change("wrinkles", { pour_c: 80 }, { pour_c: [90, 100], ceiling_c: 93 })).toMatchObject({ to: 93 });
    expect(change("sweating", { load_percent_of_wax: 12, max_load_percent: 10 })).toMatchObject({ what: "load_percent_of_wax", to: 10 });
    // Weak throw asks for more oil by two points, but not for more than the wax takes; at the limit for none.
    expect(change("weak_cold_throw", { load_percent_of_wax: 5, cure_days: 20 })).toMatchObject({ to: 7 });
    expect(change("weak_cold_throw", { load_percent_of_wax: 5, max_load_percent: 5.5, cure_days: 20 })).toMatchObject({ to: 5.5 });
    expect(change("weak_cold_throw", { load_percent_of_wax: 5, max_load_percent: 5, cure_days: 20 })).toBeNull();
    expect(change("weak_cold_throw", { cure_days: 3, load_percent_of_wax: 5 })).toMatchObject({ what: "cure_days", to: 14 });
    expect(change("soot", { wick_size_steps: 2 })).toMatchObject({ what: "wick_size_steps", from: 2, to: 1 });
    expect(change("rough_top", { load_percent_of_wax: 11 }, {}, "beeswax")).toMatchObject({ to: 6 });
  });

  it("never asks for a change past a range, a limit or a ceiling, whatever was recorded", () => {
    const numbers = fc.record(
      {
        pour_c: fc.integer({ min: 20, max: 120 }),
        add_c: fc.integer({ min: 20, max: 120 }),
        heat_c: fc.integer({ min: 20, max: 120 }),
        load_percent_of_wax: fc.double({ min: 0, max: 20, noNaN: true }),
        max_load_percent: fc.integer({ min: 3, max: 12 }),
        dye_drops_per_lb: fc.integer({ min: 0, max: 40 }),
        cure_days: fc.integer({ min: 0, max: 30 }),
        stir_minutes: fc.double({ min: 0, max: 5, noNaN: true }),
        wick_size_steps: fc.integer({ min: -4, max: 4 }),
        vessel_warmed: fc.boolean(),
        draught: fc.boolean(),
        halves: fc.boolean(),
      },
      { requiredKeys: [] },
    );
    const ranges = { pour_c: [57, 63], add_c: [83, 87], heat_c: [83, 95], ceiling_c: 90 };
    fc.assert(
      fc.property(
        fc.constantFrom(...DEFECTS.map((defect) => defect.id)),
        fc.constantFrom("soy", "paraffin", "gel", "palm"),
        numbers,
        (defect, wax_family, record) => {
          const request = asked({ defect, wax_family, ranges, record });
          const { change, causes } = diagnose(request);
          expect(causes.map((cause) => cause.verdict)).toEqual(
            [...causes].sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict)).map((cause) => cause.verdict),
          );
          if (!change) return;
          expect(causes.find((cause) => cause.cause.key === change.what && cause.verdict === "supported")).toBeDefined();
          expect(change.from).toBe(record[change.what as keyof typeof record]);
          expect(change.to).not.toBe(change.from);
          const to = change.to as number;
          if (change.what === "pour_c") expect(to >= 57 && to <= 63).toBe(true);
          if (change.what === "add_c") expect(to >= 83 && to <= 87).toBe(true);
          if (change.what === "heat_c") expect(to).toBeLessThanOrEqual(90);
          if (change.what === "load_percent_of_wax") expect(to).toBeLessThanOrEqual(record.max_load_percent ?? 12);
          if (change.what === "dye_drops_per_lb") expect(to).toBeLessThanOrEqual(10);
          if (change.what === "wick_size_steps") expect(Math.abs(to - (change.from as number))).toBe(1);
        },
      ),
      // A wax that holds less than essential oils are begun with.
      { numRuns: 600, examples: [["surface_ignition", "soy", { load_percent_of_wax: 5, max_load_percent: 3 }]] },
    );
  });

  it("says what is natural to a wax, before what else may be", () => {
    const answer = answerDiagnose(asked({ ...SOY, defect: "frosting", record: { load_percent_of_wax: 11 } }));
    expect(answer.causes[0]).toMatchObject({ id: "frosting.wax_family", key: null, verdict: "supported" });
    expect(answer.causes[0]?.reason).toContain("natural");
    expect(answer.change_next).toMatchObject({ what: "load_percent_of_wax", to: 9 });
    expect(answerDiagnose(asked({ wax_family: "paraffin", defect: "frosting" })).causes.at(-1)).toMatchObject({ verdict: "contradicted" });
    expect(answerDiagnose(asked({ wax_family: "paraffin-soy", defect: "bloom" })).causes[0]).toMatchObject({ verdict: "supported" });
    expect(answerDiagnose(asked({ defect: "cracked_glass" })).class).toBe("safety");
    expect(answerDiagnose(asked({ defect: "weak_hot_throw" })).class).toBe("performance");
  });

  it("takes the number of pours for whether there were two, and refuses an unknown flaw, family or kind of value", () => {
    const sink = (halves: unknown) => answerDiagnose(asked({ defect: "sinkhole", record: { halves } })).causes.find((cause) => cause.key === "halves")?.verdict;
    expect([sink(1), sink(2), sink(false), sink(true)]).toEqual(["supported", "contradicted", "supported", "contradicted"]);
    for (const body of [
      { defect: "sad" },
      { defect: "soot", wax_family: "cheese" },
      { defect: "soot", record: { draught: 3 } },
      { defect: "soot", ranges: { pour_c: [63, 57] } },
    ])
      expect(diagnoseRequest.safeParse(body).success).toBe(false);
  });

  it("takes a cause of the workshop's own behind the known ones, held against its own figure", () => {
    const own = customCause.parse({
      id: "0190c0de-0000-7000-8000-00000000aaaa",
      defect: "rough_top",
      words: "a humid day",
      key: "room_c",
      test: { above: 23 },
    });
    const { causes } = diagnose(asked({ ...SOY, defect: "rough_top", record: { room_c: 24 } }), [own as never]);
    expect(causes[0]).toMatchObject({ verdict: "supported", cause: { words: "a humid day" } });
    expect(customCause.safeParse({ ...own, test: { is: true } }).success).toBe(false);
    expect(customCause.safeParse({ ...own, key: null }).success).toBe(false);
  });
});

describe("a change for next time", () => {
  it("is offered as a version of the formula only where the formula can say it", () => {
    const spec = { waxes: [], fragrances: [], basis: "wax" as const, loadPpm: 80_000, notes: "", process: presetProcess("soy-bind-hot") };
    const of = (what: string, from: number | boolean, to: number | boolean) => changePlace(spec, { what, from, to, why: "" });
    const places = (...all: string[]) => new Set(all);
    expect(places(of("pour_c", 70, 60), of("load_percent_of_wax", 12, 9), of("stir_minutes", 1, 2), of("cure_days", 2, 14))).toEqual(places("formula"));
    expect(places(of("sun", true, false), of("draught", true, false), of("room_c", 15, 21), of("vessel_warmed", false, true))).toEqual(places("practice"));
    // Another oil or wick has to be chosen: it is not left as it is, and no version can be made of it unseen.
    expect(places(of("strong_oil", false, true), of("additive_percent_of_wax", 0, 1))).toEqual(places("ingredients"));
    expect(places(of("wick_size_steps", 1, 0), of("wick_suits_wax", false, true))).toEqual(places("wick"));
  });
});

describe("what a batch's record says", () => {
  it("holds no rounding of the scale against a batch: a load that is off what was asked by less supports no cause", () => {
    const ofLoad = CAUSES.filter((cause) => cause.key === "load_percent_of_wax");
    expect(ofLoad.length).toBeGreaterThan(5);
    fc.assert(
      fc.property(
        fc.constantFrom(...ofLoad),
        fc.constantFrom("soy", "coconut", "paraffin", "beeswax", "palm", "gel"),
        fc.integer({ min: 10, max: 150 }),
        fc.integer({ min: -20, max: 20 }),
        fc.option(fc.integer({ min: 30, max: 120 }), { nil: undefined }),
        ({ id, defect }, wax_family, tenths, off, most) => {
          const asked_load_percent = tenths / 10;
          const verdict = (load_percent_of_wax: number) =>
            answerDiagnose(
              asked({ wax_family, defect, record: { load_percent_of_wax, asked_load_percent, ...(most ? { max_load_percent: most / 10 } : {}) } }),
            ).causes.find((cause) => cause.id === id)?.verdict;
          expect(verdict(Math.max(0, asked_load_percent + off / 100))).toBe(verdict(asked_load_percent));
        },
      ),
    );
    // One that was weighed wrong is evidence.
    const wrong = asked({ wax_family: "soy", defect: "soot", record: { load_percent_of_wax: 12, asked_load_percent: 9, max_load_percent: 10 } });
    expect(answerDiagnose(wrong).causes.find((cause) => cause.id === "soot.high_load")).toMatchObject({ verdict: "supported" });
  });

  it("is what was weighed, read and done; what was only planned is not recorded", () => {
    const batch = aBatch();
    expect(diagnosisOf(batch.state(at(60)).plan, batch.state(at(60)).state, at(0)).record).not.toHaveProperty("load_percent_of_wax");
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 12_700);
    batch.read("heat", 8_600);
    batch.read("add", 8_500);
    batch.add({ kind: "stirred", payload: { step: "stir", seconds: 60 } });
    batch.read("cool", 7_200);
    batch.add({ kind: "poured", payload: { step: "pour", filled: [], leftMg: null, roomCelsius: 1_900, warmed: "no" } });
    const { plan, state } = batch.state(at(60));
    const { record, ranges, wax_family } = diagnosisOf(plan, state, at(7 * 1_440 + 6));
    expect({ wax_family, pour: ranges.pour_c }).toEqual({ wax_family: "soy", pour: [57, 63] });
    expect(record).toMatchObject({ pour_c: 72, add_c: 85, room_c: 19, vessel_warmed: false, stir_minutes: 1, halves: false, dye_drops_per_lb: 0 });
    expect(record.load_percent_of_wax).toBeCloseTo(10, 6);
    expect(record.cure_days).toBeCloseTo(7, 2);
    expect(record).not.toHaveProperty("sun");
    const { causes } = diagnose({ wax_family, ranges, record, defect: "rough_top" });
    expect(causes[0]).toMatchObject({ verdict: "supported", cause: { key: "pour_c" } });
  });

  it("counts jars that were looked at together once for each flaw, and never more than were filled", () => {
    const batch = aBatch();
    batch.pour();
    const { plan } = batch.state(at(60));
    const product = plan.products[0]?.key ?? "";
    const flaws = [
      { defect: "rough_top", place: "top" as const, extent: "third" as const },
      { defect: "rough_top", place: "top" as const, extent: "speck" as const },
    ];
    batch.add({ kind: "jarsInspected", payload: { product, jars: 3, flaws } });
    batch.add({ kind: "jarsInspected", payload: { product, jars: 7, flaws: [] } });
    expect(outcomesOf(plan, batch.state(at(60)).state)).toEqual([{ product, jars: 10, lookedAt: null, flawed: { rough_top: 3 } }]);
  });
});
