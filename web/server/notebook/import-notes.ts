import {
  BATCH,
  type BatchEvent,
  type BatchNote,
  type BatchPlan,
  type BurnNote,
  batchNote,
  batchOf,
  burnEntries,
  burnNotes,
  type CandleNote,
  candleNote,
  countOf,
  dayAt,
  isNoteHead,
  type NameChoices,
  type NoteFault,
  type NoteRow,
  type NotesReading,
  nameKey,
  namesUsed,
  notedEntries,
  ok,
  PROTOCOLS,
  planBatch,
  type Result,
  readNoteRows,
  reject,
  type TestCandle,
  TRIAL,
  type TrialEvent,
  type TrialPlan,
  tableOf as tableOfNotes,
  timeOn,
  wicksOf,
} from "@hearth/core";
import { and, eq, inArray, max } from "drizzle-orm";
import { v5, v7 } from "uuid";
import { eventRow, rowOf } from "@/data/batch-rows";
import type { Transaction } from "@/data/client";
import { outcomeRows, outcomeTables } from "@/data/outcome-rows";
import { batchEvents, batches } from "@/data/tables/batch";
import { outcomeFlaws, outcomes } from "@/data/tables/finding";
import { type CreatedByImport, noteImports } from "@/data/tables/note-import";
import { vessels, wicks } from "@/data/tables/shelf";
import { trialEvents, trials } from "@/data/tables/trial";
import { trialEventRow, trialRow, writeBurns } from "@/data/trial-rows";
import { fromBatch } from "@/server/burn/test-candles";
import type { Actor } from "@/server/http/context";
import { readMaterials, type ShelfMaterials } from "@/server/inventory/shelf";
import { nextNumber } from "@/server/shared/next-number";
import { lockWorkshop } from "@/server/workshops/workshops";
import { NotedFormulas } from "./noted-formulas";
import { putOnShelf } from "./put-on-shelf";
import type { NotesInput } from "./schema";

/** What an import brought in. */
export interface NotesImported {
  importId: string;
  batches: number;
  trials: number;
  formulas: number;
  /** Rows that were in the workshop already. */
  already: number;
}

/** A scale that stands in where the notes name none; it is on no shelf. */
const SCALE_NOT_NOTED = { id: "00000000-0000-4000-8000-000000000000", name: "not noted", resolutionUg: 100_000 };
/** Rows of one statement: more would have more parameters than the protocol takes. */
const ROWS_AT_ONCE = 500;
/** Test candles of one trial. */
const MAX_IN_TRIAL = 40;
const NOON = 12 * 60;

const inParts = <T>(rows: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(rows.length / ROWS_AT_ONCE) }, (_, index) => rows.slice(index * ROWS_AT_ONCE, (index + 1) * ROWS_AT_ONCE));

/** Names a row by what it says, so that the same row is the same batch whenever it is imported; of rows that say the same, the second is another. */
function idOfRow(workshopId: string, kind: string, row: unknown, seen: Map<string, number>): string {
  const text = JSON.stringify([kind, row]);
  const n = (seen.get(text) ?? 0) + 1;
  seen.set(text, n);
  return v5(`${text} ${n}`, workshopId);
}

function firstFault(faults: readonly { line: number; faults: readonly NoteFault[] }[]): Result<never> | null {
  const wrong = faults.filter((row) => row.faults.length > 0);
  const [first] = wrong;
  if (!first) return null;
  const [fault] = first.faults;
  const more = wrong.length > 1 ? ` ${countOf(wrong.length - 1, "more row has", "more rows have")} errors.` : "";
  return reject(`Row ${first.line}${fault?.cell ? `, ${fault.cell}` : ""}: ${fault?.message}${more} Nothing was imported.`);
}

/** What everything that is imported rests on. */
interface Ground {
  tx: Transaction;
  actor: Actor;
  importId: string;
  ids: ReadonlyMap<string, string>;
  shelf: ShelfMaterials;
  formulas: NotedFormulas;
  vessels: ReadonlyMap<string, typeof vessels.$inferSelect>;
  wicks: ReadonlyMap<string, typeof wicks.$inferSelect>;
}

/** Returns what a note of a candle stands for, with its references turned into ids. */
function withIds<N extends CandleNote>(note: N, ids: Ground["ids"]): N {
  const idOf = (ref: string) => ids.get(ref) ?? ref;
  return {
    ...note,
    waxes: note.waxes.map((part) => ({ ...part, ref: idOf(part.ref) })),
    scents: note.scents.map((part) => ({ ...part, ref: idOf(part.ref) })),
    vessel: idOf(note.vessel),
    wick: note.wick && { ...note.wick, ref: idOf(note.wick.ref) },
  };
}

