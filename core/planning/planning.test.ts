import fc from "fast-check";
import { DateTime } from "luxon";
import { describe, expect, it } from "vitest";
import { timesOf } from "../process/process";
import { presetProcess as process } from "../testing/batch";
import { addDays, weekdayOf } from "../units/calendar";
import { countsOn, type DemandLine, type DemandProduct, missOf, planDemand, roomIn, sunOver, weeksOf } from "./planning";
import { type PlanningSettings, planningSettings } from "./schema";
import { hoursOn, lastDayBefore } from "./settings";
import { shoppingOf } from "./shopping";
import { lostDay, remedyOf, whatIf } from "./what-if";

const product = (id: string, over: Partial<DemandProduct> = {}): DemandProduct => ({
  id,
  name: id,
  formulaId: `of ${id}`,
  formulaName: `formula of ${id}`,
  process: process("soy-bind-hot"),
  components: 2,
  fillMg: 180_000,
  tested: true,
  wicked: true,
  ...over,
});
const line = (id: string, productId: string, count: number, wantedOn: string | null): DemandLine => ({ id, productId, count, wantedOn, note: "" });
const settings = (over: Partial<PlanningSettings> = {}): PlanningSettings => ({ ...planningSettings.parse({}), ...over });
/** A Monday morning. */
const AT = { now: "2026-03-02T07:00:00.000Z", zone: "Europe/Berlin" };
/** Soy sets a day and cures 4 to 14 days: trade practice, no source. */
const SOY = timesOf(process("soy-bind-hot"));

