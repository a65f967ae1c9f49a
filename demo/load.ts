import { type BatchEvent, batchOf, type ChosenProduct, type EventBody, planBatch } from "@hearth/core";
import { count, eq, gt, max, ne, or, sql } from "drizzle-orm";
import { eventRow, rowOf } from "../web/data/batch-rows";
import { type Database, openDatabase } from "../web/data/client";
import { writeOutcomes } from "../web/data/outcome-rows";
import { batchEvents, batches } from "../web/data/tables/batch";
import { colours } from "../web/data/tables/colour";
import { formulas, formulaVersions } from "../web/data/tables/formula";
import { notes } from "../web/data/tables/note";
import { dayPlans, planning, wanted } from "../web/data/tables/plan";
import { products } from "../web/data/tables/product";
import { additives, dyes, fragrances, instruments, moulds, vessels, waxes, wicks } from "../web/data/tables/shelf";
import { lots, stockCounts } from "../web/data/tables/stock";
import { people, workshops } from "../web/data/tables/workshop";
import { writeDraws } from "../web/server/append";
import { pastBatches } from "./past";
import {
  ADDITIVES,
  BATCHES,
  COLOURS,
  type DemoBatch,
  DYES,
  demoId,
  FORMULAS,
  FRAGRANCES,
  INSTRUMENTS,
  LOTS,
  MOULDS,
  NOTES,
  PEOPLE,
  PRODUCTS,
  VESSELS,
  WANTED,
  WAXES,
  WICKS,
  WORKSHOP,
} from "./workshop";

const need = <T>(value: T | undefined, what: string): T => {
  if (value === undefined) throw new Error(`The demo lacks ${what}.`);
  return value;
};

/** Which act a reading of the demo belongs to. */
const ACT_OF: Record<string, string | null> = { heat: "heat", add: "add", pour: "cool", watch: null };