/** Returns the plan of a batch as far as notes tell it; a message where something of it is not on the shelf. */
async function planOf(ground: Ground, note: CandleNote, count: number, day: string): Promise<{ plan: BatchPlan; versionId: string } | string> {
  const vessel = ground.vessels.get(note.vessel);
  if (!vessel) return "its vessel is not on the shelf.";
  const wick = note.wick ? ground.wicks.get(note.wick.ref) : null;
  if (note.wick && !wick) return "its wick is not on the shelf.";
  const version = await ground.formulas.versionOf(note, day);
  if (!version) return "its wax or scent is not on the shelf.";
  const planned = planBatch(
    {
      process: version.spec.process,
      pots: [{ name: version.name, formulaId: version.formulaId, number: version.number, spec: version.spec }],
      products: [{ ...vessel, container: "vessel", count, chosenWicks: wick && note.wick ? wicksOf(wick, note.wick.count) : null }],
      sparePpm: 0,
      scales: { wax: SCALE_NOT_NOTED, oil: SCALE_NOT_NOTED },
    },
    ground.shelf,
  );
  return { plan: { ...planned, fromNotes: true }, versionId: version.id };
}

interface MadeBatch {
  id: string;
  number: number;
  note: BatchNote;
  plan: BatchPlan;
  pouredAt: string;
}

/** Writes the batches of notes, in the order of their days, each with all its entries at once. */
async function putBatches(ground: Ground, notes: readonly BatchNote[]): Promise<Result<{ made: MadeBatch[]; already: number }>> {
  const { tx, actor, importId } = ground;
  const { workshop, now, person } = actor;
  const seen = new Map<string, number>();
  const wanted = [...notes]
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.line - b.line))
    .map((note) => ({ note, id: idOfRow(workshop.id, "batch", { ...note, line: 0 }, seen) }));
  const there = new Set<string>();
  for (const part of inParts(wanted))
    for (const { id } of await tx
      .select({ id: batches.id })
      .from(batches)
      .where(
        and(
          eq(batches.workshopId, workshop.id),
          inArray(
            batches.id,
            part.map((item) => item.id),
          ),
        ),
      ))
      there.add(id);
  const made: MadeBatch[] = [];
  const rows: (typeof batches.$inferInsert)[] = [];
  const events: (typeof batchEvents.$inferInsert)[] = [];
  const found: ReturnType<typeof outcomeTables>[] = [];
  let number = await nextNumber(tx, workshop.id);
  for (const { note, id } of wanted) {
    if (there.has(id)) continue;
    const planned = await planOf(ground, note, note.count, note.day);
    if (typeof planned === "string") return reject(`Row ${note.line}: ${planned} Nothing was imported.`);
    const { plan, versionId } = planned;
    const pouredAt = new Date(timeOn(note.day, NOON, workshop.timeZone)).toISOString();
    const head = { arrivedAt: now, personId: null, instrumentId: null, corrects: null };
    const log = [
      { ...head, id: v7(), happenedAt: pouredAt, kind: "started", personId: person?.id ?? null, payload: { plan } } as BatchEvent,
      ...notedEntries(plan, note, pouredAt).map(({ happenedAt, body }) => ({ ...head, id: v7(), happenedAt, ...body }) as BatchEvent),
    ];
    const [refused] = BATCH.refusedEvents(log);
    if (refused) return reject(`Row ${note.line}: ${refused.refusal.message} Nothing was imported.`);
    const { state } = batchOf(log);
    rows.push({ workshopId: workshop.id, id, number, formulaVersionId: versionId, drawsStock: false, noteImportId: importId, ...rowOf(plan, state) });
    events.push(...log.map((event) => eventRow(workshop.id, id, event)));
    found.push(outcomeTables(workshop.id, id, outcomeRows(plan, state)));
    made.push({ id, number, note, plan, pouredAt });
    number += 1;
  }
  for (const part of inParts(rows)) await tx.insert(batches).values(part);
  for (const part of inParts(events)) await tx.insert(batchEvents).values(part);
  for (const part of inParts(found.flatMap((item) => item.outcomeValues))) await tx.insert(outcomes).values(part);
  for (const part of inParts(found.flatMap((item) => item.flawValues))) await tx.insert(outcomeFlaws).values(part);
  return ok({ made, already: there.size });
}

