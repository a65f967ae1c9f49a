import { BATCH, type BatchEvent, batchOf, CHECKED_BATCH, TRIAL } from "@hearth/core";
import { count, eq, gt, max, ne, or, sql } from "drizzle-orm";
import { eventRow, rowOf } from "../web/data/batch-rows";
import { type Database, openDatabase, type Transaction } from "../web/data/client";
import { writeOutcomes } from "../web/data/outcome-rows";
import { writeStockUses } from "../web/data/stock-uses";
import { batchEvents, batches } from "../web/data/tables/batch";
import { colors } from "../web/data/tables/color";
import { formulas, formulaVersions } from "../web/data/tables/formula";
import { labelling } from "../web/data/tables/label";
import { notes } from "../web/data/tables/note";
import { dayPlans, demandLines, planningSettingRows } from "../web/data/tables/plan";
import { products } from "../web/data/tables/product";
import { orderEvents, packRuns } from "../web/data/tables/sales";
import { additives, dyes, fragrances, instruments, molds, packs, vessels, waxes, wicks } from "../web/data/tables/shelf";
import { lots, stockCounts } from "../web/data/tables/stock";
import { trialEvents, trials } from "../web/data/tables/trial";
import { people, workshops } from "../web/data/tables/workshop";
import { trialEventRow, trialRow, writeBurns } from "../web/data/trial-rows";
import { eventsOfDemo } from "./events";
import { type Past, pastBatches } from "./past";
import { putFinishedGoods } from "./sales";
import { demoTrials } from "./trials";
import {
  ADDITIVES,
  BATCHES,
  COLORS,
  type DemoBatch,
  DYES,
  demoId,
  FORMULAS,
  FRAGRANCES,
  INSTRUMENTS,
  LOTS,
  MOLDS,
  NOTES,
  PACKS,
  PEOPLE,
  PRODUCTS,
  VESSELS,
  WANTED,
  WAXES,
  WICKS,
  WORKSHOP,
} from "./workshop";

/** Returns whether anybody has done anything since the demo was loaded. */
async function touched(db: Database, loadedAt: string): Promise<boolean> {
  const some = async (query: Promise<{ n: number }[]>) => ((await query)[0]?.n ?? 0) > 0;
  return (
    (await some(db.select({ n: count() }).from(workshops).where(ne(workshops.id, WORKSHOP.id)))) ||
    (await some(db.select({ n: count() }).from(workshops).where(gt(workshops.version, 1)))) ||
    (await some(db.select({ n: count() }).from(batchEvents).where(gt(batchEvents.arrivedAt, loadedAt)))) ||
    (await some(db.select({ n: count() }).from(trialEvents).where(gt(trialEvents.arrivedAt, loadedAt)))) ||
    (await some(db.select({ n: count() }).from(stockCounts))) ||
    (await some(
      db
        .select({ n: count() })
        .from(notes)
        .where(or(eq(notes.deleted, true), gt(notes.at, loadedAt))),
    )) ||
    (await some(
      db
        .select({ n: count() })
        .from(colors)
        .where(or(eq(colors.deleted, true), gt(colors.at, loadedAt))),
    )) ||
    (await some(db.select({ n: count() }).from(orderEvents).where(gt(orderEvents.arrivedAt, loadedAt)))) ||
    (await some(db.select({ n: count() }).from(packRuns).where(gt(packRuns.at, loadedAt)))) ||
    (await some(db.select({ n: count() }).from(labelling).where(gt(labelling.version, 1)))) ||
    (await some(db.select({ n: count() }).from(planningSettingRows))) ||
    (await some(db.select({ n: count() }).from(dayPlans))) ||
    (await some(db.select({ n: count() }).from(formulas).where(gt(formulas.updatedAt, loadedAt)))) ||
    (
      await Promise.all(
        ([waxes, fragrances, vessels, instruments, dyes, additives, wicks, molds, packs, products, lots, demandLines] as const).map(async (table, index) => {
          const put = [WAXES, FRAGRANCES, VESSELS, INSTRUMENTS, DYES, ADDITIVES, WICKS, MOLDS, PACKS, PRODUCTS, undefined, WANTED][index]?.length;
          const [held] = await db.select({ n: count(), newest: max(table.version) }).from(table);
          const own = await db.select({ n: count() }).from(table).where(sql`${table.id}::text not like '0190c0de-%'`);
          return (own[0]?.n ?? 0) > 0 || (put !== undefined && held?.n !== put) || (held?.newest ?? 1) > 1;
        }),
      )
    ).some(Boolean)
  );
}

