import { describe, expect, it } from "vitest";
import { anId } from "../testing/batch";
import { aTestCandle, aTrial, aTrialPlan, atMinute, burnOnce } from "../testing/trial";
import { CHECKED_TRIAL } from "./checked";
import { dueChecks, presenceDue, testCandleNow } from "./checks";
import { blindCodes, planWarnings, reallyVaried, variantWords, widthOf } from "./plan";
import { PROTOCOLS, sessionOf, writeSessions } from "./protocol";
import { readSessions } from "./read-sessions";
import { protocol } from "./schema";
import { TRIAL } from "./trial";

const two = () => aTrial(aTrialPlan([aTestCandle("A1"), aTestCandle("A2"), aTestCandle("B1"), aTestCandle("B2")]));
const why = (trial: ReturnType<typeof two>, minute: number, body: Parameters<typeof trial.draft>[1]) => {
  const event = trial.draft(minute, body);
  return TRIAL.refusal(trial.now(), event)?.message ?? null;
};
const light = (testCandle: string) => ({ kind: "lit" as const, payload: { testCandle, trimUm: 5_000, air: [], early: "" } });
const look = (testCandle: string) => ({ kind: "checked" as const, payload: { testCandle, flame: "steady" as const } });

describe("a trial", () => {
  it("takes a look only of what burns, and lights nothing twice", () => {
    const trial = two();
    expect(why(trial, 1, look("A1"))).toMatch(/is not burning/);
    trial.add(10, light("A1"));
    expect(why(trial, 11, light("A1"))).toMatch(/burning already/);
    expect(why(trial, 11, look("A1"))).toBeNull();
    expect(why(trial, 11, look("C1"))).toMatch(/no such test candle/);
    expect(why(trial, 11, { kind: "closed", payload: {} })).toMatch(/still burning/);
    trial.add(250, { kind: "extinguished", payload: { testCandle: "A1", why: "protocol", sign: "" } });
    expect(why(trial, 251, look("A1"))).toMatch(/was not burning then/);
    // Put down late, with the time at which it was seen.
    expect(why(trial, 130, look("A1"))).toBeNull();
    trial.add(130, look("A1"));
    expect(trial.now().state.testCandles.A1?.sessions[0]?.checks).toHaveLength(1);
  });

  it("never burns a cracked jar again", () => {
    const trial = two();
    trial.add(5, { kind: "stopped", payload: { testCandle: "B1", why: "the glass is cracked" } });
    expect(why(trial, 6, light("B1"))).toMatch(/cracked/);
    expect(why(trial, 6, light("B2"))).toBeNull();
  });

  it("refuses a candle that grows as it burns, and to weigh what still burns", () => {
    const trial = two();
    trial.add(0, light("A1"));
    const weigh = (when: "before" | "after", mg: number) => ({ kind: "weighed" as const, payload: { testCandle: "A1", session: 1, when, mg } });
    expect(why(trial, 5, weigh("after", 1_000))).toMatch(/still burning/);
    trial.add(0, weigh("before", 560_000));
    trial.add(240, { kind: "extinguished", payload: { testCandle: "A1", why: "protocol", sign: "" } });
    expect(why(trial, 300, weigh("after", 561_000))).toMatch(/more after/);
    expect(why(trial, 300, { ...weigh("after", 540_000), payload: { ...weigh("after", 540_000).payload, session: 2 } })).toMatch(/does not exist/);
    expect(why(trial, 300, weigh("after", 544_000))).toBeNull();
  });

  it("sets right when it was lit or put out, and takes an entry back", () => {
    const trial = two();
    const litId = trial.add(10, light("A1"));
    const outId = trial.add(250, { kind: "extinguished", payload: { testCandle: "A1", why: "protocol", sign: "" } });
    const entryOf = (id: string) => trial.now().entries.find((entry) => entry.event.id === id) ?? null;
    const later = trial.draft(262, { kind: "extinguished", payload: { testCandle: "A1", why: "safety", sign: "soot" } }, { corrects: outId });
    expect(TRIAL.refusal(trial.now(), later, entryOf(outId))).toBeNull();
    trial.events.push(later);
    expect(trial.now().state.testCandles.A1?.sessions[0]?.out).toEqual({ at: atMinute(262), why: "safety", sign: "soot" });
    const earlier = trial.draft(4, light("A1"), { corrects: litId });
    expect(TRIAL.refusal(trial.now(), earlier, entryOf(litId))).toBeNull();
    trial.events.push(earlier);
    expect(trial.now().state.testCandles.A1?.sessions).toMatchObject([{ litAt: atMinute(4) }]);
    trial.add(300, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: earlier.id });
    expect(trial.now().state.testCandles.A1?.sessions).toEqual([]);
    const start = trial.events[0]?.id ?? "";
    expect(
      TRIAL.refusal(trial.now(), trial.draft(9, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: start }), entryOf(start))?.message,
    ).toMatch(/cannot be deleted/);
  });

  it("folds to the same facts whatever the order in which its entries arrive", () => {
    const trial = two();
    burnOnce(trial, "A1", 0, 240, { 75: { poolUm: 50_000 }, 240: { poolUm: 80_000, flame: "steady" } }, [560, 543]);
    burnOnce(trial, "B1", 20, 180, { 120: { soot: "black" } });
    trial.add(400, { kind: "throwScored", payload: { testCandle: "A1", throw: "hot", room: "bedroom", score: 7 } });
    trial.add(401, { kind: "decided", payload: { variant: "A", verdict: "passed", why: "" } });
    const { state } = trial.now();
    expect(TRIAL.of([...trial.events].reverse()).state).toEqual(state);
    expect(state.decided.A?.verdict).toBe("passed");
    expect(state.ratings).toMatchObject([{ score: 7, blind: true, scorer: null }]);
  });

  it("tells every event type, and reads each back", () => {
    const trial = two();
    burnOnce(
      trial,
      "A1",
      0,
      240,
      { 180: { poolUm: 80_000, reached: 100, depthUm: 9_000, flame: "large", wall: 5_200, soot: "gray", sootAt: "rim", note: "flickers" } },
      [560, 543],
    );
    trial.add(300, { kind: "present", payload: {} });
    trial.add(301, { kind: "codesRevealed", payload: {} });
    trial.add(302, { kind: "throwScored", payload: { testCandle: "A1", throw: "cold", room: "bathroom", score: 6, window: true } });
    trial.add(303, { kind: "decided", payload: { variant: "A", verdict: "failed", why: "flickers" } });
    trial.add(304, { kind: "stopped", payload: { testCandle: "B2", why: "it broke" } });
    trial.add(305, { kind: "note", payload: { text: "two noses on Friday" } });
    trial.add(306, { kind: "closed", payload: {} });
    const say = { g: (mg: number) => `${mg / 1_000} g`, t: (c: number) => `${c / 100} °C`, len: (um: number) => `${um / 1_000} mm` } as never;
    const { plan } = trial.now();
    const description = trial.events.map((event) => TRIAL.tell(event, plan, say, ""));
    expect(description.map((item) => item.what)).toEqual([
      "trial started",
      "A1 lit",
      "A1 weighed before session 1",
      "A1: pool 80 mm, 100 % of the wall, 9 mm deep, flame large, gray soot (rim), wall 52 °C, “flickers”",
      "A1 put out",
      "A1 weighed after session 1",
      "somebody is with the burning candles",
      "codes revealed",
      "A1: cold throw in the bathroom",
      "flat-braid cotton A: failed",
      "B2 is stopped",
      "“two noses on Friday”",
      "trial closed",
    ]);
    expect(description[3]).toMatchObject({ tone: "safety", remark: "The flame was large" });
    for (const event of trial.events) {
      expect(CHECKED_TRIAL.read({ ...event, v: TRIAL.versionOf(event.kind) })).toEqual(event);
      expect(Object.values(TRIAL.eventTypes.get(event.kind)?.columns(event.payload, plan) ?? {}).length).toBeGreaterThan(0);
    }
    expect(why(trial, 310, light("A2"))).toMatch(/closed/);
  });
});

