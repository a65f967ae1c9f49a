import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { UNREADABLE } from "../log/events/unreadable";
import { compareHappened } from "../log/log";
import { aBatch, anId, at } from "../testing/batch";
import { BATCH, type BatchEvent, batchOf, refusal, versionOf } from "./batch";
import { batchEventSchema, readEvent, sentEvent } from "./checked";
import { filledOf, sellableOf, stoppedOf } from "./jars";
import { overOf } from "./over";
import { secondsAbove, weighedLoad } from "./phase";
import { partKey, readingsOf } from "./state";

describe("a batch is its events", () => {
  it("asks for the steps in order, and stays at a range while the pot is outside it", () => {
    const batch = aBatch();
    const next = () => batch.state(at(60)).next?.key;
    expect(next()).toBe(`weigh:0:${batch.wax}`);
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 13_000);
    expect(next()).toBe("heat");
    batch.read("heat", 8_000);
    expect(next()).toBe("heat");
    batch.read("heat", 8_500);
    expect(next()).toBe("add");
    batch.read("add", 8_450);
    batch.add({ kind: "stirred", payload: { step: "stir", seconds: 120 } });
    batch.read("cool", 7_200);
    expect(next()).toBe("cool");
    batch.read("cool", 6_000);
    expect(next()).toBe("pour");
    batch.pour();
    expect(next()).toBeUndefined();
  });

  it("adds up what is weighed in parts, and works out the load really weighed", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 100_000);
    expect(batch.state(at(60)).next?.key).toBe(`weigh:0:${batch.wax}`);
    batch.weigh(batch.wax, 27_000);
    batch.weigh(batch.oil, 14_000);
    const stateNow = batch.state(at(60));
    expect(stateNow.state.weighed[partKey(0, batch.wax)]?.mg).toBe(127_000);
    expect(weighedLoad(stateNow.plan, stateNow.state)).toBeCloseTo((14 / 127) * 100, 9);
  });

  it("takes the instrument's correction into the reading, and keeps what was shown", () => {
    const batch = aBatch();
    batch.read("heat", 8_600, -150);
    const stateNow = batch.state(at(60));
    expect(readingsOf(stateNow.state)[0]?.celsius).toBe(8_450);
    expect(stateNow.entries.at(-1)?.event.payload).toMatchObject({ shown: 8_600 });
  });

  it("replaces a wrong entry by a further one: both stay, one counts", () => {
    const batch = aBatch();
    const wrong = batch.weigh(batch.wax, 172_000);
    const right = batch.add({ kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 127_000 } }, { corrects: wrong.id });
    const stateNow = batch.state(at(60));
    expect(stateNow.state.weighed[partKey(0, batch.wax)]?.mg).toBe(127_000);
    expect(stateNow.entries.find((entry) => entry.event.id === wrong.id)?.supersededBy?.id).toBe(right.id);
    batch.add({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: right.id });
    expect(batch.state(at(60)).state.weighed[partKey(0, batch.wax)]).toBeUndefined();
    expect(batch.state(at(60)).entries).toHaveLength(4);
  });

  it("does not depend on the order in which events arrive, nor on one arriving twice", () => {
    const batch = aBatch();
    batch.pourAll();
    const wrong = batch.read(null, 5_000);
    batch.add({ kind: "read", payload: { step: null, shown: 5_500, correction: 0 } }, { corrects: wrong.id });
    const whole = batchOf(batch.events);
    fc.assert(
      fc.property(fc.shuffledSubarray(batch.events, { minLength: batch.events.length }), fc.nat(batch.events.length - 1), (events, twice) => {
        expect(batchOf([...events, events[twice] as BatchEvent])).toEqual(whole);
      }),
      { numRuns: 40 },
    );
  });

  it("keeps what was made ready and where wax went beside the jars, and takes both back", () => {
    const batch = aBatch();
    const ready = batch.add({ kind: "prepared", payload: { checks: ["inspected", "straight"] } });
    const spilt = batch.add({ kind: "transferred", payload: { pot: 0, how: "spilt", mg: 12_000, other: null } });
    batch.add({ kind: "transferred", payload: { pot: 0, how: "taken", mg: null, other: 41 } });
    const { state } = batch.state(at(60));
    expect(state.prepared?.checks).toEqual(["inspected", "straight"]);
    expect(state.moved).toMatchObject([
      { how: "spilt", mg: 12_000 },
      { how: "taken", other: 41 },
    ]);
    // It moves no step on, and takes nothing from the shelf a second time.
    expect(batch.state(at(60)).next?.kind).toBe("weigh");
    expect(state.drawn).toEqual({});
    for (const batchEvent of [ready, spilt]) batch.add({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: batchEvent.id });
    expect(batch.state(at(60)).state).toMatchObject({ prepared: null, moved: [{ how: "taken" }] });
    // Between pots the other one is named; nothing ticked is nothing said.
    const sent = (payload: object, kind = "transferred") =>
      sentEvent.safeParse({ ...batch.draft({ kind: "note", payload: { text: "x" } }), v: 1, kind, payload });
    expect(sent({ pot: 0, how: "given", mg: 5_000, other: null }).error?.issues[0]?.message).toBe("Enter the number of the pot.");
    expect(sent({ pot: 0, how: "given", mg: 5_000, other: 12 }).success).toBe(true);
    expect(sent({ checks: [] }, "prepared").success).toBe(false);
  });

  it("survives the trip through its published schema", () => {
    const batch = aBatch();
    batch.pourAll();
    batch.add({ kind: "prepared", payload: { checks: ["dry"] } });
    batch.add({ kind: "transferred", payload: { pot: 0, how: "melts", mg: 30_000, other: null } });
    for (const event of batch.events) {
      const travelling = { ...event, v: versionOf(event.kind) };
      expect(batchEventSchema.parse(JSON.parse(JSON.stringify(travelling)))).toEqual(travelling);
    }
  });
});