/** Returns what the batches of the past drew, each as one delivery before the first of them, so that what is left is what the lots of today say. */
function deliveries(drawn: ReadonlyMap<string, number>, workshopId: string, receivedOn: string) {
  return LOTS.filter((lot, index) => LOTS.findIndex((other) => other.materialId === lot.materialId) === index).flatMap((lot, index) => {
    const amount = Math.ceil(drawn.get(lot.materialId) ?? 0);
    if (amount === 0) return [];
    const cost = lot.cost == null ? null : Math.round((lot.cost * amount) / lot.amount);
    const { daysBefore: _days, ...rest } = lot;
    return [{ ...rest, id: demoId(0x27, index + 1), code: "", amount, cost, receivedOn, workshopId }];
  });
}

/** Returns what the program would refuse of a log, entry by entry: its shape, or what it does to the batch. Null if it would take all of it. */
export function oddEntry(events: readonly BatchEvent[]): string | null {
  for (const event of events) {
    const parsed = CHECKED_BATCH.stored.safeParse({ ...event, v: BATCH.versionOf(event.kind) });
    if (!parsed.success) return `${event.kind}: ${parsed.error.issues[0]?.message}`;
  }
  const [first] = BATCH.refusedEvents(events);
  return first ? `${first.event.kind}: ${first.refusal.message}` : null;
}

/** So many batches are made and written at a time, so that ten years need no more room than a month. */
const AT_ONCE = 200;
const inParts = async <T>(list: readonly T[], many: number, put: (part: T[]) => Promise<unknown>): Promise<void> => {
  for (let from = 0; from < list.length; from += many) await put(list.slice(from, from + many));
};

/** Writes batches with what follows from them; gives what those of the past drew. */
async function putBatches(tx: Transaction, workshopId: string, all: readonly DemoBatch[], now: Date, many: boolean): Promise<Map<string, number>> {
  const drawn = new Map<string, number>();
  await inParts(all, AT_ONCE, async (part) => {
    const made = part.map((demo) => {
      const events = eventsOfDemo(demo, now, many && !BATCHES.some((batch) => batch.id === demo.id));
      const odd = oddEntry(events);
      if (odd) throw new Error(`Batch ${demo.number} of the demo holds what the program would not take: ${odd}`);
      return { demo, events, ...batchOf(events) };
    });
    for (const { demo, state } of made)
      if (!BATCHES.some((batch) => batch.id === demo.id))
        for (const [id, draw] of Object.entries(state.drawn)) drawn.set(id, (drawn.get(id) ?? 0) + draw.amount);
    await tx
      .insert(batches)
      .values(made.map(({ demo, plan, state }) => ({ workshopId, id: demo.id, number: demo.number, formulaVersionId: demo.version, ...rowOf(plan, state) })));
    await inParts(
      made.flatMap(({ demo, events }) => events.map((event) => eventRow(workshopId, demo.id, event))),
      2_000,
      (rows) => tx.insert(batchEvents).values(rows),
    );
    for (const { demo, plan, state, uses } of made) {
      await writeStockUses(tx, workshopId, demo.id, uses, true);
      await writeOutcomes(tx, workshopId, demo.id, plan, state, null);
    }
  });
  return drawn;
}

/**
 * Puts the made-up workshop into a database, under an id and a name; everything in it has the same ids in each. With its
 * past, about fifty batches more lie behind it, or as many as are asked for, and all are numbered by time.
 */
