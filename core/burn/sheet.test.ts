import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { anId } from "../testing/batch";
import { type ATrial, aTestCandle, aTrial, aTrialPlan, atMinute, burnOnce } from "../testing/trial";
import { BURN_COLUMNS, burnRows, readBurnRows } from "./sheet";
import { TRIAL } from "./trial";

const plan = () => aTrialPlan([aTestCandle("A1"), aTestCandle("B1")]);
const cells = (trial: ATrial) => {
  const { plan: of, state } = trial.now();
  return burnRows(of, state).map((row) => BURN_COLUMNS.map((name) => String(row[name])));
};
const read = (heads: readonly string[], rows: string[][], trial = aTrial(plan())) => {
  const { plan: of, state } = trial.now();
  return readBurnRows(heads, rows, of, state);
};
const stripped = (trial: ATrial) =>
  Object.fromEntries(
    Object.entries(trial.now().state.testCandles).map(([key, state]) => [
      key,
      state.sessions.map(({ id: _id, checks: looks, ...rest }) => ({ ...rest, looks: looks.map(({ id: _look, ...seen }) => seen) })),
    ]),
  );

const seen = fc.record(
  {
    poolUm: fc.integer({ min: 0, max: 90_000 }).map((um) => um - (um % 100)),
    flame: fc.constantFrom("small" as const, "steady" as const, "large" as const),
    mushroom: fc.constantFrom("none" as const, "small" as const),
    soot: fc.constantFrom("none" as const, "gray" as const),
    wall: fc.integer({ min: 2_000, max: 7_000 }),
    bottom: fc.boolean(),
    flames: fc.array(fc.constantFrom("small" as const, "steady" as const, "dying" as const), { minLength: 2, maxLength: 3 }),
    marks: fc.dictionary(
      fc.constantFrom("crackle", "drips, small"),
      fc.integer({ min: 0, max: 20 }).map((n) => n / 2),
      { minKeys: 1 },
    ),
    note: fc.constantFrom("flickers", "draft; window"),
  },
  { requiredKeys: ["flame"] },
);

describe("burns as CSV", () => {
  it("come back as they left, whatever was seen", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom("A1", "B1"), fc.array(seen, { maxLength: 4 }), fc.boolean()), { minLength: 1, maxLength: 5 }),
        (sessions) => {
          const first = aTrial(plan());
          for (const [index, [testCandle, looks, weighed]] of sessions.entries())
            burnOnce(
              first,
              testCandle,
              index * 1_440,
              240,
              Object.fromEntries(looks.map((look, n) => [(n + 1) * 50, look])),
              weighed ? [500 - index, 480 - index] : undefined,
            );
          const back = read(BURN_COLUMNS, cells(first));
          expect(back.ok).toBe(true);
          if (!back.ok) return;
          const second = aTrial(plan());
          for (const { happenedAt, ...container } of back.value) {
            const event = {
              id: anId(),
              happenedAt,
              arrivedAt: happenedAt,
              personId: null,
              instrumentId: null,
              corrects: null,
              ...container,
            } as (typeof second.events)[number];
            expect(TRIAL.refusal(second.now(), event)).toBeNull();
            second.events.push(event);
          }
          expect(stripped(second)).toEqual(stripped(first));
        },
      ),
      { numRuns: 40 },
    );
  });

  it("say which looks nobody made, and take none of those for one when they come back", () => {
    const trial = aTrial(plan());
    burnOnce(trial, "A1", 0, 240, { 120: { flame: "steady" } });
    const rows = cells(trial);
    const missed = BURN_COLUMNS.indexOf("missed");
    const minute = BURN_COLUMNS.indexOf("minute");
    expect(rows.map((row) => [row[minute], row[missed]])).toEqual([
      ["120", ""],
      ["75", "yes"],
      ["180", "yes"],
      ["240", "yes"],
    ]);
    const back = read(BURN_COLUMNS, rows);
    expect(back.ok && back.value.map((timed) => timed.kind)).toEqual(["lit", "checked", "extinguished"]);
  });

  it("are not read twice: a session that is here already is left out", () => {
    const trial = aTrial(plan());
    burnOnce(trial, "A1", 0, 240, { 75: { flame: "steady" } });
    expect(read(BURN_COLUMNS, cells(trial), trial)).toEqual({ ok: true, value: [] });
  });

  it("say at which row and column they cannot be read", () => {
    const lit = atMinute(0);
    const out = atMinute(240);
    const heads = ["test_candle", "lit_at", "out_at", "minute", "pool_mm", "flame"];
    const why = (row: string[], of = heads) => {
      const answer = read(of, [row]);
      return answer.ok ? null : answer.message;
    };
    expect(why(["a1", lit, out, "75", "52", "steady"])).toBeNull();
    expect(why(["C9", lit, out, "75", "52", ""])).toMatch(/Row 2, test_candle: “C9”.*A1, B1/);
    expect(why(["A1", "yesterday", out, "75", "52", ""])).toMatch(/lit_at: “yesterday” is no time/);
    expect(why(["A1", lit, "", "75", "52", ""])).toMatch(/out_at/);
    expect(why(["A1", out, lit, "75", "52", ""])).toMatch(/before it was lit/);
    expect(why(["A1", lit, out, "75", "wide", ""])).toMatch(/pool_mm: “wide”/);
    expect(why(["A1", lit, out, "75", "52", "huge"])).toMatch(/flame: “huge” is none of/);
    expect(why(["A1", lit, out, "", "52", ""])).toMatch(/minute/);
    expect(why([lit], ["lit_at"])).toMatch(/“test_candle” is missing/);
  });
});