describe("setting and curing by the clock", () => {
  it("goes from setting to curing to cured by the process's times", () => {
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
    const { missing } = batch.state(at(60));
    expect(missing).toEqual(["weigh rain", "heat", "add fragrance", "stir", "bring to the pour range", "pour", "inspection"]);
    batch.add({ kind: "closed", payload: { missing } });
    expect(batch.state(at(60))).toMatchObject({ phase: "closed", state: { closed: { missing } } });
  });

  it("warns at closing where the minimum cure is not over", () => {
    const batch = aBatch();
    batch.pourAll();
    batch.add({ kind: "inspected", payload: { jars: 10 } });
    expect(batch.state(at(5_000)).missing).toEqual(["minimum cure"]);
  });
});

describe("the next step", () => {
  it("calls a weight done within half a percent of what was asked, and not before", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 125_900);
    expect(batch.state(at(60)).prompts[0]?.done).toBe(false);
    batch.weigh(batch.wax, 600);
    expect(batch.state(at(60)).prompts[0]?.done).toBe(true);
    // "393.5 for 393 is fine": half a gram too much is no reason to stop.
    const over = aBatch();
    over.weigh(over.wax, 127_500);
    expect(over.state(at(60)).prompts[0]?.done).toBe(true);
  });

  it("goes back to a range when the newest reading there is taken back", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 13_000);
    const heat = batch.read("heat", 8_500);
    expect(batch.state(at(60)).next?.key).toBe("add");
    batch.add({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: heat.id });
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
    expect(() => batchOf([])).toThrow(/without its “started” entry/);
  });
});

