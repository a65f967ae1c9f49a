import {
  BATCH,
  type BatchEvent,
  type BatchRecord,
  BURN_FORMAT,
  type BurnRecord,
  batchOf,
  batchRecord,
  burnFault,
  burnRecord,
  CLOCK_TOLERANCE_MS,
  jarsInTheWay,
  ok,
  type Result,
  readFormula,
  recordFault,
  reject,
  unreadableOf,
  upcastBurnRecord,
  upcastRecord,
} from "@hearth/core";
import { and, eq, inArray } from "drizzle-orm";
import { z } from "zod";
import { eventRow, rowOf } from "@/data/batch-rows";
import type { Database, Transaction } from "@/data/client";
import { writeOutcomes } from "@/data/outcome-rows";
import { writeStockUses } from "@/data/stock-uses";
import { batchEvents, batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { additives, dyes, embeds, fragrances, instruments, molds, vessels, waxes, wicks } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";
import { readBatchEvents } from "@/server/events/read-events";
import { isSameLog } from "@/server/events/validate-append";
import { notifyPages } from "@/server/http/change-stream";
import { readJson } from "@/server/http/json";
import type { NamedTable } from "@/server/inventory/tables";
import { canonical } from "@/server/shared/canonical-json";
import { nextNumber } from "@/server/shared/next-number";
import { inTransaction } from "@/server/shared/transaction";
import { lockWorkshop } from "@/server/workshops/workshops";

export interface Imported {
  batchId: string;
  number: number;
  /** What a maker should know of how it was taken in. */
  remarks: string[];
}

const damaged = (error: z.ZodError): Result<never> =>
  reject(
    `This record is damaged at ${error.issues[0]?.path.map(String).join(".") || "its top"}: ${z.prettifyError(error).split("\n")[0]?.replace(/^✖ /, "")}. Nothing was imported.`,
  );

function readBurn(raw: unknown): Result<BurnRecord> {
  const parsed = burnRecord.safeParse(upcastBurnRecord(raw));
  if (!parsed.success) return damaged(parsed.error);
  const fault = burnFault(parsed.data);
  return fault ? reject(`${fault} Nothing was imported.`) : ok(parsed.data);
}

/** Reads a record's text. Says what is wrong with a broken, foreign or truncated file. */
export function readRecord(text: string): Result<BatchRecord | BurnRecord> {
  const read = readJson(text);
  if (!read.ok && read.why !== "not-json") return reject(read.message);
  if (!read.ok) {
    const cut = text.trimStart().startsWith("{") && !text.trimEnd().endsWith("}");
    return reject(cut ? "This file is incomplete. Export the record again." : "This file is not JSON. Choose a file exported from a batch's record.");
  }
  const raw = read.value;
  if (raw && typeof raw === "object" && (raw as { format?: unknown }).format === BURN_FORMAT) return readBurn(raw);
  let upcast: unknown;
  try {
    upcast = upcastRecord(raw);
  } catch {
    upcast = raw;
  }
  const parsed = batchRecord.safeParse(upcast);
  if (!parsed.success) {
    const foreign = parsed.error.issues.find((issue) => issue.path[0] === "format" || issue.path[0] === "version");
    if (foreign || typeof raw !== "object" || raw === null) return reject(foreign?.message ?? "This file is not a Hearth Jar batch record.");
    return damaged(parsed.error);
  }
  const fault = recordFault(parsed.data);
  return fault ? reject(`${fault} Nothing was imported.`) : ok(parsed.data);
}

/** Puts rows in that are not here yet; what is here under the same id is kept, and said in `remarks`. */
export async function putRows(tx: Transaction, workshopId: string, table: NamedTable, rows: { id: string; name: string }[], remarks: string[]): Promise<void> {
  const held = await tx.select().from(table).where(eq(table.workshopId, workshopId));
  const byId = new Map(held.map((item) => [String(item.id), item]));
  const names = new Set(held.map((item) => String(item.name).toLowerCase()));
  for (const row of rows) {
    const old = byId.get(row.id);
    if (old) {
      if (Object.entries(row).some(([key, value]) => canonical(old[key] ?? null) !== canonical(value ?? null)))
        remarks.push(`“${old.name}” exists already and is kept.`);
      continue;
    }
    let name = row.name;
    for (let n = 2; table !== people && names.has(name.toLowerCase()); n++) name = `${row.name.slice(0, 100)} (imported${n > 2 ? ` ${n - 1}` : ""})`;
    if (name !== row.name) remarks.push(`Another “${row.name}” exists already, so the one in the record is called “${name}”.`);
    names.add(name.toLowerCase());
    await tx.insert(table).values({ ...row, name, workshopId });
  }
}

/** Puts a formula's version in, where it is not here; why that cannot be, where one differs. */
async function putFormula(
  tx: Transaction,
  workshopId: string,
  { formula: wanted, formulaVersion }: Pick<BatchRecord, "formula" | "formulaVersion">,
  now: string,
): Promise<string | null> {
  const [formula] = await tx
    .select()
    .from(formulas)
    .where(and(eq(formulas.workshopId, workshopId), eq(formulas.id, wanted.id)));
  if (!formula) await tx.insert(formulas).values({ ...wanted, workshopId, updatedAt: now });
  const [version] = await tx
    .select()
    .from(formulaVersions)
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, formulaVersion.id)));
  if (version)
    return canonical(readFormula(version.spec)) === canonical(formulaVersion.spec)
      ? null
      : `Version ${version.number} of “${wanted.name}” differs here. Nothing was imported.`;
  const [clash] = await tx
    .select({ id: formulaVersions.id })
    .from(formulaVersions)
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.formulaId, wanted.id), eq(formulaVersions.number, formulaVersion.number)));
  if (clash) return `“${wanted.name}” has another version ${formulaVersion.number} here. Nothing was imported.`;
  await tx.insert(formulaVersions).values({ ...formulaVersion, workshopId, formulaId: wanted.id });
  return null;
}