export async function putDemo(db: Database, workshop: { id: string; name: string }, now: Date, past: boolean | Past = false): Promise<void> {
  const workshopId = workshop.id;
  const at = now.toISOString();
  const many = typeof past === "object";
  const all = past
    ? [...pastBatches(many ? past : {}), ...BATCHES]
        .sort((a, b) => b.startedBefore - a.startedBefore)
        .map((demoBatch, index) => ({ ...demoBatch, number: index + 1 }))
    : BATCHES;
  await db.transaction(async (tx) => {
    await tx
      .insert(workshops)
      .values({ ...WORKSHOP, ...workshop, timeZone: process.env.HEARTH_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone, createdAt: at });
    await tx.insert(people).values(PEOPLE.map((item) => ({ ...item, workshopId })));
    await tx.insert(waxes).values(WAXES.map((wax) => ({ ...wax, workshopId })));
    await tx.insert(fragrances).values(FRAGRANCES.map((fragrance) => ({ ...fragrance, workshopId })));
    await tx.insert(vessels).values(VESSELS.map((vessel) => ({ ...vessel, workshopId })));
    await tx.insert(dyes).values(DYES.map((dye) => ({ ...dye, workshopId })));
    await tx.insert(additives).values(ADDITIVES.map((additive) => ({ ...additive, workshopId })));
    await tx.insert(wicks).values(WICKS.map((wick) => ({ ...wick, workshopId })));
    await tx.insert(molds).values(MOLDS.map((mold) => ({ ...mold, workshopId })));
    await tx.insert(packs).values(PACKS.map((pack) => ({ ...pack, workshopId })));
    await tx.insert(instruments).values(INSTRUMENTS.map((instrument) => ({ ...instrument, workshopId })));
    const before = (days: number) => new Date(now.getTime() - days * 86_400_000).toISOString();
    await tx.insert(lots).values(LOTS.map(({ daysBefore, ...lot }) => ({ ...lot, workshopId, receivedOn: before(daysBefore).slice(0, 10) })));
    await tx
      .insert(formulas)
      .values(FORMULAS.map(({ id, name }, index) => ({ workshopId, id, name, updatedAt: before(16 + index), updatedBy: PEOPLE[0]?.id ?? null })));
    await tx
      .insert(formulaVersions)
      .values(
        FORMULAS.flatMap((formula) =>
          formula.versions.map((version) => ({ ...version, workshopId, formulaId: formula.id, createdAt: before(version.number === 1 ? 40 : 16) })),
        ),
      );
    await tx.insert(colors).values(COLORS.map(({ daysBefore, ...rest }) => ({ ...rest, workshopId, at: before(daysBefore) })));
    await tx.insert(notes).values(NOTES.map(({ daysBefore, ...rest }) => ({ ...rest, workshopId, at: before(daysBefore) })));
    await tx.insert(products).values(PRODUCTS.map((product) => ({ ...product, workshopId })));
    await tx
      .insert(demandLines)
      .values(WANTED.map(({ inDays, ...rest }) => ({ ...rest, workshopId, at, wantedOn: inDays === null ? null : before(-inDays).slice(0, 10) })));
    const drawn = await putBatches(tx, workshopId, all, now, many);
    const old = deliveries(drawn, workshopId, before(Math.ceil((all[0]?.startedBefore ?? 0) / 86_400) + 3).slice(0, 10));
    if (old.length > 0) await tx.insert(lots).values(old);
    for (const { id, number, events } of demoTrials(now)) {
      const { plan, state } = TRIAL.of(events);
      await tx.insert(trials).values({ workshopId, id, number, ...trialRow(plan, state) });
      await tx.insert(trialEvents).values(events.map((event) => trialEventRow(workshopId, id, event)));
      await writeBurns(tx, workshopId, id, plan, state, null);
    }
  });
  if (!many) await putFinishedGoods(db, workshopId, now, Boolean(past));
}

/**
 * Loads the made-up workshop where the database has no workshop yet. Its dates hang on the day it is loaded; a demo of
 * an earlier day that nobody has touched is loaded anew, so that something is always setting, curing and due.
 */
export async function loadDemo(url: string, now: Date, past: true | Past = true): Promise<void> {
  const { db, pool } = openDatabase(url);
  try {
    const [there] = await db.select().from(workshops).where(eq(workshops.id, WORKSHOP.id));
    if (there) {
      const sameDay = new Date(there.createdAt).toDateString() === now.toDateString();
      if (sameDay || (await touched(db, there.createdAt))) return;
      await db.delete(workshops).where(eq(workshops.id, WORKSHOP.id));
    } else if (((await db.select({ n: count() }).from(workshops))[0]?.n ?? 0) > 0) return;
    await putDemo(db, WORKSHOP, now, past);
  } finally {
    await pool.end();
  }
}