describe("what a batch refuses", () => {
  const asked = (batch: ReturnType<typeof aBatch>, body: Parameters<typeof batch.draft>[0], corrects: string | null = null) =>
    refusal(batch.state(at(60)), batch.draft(body, { corrects }), batch.state(at(60)).entries.find((entry) => entry.event.id === corrects) ?? null)?.message;

  it("refuses what contradicts the batch, and says what to do", () => {
    const batch = aBatch();
    expect(asked(batch, { kind: "flaw", payload: { defect: "frosting", place: "top", severity: "slight", product: batch.vessel, jars: 1 } })).toMatch(
      /Nothing is poured yet/,
    );
    expect(asked(batch, { kind: "weighed", payload: { pot: 0, componentId: batch.vessel, mg: 1 } })).toMatch(/no such material/);
    expect(asked(batch, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, batch.events[0]?.id ?? null)).toMatch(/cannot be deleted/);
    expect(asked(batch, { kind: "note", payload: { text: "x" } }, batch.vessel)).toMatch(/not in this batch/);
    batch.pourAll();
    expect(asked(batch, { kind: "poured", payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null } })).toMatch(/recorded already/);
    expect(asked(batch, { kind: "flaw", payload: { defect: "frosting", place: "top", severity: "slight", product: batch.vessel, jars: 11 } })).toMatch(
      /has 10 of cup, so 11/,
    );
    const weighed = batch.events.find((event) => event.kind === "weighed");
    expect(asked(batch, { kind: "stirred", payload: { step: "stir", seconds: 60 } }, weighed?.id ?? null)).toMatch(
      /only be corrected by an entry of the same type/,
    );
    batch.add({ kind: "closed", payload: { missing: [] } });
    expect(asked(batch, { kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 1 } })).toMatch(/closed. Reopen it/);
    expect(asked(batch, { kind: "note", payload: { text: "later" } })).toBeUndefined();
  });

  it("refuses a second correction of the same entry, so that two people cannot both replace it", () => {
    const batch = aBatch();
    const wrong = batch.weigh(batch.wax, 1_000);
    batch.add({ kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 2_000 } }, { corrects: wrong.id });
    expect(asked(batch, { kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 3_000 } }, wrong.id)).toMatch(/corrected already/);
  });
});

describe("of two corrections one counts, and nothing goes in circles", () => {
  const weights = (events: BatchEvent[], wax: string) => batchOf(events).state.weighed[partKey(0, wax)]?.mg ?? 0;

  it("counts the later arrived of two that reached the log side by side, in whatever order they are read", () => {
    const batch = aBatch();
    const wrong = batch.weigh(batch.wax, 172_000);
    batch.add({ kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 127_000 } }, { corrects: wrong.id });
    batch.add({ kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 128_000 } }, { corrects: wrong.id });
    expect(weights(batch.events, batch.wax)).toBe(128_000);
    expect(weights([...batch.events].reverse(), batch.wax)).toBe(128_000);
  });

  it("restores what a taking-back took, when that is taken back", () => {
    const batch = aBatch();
    const weight = batch.weigh(batch.wax, 127_000);
    const gone = batch.add({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: weight.id });
    expect(weights(batch.events, batch.wax)).toBe(0);
    batch.add({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: gone.id });
    expect(weights(batch.events, batch.wax)).toBe(127_000);
  });

  it("undoes a correction back to what stood before, and keeps a whole taking-back whole", () => {
    const batch = aBatch();
    const first = batch.weigh(batch.wax, 120_000);
    const second = batch.add({ kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 127_000 } }, { corrects: first.id });
    const undone = [...batch.events, batch.draft({ kind: "withdrawn", payload: { why: "", mode: "undo" } }, { corrects: second.id })];
    expect(weights(undone, batch.wax)).toBe(120_000);
    const taken = [...batch.events, batch.draft({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: second.id })];
    expect(weights(taken, batch.wax)).toBe(0);
  });

  it("refuses an entry that corrects itself, and reads a spoilt log with a circle without hanging", () => {
    const batch = aBatch();
    const own = batch.draft({ kind: "note", payload: { text: "x" } });
    expect(refusal(batch.state(at(9)), { ...own, corrects: own.id }, null)?.field).toBe("corrects");
    const a = anId();
    const b = anId();
    const circle = [
      batch.draft({ kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 1 } }, { id: a, corrects: b }),
      batch.draft({ kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 2 } }, { id: b, corrects: a }),
    ];
    expect(batchOf([...batch.events, ...circle]).entries).toHaveLength(3);
  });

  it("orders by when it happened, then by when it arrived", () => {
    const batch = aBatch();
    const early = batch.draft({ kind: "note", payload: { text: "a" } }, { happenedAt: at(5), arrivedAt: at(9) });
    const late = batch.draft({ kind: "note", payload: { text: "b" } }, { happenedAt: at(5), arrivedAt: at(10) });
    expect([late, early].sort(compareHappened).map((batchEvent) => batchEvent.id)).toEqual([early.id, late.id]);
  });
});

