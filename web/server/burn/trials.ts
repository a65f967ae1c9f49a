import { type BatchState, jarStatusesOf, type Passed, type TestCandleNow, type TrialPlan, type TrialState, testCandleNow, titleOf } from "@hearth/core";
import { and, asc, desc, eq, ilike, inArray, lt, lte, max, or, type SQL, sql } from "drizzle-orm";
import { atOneMoment, type Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { burnOutcomes, trials } from "@/data/tables/trial";
import { readNewest } from "@/server/events/aggregate-store";
import { readBatchState } from "@/server/events/read-events";
import { trialStore } from "@/server/events/trial-store";
import { type Period, within } from "@/server/http/period";
import { containing } from "@/server/shared/natural-sort";
import { type NumberPage, pageByNumber } from "@/server/shared/number-pages";

type Row = typeof trials.$inferSelect;
const iso = (text: string | null) => (text === null ? null : new Date(text).toISOString());

/** A trial as a list shows it. */
export interface TrialListed {
  id: string;
  number: number;
  name: string;
  varies: TrialPlan["varies"];
  startedAt: string;
  closed: boolean;
  testCandles: number;
  burning: { key: string; next: TestCandleNow["next"] }[];
  /** What can be lit now. */
  ready: number;
  resting: number;
  sessions: number;
  decided: Record<string, "passed" | "failed">;
  /** What is due soonest. */
  next: TestCandleNow["next"];
}

/** Returns when the batches of trials may be tested, by their ids; a batch that is not poured has no such time. */
async function testTimes(db: Database, workshopId: string, rows: readonly Pick<Row, "plan">[]): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(rows.flatMap((row) => row.plan.testCandles.flatMap((testCandle) => (testCandle.batch ? [testCandle.batch.id] : []))))];
  if (ids.length === 0) return new Map();
  const found = await db
    .select({ id: batches.id, testFrom: batches.testFrom })
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), inArray(batches.id, ids)));
  return new Map(found.flatMap((item) => (item.testFrom ? [[item.id, item.testFrom] as const] : [])));
}

export function trialListed(
  row: Pick<Row, "id" | "number" | "stage">,
  plan: TrialPlan,
  state: TrialState,
  now: string,
  testFrom: ReadonlyMap<string, string>,
): TrialListed {
  // What is not poured and cured cannot be lit; a candle from elsewhere can.
  const isCured = (key: string): boolean => {
    const batch = plan.testCandles.find((testCandle) => testCandle.key === key)?.batch;
    const from = batch?.id ? testFrom.get(batch.id) : undefined;
    return !batch || (from !== undefined && Date.parse(from) <= Date.parse(now));
  };
  const testCandles = plan.testCandles.map((testCandle) => ({
    key: testCandle.key,
    ...testCandleNow(plan.protocol, state.testCandles[testCandle.key] ?? { sessions: [], stopped: null }, now),
  }));
  const closed = row.stage === "closed";
  const nexts = testCandles.flatMap((testCandle) => (testCandle.state === "burning" && testCandle.next ? [testCandle.next] : []));
  return {
    id: row.id,
    number: row.number,
    name: plan.name,
    varies: plan.varies,
    startedAt: state.startedAt,
    closed,
    testCandles: plan.testCandles.length,
    burning: testCandles.filter((testCandle) => testCandle.state === "burning").map((testCandle) => ({ key: testCandle.key, next: testCandle.next })),
    ready: closed ? 0 : testCandles.filter((testCandle) => testCandle.state === "ready" && isCured(testCandle.key)).length,
    resting: closed ? 0 : testCandles.filter((testCandle) => testCandle.state === "resting").length,
    sessions: testCandles.reduce((sum, item) => sum + (state.testCandles[item.key]?.sessions.length ?? 0), 0),
    decided: Object.fromEntries(Object.entries(state.decided).map(([variant, item]) => [variant, item.verdict])),
    next: nexts.sort((a, b) => Date.parse(a.at) - Date.parse(b.at))[0] ?? null,
  };
}

/** What trials can be asked for by: words or a number, when they were begun, and what was tried. */
export interface TrialsAsked extends NumberPage {
  q?: string | undefined;
  period?: Period;
  product?: string | undefined;
  vessel?: string | undefined;
  wax?: string | undefined;
}

function asTried(workshopId: string, { period, product, vessel, wax }: TrialsAsked): SQL | undefined {
  const tried = (condition: SQL) =>
    sql`exists (select 1 from burn_outcome o where o.workshop_id = ${workshopId} and o.trial_id = ${trials.id} and ${condition})`;
  return and(
    period ? within(period, sql`${trials.startedAt}`) : undefined,
    product ? tried(sql`o.product_id = ${product}::uuid`) : undefined,
    vessel ? tried(sql`o.container_id = ${vessel}::uuid`) : undefined,
    wax ? tried(sql`o.wax = (select name from wax where workshop_id = ${workshopId} and id = ${wax}::uuid)`) : undefined,
  );
}