describe("looks by the clock", () => {
  const session = (looks: number[], outAfter: number | null = null) => {
    const trial = two();
    trial.add(0, light("A1"));
    for (const minute of looks) trial.add(minute, look("A1"));
    if (outAfter !== null) trial.add(outAfter, { kind: "extinguished", payload: { testCandle: "A1", why: "protocol", sign: "" } });
    const burnSession = trial.now().state.testCandles.A1?.sessions[0];
    if (!burnSession) throw new Error("no session");
    return burnSession;
  };
  const states = (looks: number[], now: number, outAfter: number | null = null) =>
    dueChecks([75, 120, 180, 240], session(looks, outAfter), atMinute(now)).map((check) => check.state);

  it("says which look is next, which came late with its real time, and which was missed", () => {
    expect(states([], 10)).toEqual(["next", "to come", "to come", "to come"]);
    expect(states([70], 80)).toEqual(["seen", "next", "to come", "to come"]);
    expect(states([92], 95)).toEqual(["late", "next", "to come", "to come"]);
    // Looks that stand close together each count for the one that is nearest.
    for (const dues of [
      [10, 20, 30],
      [5, 8, 20],
      [60, 75, 90],
    ])
      for (const [index, due] of dues.entries()) {
        const states = dueChecks(dues, session([due]), atMinute(due)).map((check) => check.state);
        expect(states[index], `${due} of ${dues}`).toBe("seen");
        expect(states.filter((state) => state === "seen")).toHaveLength(1);
        expect(states.slice(index + 1)).not.toContain("missed");
      }
    expect(dueChecks([75, 120], session([92]), atMinute(95))[0]).toMatchObject({ minute: 92, due: 75 });
    // Nobody looked before the next one was due.
    expect(states([], 112)).toEqual(["missed", "next", "to come", "to come"]);
    expect(states([119], 121)).toEqual(["missed", "seen", "next", "to come"]);
    // Put out before the rest.
    expect(states([75, 121], 400, 150)).toEqual(["seen", "seen", "missed", "missed"]);
    // A look in the first hour is kept, and answers none.
    expect(states([30, 76], 80)).toEqual(["seen", "next", "to come", "to come"]);
  });

  it("goes from look to look, out, to rest and to the next session, and warns past four hours", () => {
    const { protocol: how } = aTrialPlan([aTestCandle("A1")]);
    const trial = two();
    const at = (minute: number) => testCandleNow(how, trial.now().state.testCandles.A1 ?? { sessions: [], stopped: null }, atMinute(minute));
    expect(at(1)).toMatchObject({ state: "ready", session: 1, next: null });
    trial.add(0, light("A1"));
    expect(at(1)).toMatchObject({ state: "burning", next: { what: "look", at: atMinute(75) }, tooLong: false });
    for (const minute of [75, 120, 180, 240]) trial.add(minute, look("A1"));
    expect(at(239)).toMatchObject({ next: { what: "put out", at: atMinute(240) } });
    expect(at(241)).toMatchObject({ tooLong: true });
    trial.add(242, { kind: "extinguished", payload: { testCandle: "A1", why: "protocol", sign: "" } });
    expect(at(300)).toMatchObject({ state: "resting", session: 2, next: { what: "light", at: atMinute(242 + 720) } });
    expect(at(242 + 721)).toMatchObject({ state: "ready", session: 2 });
    trial.add(1_000, { kind: "stopped", payload: { testCandle: "A1", why: "no more is needed" } });
    expect(at(1_001).state).toBe("stopped");
    expect(presenceDue(atMinute(0), atMinute(29))).toBe(false);
    expect(presenceDue(atMinute(0), atMinute(30))).toBe(true);
  });
});

