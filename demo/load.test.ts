import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { formulas } from "../web/data/tables/formula";
import { people, workshops } from "../web/data/tables/workshop";
import { listBatches } from "../web/server/batches";
import { type TestDatabase, testDatabase } from "../web/testing/database";
import { loadDemo } from "./load";
import { demoId, WORKSHOP } from "./workshop";

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
  // The demo only goes into a database without a workshop: this file takes one of its own.
  await test.db.execute(sql`create database hearth_test_demo`);
  const url = test.url.replace(/\/[^/]*$/, "/hearth_test_demo");
  await test.pool.end();
  process.env.HEARTH_TEST_DATABASE_URL = url;
  test = await testDatabase();
});
afterAll(() => test.pool.end());

const phases = async (now: Date) =>
  (await listBatches(test.db, WORKSHOP.id, ["pot", "rack", "closed"])).batches
    .map((one) => (one.closed ? "closed" : !one.times ? "pot" : Date.parse(one.times.setAt) > now.getTime() ? "setting" : "curing"))
    .sort();
const MARCH = new Date("2026-03-14T10:00:00Z");
const JUNE = new Date("2026-06-01T22:00:00Z");

describe("the demo", () => {
  it("always has something in the pot, setting, curing and closed, on whatever day it is loaded", async () => {
    await loadDemo(test.url, MARCH);
    expect(await phases(MARCH)).toEqual(["closed", "curing", "curing", "pot", "pot", "pot", "setting"]);
    // Loaded anew on a later day, as nobody has touched it.
    await loadDemo(test.url, JUNE);
    expect(await phases(JUNE)).toEqual(["closed", "curing", "curing", "pot", "pot", "pot", "setting"]);
  });

  it("is left alone once somebody has worked in it", async () => {
    await test.db
      .update(formulas)
      .set({ name: "Mine", updatedAt: "2026-06-01T23:00:00Z" })
      .where(sql`id = ${demoId(6, 1)}`);
    await loadDemo(test.url, new Date("2026-07-01T10:00:00Z"));
    expect(
      (
        await test.db
          .select()
          .from(formulas)
          .where(sql`id = ${demoId(6, 1)}`)
      )[0]?.name,
    ).toBe("Mine");
  });

  it("does not come into a database that has a workshop of its own", async () => {
    await test.db.delete(workshops);
    await test.db.insert(workshops).values({ id: demoId(99, 1), name: "Own", massUnit: "oz", temperatureUnit: "F", timeZone: "UTC" });
    await loadDemo(test.url, JUNE);
    expect(await test.db.select().from(people)).toEqual([]);
  });
});
