import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aBatch, at } from "../testing/batch";
import { BATCH, batchOf } from "./batch";
import { leftInPot } from "./loss";
import { missingToClose, progress } from "./phase";
import { partKey } from "./state";

/** A pot of 127 g of wax and 13 g of oil, weighed, heated and stirred. */
function weighedPot() {
  const batch = aBatch();
  batch.weigh(batch.wax, 127_000);
  batch.weigh(batch.oil, 13_000);
  batch.read("heat", 8_500);
  batch.read("add", 8_450);
  batch.add({ kind: "stirred", payload: { step: "stir", seconds: 120 } });
  const lose = (mg: number | null, more: object = {}) => batch.add({ kind: "transferred", payload: { pot: 0, how: "spilt", mg, other: null, ...more } });
  const now = () => {
    const { plan, state, uses } = batchOf(batch.events);
    const drawn = (id: string) => uses.filter((use) => use.materialId === id).reduce((sum, stockUse) => sum + stockUse.amount, 0);
    return { plan, state, drawn, next: progress(plan, state).next, left: leftInPot(plan, state, 0) };
  };
  return { batch, lose, now };
}

describe("a pot that is spilled", () => {
  it("is weighed again from the beginning where all of it was lost, and drawn twice", () => {
    const { batch, lose, now } = weighedPot();
    lose(140_000);
    expect(now()).toMatchObject({ left: 0, next: { key: `weigh:0:${batch.wax}`, given: 0, asked: 127_000 } });
    expect(now().state).toMatchObject({ weighed: {}, reads: {}, did: {}, lost: { [partKey(0, batch.wax)]: 127_000, [partKey(0, batch.oil)]: 13_000 } });
    batch.weigh(batch.wax, 127_000);
    expect(now().next?.key).toBe(`weigh:0:${batch.oil}`);
    batch.weigh(batch.oil, 13_000);
    expect(now().next?.key).toBe("heat");
    batch.pourAll();
    expect(now().drawn(batch.wax)).toBeGreaterThanOrEqual(254_000);
    expect(now().state.weighed[partKey(0, batch.wax)]?.mg).toBeGreaterThanOrEqual(127_000);
  });

  it("asks for what is missing where part of it was lost, in the proportions of the pot", () => {
    const { batch, lose, now } = weighedPot();
    lose(70_000);
    // On whole grams, as its scale shows them.
    expect(now()).toMatchObject({ left: 69_000, next: { key: `weigh:0:${batch.wax}`, given: 63_000 } });
    batch.weigh(batch.wax, 64_000);
    expect(now().next).toMatchObject({ key: `weigh:0:${batch.oil}`, given: 6_000 });
    batch.weigh(batch.oil, 7_000);
    expect(now().next?.key).toBe("heat");
    expect(now().drawn(batch.wax)).toBe(191_000);
  });

  it("is given up whole where the maker says so, and goes on with what is left where not", () => {
    const all = weighedPot();
    all.lose(20_000, { again: "all" });
    expect(all.now()).toMatchObject({ left: 0, next: { key: `weigh:0:${all.batch.wax}` } });
    const none = weighedPot();
    const before = none.now().next?.key;
    none.lose(20_000, { again: "none" });
    expect(none.now().next?.key).toBe(before);
  });

  it("lacks nothing for its record once it was poured without weighing again; what is spilled after the pour changes no weight", () => {
    const { batch, lose, now } = weighedPot();
    lose(30_000);
    batch.pour();
    expect(missingToClose(now().plan, now().state, at(60))).not.toContain(expect.stringMatching(/weigh/));
    const { weighed } = now().state;
    lose(5_000);
    expect(now().state.weighed).toEqual(weighed);
  });

  it("asks how much was lost, refuses to put more back than that, and is as before once the entry is deleted", () => {
    const { batch, lose, now } = weighedPot();
    const before = now().state;
    const asked = (payload: object) =>
      BATCH.refusal(now(), batch.draft({ kind: "transferred", payload: { pot: 0, how: "spilt", mg: null, other: null, ...payload } } as never));
    expect(asked({})).toMatchObject({ field: "mg" });
    expect(asked({ again: "all" })).toBeNull();
    expect(asked({ mg: 10_000, backMg: 11_000 })).toMatchObject({ field: "backMg" });
    expect(asked({ pot: 3, mg: 10_000 })).toMatchObject({ field: "pot" });
    const lost = lose(140_000);
    batch.add({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: lost.id });
    expect(now().state).toEqual({ ...before, effectiveEvents: before.effectiveEvents });
  });

  it("keeps what was weighed in all: what is in the pot and what was lost are what was drawn", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom("wax", "oil", "lose"), fc.integer({ min: 1, max: 200_000 })), { maxLength: 25 }), (steps) => {
        const { batch, lose, now } = weighedPot();
        for (const [what, mg] of steps) what === "lose" ? lose(mg) : batch.weigh(what === "wax" ? batch.wax : batch.oil, mg);
        const { state, drawn } = now();
        for (const id of [batch.wax, batch.oil]) {
          const key = partKey(0, id);
          expect((state.weighed[key]?.mg ?? 0) + (state.lost[key] ?? 0)).toBe(drawn(id));
          expect(state.weighed[key]?.mg ?? 1).toBeGreaterThan(0);
        }
      }),
    );
  });
});
