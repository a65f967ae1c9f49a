import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aBatch, at } from "../testing/batch";
import type { BatchEvent } from "./event";
import { batchEvent } from "./event";
import { batchState, missingToClose, refusal } from "./state";

describe("a batch is its events", () => {
  it("asks for the steps in order, and stays at a gate while the pot is outside it", () => {
    const batch = aBatch();
    const next = () => batch.state(at(60)).next?.key;
    expect(next()).toBe(`weigh:${batch.wax}`);
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 13_000);
    expect(next()).toBe("heat");
    batch.read("heat", 8_000);
    expect(next()).toBe("heat");
    batch.read("heat", 8_500);
    expect(next()).toBe("add");
    batch.read("add", 8_450);
    batch.add({ kind: "stirred", payload: { seconds: 120 } });
    batch.read("pour", 7_200);
    expect(next()).toBe("pour");
    batch.read("pour", 6_000);
    expect(next()).toBe("poured");
    batch.add({ kind: "poured", payload: { warmedJars: true } });
    expect(next()).toBeUndefined();
  });

  it("adds up what is weighed in parts, and works out the load really weighed", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 100_000);
    expect(batch.state(at(60)).next?.key).toBe(`weigh:${batch.wax}`);
    batch.weigh(batch.wax, 27_000);
    batch.weigh(batch.oil, 14_000);
    const state = batch.state(at(60));
    expect(state.weighedMg[batch.wax]).toBe(127_000);
    expect(state.weighedLoadPercent).toBeCloseTo((14 / 127) * 100, 9);
  });

  it("takes the instrument's correction into the reading, and keeps what was shown", () => {
    const batch = aBatch();
    batch.read("heat", 8_600, -150);
    const state = batch.state(at(60));
    expect(state.readings[0]?.celsius).toBe(8_450);
    expect(state.entries.at(-1)?.event.payload).toMatchObject({ shown: 8_600 });
  });

  it("replaces a wrong entry by a further one: both stay, one counts", () => {
    const batch = aBatch();
    const wrong = batch.weigh(batch.wax, 172_000);
    const right = batch.add({ kind: "weighed", payload: { componentId: batch.wax, mg: 127_000 } }, { corrects: wrong.id });
    const state = batch.state(at(60));
    expect(state.weighedMg[batch.wax]).toBe(127_000);
    expect(state.entries.find((entry) => entry.event.id === wrong.id)?.supersededBy?.id).toBe(right.id);
    batch.add({ kind: "withdrawn", payload: { why: "" } }, { corrects: right.id });
    expect(batch.state(at(60)).weighedMg[batch.wax]).toBeUndefined();
    expect(batch.state(at(60)).entries).toHaveLength(4);
  });

  it("does not depend on the order in which events arrive, nor on one arriving twice", () => {
    const batch = aBatch();
    batch.pourAll();
    const wrong = batch.read("watch", 5_000);
    batch.add({ kind: "read", payload: { gate: "watch", shown: 5_500, correction: 0 } }, { corrects: wrong.id });
    const whole = batch.state(at(3_000));
    fc.assert(
      fc.property(fc.shuffledSubarray(batch.events, { minLength: batch.events.length }), fc.nat(batch.events.length - 1), (events, twice) => {
        expect(batchState([...events, events[twice] as BatchEvent], at(3_000))).toEqual(whole);
      }),
      { numRuns: 40 },
    );
  });

  it("survives the trip through its published schema", () => {
    const batch = aBatch();
    batch.pourAll();
    for (const event of batch.events) expect(batchEvent.parse(JSON.parse(JSON.stringify(event)))).toEqual(event);
  });
});

describe("setting and curing by the clock", () => {
  it("goes from setting to curing to cured by the profile's times", () => {
    const batch = aBatch();
    batch.pourAll();
    const poured = Date.parse(batch.state(at(60)).pouredAt ?? "");
    const after = (days: number) => batch.state(new Date(poured + days * 86_400_000).toISOString()).phase;
    expect([after(0), after(0.99), after(1), after(4), after(13.9), after(14)]).toEqual(["setting", "setting", "curing", "curing", "curing", "ready"]);
    expect(batch.state(at(60)).times?.testFrom).toBe(new Date(poured + 4 * 86_400_000).toISOString());
  });

  it("names what is missing to close, and lets it close all the same", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 127_000);
    const missing = missingToClose(batch.state(at(60)), at(60));
    expect(missing).toEqual(["weigh rain", "heat", "add fragrance", "stir", "pour reading", "pour", "look-over"]);
    batch.add({ kind: "closed", payload: { missing } });
    expect(batch.state(at(60))).toMatchObject({ phase: "closed", closed: { missing } });
  });

  it("warns at closing where the least cure is not over", () => {
    const batch = aBatch();
    batch.pourAll();
    batch.add({ kind: "looked", payload: { jars: 10 } });
    expect(missingToClose(batch.state(at(5_000)), at(5_000))).toEqual(["least cure"]);
  });
});

