import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFAULT_GRADES, gradeOf } from "../defects/grade";
import { gradingRulesSchema } from "../defects/schema";
import { aBatch, at } from "../testing/batch";
import { batchOf, refusal } from "./batch";
import { JAR_STATUSES_BY_HAND as JAR_STATUSES } from "./jar-status";
import { jarStatusesOf, releaseBlocks } from "./jars";

const DAY = 1_440;
type Body = Parameters<ReturnType<typeof aBatch>["draft"]>[0];

/** A poured batch of ten cups, and what the log says to a further entry at a minute. */
function poured() {
  const batch = aBatch();
  batch.pourAll();
  const product = batch.vessel;
  const asked = (body: Body, minute = 30) => {
    const { plan, state } = batch.state(at(minute));
    return refusal({ plan, state }, batch.draft(body, { happenedAt: at(minute) }));
  };
  const put = (body: Body, minute = 30) => {
    expect(asked(body, minute)).toBeNull();
    return batch.add(body, { happenedAt: at(minute), arrivedAt: at(minute) });
  };
  const jarStatuses = () => jarStatusesOf(batch.state(at(0)).plan, batch.state(at(0)).state, product);
  return { batch, product, asked, put, jarStatuses };
}
const crack = { defect: "cracked_glass", place: "side" as const, extent: "third" as const };
const rough = { defect: "rough_top", place: "top" as const, extent: "third" as const };

describe("jars on the rack", () => {
  it("always add up to what was filled, whatever becomes of them, and no more go than are there", () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ jars: fc.integer({ min: 1, max: 12 }), from: fc.constantFrom(...JAR_STATUSES), to: fc.constantFrom(...JAR_STATUSES) }), {
          maxLength: 25,
        }),
        (moves) => {
          const { batch, product, asked, jarStatuses } = poured();
          for (const move of moves) {
            const body = { kind: "statusChanged" as const, payload: { product, whom: "", early: "a market day", ...move } };
            if (move.from === move.to) continue;
            const refused = asked(body, 30 * DAY);
            expect(refused === null).toBe(move.jars <= jarStatuses().counts[move.from]);
            if (!refused) batch.add(body, { happenedAt: at(30 * DAY) });
            const { counts, filled } = jarStatuses();
            expect(Object.values(counts).reduce((a, b) => a + b, 0)).toBe(filled);
            expect(Math.min(...Object.values(counts))).toBeGreaterThanOrEqual(0);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it("are not sold before the least cure without a reason, and never with a safety flaw", () => {
    const { product, asked, put, jarStatuses } = poured();
    const sell = (jars: number, early?: string): Body => ({
      kind: "statusChanged",
      payload: { product, jars, from: "rack", to: "sold", whom: "Fern market", ...(early ? { early } : {}) },
    });
    expect(asked(sell(2), 2 * DAY)).toMatchObject({ field: "early" });
    expect(asked(sell(2, "asked at the door"), 2 * DAY)).toBeNull();
    expect(asked(sell(2), 8 * DAY)).toBeNull();
    put({ kind: "jarsInspected", payload: { product, jars: 3, flaws: [crack] } }, 2 * DAY);
    expect(asked(sell(8), 8 * DAY)?.message).toMatch(/3 have a safety flaw.*7 may/);
    put(sell(7), 8 * DAY);
    expect(jarStatuses()).toMatchObject({ filled: 10, counts: { rack: 3, sold: 7 }, stopped: 3 });
    put({ kind: "statusChanged", payload: { product, jars: 3, from: "rack", to: "broken", whom: "" } }, 8 * DAY);
    expect(jarStatuses()).toMatchObject({ counts: { rack: 0, broken: 3 }, stopped: 0 });
    // Returned.
    put({ kind: "statusChanged", payload: { product, jars: 1, from: "sold", to: "rack", whom: "Fern market" } }, 9 * DAY);
    expect(jarStatuses().counts).toMatchObject({ rack: 1, sold: 6 });
  });

  it("that sweat are held back until they stayed dry at a second look, and no longer", () => {
    const { product, put, jarStatuses } = poured();
    put({ kind: "jarsInspected", payload: { product, jars: 4, flaws: [{ ...crack, defect: "sweating", place: "top" }] } });
    expect(jarStatuses().stopped).toBe(4);
    const repair = put({ kind: "repaired", payload: { product, defect: "sweating", jars: 4, how: "dabbed dry", mg: null } });
    expect(jarStatuses().stopped).toBe(4);
    put({ kind: "repairChecked", payload: { repair: repair.id, held: 3 } });
    expect(jarStatuses().stopped).toBe(1);
    // One that is cracked as well stays out.
    put({ kind: "jarsInspected", payload: { product, jars: 2, flaws: [crack] } });
    expect(jarStatuses().stopped).toBe(3);
  });

  it("are looked at one by one, no jar twice in one inspection; a safety flaw counts its jars once", () => {
    const { batch, product, asked, put, jarStatuses } = poured();
    put({ kind: "jarsInspected", payload: { product, jars: 2, flaws: [crack, { ...crack, defect: "sweating", place: "top" }, rough] } });
    put({ kind: "jarsInspected", payload: { product, jars: 7, flaws: [] } });
    expect(jarStatuses().stopped).toBe(2);
    expect(asked({ kind: "jarsInspected", payload: { product, jars: 2, flaws: [] } })?.message).toMatch(/1 of cup are still/);
    put({ kind: "jarsInspected", payload: { product, jars: 1, flaws: [rough] } });
    expect(asked({ kind: "jarsInspected", payload: { product, jars: 1, flaws: [] } })?.message).toMatch(/All of cup/);
    put({ kind: "inspected", payload: { jars: 10 } });
    // A second inspection, some days later, begins anew.
    expect(asked({ kind: "jarsInspected", payload: { product, jars: 10, flaws: [] } })).toBeNull();
    expect(
      batch
        .state(at(60))
        .state.flaws.filter((flaw) => flaw.flaw.defect === "rough_top")
        .map((flaw) => flaw.flaw.jars),
    ).toEqual([2, 1]);
  });

  it("are released once they are set, cured and inspected, and what stands in the way is said", () => {
    const { batch, product, asked, put } = poured();
    const blocks = (minute: number) => releaseBlocks(batch.state(at(minute)).plan, batch.state(at(minute)).state, at(minute));
    expect(blocks(60)).toEqual(["it is still setting", "it is not inspected"]);
    expect(blocks(2 * DAY)).toEqual(["it is below the minimum cure", "it is not inspected"]);
    expect(asked({ kind: "released", payload: { note: "" } }, 2 * DAY)?.message).toMatch(/minimum cure; it is not inspected/);
    put({ kind: "jarsInspected", payload: { product, jars: 10, flaws: [] } }, 2 * DAY);
    put({ kind: "inspected", payload: { jars: 10 } }, 2 * DAY);
    expect(blocks(10 * DAY)).toEqual([]);
    put({ kind: "released", payload: { note: "" } }, 10 * DAY);
    expect(batch.state(at(10 * DAY)).state.released?.at).toBe(at(10 * DAY));
  });

  it("keep where they stood, how warm it was, how they smelled, and whether a repair held", () => {
    const { batch, product, asked, put } = poured();
    put({ kind: "located", payload: { shelf: "window", sun: true, draft: false } }, 60);
    put({ kind: "located", payload: { shelf: "cellar", sun: false, draft: false } }, 120);
    put({ kind: "room", payload: { mean: 1_950, low: 1_800, high: 2_200, readings: 144 } }, 130);
    put({ kind: "smelled", payload: { score: 3, room: "bath" } }, DAY);
    const repair = put({ kind: "repaired", payload: { product, defect: "rough_top", jars: 4, how: "heat gun", mg: null } }, DAY);
    expect(asked({ kind: "repairChecked", payload: { repair: repair.id, held: 5 } })?.field).toBe("held");
    put({ kind: "repairChecked", payload: { repair: repair.id, held: 3 } }, 2 * DAY);
    expect(asked({ kind: "repaired", payload: { product, defect: "cracked_glass", jars: 1, how: "heat gun", mg: null } })?.message).toMatch(
      /cannot be reworked/,
    );
    const { state } = batch.state(at(3 * DAY));
    expect(state).toMatchObject({ stands: { shelf: "cellar" }, stood: { sun: true, draft: false }, rooms: [{ mean: 1_950 }], smells: [{ score: 3 }] });
    expect(state.repairs).toMatchObject([{ held: 3, checkedAt: at(2 * DAY) }]);
    // The same facts, whether folded one by one or all at once in another order.
    expect(batchOf([...batch.events].reverse()).state).toEqual(state);
  });
});

