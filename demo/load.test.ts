import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { formulas } from "../web/data/tables/formula";
import { people, workshops } from "../web/data/tables/workshop";
import { listBatches } from "../web/server/batches/batches";
import { waxScoreboard } from "../web/server/findings/scoreboard";
import { type TestDatabase, testDatabase } from "../web/testing/database";
import { loadDemo } from "./load";
import { NOTES_WORKSHOP } from "./notebook";
import { demoId, WORKSHOP } from "./workshop";

let test: TestDatabase;
beforeAll(async () => {
  // The demo only goes into a database without a workshop.
  test = await testDatabase("hearth_test_demo");
});
afterAll(() => test.pool.end());

/** How many batches stand where. */
async function phases(now: Date) {
  const all: Awaited<ReturnType<typeof listBatches>>["batches"] = [];
  for (let after: string | undefined; ; ) {
    const page = await listBatches(test.db, WORKSHOP.id, ["pot", "rack", "closed", "abandoned"], { after });
    all.push(...page.batches);
    if (!page.older) break;
    after = page.older;
  }
  const phase = (item: (typeof all)[number]) =>
    item.abandoned ? "abandoned" : item.closed ? "closed" : !item.times ? "pot" : Date.parse(item.times.setAt) > now.getTime() ? "setting" : "curing";
  const out: Record<"pot" | "setting" | "curing" | "closed" | "abandoned", number> = { pot: 0, setting: 0, curing: 0, closed: 0, abandoned: 0 };
  for (const item of all) out[phase(item)] += 1;
  const byTime = [...all].sort((a, b) => a.startedAt.localeCompare(b.startedAt));
  return { ...out, numbered: byTime.every((item, index) => item.number === index + 1), flawed: all.filter((item) => item.flaws > 0).length };
}
const MARCH = new Date("2026-03-14T10:00:00Z");
const JUNE = new Date("2026-06-01T22:00:00Z");

describe("the demo", () => {
  it("always has something in the pot, setting, curing and closed, on whatever day it is loaded", async () => {
    await loadDemo(test.ownerUrl, MARCH);
    const march = await phases(MARCH);
    // About sixty of three months, good and bad, numbered by time.
    expect(march).toMatchObject({ pot: 3, numbered: true, abandoned: expect.any(Number) });
    expect(march.setting).toBeGreaterThan(0);
    expect(march.curing).toBeGreaterThan(1);
    expect(march.closed).toBeGreaterThan(40);
    expect(march.flawed).toBeGreaterThan(10);
    // Loaded anew on a later day, as nobody has touched it.
    await loadDemo(test.ownerUrl, JUNE);
    expect(await phases(JUNE)).toEqual(march);
  });

  it("has a second workshop that began from notes, which stays when the first is loaded anew", async () => {
    const noted = () => listBatches(test.db, NOTES_WORKSHOP.id, ["closed"], {});
    const { batches: some } = await noted();
    expect(some.length).toBeGreaterThan(10);
    expect(some.every((batch) => batch.fromNotes && batch.onRack >= 0)).toBe(true);
    const [soy, ...others] = (await waxScoreboard(test.db, { id: NOTES_WORKSHOP.id, rooms: "" })).lines.sort((a, b) => b.batches - a.batches);
    expect(soy).toMatchObject({ wax: "barn soy", fromNotes: soy?.batches });
    expect(others.map((line) => line.wax)).toEqual(["prairie coconut"]);
    // What the sheet was made to say is found in it.
    expect(soy?.smoothTops?.high).toBeLessThan(others[0]?.smoothTops?.low ?? 0);
    await loadDemo(test.ownerUrl, new Date("2026-06-03T22:00:00Z"));
    expect((await noted()).batches.map((batch) => batch.id)).toEqual(some.map((batch) => batch.id));
    await loadDemo(test.ownerUrl, JUNE);
  });

  it("is left alone once somebody has worked in it", async () => {
    await test.db
      .update(formulas)
      .set({ name: "Mine", updatedAt: "2026-06-01T23:00:00Z" })
      .where(sql`id = ${demoId(6, 1)}`);
    await loadDemo(test.ownerUrl, new Date("2026-07-01T10:00:00Z"));
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
    await test.owner.query("delete from workshop");
    await test.db.insert(workshops).values({ id: demoId(99, 1), name: "Own", massUnit: "oz", temperatureUnit: "F", timeZone: "UTC" });
    await loadDemo(test.ownerUrl, JUNE);
    expect(await test.db.select().from(people)).toEqual([]);
  });
});