describe("a protocol", () => {
  it("is what makers keep to: first day 1¼, 2, 3, 4 h; next day 3 h; third session 2 and 3 h; at least three (trade rules, common practice, no source)", () => {
    const first = PROTOCOLS[0];
    expect(first?.sessions.map((session) => session.checks)).toEqual([[75, 120, 180, 240], [180], [120, 180]]);
    for (const item of PROTOCOLS) expect(protocol.parse(item).least).toBeGreaterThanOrEqual(3);
    expect(sessionOf(first as never, 7)?.checks).toEqual([120, 180]);
    expect(sessionOf(PROTOCOLS[2] as never, 3)).toBeNull();
  });

  it("is read as it is typed, and written so that it reads back", () => {
    const read = (text: string) => readSessions(text);
    expect(read("1¼ 2 3 4")).toEqual({ ok: true, value: [{ checks: [75, 120, 180, 240], minutes: 240 }] });
    expect(read("75 min; 2h, 3:00 out 3.5")).toMatchObject({ ok: false });
    expect(read("75min 2h 3:00 out 3.5")).toEqual({ ok: true, value: [{ checks: [75, 120, 180], minutes: 210 }] });
    expect(read("out 4")).toEqual({ ok: true, value: [{ checks: [], minutes: 240 }] });
    for (const wrong of ["", "soon", "2 1", "3 out 2", "99"]) expect(read(wrong), wrong).toMatchObject({ ok: false, message: expect.stringMatching(/\S/) });
    for (const protocol of PROTOCOLS) expect(read(writeSessions(protocol.sessions))).toEqual({ ok: true, value: protocol.sessions });
  });
});

