import { BATCH, batchOf, CHECKED_BATCH, TRIAL } from "@hearth/core";
import { and, count, eq, gt, max, notInArray, or, sql } from "drizzle-orm";
import type { PgColumn } from "drizzle-orm/pg-core";
import { eventRow, rowOf } from "../web/data/batch-rows";
import { type Database, openDatabase, type Transaction } from "../web/data/client";
import { outcomeRows, outcomeTables } from "../web/data/outcome-rows";
import { stockUseRows } from "../web/data/stock-uses";
import { batchEvents, batches } from "../web/data/tables/batch";
import { colors } from "../web/data/tables/color";
import { outcomeFlaws, outcomes } from "../web/data/tables/finding";
import { formulas, formulaVersions } from "../web/data/tables/formula";
import { labelling, supplierSheets } from "../web/data/tables/label";
import { notes } from "../web/data/tables/note";
import { dayPlans, demandLines, planningSettingRows } from "../web/data/tables/plan";
import { products } from "../web/data/tables/product";
import { orderEvents, packRuns } from "../web/data/tables/sales";
import { additives, dyes, embeds, fragrances, instruments, molds, packs, vessels, waxes, wicks } from "../web/data/tables/shelf";
import { lots, stockCounts, stockUses } from "../web/data/tables/stock";
import { trialEvents, trials } from "../web/data/tables/trial";
import { people, workshops } from "../web/data/tables/workshop";
import { trialEventRow, trialRow, writeBurns } from "../web/data/trial-rows";
import { eventsOfDemo } from "./events";
import { inParts } from "./in-parts";
import { NOTES_WORKSHOP, putNotesWorkshop } from "./notebook";
import { type Past, pastBatches } from "./past";
import { refusalIn } from "./refusal";
import { putFinishedGoods } from "./sales";
import { demoTrials } from "./trials";
import {
  ADDITIVES,
  BATCHES,
  COLORS,
  type DemoBatch,
  DYES,
  demoId,
  EMBEDS,
  FRAGRANCES,
  INSTRUMENTS,
  LOTS,
  MOLDS,
  PACKS,
  PRODUCTS,
  type Scenario,
  SHED,
  VESSELS,
  WANTED,
  WAXES,
  WICKS,
  WORKSHOP,
} from "./workshop";
import { type Draw, yearsLots } from "./years/lots";
import { putYearsSales, sellYears } from "./years/sales";
import { crewAt, yearsScenario } from "./years/scenario";
import { yearsSheets } from "./years/sheets";
import { yearsTrials } from "./years/trials";

/** Returns whether anybody has done anything since the demo was loaded. */
async function touched(db: Database, loadedAt: string): Promise<boolean> {
  const mine = (table: { workshopId: PgColumn }) => eq(table.workshopId, WORKSHOP.id);
  const some = async (query: Promise<{ n: number }[]>) => ((await query)[0]?.n ?? 0) > 0;
  return (
    (await some(
      db
        .select({ n: count() })
        .from(workshops)
        .where(notInArray(workshops.id, [WORKSHOP.id, NOTES_WORKSHOP.id])),
    )) ||
    (await some(db.select({ n: count() }).from(workshops).where(gt(workshops.version, 1)))) ||
    (await some(
      db
        .select({ n: count() })
        .from(batchEvents)
        .where(and(mine(batchEvents), gt(batchEvents.arrivedAt, loadedAt))),
    )) ||
    (await some(
      db
        .select({ n: count() })
        .from(trialEvents)
        .where(and(mine(trialEvents), gt(trialEvents.arrivedAt, loadedAt))),
    )) ||
    (await some(db.select({ n: count() }).from(stockCounts).where(mine(stockCounts)))) ||
    (await some(
      db
        .select({ n: count() })
        .from(notes)
        .where(and(mine(notes), or(eq(notes.deleted, true), gt(notes.at, loadedAt)))),
    )) ||
    (await some(
      db
        .select({ n: count() })
        .from(colors)
        .where(and(mine(colors), or(eq(colors.deleted, true), gt(colors.at, loadedAt)))),
    )) ||
    (await some(
      db
        .select({ n: count() })
        .from(orderEvents)
        .where(and(mine(orderEvents), gt(orderEvents.arrivedAt, loadedAt))),
    )) ||
    (await some(
      db
        .select({ n: count() })
        .from(packRuns)
        .where(and(mine(packRuns), gt(packRuns.at, loadedAt))),
    )) ||
    (await some(
      db
        .select({ n: count() })
        .from(labelling)
        .where(and(mine(labelling), gt(labelling.version, 1))),
    )) ||
    (await some(db.select({ n: count() }).from(planningSettingRows).where(mine(planningSettingRows)))) ||
    (await some(db.select({ n: count() }).from(dayPlans).where(mine(dayPlans)))) ||
    (await some(
      db
        .select({ n: count() })
        .from(formulas)
        .where(and(mine(formulas), gt(formulas.updatedAt, loadedAt))),
    )) ||
    (
      await Promise.all(
        ([waxes, fragrances, vessels, instruments, dyes, additives, wicks, molds, embeds, packs, products, lots, demandLines] as const).map(
          async (table, index) => {
            const put = [WAXES, FRAGRANCES, VESSELS, INSTRUMENTS, DYES, ADDITIVES, WICKS, MOLDS, EMBEDS, PACKS, PRODUCTS, undefined, WANTED][index]?.length;
            const [held] = await db
              .select({ n: count(), newest: max(table.version) })
              .from(table)
              .where(mine(table));
            const own = await db
              .select({ n: count() })
              .from(table)
              .where(and(mine(table), sql`${table.id}::text not like '0190c0de-%'`));
            return (own[0]?.n ?? 0) > 0 || (put !== undefined && held?.n !== put) || (held?.newest ?? 1) > 1;
          },
        ),
      )
    ).some(Boolean)
  );
}

