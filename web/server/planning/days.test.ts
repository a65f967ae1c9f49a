import { addDays, timeOn } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it, vi } from "vitest";
import { batches } from "@/data/tables/batch";
import { orderPacks, orders, packRuns } from "@/data/tables/sales";
import { lots, stockCounts } from "@/data/tables/stock";
import { workshops } from "@/data/tables/workshop";
import { readStocks } from "@/server/inventory/shelf";
import { searchRecord } from "@/server/inventory/trace";
import { isSoon } from "@/server/sales/orders";
import { salesByMonth, salesRows } from "@/server/sales/sales";
import { inStoredWorkshop, stored, test, workshopId } from "@/testing/stored-workshop";

vi.mock("next/headers", () => import("@/testing/headers"));
vi.mock("next/cache", () => import("@/testing/cache"));
inStoredWorkshop();

/** From −11 to +14 hours, with half and three quarter hours, and days on which clocks are changed. */
const ZONES = [
  "Pacific/Pago_Pago",
  "America/Los_Angeles",
  "America/St_Johns",
  "UTC",
  "Europe/Vienna",
  "Asia/Kathmandu",
  "Australia/Lord_Howe",
  "Pacific/Auckland",
  "Pacific/Kiritimati",
];
const DAYS = ["2026-03-14", "2026-03-29", "2026-10-25", "2026-11-01", "2026-12-31"];

describe("what is asked by a day", () => {
  it.each(ZONES)("is of the workshop's day in %s: batches by when they were started or poured, orders that are soon", async (timeZone) => {
    await test.db.update(workshops).set({ timeZone }).where(eq(workshops.id, workshopId));
    const workshop = { id: workshopId, timeZone };
    const set = async (at: { startedAt: string; pouredAt: string | null }) =>
      void (await test.db
        .update(batches)
        .set(at)
        .where(and(eq(batches.workshopId, workshopId), eq(batches.id, stored.batch))));
    const found = async (day: string) => (await searchRecord(test.db, workshop, day, new Date().toISOString())).batches.length;
    const order = { workshopId, id: v7(), number: 1, what: "order" as const, name: "Rill", stage: "open" as const, plan: {} as never, state: {} as never };
    await test.db.insert(orders).values({ ...order, wantedOn: "2026-01-01", startedAt: "2026-01-01T00:00:00Z", lastAt: "2026-01-01T00:00:00Z" });
    for (const day of DAYS)
      for (const minutes of [0, 30, 11 * 60, 23 * 60 + 59]) {
        const at = new Date(timeOn(day, minutes, timeZone)).toISOString();
        const earlier = new Date(timeOn(addDays(day, -2), 600, timeZone)).toISOString();
        for (const [times, days] of [
          [{ startedAt: at, pouredAt: null }, [day]],
          [{ startedAt: earlier, pouredAt: at }, [day, addDays(day, -2)]],
        ] as const) {
          await set(times);
          for (const asked of [-3, -2, -1, 0, 1].map((days) => addDays(day, days)))
            expect(await found(asked), `${asked} where it was ${at} in ${timeZone}`).toBe((days as readonly string[]).includes(asked) ? 1 : 0);
        }
        for (const [away, soon] of [
          [0, 1],
          [3, 1],
          [4, 0],
        ] as const) {
          await test.db
            .update(orders)
            .set({ wantedOn: addDays(day, away) })
            .where(eq(orders.workshopId, workshopId));
          expect(await test.db.$count(orders, isSoon(workshop, at)), `${away} days after ${at} in ${timeZone}`).toBe(soon);
        }
      }
  });

  it.each(ZONES)("is of the workshop's day in %s: sales by day and month, deliveries that a count follows", async (timeZone) => {
    await test.db.update(workshops).set({ timeZone }).where(eq(workshops.id, workshopId));
    const [orderId, packRunId, sellableId, lotId, materialId, countId] = [v7(), v7(), v7(), v7(), v7(), v7()];
    const start = "2026-01-01T00:00:00Z";
    const order = { workshopId, id: orderId, number: 1, what: "market" as const, name: "Quay", stage: "open" as const, plan: {} as never, state: {} as never };
    await test.db.insert(orders).values({ ...order, startedAt: start, lastAt: start });
    await test.db.insert(packRuns).values({ workshopId, id: packRunId, sellableId, name: "Rill", packs: 1, at: start, pouredAt: start });
    const sale = {
      workshopId,
      orderId,
      packRunId,
      sellableId,
      name: "Rill",
      what: "market" as const,
      out: 1,
      sold: 1,
      given: 0,
      second: 0,
      back: 0,
      money: 900,
    };
    await test.db.insert(orderPacks).values({ ...sale, at: start });
    await test.db.insert(lots).values({ workshopId, id: lotId, materialId, kind: "wax", code: "day", amount: 7, receivedOn: "2026-01-01" });
    await test.db.insert(stockCounts).values({ workshopId, id: countId, materialId, amount: 5, at: start });
    for (const day of DAYS)
      for (const minutes of [0, 30, 11 * 60, 23 * 60 + 59]) {
        const at = new Date(timeOn(day, minutes, timeZone)).toISOString();
        await test.db.update(orderPacks).set({ at }).where(eq(orderPacks.workshopId, workshopId));
        expect(
          (await salesRows(test.db, workshopId, {})).map((row) => row.day),
          `${at} in ${timeZone}`,
        ).toEqual([day]);
        expect((await salesByMonth(test.db, workshopId, timeZone, "2020-01-01T00:00:00Z")).map((row) => row.month)).toEqual([day.slice(0, 7)]);
        for (const [from, to, there] of [
          [day, day, 1],
          [addDays(day, 1), addDays(day, 9), 0],
          [addDays(day, -9), addDays(day, -1), 0],
        ] as const)
          expect(await salesRows(test.db, workshopId, { from, to }), `${from} to ${to} for ${at} in ${timeZone}`).toHaveLength(there);
        // A count on the day of a delivery has it within; a delivery of the next day comes on top.
        await test.db.update(stockCounts).set({ at }).where(eq(stockCounts.id, countId));
        for (const [receivedOn, onHand] of [
          [day, 5],
          [addDays(day, 1), 12],
        ] as const) {
          await test.db.update(lots).set({ receivedOn }).where(eq(lots.id, lotId));
          expect((await readStocks(test.db, workshopId, timeZone, [materialId]))[materialId]?.onHand, `${receivedOn} counted ${at} in ${timeZone}`).toBe(
            onHand,
          );
        }
      }
  });
});
