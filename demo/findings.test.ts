import { clusteredShare, DEFECTS, METRIC, readPlan, sumsOf } from "@hearth/core";
import { eq, sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Database } from "../web/data/client";
import { batches } from "../web/data/tables/batch";
import { outcomeFlaws, outcomes } from "../web/data/tables/finding";
import { throwScores } from "../web/server/burn/throw-scores";
import { compareBatches } from "../web/server/findings/compare-batches";
import { compareGroups } from "../web/server/findings/compare-groups";
import { diagnoseBatch } from "../web/server/findings/diagnosis";
import { curveOf, findingsOf, flawRates, historyOf } from "../web/server/findings/findings";
import { pourFinding } from "../web/server/findings/pour-finding";
import { runChart } from "../web/server/findings/run-charts";
import { askedPeriod, type Period } from "../web/server/http/period";
import { lotTrace, searchRecord } from "../web/server/inventory/trace";
import { type TestDatabase, testDatabase } from "../web/testing/database";
import { putDemo } from "./load";
import { demoId } from "./workshop";

/** Nine months of a busy workshop, in which hot pours make rough tops, and cold jars in a cold shed wet spots. */
const NOW = "2026-03-14T14:20:00.000Z";
const SHED = "0190c0de-0000-7000-8000-0000000000f1";
let test: TestDatabase;
let db: Database;
beforeAll(async () => {
  test = await testDatabase();
  db = test.db;
  await putDemo(db, { id: SHED, name: "Nine months" }, new Date(NOW), { many: 260, days: 270, times: 2 });
}, 120_000);
afterAll(() => test.pool.end());