/** A test candle with the entries that are made of it, given its key, its variant and how an hour of a day is timed. */
interface NotedCandle {
  candle: Omit<TestCandle, "key" | "variant" | "code">;
  entriesOf: (key: string, variant: string) => { happenedAt: string; kind: string; payload: unknown }[];
}

/** Writes trials of test candles that were burned long ago: closed, with their codes revealed, at most 40 candles each. Gives how many. */
async function putTrials(ground: Ground, name: string, all: readonly NotedCandle[]): Promise<Result<number>> {
  const { tx, actor, importId } = ground;
  const { workshop, now, person } = actor;
  const [protocol] = PROTOCOLS;
  if (!protocol) return reject("There is no protocol.");
  const { id: _id, says: _says, ...burned } = protocol;
  const [top] = await tx
    .select({ top: max(trials.number) })
    .from(trials)
    .where(eq(trials.workshopId, workshop.id));
  let number = (top?.top ?? 0) + 1;
  let many = 0;
  for (let from = 0; from < all.length; from += MAX_IN_TRIAL) {
    const part = all.slice(from, from + MAX_IN_TRIAL);
    const testCandles: TestCandle[] = part.map(({ candle }, index) => ({ ...candle, key: `N${index + 1}`, variant: `N${index + 1}`, code: `N${index + 1}` }));
    const plan: TrialPlan = {
      format: 2,
      name: `${name}${all.length > MAX_IN_TRIAL ? ` ${many + 1}` : ""}`.slice(0, 120),
      varies: null,
      protocol: burned,
      testCandles,
      fromNotes: true,
    };
    const entries = part
      .flatMap(({ entriesOf }, index) => entriesOf(`N${index + 1}`, `N${index + 1}`))
      .sort((a, b) => Date.parse(a.happenedAt) - Date.parse(b.happenedAt));
    const [first, last] = [entries[0]?.happenedAt ?? now, entries.at(-1)?.happenedAt ?? now];
    const head = { arrivedAt: now, personId: person?.id ?? null, instrumentId: null, corrects: null };
    const log = [
      { ...head, id: v7(), happenedAt: first, kind: "started", payload: { plan } },
      ...entries.map((entry) => ({ ...head, id: v7(), ...entry })),
      { ...head, id: v7(), happenedAt: last, kind: "codesRevealed", payload: {} },
      { ...head, id: v7(), happenedAt: last, kind: "closed", payload: {} },
    ] as TrialEvent[];
    const [refused] = TRIAL.refusedEvents(log);
    if (refused) return reject(`${name}: ${refused.refusal.message} Nothing was imported.`);
    const { state } = TRIAL.of(log);
    const trialId = v7();
    await tx.insert(trials).values({ workshopId: workshop.id, id: trialId, number, noteImportId: importId, ...trialRow(plan, state) });
    for (const events of inParts(log.map((event) => trialEventRow(workshop.id, trialId, event)))) await tx.insert(trialEvents).values(events);
    await writeBurns(tx, workshop.id, trialId, plan, state, null);
    number += 1;
    many += 1;
  }
  return ok(many);
}

/** Hot throw that stands beside a batch is kept as a trial of one of its candles, which is where throw is compared. */
const hotThrowOf = (batch: MadeBatch): NotedCandle[] => {
  const { note, plan, id, number, pouredAt } = batch;
  const [product] = plan.products;
  const candle = product && fromBatch(plan, product.key);
  if (note.hot === null || note.cure === null || !product || !candle) return [];
  const at = new Date(Date.parse(pouredAt) + note.cure * 1_000).toISOString();
  return [
    {
      candle: { ...candle, batch: { id, number, product: product.key, taken: false }, productId: null },
      entriesOf: (testCandle) => [
        { happenedAt: at, kind: "throwScored", payload: { testCandle, throw: "hot", room: note.hotRoom || "not noted", score: note.hot } },
      ],
    },
  ];
};

async function burnedCandles(ground: Ground, notes: readonly BurnNote[]): Promise<Result<NotedCandle[]>> {
  const { workshop } = ground.actor;
  const hourOf = (day: string, hour: number) => new Date(timeOn(day, hour * 60, workshop.timeZone)).toISOString();
  const all: NotedCandle[] = [];
  for (const note of notes) {
    const planned = await planOf(ground, note, 1, note.checks[0]?.day ?? dayAt(ground.actor.now, workshop.timeZone));
    if (typeof planned === "string") return reject(`Row ${note.checks[0]?.line}: ${planned} Nothing was imported.`);
    const candle = fromBatch(planned.plan, planned.plan.products[0]?.key ?? "");
    if (candle)
      all.push({
        candle: { ...candle, batch: null, productId: null },
        entriesOf: (key, variant) => burnEntries(note, key, variant, hourOf),
      });
  }
  return ok(all);
}

