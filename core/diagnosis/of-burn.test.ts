import { describe, expect, it } from "vitest";
import { checksFor } from "../batch/events/prepared";
import type { ShelfWick } from "../burn/propose";
import { nextForThrow } from "../burn/scent-throw";
import { DEFECTS } from "../defects/defects";
import { aBatch, anId, at } from "../testing/batch";
import { aTestCandle, aTrial, aTrialPlan, atMinute } from "../testing/trial";
import { CAUSES } from "./diagnosis";
import { diagnosisOf } from "./of-batch";
import { burnedFlaws, burningFlaws, recordOfBurn, sizeSteps } from "./of-burn";
import { RECORD_KEY_NAMES } from "./record";

/** What the shelf says of oil and wick, as the server reads it. */
const FROM_SHELF = ["strong_oil", "essential_oil", "wick_size_steps", "wick_suits_wax"];

describe("what causes rest on", () => {
  it("has a field where it happens: a batch and a burn of which everything was logged leave nothing open that is asked", () => {
    const batch = aBatch({ process: "pillar-glossy" });
    batch.add({ kind: "prepared", payload: { checks: ["inspected", "dry", "warm", "straight", "bath"] } });
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 12_700);
    for (const step of ["heat", "add", "cool"]) batch.read(step, 8_000);
    batch.add({ kind: "melted", payload: { pot: 0, how: "plate", water: true } });
    batch.add({ kind: "stirred", payload: { step: "stir", seconds: 120, hard: true } });
    const poured = { leftMg: 4_000, roomCelsius: 2_000, warmed: "yes" as const, pace: "fast" as const, tapped: true, wicksWere: "poured onto" as const };
    const { plan } = batch.state(at(0));
    const [key = ""] = plan.products.map((product) => product.key);
    batch.add({ kind: "poured", payload: { step: "pour", filled: [{ product: key, count: 10, weightsMg: [14_100] }], ...poured } });
    batch.add({ kind: "stepDone", payload: { step: "pierce" } });
    batch.add({ kind: "poured", payload: { step: "pour-again", filled: [{ product: key, count: 10 }], ...poured } });
    batch.add({ kind: "located", payload: { shelf: "south window", sun: true, draft: true } } as never);
    const of = (more: object) => {
      const { state } = batch.state(at(60));
      const mixed = { ...plan, ...more };
      return Object.keys(
        diagnosisOf(
          mixed,
          { ...state, prepared: { at: at(1), checks: ["inspected", "dry", "warm", "straight", "bath", "mixed", "sealed"] } },
          at(900),
          new Map(),
          key,
        ).record,
      );
    };
    const [pot] = plan.pots;
    const known = new Set([
      ...of({}),
      ...of({
        pots: [
          {
            ...pot,
            waxFamily: "gel",
            components: [...(pot?.components ?? []), { kind: "additive", id: anId(), name: "mica", mg: 0, scale: { id: null, name: "", resolutionUg: 1_000 } }],
          },
        ],
      }),
      ...of({
        products: plan.products.map((product) => ({
          ...product,
          container: "mold",
          shape: "bowl",
          wicks: { wickId: anId(), name: "w", kind: "zinc core", size: "1", count: 1 },
        })),
      }),
      ...FROM_SHELF,
    ]);
    const trial = aTrial(aTrialPlan([aTestCandle("A1")]));
    trial.add(0, { kind: "lit", payload: { testCandle: "A1", trimUm: 5_000, air: ["window open"], early: "" } });
    trial.add(180, { kind: "checked", payload: { testCandle: "A1", poolUm: 40_000 } });
    trial.add(240, { kind: "extinguished", payload: { testCandle: "A1", why: "protocol", sign: "" } });
    const { plan: burnPlan, state } = trial.now();
    for (const name of Object.keys(recordOfBurn(burnPlan.testCandles[0] as never, state))) known.add(name);
    const asked = new Set(CAUSES.flatMap((cause) => cause.key ?? []));
    expect([...asked].filter((name) => !known.has(name))).toEqual([]);
    // And nothing else is asked for.
    expect(RECORD_KEY_NAMES.filter((name) => !asked.has(name) && !known.has(name))).toEqual([]);
  });

  it("is asked where it can be: mixing for gel, sealing for molds", () => {
    const { plan } = aBatch().state(at(0));
    expect(checksFor(plan)).toEqual(["inspected", "dry", "warm", "straight", "bath"]);
    expect(checksFor({ ...plan, pots: plan.pots.map((pot) => ({ ...pot, waxFamily: "gel" })) })).toContain("mixed");
    expect(checksFor({ ...plan, products: plan.products.map((product) => ({ ...product, container: "mold" })) })).toContain("sealed");
  });
});

