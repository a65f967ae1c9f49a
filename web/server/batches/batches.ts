import {
  type Band,
  type BatchPlan,
  type BatchState,
  bandsOf,
  type CurveReading,
  dueOf,
  type ForecastTarget,
  forecastTarget,
  jarStatusesOf,
  namedLines,
  progress,
  readingsOf,
  type ScaleUnit,
  sellableOf,
  stoppedOf,
  thinned,
  titleOf,
} from "@hearth/core";
import { and, asc, count, desc, eq, gt, inArray, isNull, lte, ne, or, sql } from "drizzle-orm";
import type { REAL_STAGES } from "@/data/batch-rows";
import { atOneMoment, type Database, type Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { orders } from "@/data/tables/sales";
import { instruments } from "@/data/tables/shelf";
import { trials } from "@/data/tables/trial";
import { wantsHands } from "@/server/burn/trials";
import { readNewest } from "@/server/events/aggregate-store";
import { batchStore } from "@/server/events/batch-store";
import { readBatchState } from "@/server/events/read-events";
import { isSoon } from "@/server/sales/orders";
import { containing } from "@/server/shared/natural-sort";
import { pageByTime } from "@/server/shared/pages";
import { type Narrowing, narrowedTo } from "./narrowing";

/** A batch as a list shows it: a little of its plan and state, the same size however long its log. */
export interface Listed {
  id: string;
  number: number;
  title: string;
  products: { key: string; name: string; count: number }[];
  bands: Band[];
  ceiling: number;
  thumb: CurveReading[];
  startedAt: string;
  pouredAt: string | null;
  lookedAt: string | null;
  closed: { at: string; missing: string[] } | null;
  abandoned: { at: string; wax: string; why: string } | null;
  times: { setAt: string; testFrom: string; sellFrom: string } | null;
  flaws: number;
  /** Pieces that must not be sold for safety, and those that may once cured and tested. */
  stopped: number;
  sellable: number;
  /** The step that needs attention, and from when. */
  next: { name: string; from: string | null; until: string | null } | null;
  rehearsal: boolean;
  /** Brought in from a notebook. */
  fromNotes: boolean;
  /** The shelf it stands on, and how many are still on the rack. */
  shelf: string;
  onRack: number;
  released: boolean;
}

/** A pot at the bench: what to forecast for it beside. */
export interface Running extends Listed {
  watch: ForecastTarget | null;
}

const PAGE = 25;
/** So many readings are drawn in a row of a list. */
const THUMB = 16;
/** Returns readings for a row of a list, in order of time: those of steps before the others, of each sort evenly. */
function thumbReadings(readings: readonly CurveReading[]): CurveReading[] {
  const [ofSteps, others] = [readings.filter((reading) => reading.step !== null), readings.filter((reading) => reading.step === null)];
  const shown = thinned(ofSteps, THUMB / 2);
  return [...shown, ...thinned(others, THUMB - shown.length)].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}
export type Stage = (typeof REAL_STAGES)[number] | "rehearsal";
type Row = typeof batches.$inferSelect;
const iso = (text: string | null) => (text === null ? null : new Date(text).toISOString());

export function listed(
  row: Pick<Row, "id" | "number">,
  plan: BatchPlan,
  state: BatchState,
  row2: Pick<Row, "pouredAt" | "setAt" | "testFrom" | "sellFrom">,
): Listed {
  const { prompts, next } = progress(plan, state);
  const due = next ? dueOf(prompts, next) : null;
  const sum = (of: (key: string) => number) => plan.products.reduce((all, item) => all + of(item.key), 0);
  return {
    id: row.id,
    number: row.number,
    title: titleOf(plan),
    products: namedLines(plan.products).map(({ key, name, count: n }) => ({ key, name, count: n })),
    bands: bandsOf(plan.process),
    ceiling: plan.process.ceiling,
    thumb: thumbReadings(readingsOf(state)),
    startedAt: state.startedAt,
    pouredAt: iso(row2.pouredAt),
    lookedAt: state.lookedAt,
    closed: state.closed && { at: state.closed.at, missing: state.closed.missing },
    abandoned: state.abandoned && { at: state.abandoned.at, wax: state.abandoned.wax, why: state.abandoned.why },
    times:
      row2.setAt && row2.testFrom && row2.sellFrom
        ? { setAt: iso(row2.setAt) as string, testFrom: iso(row2.testFrom) as string, sellFrom: iso(row2.sellFrom) as string }
        : null,
    flaws: state.flaws.length,
    stopped: sum((key) => stoppedOf(plan, state, key)),
    sellable: sum((key) => sellableOf(plan, state, key)),
    next: next && { name: next.name, from: due?.from ?? null, until: due?.until ?? null },
    rehearsal: plan.rehearsal === true,
    fromNotes: plan.fromNotes === true,
    shelf: state.stands?.shelf ?? "",
    onRack: sum((key) => jarStatusesOf(plan, state, key).counts.rack),
    released: state.released !== null,
  };
}

const listedRows = (db: Database, rows: Row[]): Promise<Listed[]> =>
  Promise.all(
    rows.map(async (row) => {
      const { plan, state } = await readBatchState(db, row);
      return listed(row, plan, state, row);
    }),
  );

export interface BatchesAsked extends Narrowing {
  /** The last of the page before this one, or the first of the page after it. */
  after?: string | undefined;
  before?: string | undefined;
  /** A number, or part of the formula's name. */
  q?: string | undefined;
  /** Where it stands by the clock, on the rack. */
  state?: "setting" | "look" | "curing" | "ready" | undefined;
}

/** Returns where a batch on the rack stands, as the database can tell. */
const standing = (state: NonNullable<BatchesAsked["state"]>, now: string) =>
  ({
    setting: gt(batches.setAt, now),
    look: and(lte(batches.setAt, now), isNull(batches.lookedAt)),
    curing: and(lte(batches.setAt, now), gt(batches.sellFrom, now)),
    ready: lte(batches.sellFrom, now),
  })[state];

/** Where the pages before and after this one begin; null where there is none. */
export interface PageCursors {
  older: string | null;
  newer: string | null;
}
interface Page extends PageCursors {
  rows: Row[];
}

/** Returns one page of the batches at the given stages, newest first. */
export async function listBatches(
  db: Database,
  workshopId: string,
  stages: Stage[],
  asked: BatchesAsked = {},
  now = "",
): Promise<{ batches: Listed[] } & PageCursors> {
  const { rows, ...cursors } = await pageOf(db, workshopId, stages, asked, now);
  return { batches: await listedRows(db, rows), ...cursors };
}

/** Returns the pots at the bench, rehearsals too, a page at a time. */
export async function listPots(db: Database, workshopId: string, asked: BatchesAsked): Promise<{ batches: Running[] } & PageCursors> {
  const { rows, ...cursors } = await pageOf(db, workshopId, ["pot", "rehearsal"], asked, "");
  const batches = rows.map(async (row) => {
    const { plan, state } = await readBatchState(db, row);
    return { ...listed(row, plan, state, row), watch: forecastTarget(plan, state) };
  });
  return { batches: await Promise.all(batches), ...cursors };
}

/** Returns what a batch on the rack waits for next: to have set, to be looked at, to have cured; nothing more comes last. */
const dueAt = (now: string) =>
  sql<string>`case when ${batches.lookedAt} is null then ${batches.setAt} when ${batches.sellFrom} > ${now} then ${batches.sellFrom} else ${FAR}::timestamptz end`;
const FAR = "9999-01-01T00:00:00Z";

/** Returns what sets and cures, by what is due first, a page at a time; pots that wait for a later pour before them. */
export async function listRack(db: Database, workshopId: string, asked: BatchesAsked, now: string): Promise<{ batches: Listed[] } & PageCursors> {
  const due = dueAt(now);
  const skip = Math.min(100_000, Math.max(0, Number(asked.after ?? asked.before) || 0));
  const where = [eq(batches.workshopId, workshopId), asked.q ? calledLike(workshopId, asked.q) : undefined, narrowedTo(workshopId, asked)];
  const half =
    asked.state || skip > 0
      ? []
      : await db
          .select()
          .from(batches)
          .where(and(...where, eq(batches.stage, "pot"), sql`${batches.state}->'pours' <> '{}'::jsonb`))
          .limit(PAGE);
  const rows = await db
    .select()
    .from(batches)
    .where(and(...where, eq(batches.stage, "rack"), asked.state ? standing(asked.state, now) : undefined))
    .orderBy(due, desc(batches.startedAt), desc(batches.id))
    .offset(skip)
    .limit(PAGE + 1);
  return {
    batches: await listedRows(db, [...half, ...rows.slice(0, PAGE)]),
    older: rows.length > PAGE ? String(skip + PAGE) : null,
    newer: skip > 0 ? String(Math.max(0, skip - PAGE)) : null,
  };
}

/** Returns batches of a formula with these letters in its name. */
export const ofFormulaLike = (workshopId: string, letters: string) =>
  sql`exists (select 1 from formula_version v join formula f on f.workshop_id = v.workshop_id and f.id = v.formula_id
    where v.workshop_id = ${workshopId} and v.id = ${batches.formulaVersionId} and f.name ilike ${containing(letters)})`;

/** By its number, or part of the formula's name. */
function calledLike(workshopId: string, text: string) {
  const q = text.trim();
  const number = /^#?\d{1,9}$/.test(q) ? Number(q.replace("#", "")) : null;
  return or(ofFormulaLike(workshopId, q), number === null ? undefined : eq(batches.number, number));
}

async function pageOf(db: Database, workshopId: string, stages: Stage[], asked: BatchesAsked, now: string): Promise<Page> {
  const q = asked.q?.trim() ?? "";
  const all = and(
    eq(batches.workshopId, workshopId),
    inArray(batches.stage, stages),
    q ? calledLike(workshopId, q) : undefined,
    asked.state ? standing(asked.state, now) : undefined,
    narrowedTo(workshopId, asked),
  );
  const cursor = sql`(${batches.startedAt}, ${batches.id})`;
  return pageByTime(
    asked,
    ({ startedAt, id }: Row) => ({ at: startedAt, id }),
    ({ olderThan, newerThan }, most) =>
      db
        .select()
        .from(batches)
        .where(
          and(
            all,
            olderThan ? sql`${cursor} < (${olderThan.at}::timestamptz, ${olderThan.id}::uuid)` : undefined,
            newerThan ? sql`${cursor} > (${newerThan.at}::timestamptz, ${newerThan.id}::uuid)` : undefined,
          ),
        )
        .orderBy(...(newerThan ? [asc(batches.startedAt), asc(batches.id)] : [desc(batches.startedAt), desc(batches.id)]))
        .limit(most),
  );
}

/** A cured batch asks for so many days to be released or closed; after that it stands on the rack and asks no more. */
const ASKED_FOR_DAYS = 7;
/** So many batches of the rack are listed on today's page; of more it says how many there are. */
const TODAY_FIRST = 100;

/** What today's page is made from. */
export interface TodaysBatches {
  /** All pots, and of the rack what asks for something or comes next, the longest due first. */
  batches: Listed[];
  /** How many more of the rack ask for something. */
  more: number;
  /** Batches that are cured and ask for nothing any more. */
  standing: number;
}

/** Returns what runs, sets or cures and asks for something at a moment. */
export async function todaysBatches(db: Database, workshopId: string, now: string): Promise<TodaysBatches> {
  const at = (stage: Stage) => and(eq(batches.workshopId, workshopId), eq(batches.stage, stage));
  const since = new Date(Date.parse(now) - ASKED_FOR_DAYS * 86_400_000).toISOString();
  const unreleased = sql`coalesce(${batches.state}->'released', 'null'::jsonb) = 'null'::jsonb`;
  const asks = and(at("rack"), or(isNull(batches.lookedAt), gt(batches.sellFrom, now), and(gt(batches.sellFrom, since), unreleased)));
  const [pots, rack, all, asking] = await Promise.all([
    db.select().from(batches).where(at("pot")).orderBy(asc(batches.startedAt), asc(batches.id)),
    db
      .select()
      .from(batches)
      .where(asks)
      .orderBy(sql`case when ${batches.lookedAt} is null then ${batches.setAt} else ${batches.sellFrom} end`, asc(batches.id))
      .limit(TODAY_FIRST),
    db.$count(batches, at("rack")),
    db.$count(batches, asks),
  ]);
  return { batches: await listedRows(db, [...pots, ...rack]), more: asking - rack.length, standing: all - asking };
}

const isOpen = (workshopId: string) => and(eq(batches.workshopId, workshopId), inArray(batches.stage, ["pot", "rack"]));

/** Returns every batch that runs, sets or cures, however old. */
export async function openBatches(db: Database, workshopId: string): Promise<Listed[]> {
  const rows = await db.select().from(batches).where(isOpen(workshopId)).orderBy(asc(batches.stage), asc(batches.startedAt), asc(batches.id));
  return listedRows(db, rows);
}

/** Returns the names of every batch that runs, sets or cures, the newest first. */
export const openBatchNames = (db: Database, workshopId: string) =>
  db
    .select({ id: batches.id, number: batches.number, title: batches.title })
    .from(batches)
    .where(isOpen(workshopId))
    .orderBy(desc(batches.startedAt), desc(batches.id));

const toLook = (workshopId: string, now: string) =>
  and(eq(batches.workshopId, workshopId), eq(batches.stage, "rack"), isNull(batches.lookedAt), lte(batches.setAt, now));

/** Returns all batches that have set and were not inspected, longest waiting first. */
export async function dueToLook(db: Database, workshopId: string, now: string): Promise<Listed[]> {
  return listedRows(db, await db.select().from(batches).where(toLook(workshopId, now)).orderBy(asc(batches.setAt), asc(batches.id)));
}

/** One batch: its plan and state, and its newest entries; null if the workshop has none such. */
export const readBatch = (db: Database, workshopId: string, id: string) => atOneMoment(db, (tx) => batchAt(tx, workshopId, id));

async function batchAt(db: Transaction, workshopId: string, id: string) {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, id)));
  if (!row) return null;
  const { plan, state } = await readBatchState(db, row);
  const [formula] = await db
    .select({ id: formulas.id })
    .from(formulaVersions)
    .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, row.formulaVersionId)));
  return {
    id: row.id,
    number: row.number,
    formulaId: formula?.id ?? null,
    drawsStock: row.drawsStock,
    plan,
    state,
    ...(await readNewest(batchStore, db, workshopId, id)),
  };
}