describe("grades", () => {
  it("go by the worst flaw; a safety flaw is never sold, whatever the workshop sets", () => {
    const most = { ...rough, extent: "most" as const };
    expect(gradeOf([])).toBe("first");
    expect(gradeOf([{ ...rough, extent: "speck" }])).toBe("first");
    expect(gradeOf([rough, { ...rough, extent: "speck" }])).toBe("second");
    expect(gradeOf([{ ...most, defect: "frosting" }])).toBe("first");
    expect(gradeOf([{ ...most, defect: "slump" }, rough])).toBe("melt again");
    const mild = gradingRulesSchema.parse({ ...DEFAULT_GRADES, own: { cracked_glass: "first", sweating: "first", rough_top: "melt again" } });
    expect(gradeOf([crack], mild)).toBe("never sell");
    // Sweating can be dabbed dry: it is held back, and not abandoned.
    expect(gradeOf([{ ...crack, defect: "sweating" }], mild)).toBe("after a recheck");
    expect(gradeOf([{ ...crack, defect: "sweating" }, crack], mild)).toBe("never sell");
    expect(gradeOf([rough], mild)).toBe("melt again");
    // Earlier records say how bad, not how far.
    expect(gradeOf([{ defect: "rough_top", severity: "slight" }])).toBe("first");
    expect(gradeOf([{ defect: "rough_top", severity: "severe" }])).toBe("second");
    expect(gradingRulesSchema.safeParse({ ...DEFAULT_GRADES, own: { rough_top: "never sell" } }).success).toBe(false);
  });
});