/** Returns the number after the last trial that was begun before a moment: from there back, the list is of that time. */
export async function trialNumberAt(db: Database, workshopId: string, moment: string): Promise<number> {
  const [row] = await db
    .select({ number: max(trials.number) })
    .from(trials)
    .where(and(eq(trials.workshopId, workshopId), lt(trials.startedAt, moment)));
  return (row?.number ?? 0) + 1;
}

/** Trials that go on, all of them, and a page of those that are closed. */
export async function listTrials(
  db: Database,
  workshopId: string,
  asked: TrialsAsked,
  now: string,
): Promise<{ open: TrialListed[]; closed: TrialListed[]; older: string | null; newer: string | null }> {
  const condition = eq(trials.workshopId, workshopId);
  const like = asked.q ? or(ilike(trials.name, containing(asked.q)), sql`${trials.number}::text = ${asked.q.replace("#", "")}`) : undefined;
  const among = and(condition, like, asTried(workshopId, asked));
  const [open, { rows: closed, ...cursors }] = await Promise.all([
    asked.after === undefined && asked.before === undefined
      ? db
          .select()
          .from(trials)
          .where(and(among, eq(trials.stage, "open")))
          .orderBy(desc(trials.lastAt), desc(trials.number))
      : Promise.resolve([]),
    pageByNumber(trials.number, asked, (where, order, most) =>
      db
        .select()
        .from(trials)
        .where(and(among, eq(trials.stage, "closed"), where))
        .orderBy(order)
        .limit(most),
    ),
  ]);
  const times = await testTimes(db, workshopId, [...open, ...closed]);
  const all = (rows: Row[]) => rows.map((row) => trialListed(row, row.plan, row.state, now, times));
  return { open: all(open), closed: all(closed), ...cursors };
}

/** A batch that test candles were poured in, as far as burning them depends on it. */
export interface TestCandleBatch {
  id: string;
  number: number;
  pouredAt: string | null;
  /** From when it may be tested: its least cure. */
  testFrom: string | null;
  /** Products of it that were seen to be cracked. */
  cracked: string[];
}
const crackedOf = (state: BatchState | null) => [
  ...new Set((state?.flaws ?? []).filter(({ flaw }) => flaw.defect === "cracked_glass").map(({ flaw }) => flaw.product)),
];

/** One trial with its newest entries, and the batches of its test candles; null if the workshop has none such. */
export const readTrial = (db: Database, workshopId: string, id: string) =>
  atOneMoment(db, async (tx) => {
    const row = await trialStore.readRow(tx, workshopId, id, false);
    if (!row) return null;
    const { plan, state } = await trialStore.readState(tx, row);
    const ids = [...new Set(plan.testCandles.flatMap((testCandle) => (testCandle.batch ? [testCandle.batch.id] : [])))];
    const rows =
      ids.length === 0
        ? []
        : await tx
            .select()
            .from(batches)
            .where(and(eq(batches.workshopId, workshopId), inArray(batches.id, ids)));
    const of = rows.map(
      (row): TestCandleBatch => ({ id: row.id, number: row.number, pouredAt: iso(row.pouredAt), testFrom: iso(row.testFrom), cracked: crackedOf(row.state) }),
    );
    return { id: row.id, number: row.number, plan, state, batches: of, ...(await readNewest(trialStore, tx, workshopId, id)) };
  });

/** What was tried in this workshop, a variant a row: the newest first. */
export interface Tried {
  trialId: string;
  trial: number;
  variant: string;
  says: string;
  containerId: string;
  vessel: string;
  widthUm: number;
  family: string;
  wax: string;
  scent: string;
  loadPpm: number;
  wickId: string | null;
  wickKind: string;
  wickSize: string;
  wickName: string;
  wicks: number;
  half: boolean;
  testCandles: number;
  sessions: number;
  /** False where any was not; null if nobody knows. */
  safe: boolean | null;
  pools: string[];
  gramsPerHour: number | null;
  decided: "" | "passed" | "failed";
}