describe("from what is wanted to pots with their days", () => {
  it("gathers what is of one formula, and puts it on the last working day that leaves the cure, over the change of the clocks", () => {
    const products = [product("tumbler"), product("cup", { formulaId: "of tumbler", fillMg: 12_500 }), product("tin")];
    const demandPlan = planDemand(
      [line("a", "tumbler", 4, "2026-04-12"), line("b", "cup", 10, "2026-04-15"), line("c", "tin", 3, "2026-04-12")],
      products,
      settings(),
      AT,
    );
    expect(demandPlan.pots.map((pot) => [pot.formulaName, pot.day, pot.is, pot.lines.map((line) => [line.id, line.count])])).toEqual([
      ["formula of tin", "2026-03-27", "ready", [["c", 3]]],
      [
        "formula of tumbler",
        "2026-03-27",
        "ready",
        [
          ["a", 4],
          ["b", 10],
        ],
      ],
    ]);
    // Held against a time-zone library: 12 April, a day to finish and 14 days of cure, is 28 March at midnight; the Friday before it is the last working day.
    const by = DateTime.fromISO("2026-04-11", { zone: AT.zone }).minus({ seconds: Math.max(SOY.recommendedCure, SOY.set) });
    expect(by.toISODate()).toBe("2026-03-27");
    expect(lastDayBefore(by.toMillis(), settings(), AT.zone)).toBe("2026-03-27");
    expect(countsOn(demandPlan, "2026-03-27")).toEqual({ tumbler: 4, cup: 10, tin: 3 });
    expect(countsOn(demandPlan, "2026-03-26")).toEqual({});
    // Far enough apart they are poured apart.
    expect(planDemand([line("a", "tumbler", 4, "2026-04-12"), line("b", "cup", 10, "2026-05-15")], products, settings(), AT).pots).toHaveLength(2);
  });

  it("makes every piece once, in no pot above a pitcher or the table, on no day off, and keeps the cure of what it calls ready", () => {
    const products = [
      product("a"),
      product("b", { formulaId: "of a", fillMg: 12_500 }),
      product("c", { process: process("pillar-glossy"), fillMg: 300_000 }),
      product("d", { process: process("gel"), fillMg: 150_000 }),
    ];
    const wish = fc.record({
      productId: fc.constantFrom("a", "b", "c", "d", "gone"),
      count: fc.integer({ min: 1, max: 90 }),
      in: fc.option(fc.integer({ min: 0, max: 90 }), { freq: 6 }),
    });
    const how = fc.record({
      pitcherMg: fc.integer({ min: 250_000, max: 4_000_000 }),
      table: fc.integer({ min: 4, max: 80 }),
      aheadDays: fc.integer({ min: 0, max: 5 }),
      gatherDays: fc.integer({ min: 0, max: 40 }),
      sparePpm: fc.integer({ min: 0, max: 100_000 }),
      zone: fc.constantFrom("Europe/Berlin", "America/New_York", "Australia/Lord_Howe", "UTC"),
    });
    fc.assert(
      fc.property(fc.array(wish, { minLength: 1, maxLength: 25 }), how, (wishes, { zone, ...over }) => {
        const lines = wishes.map((wishe, n) => line(`l${n}`, wishe.productId, wishe.count, wishe.in === null ? null : addDays("2026-03-02", wishe.in)));
        const there = settings({ ...over, daysOff: ["2026-03-10", "2026-04-03"] });
        const demandPlan = planDemand(lines, products, there, { now: AT.now, zone });
        expect(demandPlan.unknown.map((demandLine) => demandLine.id)).toEqual(lines.filter((line) => line.productId === "gone").map((line) => line.id));
        for (const line of lines) {
          const made = demandPlan.pots.flatMap((pot) => pot.lines).filter((other) => other.id === line.id);
          expect(made.reduce((sum, other) => sum + other.count, 0)).toBe(line.productId === "gone" ? 0 : line.count);
        }
        expect(new Set(demandPlan.pots.map((pot) => pot.key)).size).toBe(demandPlan.pots.length);
        for (const pot of demandPlan.pots) {
          if (pot.jars > 1) expect(pot.totalMg).toBeLessThanOrEqual(over.pitcherMg + 1);
          expect(pot.jars).toBeLessThanOrEqual(over.table);
          expect(pot.day).not.toBeNull();
          const day = pot.day as string;
          expect(hoursOn(day, there)).not.toBeNull();
          expect(weekdayOf(day)).toBeLessThan(6);
          if (pot.wantedOn === null) continue;
          const times = timesOf(pot.process);
          const closing = DateTime.fromISO(day, { zone }).set({ hour: 17 });
          const wanted = DateTime.fromISO(pot.wantedOn, { zone }).minus({ days: over.aheadDays });
          const keeps = (seconds: number) => closing.plus({ seconds: Math.max(seconds, times.set) }) <= wanted;
          expect(pot.is).toBe(keeps(times.recommendedCure) ? "ready" : keeps(times.leastCure) ? "minimum" : "late");
          expect(pot.short > 0).toBe(pot.is !== "ready");
        }
        // What takes places on the table has them, but for a pot that is more than the table.
        for (const [day, load] of demandPlan.load) {
          const on = demandPlan.pots.filter((pot) => pot.day !== null && pot.day <= day && addDays(pot.day, pot.setDays) > day);
          expect(load.table).toBe(on.reduce((sum, pot) => sum + pot.jars, 0));
          if (on.length > 1) expect(load.table).toBeLessThanOrEqual(over.table);
        }
      }),
      { numRuns: 60 },
    );
  });

  it("says by how much something is late, which cure would still do, and what holds it up", () => {
    const products = [product("tumbler"), product("pillar", { process: process("pillar-glossy"), formulaName: "quick pillar" })];
    const late = planDemand([line("a", "tumbler", 4, "2026-03-06")], products, settings(), AT);
    // Poured on Monday the 2nd, four days of cure and one to finish: Friday evening at the earliest, and it is wanted on Friday.
    expect(late.pots[0]).toMatchObject({ day: "2026-03-02", is: "late" });
    expect(late.pots[0]?.short).toBeGreaterThan(0);
    expect(remedyOf(late.pots[0] as never, products, settings(), AT.zone)).toMatchObject({ cureDays: 2 });
    expect(missOf(late)).toEqual({ lateDays: (late.pots[0]?.short ?? 0) * 4, late: 4, minimum: 0 });

    // More than one pair of hands pours in the days that are left: with two it is in time.
    const lines = [line("a", "tumbler", 1_000, "2026-03-24")];
    const small = settings({ table: 10_000, pitcherMg: 1_000_000, burners: 20, pitchers: 40 });
    const demandPlan = planDemand(lines, products, small, AT);
    expect(missOf(demandPlan).late + missOf(demandPlan).minimum).toBeGreaterThan(0);
    const { now, would } = whatIf(lines, products, small, AT, demandPlan);
    const hands = would.find((whatIf) => whatIf.what === "one more person");
    expect(hands?.minimum).toBeLessThan(now.minimum + now.late);
    expect(hands).toMatchObject(missOf(planDemand(lines, products, { ...small, hands: 2 }, AT)));
    expect(would.find((whatIf) => whatIf.what === "without tumbler")).toMatchObject({ late: 0, minimum: 0 });
  });

  it("says what slips where a day is lost, and how full the weeks are", () => {
    const products = [product("tumbler")];
    const lines = [line("a", "tumbler", 6, "2026-03-20")];
    const demandPlan = planDemand(lines, products, settings(), AT);
    const day = demandPlan.pots[0]?.day as string;
    expect(demandPlan.pots[0]).toMatchObject({ is: "ready", day: "2026-03-04" });
    expect(lostDay(day, lines, products, settings(), AT, demandPlan).slips).toEqual([]);
    const alone = settings({ hours: [null, null, { from: 540, to: 1_020 }, null, null, null, null] });
    const only = planDemand(lines, products, alone, AT);
    expect(lostDay("2026-03-04", lines, products, alone, AT, only).slips.map((pot) => pot.is)).toEqual(["minimum"]);
    const [week] = weeksOf(demandPlan, settings());
    expect(week).toMatchObject({ from: "2026-03-02", pots: 1, jars: 6, rack: 6, hands: { there: 2_400 }, table: { planned: 6, there: 60 } });
    expect(weeksOf(demandPlan, settings())).toHaveLength(1);
  });

  it("splits by what the table holds, follows the hours of each day of the week, and lets stock go along with what is wanted", () => {
    const products = [product("tealight", { fillMg: 14_000 })];
    const there = settings({ table: 30, hours: [null, { from: 600, to: 900 }, null, { from: 540, to: 1_020 }, null, null, null] });
    const demandPlan = planDemand([line("a", "tealight", 70, "2026-04-18"), line("b", "tealight", 20, null)], products, there, AT);
    expect(demandPlan.pots.map((pot) => pot.jars)).toEqual([30, 30, 30]);
    expect(demandPlan.pots.flatMap((pot) => pot.lines).filter((item) => item.id === "b")).toHaveLength(1);
    // Only Tuesdays and Thursdays, a table full each; the last leaves 14 days of cure and one to finish.
    expect(demandPlan.pots.map((pot) => pot.day)).toEqual(["2026-03-26", "2026-03-31", "2026-04-02"]);
    // Alone, stock is poured as soon as there is room.
    expect(planDemand([line("b", "tealight", 20, null)], products, there, AT).pots[0]).toMatchObject({ day: "2026-03-03", is: "stock", wantedOn: null });
    // A day that is half over is not planned anew.
    const late = { now: "2026-03-03T11:30:00.000Z", zone: AT.zone };
    expect(planDemand([line("b", "tealight", 20, null)], products, there, late).pots[0]?.day).toBe("2026-03-05");
    // Of a pot that is full there is no room left; nor of one that another of its formula shares the day with.
    expect(roomIn(demandPlan.pots[0] as never, demandPlan.pots, products, there)).toEqual([]);
  });

  it("says what is not tested, and pours nothing where nobody ever works", () => {
    const products = [product("new", { tested: false })];
    const never = settings({ hours: [null, null, null, null, null, null, null] });
    const [pot] = planDemand([line("a", "new", 3, "2026-05-01")], products, never, AT).pots;
    expect(pot).toMatchObject({ day: null, is: "late", untested: true });
    expect(remedyOf(pot as never, products, never, AT.zone)).toEqual({ cureDays: -1, formulas: [] });
    expect(weeksOf({ pots: [pot as never], load: new Map(), unknown: [] }, never)).toEqual([]);
    expect(lastDayBefore(Date.parse(AT.now), never, AT.zone)).toBeNull();
    expect(planningSettings.safeParse({ hours: [{ from: 900, to: 600 }, null, null, null, null, null, null] }).success).toBe(false);
  });

  it("offers what more a pot that is not full can pour: the largest first, the rest into the smallest", () => {
    const products = [product("tumbler"), product("cup", { formulaId: "of tumbler", fillMg: 12_500 })];
    const there = settings({ pitcherMg: 1_500_000, sparePpm: 0 });
    const { pots } = planDemand([line("a", "tumbler", 6, "2026-04-12")], products, there, AT);
    // 1500 − 6 × 180 = 420 g: two more tumblers, and four cups from the 60 g that are left.
    expect(roomIn(pots[0] as never, pots, products, there)).toMatchObject([
      { productId: "tumbler", count: 2 },
      { productId: "cup", count: 4 },
    ]);
  });

  it("warns of the sun on the table while something sets there", () => {
    expect(sunOver("2026-03-02T13:00:00.000Z", process("soy-bind-hot"), { from: 450, to: 600 }, "Europe/Berlin")).toEqual(["2026-03-03T06:30:00.000Z"]);
    expect(sunOver("2026-03-02T13:00:00.000Z", process("soy-bind-hot"), null, "Europe/Berlin")).toEqual([]);
  });
});