/** The events of one demo batch, hung on `now`. */
function eventsOfDemo(demo: DemoBatch, now: Date): BatchEvent[] {
  const version = need(
    FORMULAS.flatMap((formula) => formula.versions.map((one) => ({ ...one, formula }))).find((one) => one.id === demo.version),
    "a version",
  );
  const family = need(
    WAXES.find((one) => one.id === version.spec.waxes[0]?.id),
    "a wax",
  ).family;
  /** The wick whose span holds the body's diameter. */
  const wickFor = (body: { innerTopUm: number; innerBottomUm: number; wicks?: number | undefined }): ChosenProduct["chosenWicks"] => {
    const at = Math.min(body.innerTopUm, body.innerBottomUm);
    const wick = WICKS.find((one) => one.fromUm <= at && at <= one.toUm && (!("families" in one) || !one.families || one.families.includes(family)));
    return wick ? { wickId: wick.id, name: wick.name, kind: wick.kind, size: wick.size, count: body.wicks ?? 1 } : null;
  };
  const products = [
    ...demo.vessels.map(([n, count]): ChosenProduct => {
      const vessel = need(
        VESSELS.find((one) => one.id === demoId(4, n)),
        "a vessel",
      );
      return { ...vessel, body: "vessel", count, chosenWicks: wickFor(vessel as never) };
    }),
    ...(demo.moulds ?? []).map(([n, count]): ChosenProduct => {
      const mould = need(
        MOULDS.find((one) => one.id === demoId(0x24, n)),
        "a mould",
      );
      return { ...mould, body: "mould", statedFillMg: mould.fillMg, workingFillMg: mould.fillMg, soldByWeight: false, count, chosenWicks: wickFor(mould) };
    }),
  ];
  const formula = { name: version.formula.name, number: version.number, spec: version.spec };
  const shelf = { waxes: WAXES, fragrances: FRAGRANCES, additives: ADDITIVES, dyes: DYES };
  const scaleOf = (n: number) => {
    const { id, name, resolutionUg } = need(INSTRUMENTS[n], "a scale");
    return { id, name, resolutionUg: resolutionUg ?? 1_000_000 };
  };
  const plan = planBatch(
    { process: version.spec.process, pots: [formula], products, sparePpm: demo.sparePpm, scales: { wax: scaleOf(0), oil: scaleOf(1) } },
    shelf,
  );
  const events: BatchEvent[] = [];
  const startMs = now.getTime() - demo.startedBefore * 1_000;
  const add = (after: number, body: EventBody, more: { instrumentId?: string; corrects?: string; who?: number } = {}): string => {
    const at = new Date(startMs + after * 1_000).toISOString();
    const id = demoId(0x900 + Number.parseInt(demo.id.slice(-12), 16) + (demo.id.startsWith(demoId(0x18, 1).slice(0, 13)) ? 0x100 : 0), events.length + 1);
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
  plan.pots[0]?.components.forEach((part, index) => {
    const at = demo.weighedAt + index * 60;
    const mg = part.mg + (demo.off[index] ?? 0);
    const instrumentId: string = part.scale.id ?? demoId(5, 1);
    if (index === 1 && demo.slip) {
      const wrong = add(at, { kind: "weighed", payload: { pot: 0, componentId: part.id, mg: demo.slip } }, { instrumentId });
      add(at + 20, { kind: "weighed", payload: { pot: 0, componentId: part.id, mg } }, { instrumentId, corrects: wrong });
    } else add(at, { kind: "weighed", payload: { pot: 0, componentId: part.id, mg } }, { instrumentId });
  });
  for (const [what, at, celsius, tool] of demo.readings) {
    const instrument = tool === "infrared" ? need(INSTRUMENTS[3], "the infrared") : need(INSTRUMENTS[2], "the probe");
    add(
      at,
      { kind: "read", payload: { act: ACT_OF[what] ?? null, shown: Math.round(celsius * 100), correction: instrument.correction } },
      { instrumentId: instrument.id, who: what === "watch" ? 2 : 1 },
    );
  }
  if (demo.stirredAt) add(demo.stirredAt, { kind: "stirred", payload: { act: "stir", seconds: 120 } });
  if (demo.pouredAt)
    add(demo.pouredAt, {
      kind: "poured",
      payload: {
        act: "pour",
        filled: plan.products.map((one) => ({ product: one.key, count: one.count })),
        leftMg: null,
        roomCelsius: Math.round((demo.room ?? (demo.number % 2 === 1 ? 21 : 18.5)) * 100),
        warmed: demo.warmed ?? (demo.number % 2 === 1 ? "heat gun" : "no"),
      },
    });
  for (const { vessel, ...flaw } of demo.flaws ?? [])
    add((demo.lookedAt ?? 0) - 300, { kind: "flaw", payload: { ...flaw, product: demoId(4, vessel) } }, { who: 2 });
  if (demo.lookedAt) add(demo.lookedAt, { kind: "looked", payload: { jars: products.reduce((sum, one) => sum + one.count, 0) } }, { who: 2 });
  for (const [at, text] of demo.notes ?? []) add(at, { kind: "note", payload: { text } });
  if (demo.abandonedAt) add(demo.abandonedAt, { kind: "abandoned", payload: { why: "scorched", wax: "thrown away", mg: null } });
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
    (await some(
      db
        .select({ n: count() })
        .from(notes)
        .where(or(eq(notes.gone, true), gt(notes.at, loadedAt))),
    )) ||
    (await some(
      db
        .select({ n: count() })
        .from(colours)
        .where(or(eq(colours.gone, true), gt(colours.at, loadedAt))),
    )) ||
    (await some(db.select({ n: count() }).from(planning))) ||
    (await some(db.select({ n: count() }).from(dayPlans))) ||
    (await some(db.select({ n: count() }).from(formulas).where(gt(formulas.updatedAt, loadedAt)))) ||
    (
      await Promise.all(
        ([waxes, fragrances, vessels, instruments, dyes, additives, wicks, moulds, products, lots, wanted] as unknown as (typeof waxes)[]).map(
          async (table, index) => {
            const put = [WAXES, FRAGRANCES, VESSELS, INSTRUMENTS, DYES, ADDITIVES, WICKS, MOULDS, PRODUCTS, undefined, WANTED][index]?.length;
            const [held] = await db.select({ n: count(), newest: max(table.version) }).from(table);
            const own = await db.select({ n: count() }).from(table).where(sql`${table.id}::text not like '0190c0de-%'`);
            return (own[0]?.n ?? 0) > 0 || (put !== undefined && held?.n !== put) || (held?.newest ?? 1) > 1;
          },
        ),
      )
    ).some(Boolean)
  );
}

