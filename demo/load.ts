import { type BatchEvent, batchState, type EventBody, planBatch } from "@hearth/core";
import { count, eq, gt, max, ne } from "drizzle-orm";
import { type Database, openDatabase } from "../web/data/client";
import { batchEvents, batches } from "../web/data/tables/batch";
import { formulas, formulaVersions } from "../web/data/tables/formula";
import { additives, dyes, fragrances, instruments, vessels, waxes, wicks } from "../web/data/tables/shelf";
import { lots, stockCounts } from "../web/data/tables/stock";
import { people, workshops } from "../web/data/tables/workshop";
import { eventRow, rowOf, writeUses } from "../web/stations/batch/append";
import { ADDITIVES, BATCHES, type DemoBatch, DYES, demoId, FORMULAS, FRAGRANCES, INSTRUMENTS, LOTS, PEOPLE, VESSELS, WAXES, WICKS, WORKSHOP } from "./workshop";

const need = <T>(value: T | undefined, what: string): T => {
  if (value === undefined) throw new Error(`The demo lacks ${what}.`);
  return value;
};

/** The events of one demo batch, hung on `now`. */
function eventsOfDemo(demo: DemoBatch, now: Date): BatchEvent[] {
  const version = need(
    FORMULAS.flatMap((formula) => formula.versions.map((one) => ({ ...one, formula }))).find((one) => one.id === demo.version),
    "a version",
  );
  const chosen = demo.vessels.map(([n, jars]) => ({
    ...need(
      VESSELS.find((one) => one.id === demoId(4, n)),
      "a vessel",
    ),
    count: jars,
  }));
  const formula = { name: version.formula.name, number: version.number, spec: version.spec };
  const shelf = { waxes: WAXES, fragrances: FRAGRANCES, additives: ADDITIVES, dyes: DYES };
  const plan = planBatch(formula, shelf, { vessels: chosen, sparePpm: demo.sparePpm, resolutionUg: 1_000_000 });
  const events: BatchEvent[] = [];
  const startMs = now.getTime() - demo.startedBefore * 1_000;
  const add = (after: number, body: EventBody, more: { instrumentId?: string; corrects?: string; who?: number } = {}): string => {
    const at = new Date(startMs + after * 1_000).toISOString();
    const id = demoId(0x900 + demo.number, events.length + 1);
    events.push({
      id,
      happenedAt: at,
      arrivedAt: at,
      personId: demoId(1, more.who ?? 1),
      instrumentId: more.instrumentId ?? null,
      corrects: more.corrects ?? null,
      ...body,
    } as BatchEvent);
    return id;
  };
  add(0, { kind: "started", payload: { plan } });
  plan.components.forEach((part, index) => {
    const at = demo.weighedAt + index * 60;
    const mg = part.mg + (demo.off[index] ?? 0);
    const instrumentId = demoId(5, 1);
    if (index === 1 && demo.slip) {
      const wrong = add(at, { kind: "weighed", payload: { componentId: part.id, mg: demo.slip } }, { instrumentId });
      add(at + 20, { kind: "weighed", payload: { componentId: part.id, mg } }, { instrumentId, corrects: wrong });
    } else add(at, { kind: "weighed", payload: { componentId: part.id, mg } }, { instrumentId });
  });
  for (const [gate, at, celsius, tool] of demo.readings) {
    const instrument = tool === "infrared" ? need(INSTRUMENTS[3], "the infrared") : need(INSTRUMENTS[2], "the probe");
    add(
      at,
      { kind: "read", payload: { gate, shown: Math.round(celsius * 100), correction: instrument.correction } },
      { instrumentId: instrument.id, who: gate === "watch" ? 2 : 1 },
    );
  }
  if (demo.stirredAt) add(demo.stirredAt, { kind: "stirred", payload: { seconds: 120 } });
  if (demo.pouredAt) add(demo.pouredAt, { kind: "poured", payload: { warmedJars: demo.number % 2 === 1 } });
  for (const { vessel, ...flaw } of demo.flaws ?? [])
    add((demo.lookedAt ?? 0) - 300, { kind: "flaw", payload: { ...flaw, vesselId: demoId(4, vessel) } }, { who: 2 });
  if (demo.lookedAt) add(demo.lookedAt, { kind: "looked", payload: { jars: chosen.reduce((sum, one) => sum + one.count, 0) } }, { who: 2 });
  for (const [at, text] of demo.notes ?? []) add(at, { kind: "note", payload: { text } });
  if (demo.closedAt) add(demo.closedAt, { kind: "closed", payload: { missing: [] } });
  return events;
}