describe("too much in the pot", () => {
  it("is noticed with what it does to the load, and the rest can be set to it", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 15_000);
    const { plan, state } = batch.state(at(9));
    const over = overOf(plan, state, 0);
    expect(over).toMatchObject({ given: 15_000, asked: 13_000, loadNow: expect.closeTo((15 / 127) * 100, 6) });
    // 127 × 15 ÷ 13 = 146.5 g of wax, up to the next gram.
    expect(over?.targets).toEqual([
      { componentId: batch.wax, mg: 147_000 },
      { componentId: batch.oil, mg: 15_000 },
    ]);
    batch.add({ kind: "rescaled", payload: { pot: 0, targets: over?.targets ?? [] } });
    const after = batch.state(at(9));
    expect(overOf(after.plan, after.state, 0)).toBeNull();
    expect(after.prompts[0]).toMatchObject({ done: false, asked: 147_000, given: 127_000 });
  });

  it("offers no rescue for ten times as much, and lets half a gram in the wax pass", () => {
    const batch = aBatch();
    batch.weigh(batch.oil, 130_000);
    expect(overOf(batch.state(at(9)).plan, batch.state(at(9)).state, 0)).toMatchObject({ given: 130_000, targets: [] });
    const fine = aBatch();
    fine.weigh(fine.wax, 127_500);
    expect(overOf(fine.state(at(9)).plan, fine.state(at(9)).state, 0)).toBeNull();
  });
});

describe("what was really done", () => {
  it("fills what the pour says, draws those containers and wicks, and sells none with a safety flaw", () => {
    const wick = anId();
    const batch = aBatch({ wick });
    batch.pourAll();
    const pour = batch.events.at(-1) as BatchEvent;
    batch.add(
      { kind: "poured", payload: { step: "pour", filled: [{ product: batch.vessel, count: 9 }], leftMg: 14_000, roomCelsius: 2_100, warmed: "oven" } },
      { corrects: pour.id },
    );
    batch.add({ kind: "flaw", payload: { defect: "frosting", place: "top", severity: "severe", product: batch.vessel, jars: 9 } });
    batch.add({ kind: "flaw", payload: { defect: "cracked_glass", place: "side", severity: "severe", product: batch.vessel, jars: 2 } });
    const { plan, state } = batch.state(at(99));
    expect([filledOf(plan, state, batch.vessel), stoppedOf(plan, state, batch.vessel), sellableOf(plan, state, batch.vessel)]).toEqual([9, 2, 7]);
    expect(state.drawn[batch.vessel]?.amount).toBe(9);
    expect(state.drawn[wick]?.amount).toBe(9);
  });

  it("knows how long a pot was above its ceiling, and counts on while it is", () => {
    const batch = aBatch();
    batch.read("heat", 9_500);
    batch.read(null, 9_600);
    expect(secondsAbove(batch.state(at(3)).state, at(3))).toBe(120);
    batch.read("heat", 8_600);
    expect(batch.state(at(60)).state.over).toEqual({ since: null, seconds: 120, times: 1, peak: 9_600 });
  });

  it("stays at the range while it is back on the heat", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 13_000);
    batch.read("heat", 8_500);
    batch.read("add", 8_500);
    batch.add({ kind: "stirred", payload: { step: "stir", seconds: 120 } });
    batch.read("cool", 5_000);
    batch.add({ kind: "heated", payload: { pot: 0 } });
    expect(batch.state(at(60))).toMatchObject({ next: { key: "cool" }, state: { onHeat: at(7) } });
    batch.read("cool", 6_000);
    expect(batch.state(at(60))).toMatchObject({ next: { key: "pour" }, state: { onHeat: null } });
  });

  it("is abandoned with what became of the wax, keeps what it drew, and can be resumed", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 127_000);
    const given = batch.add({ kind: "abandoned", payload: { why: "scorched", wax: "thrown away", mg: null } });
    expect(batch.state(at(9))).toMatchObject({ phase: "abandoned", next: null, state: { drawn: { [batch.wax]: { amount: 127_000 } } } });
    expect(refusal(batch.state(at(9)), batch.draft({ kind: "read", payload: { step: "heat", shown: 8_000, correction: 0 } }))?.message).toMatch(/abandoned/);
    batch.add({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: given.id });
    expect(batch.state(at(9)).phase).toBe("pot");
  });

  it("keeps its facts small however many readings there are, and the curve's shape", () => {
    const batch = aBatch();
    const start = Date.parse(at(0));
    for (let n = 1; n <= 7_200; n++)
      batch.events.push(
        batch.draft(
          { kind: "read", payload: { step: null, shown: Math.round(8_500 - 2_500 * (n / 7_200)), correction: 0 } },
          { happenedAt: new Date(start + n * 1_000).toISOString(), arrivedAt: new Date(start + n * 1_000).toISOString() },
        ),
      );
    const { state } = batchOf(batch.events);
    expect(JSON.stringify(state).length).toBeLessThan(9_000);
    const readings = readingsOf(state);
    expect(readings.at(-1)).toMatchObject({ celsius: 6_000 });
    expect(readings.length).toBeGreaterThan(50);
    for (const reading of readings) expect(Math.abs(reading.celsius - (8_500 - 2_500 * ((Date.parse(reading.at) - start) / 7_200_000)))).toBeLessThan(2);
  });
});