describe("findings of a made-up workshop", () => {
  it("count what was looked at, flaw by flaw, as counting every batch by hand does", async () => {
    const rows = await db.select().from(outcomes).where(eq(outcomes.workshopId, SHED));
    const flaws = await db.select().from(outcomeFlaws).where(eq(outcomeFlaws.workshopId, SHED));
    const looked = new Set(rows.filter((row) => row.looked).map((row) => `${row.batchId}${row.product}`));
    const jars = rows.filter((row) => row.looked).reduce((sum, row) => sum + row.jars, 0);
    const rough = flaws.filter((flaw) => flaw.defect === "rough_top" && looked.has(`${flaw.batchId}${flaw.product}`)).reduce((sum, item) => sum + item.jars, 0);
    expect((await flawRates(db, SHED)).find((flawRate) => flawRate.defect === "rough_top")).toMatchObject({ jars: rough, of: jars });
    const above = rows.filter((row) => row.looked && row.pourSide === 1);
    const hot = flaws.filter((flaw) => flaw.defect === "rough_top" && above.some((row) => row.batchId === flaw.batchId && row.product === flaw.product));
    const history = await historyOf(db, SHED, "rough_top", "pour");
    expect(history?.levels.find((level) => level.level === "above the range")).toMatchObject({
      n: above.reduce((sum, row) => sum + row.jars, 0),
      k: hot.reduce((sum, item) => sum + item.jars, 0),
    });
  });

  it("say at the pot above which temperature batches of the same wax turned out worst, as counting them by hand does", async () => {
    const rows = (await db.select().from(outcomes).where(eq(outcomes.workshopId, SHED))).filter((row) => row.looked && row.jars > 0 && row.pourC !== null);
    const flaws = await db.select().from(outcomeFlaws).where(eq(outcomeFlaws.workshopId, SHED));
    let told = 0;
    for (const wax of new Set(rows.map((row) => row.wax))) {
      const [row] = rows.filter((each) => each.wax === wax);
      const [batch] = row ? await db.select().from(batches).where(eq(batches.id, row.batchId)) : [];
      const finding = batch && (await pourFinding(db, SHED, readPlan(batch.plan)));
      if (!finding) continue;
      told += 1;
      expect(finding.wax).toBe(wax);
      const defect = DEFECTS.find((known) => known.name === finding.flaw)?.id;
      const side = rows.filter((each) => each.wax === wax && Math.round(each.pourC ?? 0) > finding.at === (finding.worse === "above"));
      const flawed = side.reduce(
        (sum, each) =>
          sum + Math.min(each.jars, flaws.find((flaw) => flaw.defect === defect && flaw.batchId === each.batchId && flaw.product === each.product)?.jars ?? 0),
        0,
      );
      expect([finding.flawed, finding.of]).toEqual([flawed, side.reduce((sum, each) => sum + each.jars, 0)]);
      expect(finding.flawed / finding.of).toBeGreaterThan(finding.otherFlawed / finding.otherOf);
    }
    expect(told, "hot pours make rough tops").toBeGreaterThan(0);
    expect(await pourFinding(db, "0190c0de-0000-7000-8000-0000000000f2", readPlan((await db.select().from(batches).limit(1))[0]?.plan))).toBeNull();
  });

  it("count a batch once, though it filled vessels of two kinds: its jars are alike, and two kinds are no two batches", async () => {
    const flaws = await db.select().from(outcomeFlaws).where(eq(outcomeFlaws.workshopId, SHED));
    const rows = (await db.select().from(outcomes).where(eq(outcomes.workshopId, SHED))).filter((row) => row.looked && row.jars > 0);
    const byHand = new Map<string, Map<string, { n: number; k: number }>>();
    for (const row of rows) {
      const flawed = flaws.find((flaw) => flaw.defect === "rough_top" && flaw.batchId === row.batchId && flaw.product === row.product)?.jars ?? 0;
      const of = byHand.get(row.formula) ?? new Map<string, { n: number; k: number }>();
      const batch = of.get(row.batchId) ?? { n: 0, k: 0 };
      byHand.set(row.formula, of.set(row.batchId, { n: batch.n + row.jars, k: batch.k + Math.min(row.jars, flawed) }));
    }
    const batches = new Set(rows.map((row) => row.batchId)).size;
    expect(rows.length, "some filled two kinds").toBeGreaterThan(batches);
    const found = (await findingsOf(db, SHED, "rough_top")).find((finding) => finding.name === "formula");
    expect(found?.levels.length).toBeGreaterThan(1);
    for (const level of [...(found?.levels ?? []), ...((await historyOf(db, SHED, "rough_top", "formula"))?.levels ?? [])]) {
      const mine = [...(byHand.get(level.level)?.values() ?? [])];
      expect(level, level.level).toMatchObject(sumsOf(mine));
    }
    const curve = await curveOf(db, SHED, "rough_top", "pour_c");
    const measured = new Set(rows.filter((row) => row.formula === curve.formula && row.pourC !== null).map((row) => row.batchId)).size;
    expect(curve.formulas.length).toBeGreaterThan(1);
    expect(curve.doses.reduce((sum, item) => sum + item.batches, 0)).toBe(measured);
    const seen = new Set(
      flaws
        .filter((flaw) => flaw.defect === "rough_top" && rows.some((row) => row.batchId === flaw.batchId && row.product === flaw.product))
        .map((flaw) => flaw.batchId),
    );
    const rate = (await flawRates(db, SHED)).find((flawRate) => flawRate.defect === "rough_top");
    expect(rate?.batches).toBe(seen.size);
    // The likely range counts every batch, those without the flaw too.
    const whole = new Map<string, { n: number; k: number }>();
    for (const batch of [...byHand.values()].flatMap((of) => [...of])) whole.set(batch[0], batch[1]);
    expect(rate).toMatchObject(clusteredShare(sumsOf([...whole.values()])));
  });

  it("find the planted cause, first of all, and say what was never varied", async () => {
    const found = await findingsOf(db, SHED, "rough_top");
    expect(found[0]).toMatchObject({ name: "pour", finding: "differs", together: [] });
    expect(found.find((item) => item.name === "stir")).toMatchObject({ finding: "never varied" });
    const curve = await curveOf(db, SHED, "rough_top", "pour_c");
    expect(curve.why).toBeNull();
    expect(curve.odds?.low).toBeGreaterThan(1);
    // In a cold shed the jars were never warmed: for wet spots each differs, and their own rates say so.
    const wet = await findingsOf(db, SHED, "wet_spot");
    expect(wet.filter((item) => item.finding === "differs").map((item) => item.name)).toEqual(expect.arrayContaining(["room"]));
  });

  it("say that two factors which always changed together cannot be told apart", async () => {
    await db.execute(sql`update outcome set stir_minutes = case when pour_side = 1 then 1 when pour_side = 0 then 2 end where workshop_id = ${SHED}`);
    await db.execute(sql`update outcome set pour_side = null where workshop_id = ${SHED} and pour_side = -1`);
    const found = await findingsOf(db, SHED, "rough_top");
    expect(found.find((item) => item.name === "pour")).toMatchObject({ finding: "differs", together: ["stirring"] });
    expect(found.find((item) => item.name === "stir")).toMatchObject({ finding: "differs", together: ["pour temperature"] });
  });

  it("lead from a flaw of one batch to the cause that its record supports, and what set it apart", async () => {
    const { rows } = await db.execute<{ id: string; number: number; c: number }>(sql`
      select b.id::text, b.number, o.pour_c c from outcome o join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
      join outcome_flaw f on f.workshop_id = o.workshop_id and f.batch_id = o.batch_id and f.defect = 'rough_top'
      where o.workshop_id = ${SHED} order by o.poured_at desc limit 1`);
    const batch = rows[0];
    const why = await diagnoseBatch(db, SHED, batch?.id ?? "", undefined, NOW);
    expect(why?.defect).toBe("rough_top");
    expect(why?.causes[0]).toMatchObject({ verdict: "supported", cause: { key: "pour_c" }, evidence: { measured: batch?.c } });
    expect(why?.change).toMatchObject({ what: "pour_c" });
    expect(why?.change?.to as number).toBeLessThan(batch?.c as number);
    expect(await diagnoseBatch(db, SHED, demoId(0x7f, 1), undefined, NOW)).toBeNull();
  });

  it("are of a time: the parts of it come to the whole, and what differs more stands first", async () => {
    const workshop = { id: SHED, timeZone: "Europe/Vienna" };
    const whole = await findingsOf(db, SHED, "rough_top");
    const jars = (found: typeof whole) => found.find((item) => item.name === "process")?.levels.reduce((sum, item) => sum + item.n, 0) ?? 0;
    const of = async (asked: Parameters<typeof askedPeriod>[2]) => {
      const { period, choice } = await askedPeriod(db, workshop, asked, NOW);
      return { choice, period, jars: jars(await findingsOf(db, SHED, "rough_top", period)) };
    };
    const [thisYear, lastYear, all] = [await of({ when: "this-year" }), await of({ when: "last-year" }), await of({})];
    expect(thisYear.period).toEqual({ from: "2025-12-31T23:00:00.000Z", to: null });
    expect(lastYear.period).toEqual({ from: "2024-12-31T23:00:00.000Z", to: "2025-12-31T23:00:00.000Z" });
    expect(Math.min(thisYear.jars, lastYear.jars)).toBeGreaterThan(0);
    expect(thisYear.jars + lastYear.jars).toBe(all.jars);
    const [before, after] = [await of({ when: "days", to: "2026-01-31" }), await of({ when: "days", from: "2026-02-01" })];
    expect(before.jars + after.jars).toBe(all.jars);
    expect(after.period.from).toBe("2026-01-31T23:00:00.000Z");
    const rates = await Promise.all(
      [before, after, all].map(async (item) => (await flawRates(db, SHED, item.period)).find((rate) => rate.defect === "rough_top")),
    );
    expect((rates[0]?.jars ?? 0) + (rates[1]?.jars ?? 0)).toBe(rates[2]?.jars);
    // Since a formula was changed; an unknown change is all time.
    const { rows } = await db.execute<{ formula_id: string; id: string }>(
      sql`select formula_id::text, id::text from formula_version where workshop_id = ${SHED} limit 1`,
    );
    const [id, createdAt] = ["0190c0de-0000-7000-8000-00000000ff01", "2026-02-01T12:00:00.000Z"];
    await db.execute(sql`
      insert into formula_version (workshop_id, id, formula_id, number, spec, created_at)
      select workshop_id, ${id}, formula_id, 99, spec, ${createdAt} from formula_version where workshop_id = ${SHED} and id = ${rows[0]?.id}`);
    const since = await of({ when: "since", since: id });
    expect(since.choice.changes.find((change) => change.id === id)).toMatchObject({ number: 99, at: createdAt });
    expect(since.period).toEqual({ from: createdAt, to: null });
    expect(since.jars).toBeLessThan(all.jars);
    expect((await of({ when: "since", since: demoId(0x7f, 1) })).choice.name).toBe("all");
    await db.execute(sql`delete from formula_version where workshop_id = ${SHED} and id = ${id}`);
    // The same time for charts, groups and scores.
    const years = [thisYear.period, lastYear.period];
    const counted = async (count: (period: Period) => Promise<number>) => (await Promise.all(years.map(count))).reduce((sum, value) => sum + value, 0);
    expect(await counted(async (period) => (await throwScores(db, SHED, { period })).length)).toBe((await throwScores(db, SHED)).length);
    const batches = (groups: Awaited<ReturnType<typeof compareGroups>>) => groups?.levels.reduce((sum, item) => sum + item.batches, 0) ?? 0;
    expect(await counted(async (period) => batches(await compareGroups(db, SHED, "process", {}, period)))).toBe(
      batches(await compareGroups(db, SHED, "process", {})),
    );
    const newest = await runChart(db, SHED, "pour_c", undefined, thisYear.period);
    expect(newest.points.every((point) => point.at >= (thisYear.period.from ?? ""))).toBe(true);
    for (const flaw of ["rough_top", "wet_spot"]) {
      const differing = (await findingsOf(db, SHED, flaw)).filter((finding) => finding.finding === "differs").map((finding) => finding.difference ?? 0);
      expect(differing.length).toBeGreaterThan(0);
      expect(differing).toEqual([...differing].sort((a, b) => b - a));
    }
  });

  it("set two batches side by side, and say when more than one thing changed", async () => {
    const { rows } = await db.execute<{ number: number; formula: string }>(sql`
      select distinct b.number, o.formula from outcome o join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
      where o.workshop_id = ${SHED} and o.looked order by 1 limit 40`);
    const [item] = rows;
    const other = rows.find((row) => row.formula !== item?.formula);
    const compared = await compareBatches(db, SHED, [item?.number ?? 0, other?.number ?? 0], METRIC);
    expect(compared).toMatchObject({ says: "several things" });
    expect(await compareBatches(db, SHED, [item?.number ?? 0, item?.number ?? 0], METRIC)).toMatchObject({ says: "nothing", changed: 0 });
    expect(await compareBatches(db, SHED, [1, 999_999], METRIC)).toBeNull();
  });

  it("set two groups side by side, and warn of what else is not alike in them", async () => {
    const groups = await compareGroups(db, SHED, "warmed", { a: "warmed", b: "not warmed" });
    expect(groups?.levels.map((level) => level.level).sort()).toEqual(["not warmed", "warmed"]);
    const wet = groups?.flaws.find((flaw) => flaw.defect === "wet_spot");
    expect(wet?.b.k).toBeGreaterThan(wet?.a.k ?? Infinity);
    expect(wet?.shares.low).toBeLessThanOrEqual(wet?.shares.by ?? 0);
    // Hot pours and others are of the same formulas; a formula against another differs in wax and process too.
    const formulas = await compareGroups(db, SHED, "formula", {});
    expect(formulas?.also.map((item) => item.words)).toEqual(expect.arrayContaining(["wax"]));
    expect(await compareGroups(db, SHED, "stir", {})).toMatchObject({ factor: "stir" });
    expect(await compareGroups(db, SHED, "moon", {})).toBeNull();
  });

  it("chart what a maker controls in order of pouring, by the newest batches of a formula", async () => {
    const run = await runChart(db, SHED, "pour_c", undefined);
    expect(run.points.length).toBeGreaterThan(20);
    expect(run.points.map((point) => point.at)).toEqual(run.points.map((point) => point.at).sort());
    expect(run.chart?.mean).toBeGreaterThan(run.chart?.low ?? Infinity);
    expect(run.range?.[0]).toBeLessThan(run.range?.[1] ?? 0);
    expect((await runChart(db, SHED, "fill", undefined)).points.every((point) => Math.abs(point.value - 100) < 3)).toBe(true);
  });
});