const placeIn = (events: readonly { kind: string }[], at: number): string => `Entry ${at + 1} of ${events.length} (${events[at]?.kind})`;

/** Returns why a log cannot be taken in for its times: an entry is dated in the future, and no later correction could ever count. Null if none is. */
export function futureIn(events: readonly { kind: string; happenedAt: string; arrivedAt: string }[], now: string): string | null {
  const latest = Date.parse(now) + CLOCK_TOLERANCE_MS;
  for (const [index, event] of events.entries())
    for (const moment of [event.happenedAt, event.arrivedAt])
      if (Date.parse(moment) > latest) return `${placeIn(events, index)} is dated ${moment.slice(0, 10)}, which is in the future by this machine's clock.`;
  return null;
}

/** Returns what a record says that cannot have been: times that are still to come, more jars gone on than were poured. Null if it may have been. */
function impossibleIn(record: BatchRecord, now: string): string | null {
  const future = futureIn(record.events, now);
  if (future) return future;
  const events = record.events as BatchEvent[];
  const { plan, state } = batchOf(events);
  if (!jarsInTheWay(plan, state)) return null;
  const [first] = BATCH.refusedEvents(events).filter(({ event }) => event.kind === "statusChanged" || event.kind === "packed");
  const at = events.findIndex((event) => event.id === first?.event.id);
  return `${first ? `${placeIn(events, at)}: ${first.refusal.message} ` : ""}${jarsInTheWay(plan, state)}`;
}