describe("entries of older versions", () => {
  const head = { id: anId(), happenedAt: at(0), arrivedAt: at(0), personId: null, instrumentId: null, corrects: null };
  it.each([
    ["read", { gate: "pour", shown: 6_000, correction: -50 }, { step: "cool", shown: 6_000, correction: -50 }],
    ["read", { gate: "watch", shown: 6_000, correction: 0 }, { step: null, shown: 6_000, correction: 0 }],
    ["stirred", { seconds: 120 }, { step: "stir", seconds: 120 }],
    ["poured", { warmedJars: true }, { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: "yes" }],
    ["withdrawn", { why: "slip" }, { why: "slip", mode: "delete" }],
    [
      "flaw",
      { defect: "wick-cracks", place: "top", severity: "plain", vesselId: "a", jars: 2 },
      { defect: "cracks", place: "top", severity: "clear", product: "a", jars: 2 },
    ],
  ])("a %s is read as it was meant", (kind, old, now) => {
    expect(readEvent({ ...head, kind, payload: old, v: 1 }).payload).toEqual(now);
  });

  it("gives back one that cannot be read as such, with what was stored and why", () => {
    expect(readEvent({ ...head, kind: "levitated", payload: { a: 1 }, v: 3 })).toMatchObject({
      kind: UNREADABLE,
      payload: { kind: "levitated", v: 3, payload: { a: 1 }, why: expect.stringMatching(/newer version/) },
    });
    expect(readEvent({ ...head, kind: "weighed", payload: { pot: 0, componentId: anId(), mg: 0 }, v: 2 })).toMatchObject({
      kind: UNREADABLE,
      payload: { kind: "weighed", why: expect.stringMatching(/more than zero/) },
    });
  });

  it("counts an entry that cannot be read for nothing, and says so in words", () => {
    const batch = aBatch();
    batch.weigh(batch.wax, 127_000);
    const spoiled = readEvent({ ...head, id: anId(), kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 0 }, v: 2 });
    const { state } = batchOf(batch.events);
    const read = batchOf([...batch.events, spoiled]);
    expect(read.state).toEqual(state);
    expect(BATCH.tell(spoiled, read.plan, {} as never, "").what).toBe("An entry that cannot be read (weighed)");
  });
});