describe("a trial as it is designed", () => {
  it("says when more than one thing varies, or nothing, or dye goes into a test of the load, or one stands alone", () => {
    const ids = (plan: Parameters<typeof planWarnings>[0]) => planWarnings(plan).map((planWarning) => planWarning.id);
    const wick = aTestCandle("A1").wick;
    const held = { wick };
    expect(ids(aTrialPlan([aTestCandle("A1"), aTestCandle("A2"), aTestCandle("B1"), aTestCandle("B2")]))).toEqual([]);
    expect(ids(aTrialPlan([aTestCandle("A1"), aTestCandle("B1")]))).toEqual(["single"]);
    const loads = (over: object) =>
      aTrialPlan(
        [
          aTestCandle("A1", { ...held, ...over }),
          aTestCandle("A2", { ...held, ...over }),
          aTestCandle("B1", { ...held, ...over, loadPpm: 60_000 }),
          aTestCandle("B2", { ...held, ...over, loadPpm: 60_000 }),
        ],
        { varies: "load" },
      );
    expect(ids(loads({}))).toEqual([]);
    expect(ids(loads({ dyed: true }))).toEqual(["dye"]);
    expect(ids(loads({ added: ["mica"] }))).toEqual(["dye"]);
    expect(ids(aTrialPlan([aTestCandle("A1"), aTestCandle("A2"), aTestCandle("B1", { scent: "fig" }), aTestCandle("B2", { scent: "fig" })]))).toEqual([
      "several",
    ]);
    expect(ids(aTrialPlan([aTestCandle("A1", held), aTestCandle("A2", held), aTestCandle("B1", held), aTestCandle("B2", held)]))).toEqual(["nothing"]);
    const half = { fill: "half" as const };
    expect(ids(aTrialPlan([aTestCandle("A1", half), aTestCandle("A2", half), aTestCandle("B1", half), aTestCandle("B2", half)]))).toEqual(["halves"]);
    expect(
      reallyVaried(aTrialPlan([aTestCandle("A1"), aTestCandle("B1", { wick: { wickId: anId(), name: "wooden", kind: "wooden", size: "9", count: 1 } })])),
    ).toEqual(["wick kind"]);
  });

  it("names variants by what varies, and measures a tapered jar at its wax line", () => {
    const plan = aTrialPlan([aTestCandle("A1"), aTestCandle("B1", { loadPpm: 60_000 })]);
    expect(variantWords(plan, "A")).toBe("flat-braid cotton A");
    expect(variantWords({ ...plan, varies: "load" }, "B")).toBe("load 6 %");
    // By Simpson's rule and halving, in a few lines elsewhere: a frustum of 76 to 83 mm over 90 mm holds 447.0 ml; 400 ml stand where it is 82.32 mm wide.
    expect(widthOf(aTestCandle("A1"))).toBeCloseTo(82.32, 2);
    expect(widthOf(aTestCandle("A1"), 0)).toBeCloseTo(76, 6);
    expect(widthOf(aTestCandle("A1", { fillMg: 9_000_000 }))).toBeCloseTo(83, 6);
  });

  it("gives each jar a code of its own that says nothing", () => {
    const codes = blindCodes(40, () => 0.37);
    expect(new Set(codes).size).toBe(40);
    expect(codes.every((code) => /^[A-Z][2-9]$/.test(code))).toBe(true);
  });
});
