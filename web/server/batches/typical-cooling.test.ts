import { v7 } from "uuid";
import { expect, it } from "vitest";
import { appendEvent } from "@/server/events/batch-store";
import { STARTED } from "@/testing/stored-batch";
import { inStoredWorkshop, stored, test, workshopId } from "@/testing/stored-workshop";
import { typicalCooling } from "./typical-cooling";

inStoredWorkshop();

it("how pots cool here is learned from those that were poured, and from none before", async () => {
  const at = (minute: number) => new Date(Date.parse(STARTED) + minute * 60_000).toISOString();
  const put = async (minute: number, body: Parameters<typeof stored.sent>[0]) =>
    expect(await appendEvent(test.db, workshopId, stored.batch, stored.sent(body, { id: v7(), happenedAt: at(minute) }), at(minute))).toMatchObject({
      ok: true,
    });
  expect(await typicalCooling(test.db, workshopId)).toBeNull();
  await put(1, { kind: "weighed", payload: { pot: 0, componentId: stored.wax, mg: 127_000 } });
  for (const [minute, celsius] of [
    [10, 80],
    [15, 75.4],
    [20, 71.2],
    [25, 67.3],
    [30, 63.7],
  ] as const)
    await put(minute, { kind: "read", payload: { step: "cool", shown: celsius * 100, correction: 0 } });
  // What still cools tells nothing yet.
  expect(await typicalCooling(test.db, workshopId)).toBeNull();
  await put(31, { kind: "poured", payload: { step: "pour", filled: [], leftMg: null, roomCelsius: 2_100, warmed: null } });
  const typical = await typicalCooling(test.db, workshopId);
  // 140 g that fall 16 °C in 20 minutes keep the heat better than is assumed: 85 minutes for a kilogram.
  expect(typical?.minutes).toBeGreaterThan(85);
  expect(typical?.spread).toBeLessThan(0.47);
  // Read again it is the same.
  expect(await typicalCooling(test.db, workshopId)).toEqual(typical);
});