/** Whether anybody has done anything since the demo was loaded. */
async function touched(db: Database, loadedAt: string): Promise<boolean> {
  const some = async (query: Promise<{ n: number }[]>) => ((await query)[0]?.n ?? 0) > 0;
  return (
    (await some(db.select({ n: count() }).from(workshops).where(ne(workshops.id, WORKSHOP.id)))) ||
    (await some(db.select({ n: count() }).from(workshops).where(gt(workshops.version, 1)))) ||
    (await some(db.select({ n: count() }).from(batchEvents).where(gt(batchEvents.arrivedAt, loadedAt)))) ||
    (await some(db.select({ n: count() }).from(stockCounts))) ||
    (await some(db.select({ n: count() }).from(formulas).where(gt(formulas.updatedAt, loadedAt)))) ||
    (
      await Promise.all(
        ([waxes, fragrances, vessels, instruments, dyes, additives, wicks, lots] as unknown as (typeof waxes)[]).map(async (table, index) => {
          const put = [WAXES, FRAGRANCES, VESSELS, INSTRUMENTS, DYES, ADDITIVES, WICKS, LOTS][index]?.length;
          const [held] = await db.select({ n: count(), newest: max(table.version) }).from(table);
          return held?.n !== put || (held?.newest ?? 1) > 1;
        }),
      )
    ).some(Boolean)
  );
}

/**
 * Loads the made-up workshop where the database has no workshop yet. Its dates hang on the day it is loaded; a demo of
 * an earlier day that nobody has touched is loaded anew, so that something is always setting, curing and due.
 */
export async function loadDemo(url: string, now: Date): Promise<void> {
  const { db, pool } = openDatabase(url);
  try {
    const [there] = await db.select().from(workshops).where(eq(workshops.id, WORKSHOP.id));
    if (there) {
      const sameDay = new Date(there.createdAt).toDateString() === now.toDateString();
      if (sameDay || (await touched(db, there.createdAt))) return;
      await db.delete(workshops).where(eq(workshops.id, WORKSHOP.id));
    } else if (((await db.select({ n: count() }).from(workshops))[0]?.n ?? 0) > 0) return;
    const workshopId = WORKSHOP.id;
    const at = now.toISOString();
    await db.transaction(async (tx) => {
      await tx.insert(workshops).values({ ...WORKSHOP, timeZone: process.env.HEARTH_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone, createdAt: at });
      await tx.insert(people).values(PEOPLE.map((one) => ({ ...one, workshopId })));
      await tx.insert(waxes).values(WAXES.map((one) => ({ ...one, workshopId })));
      await tx.insert(fragrances).values(FRAGRANCES.map((one) => ({ ...one, workshopId })));
      await tx.insert(vessels).values(VESSELS.map((one) => ({ ...one, workshopId })));
      await tx.insert(dyes).values(DYES.map((one) => ({ ...one, workshopId })));
      await tx.insert(additives).values(ADDITIVES.map((one) => ({ ...one, workshopId })));
      await tx.insert(wicks).values(WICKS.map((one) => ({ ...one, workshopId })));
      await tx.insert(instruments).values(INSTRUMENTS.map((one) => ({ ...one, workshopId })));
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
      for (const demo of BATCHES) {
        const events = eventsOfDemo(demo, now);
        await tx.insert(batches).values({ workshopId, id: demo.id, number: demo.number, formulaVersionId: demo.version, ...rowOf(batchState(events, at)) });
        await tx.insert(batchEvents).values(events.map((event) => eventRow(workshopId, demo.id, event)));
        await writeUses(tx, workshopId, demo.id, batchState(events, at));
      }
    });
  } finally {
    await pool.end();
  }
}