/** Returns what the batches of the past drew, each material as one delivery before the first of them, so that what is left is what the lots of today say. */
function deliveries(draws: readonly Draw[], receivedOn: string) {
  const drawn = new Map<string, number>();
  for (const { materialId, amount } of draws) drawn.set(materialId, (drawn.get(materialId) ?? 0) + amount);
  return LOTS.filter((lot, index) => LOTS.findIndex((other) => other.materialId === lot.materialId) === index).flatMap((lot) => {
    const amount = Math.ceil(drawn.get(lot.materialId) ?? 0);
    if (amount === 0) return [];
    const { kind, materialId } = lot;
    return [{ kind, materialId, code: "", amount, cost: lot.cost == null ? null : Math.round((lot.cost * amount) / lot.amount), receivedOn }];
  });
}

/** So many batches are made and written at a time, so that ten years need no more room than a month. */
const AT_ONCE = 200;
/** Twelve batches a week, twenty-five jars each. */
const BATCHES_A_YEAR = 600;
/** What lies behind the demo: nothing, about fifty batches, as many as are asked for, or so many years of a busy workshop with all that belongs to them. */
export type History = boolean | Past | { years: number; batchesAYear?: number; onYear?: (year: number) => void };
const isYears = (history: History): history is Extract<History, { years: number }> => typeof history === "object" && "years" in history;

