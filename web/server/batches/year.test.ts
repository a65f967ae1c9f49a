import { sql } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { products } from "@/data/tables/product";
import { appendEvent } from "@/server/events/batch-store";
import { saveLot } from "@/server/inventory/commands";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { recordPastBatch } from "./commands";
import { yearMonths } from "./year";

inStoredWorkshop();

const workshop = () => ({ id: workshopId, timeZone: "America/Chicago" });
const NOW = "2097-01-01T00:00:00.000Z";

/** A batch of ten poured on a day of 2025, with 127 g of wax weighed and what was seen. */
async function pourOn(startedAt: string, flawed = 0): Promise<string> {
  const minute = (minutes: number) => new Date(Date.parse(startedAt) + minutes * 60_000).toISOString();
  const flaws = flawed > 0 ? [{ defect: "wet_spot", place: "side" as const, extent: "patch" as const, product: stored.vessel, jars: flawed }] : [];
  const { id } = value(
    await recordPastBatch(here(), {
      wanted: {
        batchId: v7(),
        formulaVersionIds: [stored.version],
        process: "formula",
        products: [{ id: stored.vessel, container: "vessel", count: 10, wick: null }],
        sparePpm: 0,
        waxScale: stored.scale,
        oilScale: stored.scale,
        startedAt,
      },
      past: {
        steps: [
          { prompt: `weigh:0:${stored.wax}`, at: minute(5), value: 127_000 },
          { prompt: "pour", at: minute(70), value: null },
        ],
        filled: [{ product: stored.vessel, count: 10 }],
        thermometerId: null,
        leftMg: null,
        roomCelsius: null,
        warmed: null,
        inspection: { at: minute(2_000), flaws },
        remark: "",
      },
    }),
  );
  return id;
}
const enter = (batchId: string, kind: string, payload: object, happenedAt: string) =>
  appendEvent(test.db, workshopId, batchId, { id: v7(), kind, payload, happenedAt, personId: null, instrumentId: null, corrects: null } as never, NOW);

describe("the year", () => {
  it("counts what was poured, wasted, worked and spent in the workshop's own months", async () => {
    value(
      await saveLot(here(), {
        id: v7(),
        kind: "wax",
        materialId: stored.wax,
        expectedVersion: null,
        code: "A",
        amount: 1_000_000,
        cost: 1_000,
        receivedOn: "2025-01-01",
      }),
    );
    await test.db
      .insert(products)
      .values({ workshopId, id: v7(), name: "Cup", formulaId: stored.formula, container: "vessel", containerId: stored.vessel, handsSeconds: 360 });
    // Late on the last of March in Chicago it is April already in Greenwich.
    await pourOn("2025-04-01T02:00:00.000Z");
    const april = await pourOn("2025-04-10T15:00:00.000Z", 2);
    expect(
      await enter(april, "statusChanged", { product: stored.vessel, jars: 2, from: "rack", to: "melted", whom: "" }, "2025-05-02T15:00:00.000Z"),
    ).toMatchObject({ ok: true });
    expect(await enter(april, "transferred", { pot: 0, how: "spilt", mg: 12_000, other: null }, "2025-04-10T17:00:00.000Z")).toMatchObject({ ok: true });
    await pourOn("2024-12-20T15:00:00.000Z");
    const { months, before } = await yearMonths(test.db, workshop(), 2025);
    expect(months).toHaveLength(12);
    const [march, of4, may] = [months[2], months[3], months[4]];
    expect(before).toMatchObject({ month: "2024-12", batches: 1, jars: 10 });
    expect(march).toMatchObject({ batches: 1, jars: 10, laborSeconds: 3_600, materialCost: 127, unpriced: 1 });
    expect(of4).toMatchObject({ batches: 1, jars: 10, remelted: 0, wasteMg: 12_000 });
    expect(of4?.reasons).toEqual([{ why: "wax spilled", times: 1 }]);
    // The jars of April that were remelted in May.
    expect(may).toMatchObject({ batches: 0, remelted: 2, wasteMg: 0 });
    const total = months.reduce((sum, month) => sum + month.jars, 0);
    const { rows } = await test.db.execute<{ jars: number }>(
      sql`select sum(jars)::int jars from outcome where workshop_id = ${workshopId} and poured_at >= '2025-01-01T06:00Z' and poured_at < '2026-01-01T06:00Z'`,
    );
    expect(total).toBe(rows[0]?.jars);
  });

  it("counts jars that are remelted years after their pour in the month in which that was", async () => {
    const old = await pourOn("2021-02-10T15:00:00.000Z");
    expect(
      await enter(old, "statusChanged", { product: stored.vessel, jars: 3, from: "rack", to: "melted", whom: "" }, "2025-06-02T15:00:00.000Z"),
    ).toMatchObject({
      ok: true,
    });
    const { months } = await yearMonths(test.db, workshop(), 2025);
    expect(months[5]).toMatchObject({ month: "2025-06", remelted: 3, batches: 0 });
  });

  it("is empty for a year in which nothing was poured", async () => {
    const { months } = await yearMonths(test.db, workshop(), 1999);
    for (const month of months) expect(Object.values(month).filter((figure) => typeof figure === "number" && figure !== 0)).toEqual([]);
  });
});