describe("the trace", () => {
  it("leads from a lot to every batch that drew on it, in all as much as was drawn, and from a batch to its lots", async () => {
    const lots = (await searchRecord(db, { id: SHED, timeZone: "UTC" }, "container soy", NOW)).lots;
    expect(lots.length).toBeGreaterThan(1);
    const traces = await Promise.all(lots.map((lot) => lotTrace(db, SHED, lot.id, "UTC")));
    const { rows } = await db.execute<{ drawn: string; batches: number }>(
      sql`select sum(amount) drawn, count(*)::int batches from stock_use where workshop_id = ${SHED} and material_id = ${demoId(2, 1)}`,
    );
    const traced = traces.flatMap((trace) => trace?.batches ?? []);
    expect(traced.reduce((sum, batch) => sum + (batch.amount ?? 0), 0)).toBe(Number(rows[0]?.drawn));
    expect(new Set(traced.map((batch) => batch.id)).size).toBe(rows[0]?.batches);
    for (const batch of traced) expect(batch.jarStatuses.reduce((sum, status) => sum + status.jars, 0)).toBe(batch.jars);
  });

  it("finds a batch by its number, a jar, a day, a name and words of its notes", async () => {
    const { batches } = await searchRecord(db, { id: SHED, timeZone: "UTC" }, "40", NOW);
    expect(batches).toMatchObject([{ number: 40 }]);
    const jar = await searchRecord(db, { id: SHED, timeZone: "UTC" }, "40-2", NOW);
    expect(jar.jar).toMatchObject({ number: 2 });
    expect((await searchRecord(db, { id: SHED, timeZone: "UTC" }, "40-9999", NOW)).jar).toBeNull();
    const { rows } = await db.execute<{ day: string }>(sql`select started_at::date::text "day" from batch where workshop_id = ${SHED} and number = 40`);
    expect((await searchRecord(db, { id: SHED, timeZone: "UTC" }, rows[0]?.day ?? "", NOW)).batches.map((batch) => batch.number)).toContain(40);
    const notes = (await searchRecord(db, { id: SHED, timeZone: "UTC" }, "should have waited", NOW)).notes;
    expect(notes.length).toBeGreaterThan(0);
    expect(await searchRecord(db, { id: SHED, timeZone: "UTC" }, "100% \\ _nothing_", NOW)).toMatchObject({ batches: [], lots: [], notes: [] });
    expect(await searchRecord(db, { id: SHED, timeZone: "UTC" }, "  ", NOW)).toMatchObject({ batches: [] });
  });
});