/** Writes batches, oldest first, with what follows from them; returns what those of the past drew. `onBatch` hears of each before it is made. */
async function putBatches(
  tx: Transaction,
  workshopId: string,
  all: readonly DemoBatch[],
  now: Date,
  { scenario, isBusy, onBatch }: { scenario: Scenario; isBusy: boolean; onBatch?: (batch: DemoBatch) => void },
): Promise<Draw[]> {
  const draws: Draw[] = [];
  const isOwn = (batch: DemoBatch) => BATCHES.some((own) => own.id === batch.id);
  const madeFrom = (demo: DemoBatch) => {
    onBatch?.(demo);
    const events = eventsOfDemo(demo, now, isBusy && !isOwn(demo), scenario);
    const refusal = refusalIn(BATCH, CHECKED_BATCH, events);
    if (refusal) throw new Error(`Batch ${demo.number} of the demo holds what the program would not take: ${refusal}`);
    const made = { demo, events, ...batchOf(events) };
    if (!isOwn(demo))
      for (const [materialId, { amount }] of Object.entries(made.state.drawn)) draws.push({ materialId, amount, daysBefore: demo.startedBefore / 86_400 });
    return made;
  };
  const write = async (made: ReturnType<typeof madeFrom>[]) => {
    await tx
      .insert(batches)
      .values(made.map(({ demo, plan, state }) => ({ workshopId, id: demo.id, number: demo.number, formulaVersionId: demo.version, ...rowOf(plan, state) })));
    await inParts(
      made.flatMap(({ demo, events }) => events.map((event) => eventRow(workshopId, demo.id, event))),
      (rows) => tx.insert(batchEvents).values(rows),
    );
    await inParts(
      made.flatMap(({ demo, uses }) => stockUseRows(workshopId, demo.id, uses)),
      (rows) => tx.insert(stockUses).values(rows),
    );
    const came = made.map(({ demo, plan, state }) => outcomeTables(workshopId, demo.id, outcomeRows(plan, state)));
    await inParts(
      came.flatMap((outcome) => outcome.outcomeValues),
      (rows) => tx.insert(outcomes).values(rows),
    );
    await inParts(
      came.flatMap((outcome) => outcome.flawValues),
      (rows) => tx.insert(outcomeFlaws).values(rows),
    );
  };
  let writing: Promise<void> = Promise.resolve();
  for (let from = 0; from < all.length; from += AT_ONCE) {
    // The next are made while the database writes the ones before.
    const made = all.slice(from, from + AT_ONCE).map(madeFrom);
    await writing;
    // Without it, an insert of a large workshop beside a small one sometimes ran into the time limit: it seems that statistics taken by
    // others, who cannot see these rows yet, led to the wrong index. Taken here they see the first rows, and hold off others until the end.
    if (from === AT_ONCE) await tx.execute(sql`analyze batch, batch_event, stock_use, outcome, outcome_flaw`);
    writing = write(made);
  }
  await writing;
  return draws;
}

/** Moves a start into the hours from seven to four of its day, so that nobody pours at night; given and returned in seconds before now. */
function inWorkingHours(startedBefore: number, now: Date): number {
  const start = new Date(now.getTime() - startedBefore * 1_000);
  const ofDay = (start.getUTCHours() * 3_600 + start.getUTCMinutes() * 60 + start.getUTCSeconds()) / 86_400;
  const morning = Date.UTC(start.getUTCFullYear(), start.getUTCMonth(), start.getUTCDate(), 7);
  return Math.round((now.getTime() - morning) / 1_000 - ofDay * 9 * 3_600);
}

/** Returns what tells, batch by batch, which year is being made, each of them once. */
function yearReporter(days: number, onYear: ((year: number) => void) | undefined) {
  let reported = 0;
  return ({ startedBefore }: DemoBatch) => {
    const year = Math.min(Math.ceil(days / 365), Math.floor((days - startedBefore / 86_400) / 365) + 1);
    if (year <= reported) return;
    reported = year;
    onYear?.(year);
  };
}

/**
 * Puts the made-up workshop into a database, under an id and a name; everything in it has the same ids in each. The batches of
 * its history and its own are numbered by time.
 */