/** Returns what was tried, by vessel and family where they are named; `passed` asks for what passed alone, of full jars. */
export async function triedIn(
  db: Database,
  workshopId: string,
  asked: { containerId?: string | undefined; family?: string | undefined; passed?: boolean } = {},
): Promise<Tried[]> {
  const b = burnOutcomes;
  const rows = await db
    .select({
      trialId: b.trialId,
      trial: trials.number,
      variant: b.variant,
      says: sql<string>`min(${b.says})`,
      containerId: b.containerId,
      vessel: sql<string>`min(${b.vessel})`,
      widthUm: sql<number>`min(${b.widthUm})`,
      family: sql<string>`min(${b.family})`,
      wax: sql<string>`min(${b.wax})`,
      scent: sql<string>`min(${b.scent})`,
      loadPpm: sql<number>`min(${b.loadPpm})`,
      wickId: sql<string | null>`min(${b.wickId}::text)`,
      wickKind: sql<string>`min(${b.wickKind})`,
      wickSize: sql<string>`min(${b.wickSize})`,
      wickName: sql<string>`min(${b.wickName})`,
      wicks: sql<number>`min(${b.wicks})`,
      half: sql<boolean>`bool_or(${b.half})`,
      testCandles: sql<number>`count(*)::int`,
      sessions: sql<number>`sum(${b.sessions})::int`,
      safe: sql<boolean | null>`bool_and(${b.safe})`,
      pools: sql<string[]>`array_agg(distinct ${b.pool})`,
      gramsPerHour: sql<number | null>`avg(${b.gramsPerHour})`,
      decided: sql<Tried["decided"]>`min(${b.decided})`,
    })
    .from(b)
    .innerJoin(trials, and(eq(trials.workshopId, b.workshopId), eq(trials.id, b.trialId)))
    .where(
      and(
        eq(b.workshopId, workshopId),
        asked.containerId ? eq(b.containerId, asked.containerId) : undefined,
        asked.family ? eq(b.family, asked.family) : undefined,
        asked.passed ? and(eq(b.decided, "passed"), eq(b.half, false)) : undefined,
      ),
    )
    .groupBy(b.trialId, trials.number, b.variant, b.containerId)
    .orderBy(desc(trials.number), asc(b.variant));
  return rows;
}

/** Returns wicks that passed, for proposals. */
export const passedOf = (tried: readonly Tried[]): Passed[] =>
  tried.flatMap((item) =>
    item.decided === "passed" && !item.half && item.wickId
      ? [{ wickId: item.wickId, kind: item.wickKind, size: item.wickSize, count: item.wicks, widthUm: item.widthUm, family: item.family, trial: item.trial }]
      : [],
  );

/** Returns jars on the rack that could be burned, by batch and product, newest first; those of `batchId` before all others. */
export async function jarsOnRack(db: Database, workshopId: string, batchId: string | null = null) {
  const rows = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.stage, "rack")))
    .orderBy(sql`${batches.id} is not distinct from ${batchId}::uuid desc`, desc(batches.startedAt));
  const out: {
    batchId: string;
    number: number;
    title: string;
    product: string;
    name: string;
    wick: string;
    left: number;
    testFrom: string | null;
    half: boolean;
  }[] = [];
  for (const row of rows) {
    const { plan, state } = await readBatchState(db, row);
    for (const product of plan.products) {
      const left = jarStatusesOf(plan, state, product.key).counts.rack;
      if (left > 0 && product.wicks)
        out.push({
          batchId: row.id,
          number: row.number,
          title: titleOf(plan),
          product: product.key,
          name: product.name,
          wick: product.wicks.name,
          left,
          testFrom: iso(row.testFrom),
          half: product.part?.kind === "half",
        });
    }
  }
  return out;
}

/** Returns where a trial needs attention: something burns, can be lit again, or was never lit and has had its least cure. */
export const wantsHands = (workshopId: string, now: string) =>
  and(
    eq(trials.workshopId, workshopId),
    eq(trials.stage, "open"),
    or(
      lte(trials.handsFrom, now),
      sql`exists (select 1 from burn_outcome o join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
        where o.workshop_id = ${workshopId} and o.trial_id = ${trials.id} and o.sessions = 0 and b.test_from <= ${now})`,
    ),
  );

/** Trials that need attention now: something burns, or can be lit. */
export async function trialsToday(db: Database, workshopId: string, now: string): Promise<TrialListed[]> {
  const rows = await db.select().from(trials).where(wantsHands(workshopId, now)).orderBy(asc(trials.handsFrom));
  const times = await testTimes(db, workshopId, rows);
  return rows.map((row) => trialListed(row, row.plan, row.state, now, times));
}

/** What became of a batch's jars in burn trials: test candle by test candle, the newest trial first. */
export interface BurnedTestCandle {
  trialId: string;
  trial: number;
  testCandle: string;
  says: string;
  half: boolean;
  sessions: number;
  safe: boolean | null;
  pool: string;
  decided: "" | "passed" | "failed";
}
export async function burnedOf(db: Database, workshopId: string, batchId: string): Promise<BurnedTestCandle[]> {
  const b = burnOutcomes;
  return db
    .select({
      trialId: b.trialId,
      trial: trials.number,
      testCandle: b.testCandle,
      says: b.says,
      half: b.half,
      sessions: b.sessions,
      safe: b.safe,
      pool: b.pool,
      decided: b.decided,
    })
    .from(b)
    .innerJoin(trials, and(eq(trials.workshopId, b.workshopId), eq(trials.id, b.trialId)))
    .where(and(eq(b.workshopId, workshopId), eq(b.batchId, batchId)))
    .orderBy(desc(trials.number), asc(b.testCandle));
}
