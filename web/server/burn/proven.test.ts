import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { formulaVersions } from "@/data/tables/formula";
import { products } from "@/data/tables/product";
import { waxes, wicks } from "@/data/tables/shelf";
import { appendTo } from "@/server/events/append";
import { trialStore } from "@/server/events/trial-store";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { beginTrial } from "./commands";
import { provenGrid } from "./proven";

inStoredWorkshop();

describe("what is proven in a workshop", () => {
  it("is what a full candle passed; what is on sale without a pass stands first, and two tests are chosen for it", async () => {
    const [four, five, six] = [v7(), v7(), v7()];
    await test.db
      .insert(wicks)
      .values([four, five, six].map((id, n) => ({ workshopId, id, name: `cord ${n + 4}`, kind: "flat-braid cotton", size: String(n + 4) })));
    const sold = (name: string, wickId: string) => ({
      workshopId,
      id: v7(),
      name,
      formulaId: stored.formula,
      container: "vessel" as const,
      containerId: stored.vessel,
      wickId,
    });
    await test.db.insert(products).values([sold("Cup with four", four), sold("Cup with five", five), sold("Cup with six", six)]);
    const before = await provenGrid(test.db, workshopId);
    expect(before.onSale.map((line) => line.status)).toEqual(["unproven", "unproven", "unproven"]);
    expect(before.best).toMatchObject({ tests: [{}, {}], covered: 2 });
    const trialId = v7();
    value(
      await beginTrial(here(), {
        trialId,
        name: "four and five",
        varies: "wick size",
        protocol: { name: "short", sessions: [{ checks: [60], minutes: 120 }], restHours: 8, least: 1, toEnd: false },
        productId: null,
        after: null,
        variants: [four, five].map((id) => ({
          ...{ from: "make" as const, formulaVersionId: stored.version, container: "vessel" as const, containerId: stored.vessel },
          ...{ wick: { id, count: 1 }, testCandles: 1, half: false, change: {} },
        })),
      }),
    );
    const decide = (variant: string, verdict: string) =>
      appendTo(
        trialStore,
        test.db,
        workshopId,
        trialId,
        {
          id: v7(),
          kind: "decided",
          payload: { variant, verdict, why: "" },
          happenedAt: "2026-12-01T00:00:00.000Z",
          personId: null,
          instrumentId: null,
          corrects: null,
        } as never,
        "2097-01-01T00:00:00.000Z",
      );
    expect(await decide("A", "passed")).toMatchObject({ ok: true });
    expect(await decide("B", "failed")).toMatchObject({ ok: true });
    const after = await provenGrid(test.db, workshopId);
    expect(after.lines.map((line) => [line.product?.name, line.status]).sort()).toEqual([
      ["Cup with five", "failed"],
      ["Cup with four", "proven"],
      ["Cup with six", "unproven"],
    ]);
    // What failed stands before what was never burned.
    expect(after.onSale.map((line) => line.product?.name)).toEqual(["Cup with five", "Cup with six"]);
    expect(after.best.tests.map((line) => line.product?.name)).toEqual(["Cup with six"]);
    // Half a point more load is the same candle, two points are not.
    await test.owner.query("update burn_outcome set load_ppm = load_ppm + 9000 where workshop_id = $1", [workshopId]);
    const near = await provenGrid(test.db, workshopId);
    expect(near.lines.find((line) => line.product?.name === "Cup with four")?.status).toBe("inferred");
  });

  it("knows a product of a blend of the shelf, and of a load of the whole, among what was burned of it", async () => {
    const [other, blend, wick] = [v7(), v7(), v7()];
    await test.db.insert(wicks).values({ workshopId, id: wick, name: "cord 4", kind: "flat-braid cotton", size: "4" });
    await test.db.insert(waxes).values([
      { workshopId, id: other, name: "hive", family: "beeswax" },
      {
        workshopId,
        id: blend,
        name: "shed blend",
        family: "soy",
        maxLoadPpm: 200_000,
        blend: [
          { id: stored.wax, share: 80 },
          { id: other, share: 20 },
        ],
      },
    ]);
    const mine = and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, stored.version));
    const [version] = await test.db.select().from(formulaVersions).where(mine);
    await test.db
      .update(formulaVersions)
      .set({ spec: { ...(version?.spec as object), waxes: [{ id: blend, share: 1 }], basis: "total", loadPpm: 90_000 } })
      .where(mine);
    await test.db
      .insert(products)
      .values({ workshopId, id: v7(), name: "Blended cup", formulaId: stored.formula, container: "vessel", containerId: stored.vessel, wickId: wick });
    const trialId = v7();
    const candle = { from: "make" as const, formulaVersionId: stored.version, container: "vessel" as const, containerId: stored.vessel };
    value(
      await beginTrial(here(), {
        ...{ trialId, name: "blend", varies: null, productId: null, after: null },
        protocol: { name: "short", sessions: [{ checks: [60], minutes: 120 }], restHours: 8, least: 1, toEnd: false },
        variants: [{ ...candle, wick: { id: wick, count: 1 }, testCandles: 1, half: false, change: {} }],
      }),
    );
    await test.owner.query("update burn_outcome set decided = 'passed' where workshop_id = $1", [workshopId]);
    const { lines } = await provenGrid(test.db, workshopId);
    expect(lines).toMatchObject([{ product: { name: "Blended cup" }, status: "proven", wax: "80 % test soy + 20 % hive" }]);
  });
});
