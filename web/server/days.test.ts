import { addDays, timeOn } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it, vi } from "vitest";
import { batches } from "../data/tables/batch";
import { orders } from "../data/tables/goods";
import { workshops } from "../data/tables/workshop";
import { inStoredWorkshop, stored, test, workshopId } from "../testing/stored-workshop";
import { isSoon } from "./orders";
import { searchRecord } from "./trace";

vi.mock("next/headers", () => import("../testing/headers"));
vi.mock("next/cache", () => import("../testing/cache"));
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

describe("what is asked for by a day", () => {
  it.each(ZONES)("is of the workshop's day in %s: batches by when they were started or poured, orders that are soon", async (timeZone) => {
    await test.db.update(workshops).set({ timeZone }).where(eq(workshops.id, workshopId));
    const workshop = { id: workshopId, timeZone };
    const set = async (at: { startedAt: string; pouredAt: string | null }) =>
      void (await test.db
        .update(batches)
        .set(at)
        .where(and(eq(batches.workshopId, workshopId), eq(batches.id, stored.batch))));
    const found = async (day: string) => (await searchRecord(test.db, workshop, day)).batches.length;
    const order = { workshopId, id: v7(), number: 1, what: "order" as const, name: "Rill", stage: "open" as const, plan: {} as never, facts: {} as never };
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
          for (const one of [-3, -2, -1, 0, 1].map((days) => addDays(day, days)))
            expect(await found(one), `${one} where it was ${at} in ${timeZone}`).toBe((days as readonly string[]).includes(one) ? 1 : 0);
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
});