describe("what has to be bought", () => {
  it("is nothing where there is enough, and stands without a price or a day where neither is known", () => {
    const pots = [{ day: null, lines: [{ id: "1", productId: "p", name: "p", count: 2 }] }];
    const draws = new Map([
      [
        "p",
        new Map([
          ["jar", 1],
          ["wax", 50],
        ]),
      ],
    ]);
    const store = { name: "jar", kind: "vessel", counted: true, promised: 0, pack: null };
    expect(shoppingOf(pots, draws, [{ ...store, id: "jar", onHand: 2 }])).toEqual([]);
    expect(shoppingOf(pots, draws, [{ ...store, id: "jar", onHand: 1 }])).toMatchObject([{ short: 1, by: null, packs: null, cost: null }]);
    // What is promised beyond what is there is no debt of this plan.
    expect(shoppingOf(pots, draws, [{ ...store, id: "wax", onHand: 30, promised: 100 }])).toMatchObject([{ needed: 100, short: 100 }]);
    expect(shoppingOf(pots, new Map(), [{ ...store, id: "jar", onHand: 0 }])).toEqual([]);
  });

  it("is what pots take less what is there and not promised, by the day it runs short, in whole packs", () => {
    const pots = [
      { day: "2026-03-10", lines: [{ id: "1", productId: "p", name: "p", count: 3 }] },
      { day: "2026-03-04", lines: [{ id: "2", productId: "p", name: "p", count: 2 }] },
    ];
    const store = (id: string, onHand: number | null, promised = 0) => ({
      id,
      name: id,
      kind: "wax",
      counted: false,
      onHand,
      promised,
      pack: { amount: 400, cost: 900 },
    });
    const draws = new Map([
      [
        "p",
        new Map([
          ["wax", 100],
          ["oil", 10],
          ["wick", 1],
        ]),
      ],
    ]);
    expect(shoppingOf(pots, draws, [store("wax", 350, 100), store("oil", 50), store("wick", null)])).toMatchObject([
      // 250 are free, 500 are needed: the first pot takes 200, the second runs short.
      { id: "wick", short: 5, by: "2026-03-04", packs: 1 },
      { id: "wax", needed: 500, short: 250, by: "2026-03-10", packs: 1, cost: 900 },
    ]);
  });
});