/** What the batches of the past drew, each as one delivery before the first of them, so that what is left is what the lots of today say. */
function deliveries(drawn: ReadonlyMap<string, number>, workshopId: string, receivedOn: string) {
  return LOTS.filter((lot, at) => LOTS.findIndex((other) => other.materialId === lot.materialId) === at).flatMap((lot, at) => {
    const amount = Math.ceil(drawn.get(lot.materialId) ?? 0);
    if (amount === 0) return [];
    const cost = lot.cost == null ? null : Math.round((lot.cost * amount) / lot.amount);
    const { daysBefore: _days, ...rest } = lot;
    return [{ ...rest, id: demoId(0x27, at + 1), code: "", amount, cost, receivedOn, workshopId }];
  });
}

/**
 * Puts the made-up workshop into a database, under an id and a name; everything in it has the same ids in each. With its
 * past, about fifty batches more lie behind it, and all are numbered by time.
 */
export async function putDemo(db: Database, workshop: { id: string; name: string }, now: Date, past = false): Promise<void> {
  const workshopId = workshop.id;
  const at = now.toISOString();
  const all = past
    ? [...pastBatches(), ...BATCHES].sort((a, b) => b.startedBefore - a.startedBefore).map((one, index) => ({ ...one, number: index + 1 }))
    : BATCHES;
  const made = all.map((demo) => {
    const events = eventsOfDemo(demo, now);
    return { demo, events, ...batchOf(events) };
  });
  const drawn = new Map<string, number>();
  for (const { demo, facts } of made)
    if (!BATCHES.some((one) => one.id === demo.id)) for (const [id, draw] of Object.entries(facts.drawn)) drawn.set(id, (drawn.get(id) ?? 0) + draw.amount);
  await db.transaction(async (tx) => {
    await tx
      .insert(workshops)
      .values({ ...WORKSHOP, ...workshop, timeZone: process.env.HEARTH_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone, createdAt: at });
    await tx.insert(people).values(PEOPLE.map((one) => ({ ...one, workshopId })));
    await tx.insert(waxes).values(WAXES.map((one) => ({ ...one, workshopId })));
    await tx.insert(fragrances).values(FRAGRANCES.map((one) => ({ ...one, workshopId })));
    await tx.insert(vessels).values(VESSELS.map((one) => ({ ...one, workshopId })));
    await tx.insert(dyes).values(DYES.map((one) => ({ ...one, workshopId })));
    await tx.insert(additives).values(ADDITIVES.map((one) => ({ ...one, workshopId })));
    await tx.insert(wicks).values(WICKS.map((one) => ({ ...one, workshopId })));
    await tx.insert(moulds).values(MOULDS.map((one) => ({ ...one, workshopId })));
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
    const old = deliveries(drawn, workshopId, before(95).slice(0, 10));
    if (old.length > 0) await tx.insert(lots).values(old);
    await tx.insert(colours).values(COLOURS.map(({ daysBefore, ...one }) => ({ ...one, workshopId, at: before(daysBefore) })));
    await tx.insert(notes).values(NOTES.map(({ daysBefore, ...one }) => ({ ...one, workshopId, at: before(daysBefore) })));
    await tx.insert(products).values(PRODUCTS.map((one) => ({ ...one, workshopId })));
    await tx
      .insert(wanted)
      .values(WANTED.map(({ inDays, ...one }) => ({ ...one, workshopId, at, wantedOn: inDays === null ? null : before(-inDays).slice(0, 10) })));
    await tx
      .insert(batches)
      .values(made.map(({ demo, plan, facts }) => ({ workshopId, id: demo.id, number: demo.number, formulaVersionId: demo.version, ...rowOf(plan, facts) })));
    await tx.insert(batchEvents).values(made.flatMap(({ demo, events }) => events.map((event) => eventRow(workshopId, demo.id, event))));
    for (const { demo, plan, facts } of made) {
      await writeDraws(tx, workshopId, demo.id, facts, null);
      await writeOutcomes(tx, workshopId, demo.id, plan, facts, null);
    }
  });
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
    await putDemo(db, WORKSHOP, now, true);
  } finally {
    await pool.end();
  }
}