/** Returns what a maker should know of entries that this program would not have taken, and of packs that are not here. */
function oddIn(record: BatchRecord): string[] {
  const events = record.events as BatchEvent[];
  const refused = BATCH.refusedEvents(events);
  const unreadable = events.filter((event) => unreadableOf(event)).length;
  const { state } = batchOf(events);
  return [
    ...(refused.length > 0 ? [`${refused.length} of its entries would be rejected here, like: ${refused[0]?.refusal.message}`] : []),
    ...(unreadable > 0 ? [`${unreadable} of its entries cannot be read; they are kept, but do not count.`] : []),
    ...(state.jarStatuses.some((jarStatus) => jarStatus.packRun)
      ? ["Its packed jars belong to packs of the workshop that it comes from; they are not in stock here."]
      : []),
  ];
}

/** Takes a record into a workshop, all or nothing. Reading the same record again changes nothing. */
export async function importRecord(db: Database, workshopId: string, record: BatchRecord, now: string, drawsStock = false): Promise<Result<Imported>> {
  const impossible = impossibleIn(record, now);
  if (impossible) return reject(`${impossible} Nothing was imported.`);
  return inTransaction(db, async (tx) => {
    const remarks: string[] = oddIn(record);
    // One import at a time into a workshop, so that batch numbers cannot collide.
    await lockWorkshop(tx, workshopId);
    const [already] = await tx
      .select()
      .from(batches)
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, record.batch.id)));
    if (already) {
      return isSameLog(await readBatchEvents(tx, workshopId, record.batch.id), record.events)
        ? ok({ batchId: already.id, number: already.number, remarks: ["This record was imported already; nothing changed."] })
        : reject(
            `Batch ${already.number} of this workshop is the same batch with other entries. Nothing was imported: import it into an empty workshop to compare.`,
          );
    }
    const existing = await tx
      .select({ id: batchEvents.id })
      .from(batchEvents)
      .where(
        and(
          eq(batchEvents.workshopId, workshopId),
          inArray(
            batchEvents.id,
            record.events.map((event) => event.id),
          ),
        ),
      )
      .limit(1);
    if (existing.length > 0) return reject("An entry of this record belongs to another batch here. Nothing was imported.");

    const put = (table: NamedTable, rows: { id: string; name: string }[]) => putRows(tx, workshopId, table, rows, remarks);
    await put(people, record.people);
    await put(instruments, record.instruments);
    await put(waxes, record.waxes);
    await put(fragrances, record.fragrances);
    await put(vessels, record.vessels);
    await put(additives, record.additives ?? []);
    await put(dyes, record.dyes ?? []);
    await put(wicks, record.wicks ?? []);
    await put(molds, record.molds ?? []);
    await put(embeds, record.embeds ?? []);

    const fault = await putFormula(tx, workshopId, record, now);
    if (fault) return reject(fault);

    const [numbered] = await tx
      .select({ id: batches.id })
      .from(batches)
      .where(and(eq(batches.workshopId, workshopId), eq(batches.number, record.batch.number)));
    let { number } = record.batch;
    if (numbered) {
      number = await nextNumber(tx, workshopId);
      remarks.push(`Batch ${record.batch.number} exists already, so it is batch ${number} here.`);
    }
    const { plan, state, uses } = batchOf(record.events as BatchEvent[]);
    await tx.insert(batches).values({ workshopId, id: record.batch.id, number, formulaVersionId: record.formulaVersion.id, drawsStock, ...rowOf(plan, state) });
    await writeOutcomes(tx, workshopId, record.batch.id, plan, state, null);
    remarks.push(drawsStock ? "What it used was deducted from the stock here." : "It is not deducted from stock here.");
    // Corrections name earlier entries, which must be there first.
    const rows = [...record.events]
      .sort((a, b) => Date.parse(a.arrivedAt) - Date.parse(b.arrivedAt))
      .map((event) => eventRow(workshopId, record.batch.id, event as BatchEvent));
    for (let from = 0; from < rows.length; from += 1_000) await tx.insert(batchEvents).values(rows.slice(from, from + 1_000));
    if (drawsStock) await writeStockUses(tx, workshopId, record.batch.id, uses, true);
    await notifyPages(tx, { workshop: workshopId, batch: record.batch.id });
    return ok({ batchId: record.batch.id, number, remarks });
  });
}