export type ReadInstrument = {
  id: string;
  name: string;
  kind: "probe" | "infrared" | "glass" | "scale";
  correction: number;
  resolutionUg: number | null;
  scaleUnit: ScaleUnit | null;
  capacityMg: number | null;
};

/** Returns the thermometers and scales of a workshop; other tools measure nothing. */
export async function listInstruments(db: Database, workshopId: string): Promise<ReadInstrument[]> {
  return (
    db
      .select({
        id: instruments.id,
        name: instruments.name,
        kind: sql<ReadInstrument["kind"]>`${instruments.kind}`,
        correction: instruments.correction,
        resolutionUg: instruments.resolutionUg,
        scaleUnit: instruments.scaleUnit,
        capacityMg: instruments.capacityMg,
      })
      .from(instruments)
      .where(and(eq(instruments.workshopId, workshopId), ne(instruments.kind, "tool")))
      // A probe in the wax is trusted before a glass, and both before an infrared pistol.
      .orderBy(sql`array_position(array['scale', 'probe', 'glass', 'infrared'], ${instruments.kind})`, asc(instruments.name))
  );
}

/** Returns whether nothing was ever made in a workshop. */
export const hasNoBatch = async (db: Database, workshopId: string): Promise<boolean> =>
  (await db.select({ id: batches.id }).from(batches).where(eq(batches.workshopId, workshopId)).limit(1)).length === 0;

/** Returns what waits at each section, for the line of sections. */
export async function waitingCounts(db: Database, workshop: { id: string; timeZone: string }, now: string): Promise<Record<string, number>> {
  const counted = async (where: Parameters<ReturnType<ReturnType<typeof db.select>["from"]>["where"]>[0]) => {
    const [row] = await db.select({ n: count() }).from(batches).where(where);
    return row?.n ?? 0;
  };
  const workshopId = workshop.id;
  const condition = eq(batches.workshopId, workshopId);
  const [pots, rack, due, burn, sell] = await Promise.all([
    counted(and(condition, eq(batches.stage, "pot"))),
    counted(and(condition, eq(batches.stage, "rack"))),
    counted(toLook(workshopId, now)),
    db.$count(trials, wantsHands(workshopId, now)),
    db.$count(orders, isSoon(workshop, now)),
  ]);
  return { "/bench": pots, "/rack": rack, "/inspect": due, "/burn": burn, "/sell": sell };
}