/** Returns the rows of a notebook as they are read on this server, whatever the page made of them. */
function readRows(input: NotesInput, today: string): { reading: NotesReading; rows: NoteRow[] } | null {
  const table = tableOfNotes(input.grid, (head) => isNoteHead(input.kind, head));
  if (!table) return null;
  const reading: NotesReading = { ...input.reading, kind: input.kind, table };
  return { reading, rows: readNoteRows(reading, today, (name) => ["wax", "fragrance"].some((kind) => nameKey(kind as "wax", name) in input.names)) };
}

/**
 * Brings a notebook in, within a transaction: all its rows, or none. Rows that are in the workshop already stay as they are. What the rows name and the shelf
 * lacks is put there; no stock is drawn. Rejected, with the row and the cell, if a row cannot be read.
 */
export async function importNotesIn(tx: Transaction, actor: Actor, input: NotesInput): Promise<Result<NotesImported>> {
  const { workshop, now, person } = actor;
  const today = dayAt(now, workshop.timeZone);
  const read = readRows(input, today);
  if (!read || read.rows.length === 0) return reject("There is no row to import.");
  const { reading, rows } = read;
  const choices: NameChoices = input.names;
  const batchNotes = input.kind === "batches" ? rows.map((row) => ({ line: row.line, ...batchNote(row, reading, choices, today) })) : [];
  const burned = input.kind === "burns" ? burnNotes(rows, reading, choices) : null;
  const recipes = input.kind === "recipes" ? rows.map((row) => ({ row, ...candleNote(row, reading, choices) })) : [];
  const fault = firstFault([
    ...batchNotes,
    ...[...(burned?.faults ?? [])].map(([line, faults]) => ({ line, faults })),
    ...recipes.map(({ row, faults }) => ({ line: row.line, faults: [...row.faults, ...faults] })),
  ]);
  if (fault) return fault;

  await lockWorkshop(tx, workshop.id);
  const [before] = await tx
    .select()
    .from(noteImports)
    .where(and(eq(noteImports.workshopId, workshop.id), eq(noteImports.id, input.importId)));
  if (before) return ok({ importId: before.id, batches: before.batches, trials: before.trials, formulas: before.formulas, already: 0 });
  const { ids, created } = await putOnShelf(tx, workshop.id, namesUsed(rows), choices);
  const shelf = await readMaterials(tx, workshop.id);
  const formulas = new NotedFormulas(tx, actor, shelf, await NotedFormulas.known(tx, workshop.id));
  const byId = <T extends { id: string }>(all: readonly T[]) => new Map(all.map((row) => [row.id, row]));
  const ground: Ground = {
    ...{ tx, actor, importId: input.importId, ids, shelf, formulas },
    vessels: byId(await tx.select().from(vessels).where(eq(vessels.workshopId, workshop.id))),
    wicks: byId(await tx.select().from(wicks).where(eq(wicks.workshopId, workshop.id))),
  };
  const put = await putBatches(
    ground,
    batchNotes.map(({ note }) => withIds(note, ids)),
  );
  if (!put.ok) return put;
  const candles = await burnedCandles(
    ground,
    (burned?.notes ?? []).map((note) => withIds(note, ids)),
  );
  if (!candles.ok) return candles;
  const tried = await putTrials(ground, `From notes: ${input.file}`, [...put.value.made.flatMap(hotThrowOf), ...candles.value]);
  if (!tried.ok) return tried;
  for (const { row, candle } of recipes) {
    const version = await formulas.recipe(withIds(candle, ids), row.values);
    if (!version) return reject(`Row ${row.line}: its wax or scent is not on the shelf. Nothing was imported.`);
  }
  const imported = { batches: put.value.made.length, trials: tried.value, formulas: formulas.created.formulas.length };
  await tx.insert(noteImports).values({
    workshopId: workshop.id,
    id: input.importId,
    kind: input.kind,
    file: input.file,
    at: now,
    personId: person?.id ?? null,
    ...imported,
    created: { shelf: created, ...formulas.created } satisfies CreatedByImport,
  });
  return ok({ importId: input.importId, ...imported, already: put.value.already });
}
