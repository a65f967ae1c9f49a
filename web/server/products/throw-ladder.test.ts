import { type TrialPlan, variantsOf } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { beforeEach, describe, expect, it } from "vitest";
import { batches } from "@/data/tables/batch";
import { products } from "@/data/tables/product";
import { fragrances, vessels, wicks } from "@/data/tables/shelf";
import { trials } from "@/data/tables/trial";
import { beginTrial } from "@/server/burn/commands";
import { appendTo } from "@/server/events/append";
import { trialStore } from "@/server/events/trial-store";
import { labelFacts } from "@/server/sales/label-content";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { pourRung, saveFilledRooms } from "./throw-commands";
import { throwLadder } from "./throw-ladder";

inStoredWorkshop();

const [product, wick] = [v7(), v7()];
const workshop = () => ({ id: workshopId, rooms: "" });

beforeEach(async () => {
  await test.db.insert(fragrances).values({ workshopId, id: v7(), name: "faint moss", kind: "fragrance", strength: "faint" });
  await test.db.insert(wicks).values({ workshopId, id: wick, name: "cord five", kind: "flat-braid cotton", size: "5" });
  await test.db
    .insert(products)
    .values({ workshopId, id: product, name: "Orchard cup", formulaId: stored.formula, container: "vessel", containerId: stored.vessel, wickId: wick });
});

const trialOf = async (id: string) =>
  (
    await test.db
      .select()
      .from(trials)
      .where(and(eq(trials.workshopId, workshopId), eq(trials.id, id)))
  )[0];

describe("the next rung of a product's throw", () => {
  it("is poured as a trial with one press: two as it is, two with the one change, and twice is once", async () => {
    const ladder = await throwLadder(test.db, workshop(), product);
    expect(ladder?.rungs).toEqual([]);
    const [choice] = ladder?.choices ?? [];
    expect(choice).toBeDefined();
    const asked = { trialId: v7(), productId: product, choice: choice?.value ?? "" };
    const begun = value(await pourRung(here(), asked));
    const row = await trialOf(begun.id);
    const plan = row?.plan as TrialPlan;
    expect(variantsOf(plan)).toHaveLength(2);
    expect(plan.testCandles).toHaveLength(4);
    const differing = (["loadPpm", "wax", "scent", "vessel"] as const).filter((key) => new Set(plan.testCandles.map((candle) => candle[key])).size > 1);
    expect(differing).toHaveLength(1);
    const many = await test.db.$count(batches, eq(batches.workshopId, workshopId));
    expect(value(await pourRung(here(), asked)).id).toBe(begun.id);
    expect(await test.db.$count(batches, eq(batches.workshopId, workshopId))).toBe(many);
  });

  it("is refused where it is not the next one any more, and pours nothing", async () => {
    const many = await test.db.$count(batches, eq(batches.workshopId, workshopId));
    expect(await pourRung(here(), { trialId: v7(), productId: product, choice: "load 123" })).toMatchObject({
      ok: false,
      fields: { choice: expect.anything() },
    });
    expect(await test.db.$count(batches, eq(batches.workshopId, workshopId))).toBe(many);
  });

  it("goes on with what its scores brought, and fills the rooms that they say", async () => {
    const strong = v7();
    await test.db.insert(fragrances).values({ workshopId, id: strong, name: "resin", kind: "fragrance", strength: "strong" });
    const candle = {
      from: "make" as const,
      formulaVersionId: stored.version,
      container: "vessel" as const,
      containerId: stored.vessel,
      wick: { id: wick, count: 1 },
      testCandles: 1,
      half: false,
    };
    const trialId = v7();
    value(
      await beginTrial(here(), {
        trialId,
        name: "loads",
        varies: "load",
        protocol: { name: "short", sessions: [{ checks: [60], minutes: 120 }], restHours: 8, least: 1, toEnd: false },
        productId: product,
        after: null,
        variants: [
          { ...candle, change: { loadPpm: 60_000 } },
          { ...candle, change: { loadPpm: 100_000 } },
        ],
      }),
    );
    const row = await trialOf(trialId);
    const [a, b] = row ? (row.plan as TrialPlan).testCandles.map((item) => item.key) : [];
    const at = (minute: number) => new Date(Date.parse("2026-02-01T10:00:00.000Z") + minute * 60_000).toISOString();
    const enter = (kind: string, payload: object, minute: number) =>
      appendTo(
        trialStore,
        test.db,
        workshopId,
        trialId,
        { id: v7(), kind, payload, happenedAt: at(minute), personId: null, instrumentId: null, corrects: null } as never,
        at(500),
      );
    const score = (testCandle: string | undefined, room: string, n: number, minute: number) =>
      enter("throwScored", { testCandle, throw: "hot", room, score: n }, minute);
    for (const outcome of [
      await score(a, "bedroom", 5, 1),
      await score(b, "bedroom", 7.5, 2),
      await score(b, "living room", 6, 3),
      await enter("codesRevealed", {}, 4),
    ])
      expect(outcome).toMatchObject({ ok: true });
    const ladder = await throwLadder(test.db, workshop(), product);
    expect(ladder?.rungs.map((rung) => [rung.loadPpm, rung.mean, rung.after?.changed ?? null])).toEqual([
      [60_000, 5, null],
      [100_000, 6.75, "loadPpm"],
    ]);
    expect(ladder?.filled).toEqual(["bedroom"]);
    // The strong oil stands first among those that can be tried.
    expect(ladder).toMatchObject({ next: { id: "oil" }, choices: [{ value: strong }, {}] });
  });

  it("keeps the rooms that it fills, and tells buyers only if asked to", async () => {
    value(await saveFilledRooms(here(), { productId: product, rooms: ["bedroom", "bedroom"], isTold: false }));
    const facts = async () => (await labelFacts(test.db, { id: workshopId, timeZone: "UTC", locale: "en-GB" }, { productId: product, batchId: null }))?.rooms;
    expect(await facts()).toEqual([]);
    value(await saveFilledRooms(here(), { productId: product, rooms: ["bedroom"], isTold: true }));
    expect(await facts()).toEqual(["bedroom"]);
    expect((await throwLadder(test.db, workshop(), product))?.product.fillsRooms).toEqual({ rooms: ["bedroom"], isTold: true });
  });

  it("offers a larger vessel only with a wick that suits it", async () => {
    const large = v7();
    await test.db.insert(vessels).values({
      workshopId,
      id: large,
      name: "large tumbler",
      material: "heat-safe glass",
      statedFillMg: 300_000,
      workingFillMg: 300_000,
      innerTopUm: 80_000,
      innerBottomUm: 80_000,
      heightUm: 100_000,
    });
    // The other rungs are tried: only the vessel is left. Of one whose size nobody measured no wick follows.
    await test.db.update(fragrances).set({ archived: true }).where(eq(fragrances.workshopId, workshopId));
    await test.db.update(wicks).set({ fromUm: 70_000, toUm: 90_000 }).where(eq(wicks.workshopId, workshopId));
    const offered = async () => (await throwLadder(test.db, workshop(), product))?.choices.map((choice) => choice.value);
    expect(await offered()).toEqual([large]);
    await test.db.update(vessels).set({ sizeEstimated: true }).where(eq(vessels.id, large));
    expect(await offered()).not.toContain(large);
    const ladder = await throwLadder(test.db, workshop(), product);
    for (const choice of ladder?.choices ?? []) if ("containerId" in choice.change) expect(choice.change.wickId).not.toBeNull();
  });
});