describe("flaws of burning", () => {
  const trial = aTrial(
    aTrialPlan([{ ...aTestCandle("A1"), batch: { id: anId(), number: 1, product: "x", taken: false } }, aTestCandle("A2"), aTestCandle("A3")]),
  );
  trial.add(0, { kind: "lit", payload: { testCandle: "A1", trimUm: 5_000, air: [], early: "" } });
  trial.add(60, { kind: "checked", payload: { testCandle: "A1", soot: "black", flame: "jumping" } });
  trial.add(240, { kind: "extinguished", payload: { testCandle: "A1", why: "by itself", sign: "" } });
  const { plan, state } = trial.now();

  it("are counted over the candles that burned, not over jars that were never lit", () => {
    expect(burningFlaws(plan, state, "A1").sort()).toEqual(["drowning", "large_flame", "soot"]);
    expect(burningFlaws(plan, state, "A2")).toEqual([]);
    const batchId = plan.testCandles[0]?.batch?.id ?? "";
    for (const burnedFlaw of burnedFlaws([{ plan, state }], batchId)) expect(burnedFlaw).toMatchObject({ jars: 1, of: 1 });
    expect(burnedFlaws([{ plan, state }], anId())).toEqual([]);
    for (const defect of burningFlaws(plan, state, "A1")) expect(DEFECTS.find((item) => item.id === defect)?.seen).toBe("burning");
    expect(recordOfBurn(plan.testCandles[1] as never, state)).toEqual({});
    expect(Date.parse(atMinute(0))).toBeGreaterThan(0);
  });
});

describe("the size of a wick", () => {
  const wick = (size: string, from: number | null, to: number | null, series = "heron"): ShelfWick => ({
    id: `${series}${size}`,
    name: size,
    kind: "flat-braid cotton",
    size,
    series,
    fromUm: from,
    toUm: to,
    families: null,
  });
  const shelf = [wick("2", 50_000, 60_000), wick("4", 60_000, 70_000), wick("6", 70_000, 80_000), wick("8", 80_000, 90_000), wick("3", null, null, "plover")];

  it("is told in steps of its own series from what suits the diameter; thick waxes have a size more to go by", () => {
    const steps = (id: string, um: number, family = "paraffin") => sizeSteps({ id }, shelf, um, family);
    expect([steps("heron2", 75_000), steps("heron6", 75_000), steps("heron8", 75_000)]).toEqual([-2, 0, 1]);
    expect(steps("heron8", 75_000, "soy")).toBe(0);
    expect(steps("plover3", 75_000)).toBeNull();
    expect(steps("heron6", 30_000)).toBeNull();
  });
});

describe("a weak hot throw", () => {
  it("never ends in silence until the ladder is through: one step, what was tried left out (common practice, no source)", () => {
    const base = { loadPpm: 60_000, tried: [] as string[], sooty: false, cured: true };
    expect(nextForThrow(base)?.id).toBe("load_8");
    const found: string[] = [];
    for (let record = { ...base }, step = nextForThrow(record); step; step = nextForThrow(record)) {
      expect(found).not.toContain(step.id);
      found.push(step.id);
      record = { ...record, tried: [...found] };
    }
    expect(found).toEqual(["load_8", "oil", "wax", "vessel", "wick", "load_10"]);
    expect(nextForThrow({ ...base, loadPpm: 80_000, strongOil: true })?.id).toBe("wax");
    // A large vessel is not made larger, and no load passes what the wax takes.
    expect(nextForThrow({ ...base, loadPpm: 80_000, tried: ["oil", "wax"], fillMg: 220_000 })?.id).toBe("wick");
    expect(nextForThrow({ ...base, loadPpm: 80_000, tried: ["oil", "wax", "vessel", "wick"], maxLoadPpm: 80_000 })).toBeNull();
  });
});