export async function putDemo(db: Database, workshop: { id: string; name: string }, now: Date, history: History = false): Promise<void> {
  const workshopId = workshop.id;
  const at = now.toISOString();
  const asked = isYears(history) ? history : null;
  const years = asked && yearsScenario(asked.years);
  const scenario: Scenario = years ?? SHED;
  const past = years
    ? pastBatches({ many: years.years * (asked?.batchesAYear ?? BATCHES_A_YEAR), days: years.days, times: 2.25, kinds: years.kinds }).map((batch, index) => ({
        ...batch,
        startedBefore: inWorkingHours(batch.startedBefore, now),
        crew: crewAt(batch.startedBefore / 86_400 / years.days, index),
      }))
    : history
      ? pastBatches(typeof history === "object" && !isYears(history) ? history : {})
      : [];
  const sales = years ? sellYears(past, years, now) : null;
  const all = [...past, ...BATCHES]
    .sort((a, b) => b.startedBefore - a.startedBefore)
    .map((demoBatch, index) => (history ? { ...demoBatch, number: index + 1 } : demoBatch));
  const isBusy = typeof history === "object";
  await db.transaction(async (tx) => {
    await tx
      .insert(workshops)
      .values({ ...WORKSHOP, ...workshop, timeZone: process.env.HEARTH_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone, createdAt: at });
    await tx.insert(people).values(scenario.people.map((item) => ({ ...item, workshopId })));
    for (const [table, rows] of [
      [waxes, scenario.materials.waxes],
      [fragrances, scenario.materials.fragrances],
      [vessels, scenario.materials.vessels],
      [dyes, scenario.materials.dyes],
      [additives, scenario.materials.additives],
      [wicks, scenario.materials.wicks],
      [molds, scenario.materials.molds],
      [embeds, scenario.materials.embeds],
      [packs, scenario.materials.packs],
    ] as const)
      await tx.insert(table as typeof packs).values(rows.map((row) => ({ ...row, workshopId })) as never);
    await tx.insert(instruments).values(INSTRUMENTS.map((instrument) => ({ ...instrument, workshopId })));
    const before = (days: number) => new Date(now.getTime() - days * 86_400_000).toISOString();
    await tx.insert(lots).values(LOTS.map(({ daysBefore, ...lot }) => ({ ...lot, workshopId, receivedOn: before(daysBefore).slice(0, 10) })));
    await tx.insert(formulas).values(
      scenario.formulas.map(({ id, name, archived = false }, index) => ({
        workshopId,
        id,
        name,
        archived,
        updatedAt: before(16 + index),
        updatedBy: scenario.people[0]?.id ?? null,
      })),
    );
    await tx.insert(formulaVersions).values(
      scenario.formulas.flatMap((formula) =>
        formula.versions.map(({ daysBefore, ...version }) => ({
          ...version,
          workshopId,
          formulaId: formula.id,
          createdAt: before(daysBefore ?? (version.number === 1 ? 40 : 16)),
        })),
      ),
    );
    await tx.insert(colors).values(COLORS.map(({ daysBefore, ...rest }) => ({ ...rest, workshopId, at: before(daysBefore) })));
    await tx.insert(notes).values(scenario.notes.map(({ daysBefore, ...rest }) => ({ ...rest, workshopId, at: before(daysBefore) })));
    await tx.insert(products).values(scenario.products.map((product) => ({ ...product, workshopId })));
    await tx
      .insert(demandLines)
      .values(WANTED.map(({ inDays, ...rest }) => ({ ...rest, workshopId, at, wantedOn: inDays === null ? null : before(-inDays).slice(0, 10) })));
    const draws = await putBatches(tx, workshopId, all, now, { scenario, isBusy, ...(years ? { onBatch: yearReporter(years.days, asked?.onYear) } : {}) });
    const bought = years ? yearsLots(draws, years, now) : deliveries(draws, before(Math.ceil((all[0]?.startedBefore ?? 0) / 86_400) + 3).slice(0, 10));
    await inParts(
      bought.map((lot, index) => ({ ...lot, workshopId, id: demoId(0x27, index + 1) })),
      (rows) => tx.insert(lots).values(rows),
    );
    if (years) await tx.insert(supplierSheets).values(yearsSheets(years, now).map((sheet) => ({ ...sheet, workshopId })));
    for (const { id, number, events } of demoTrials(now, scenario, years ? yearsTrials(years) : [])) {
      const { plan, state } = TRIAL.of(events);
      await tx.insert(trials).values({ workshopId, id, number, ...trialRow(plan, state) });
      await tx.insert(trialEvents).values(events.map((event) => trialEventRow(workshopId, id, event)));
      await writeBurns(tx, workshopId, id, plan, state, null);
    }
  });
  if (sales) await putYearsSales(db, workshopId, sales, now);
  if (!isBusy || years) await putFinishedGoods(db, workshopId, now, Boolean(history));
}

/**
 * Loads the made-up workshop where the database has no workshop yet. Its dates hang on the day it is loaded; a demo of
 * an earlier day that nobody has touched is loaded anew, so that something is always setting, curing and due; but not years of
 * it, which take minutes.
 */
export async function loadDemo(url: string, now: Date, history: Exclude<History, false> = true): Promise<void> {
  const { db, pool } = openDatabase(url);
  try {
    const [there] = await db.select().from(workshops).where(eq(workshops.id, WORKSHOP.id));
    if (there) {
      const sameDay = new Date(there.createdAt).toDateString() === now.toDateString();
      if (sameDay || isYears(history) || (await touched(db, there.createdAt))) return;
      await db.delete(workshops).where(eq(workshops.id, WORKSHOP.id));
    } else if (((await db.select({ n: count() }).from(workshops))[0]?.n ?? 0) > 0) return;
    await putDemo(db, WORKSHOP, now, history);
    await putNotesWorkshop(db, now);
  } finally {
    await pool.end();
  }
}