describe("the next step", () => {
  it("calls a weight done within half a percent of what was asked, and not before", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 125_900);
    expect(batch.state(at(60)).steps[0]?.done).toBe(false);
    batch.weigh(batch.wax, 600);
    expect(batch.state(at(60)).steps[0]?.done).toBe(true);
    // "393.5 for 393 is fine": half a gram too much is no reason to stop.
    const over = aBatch();
    over.weigh(over.wax, 127_500);
    expect(over.state(at(60)).steps[0]?.done).toBe(true);
  });

  it("goes back to a gate when the newest reading there is taken back", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 13_000);
    const heat = batch.read("heat", 8_500);
    expect(batch.state(at(60)).next?.key).toBe("add");
    batch.add({ kind: "withdrawn", payload: { why: "" } }, { corrects: heat.id });
    expect(batch.state(at(60)).next?.key).toBe("heat");
  });

  it("judges a reading by the corrected figure: 88 shown is inside once the instrument's 1.5 is taken off", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 13_000);
    batch.read("heat", 8_800);
    expect(batch.state(at(60)).next?.key).toBe("heat");
    batch.read("heat", 8_800, -150);
    expect(batch.state(at(60)).next?.key).toBe("add");
  });

  it("is none without a start", () => {
    expect(() => batchState([], at(0))).toThrow(/without its “started” event/);
  });
});

describe("what a batch refuses", () => {
  const asked = (batch: ReturnType<typeof aBatch>, body: Parameters<typeof batch.draft>[0], corrects: string | null = null) =>
    refusal(batch.state(at(60)), batch.draft(body, { corrects }))?.message;

  it("refuses what contradicts the batch, and says what to do", () => {
    const batch = aBatch();
    expect(asked(batch, { kind: "flaw", payload: { defect: "frosting", place: "top", severity: "slight", vesselId: batch.vessel, jars: 1 } })).toMatch(
      /Nothing is poured yet/,
    );
    expect(asked(batch, { kind: "weighed", payload: { componentId: batch.vessel, mg: 1 } })).toMatch(/no such material/);
    expect(asked(batch, { kind: "withdrawn", payload: { why: "" } }, batch.events[0]?.id ?? null)).toMatch(/cannot be taken back/);
    expect(asked(batch, { kind: "note", payload: { text: "x" } }, batch.vessel)).toMatch(/not in this batch/);
    batch.pourAll();
    expect(asked(batch, { kind: "poured", payload: { warmedJars: null } })).toMatch(/poured already/);
    expect(asked(batch, { kind: "flaw", payload: { defect: "frosting", place: "top", severity: "slight", vesselId: batch.vessel, jars: 11 } })).toMatch(
      /has 10 of cup, so 11/,
    );
    const weighed = batch.events.find((event) => event.kind === "weighed");
    expect(asked(batch, { kind: "stirred", payload: { seconds: 60 } }, weighed?.id ?? null)).toMatch(/only be corrected by another of its kind/);
    batch.add({ kind: "closed", payload: { missing: [] } });
    expect(asked(batch, { kind: "weighed", payload: { componentId: batch.wax, mg: 1 } })).toMatch(/closed. Reopen it/);
    expect(asked(batch, { kind: "note", payload: { text: "later" } })).toBeUndefined();
  });

  it("refuses a second correction of the same entry, so that two people cannot both replace it", () => {
    const batch = aBatch();
    const wrong = batch.weigh(batch.wax, 1_000);
    batch.add({ kind: "weighed", payload: { componentId: batch.wax, mg: 2_000 } }, { corrects: wrong.id });
    expect(asked(batch, { kind: "weighed", payload: { componentId: batch.wax, mg: 3_000 } }, wrong.id)).toMatch(/corrected already/);
  });
});
