import { type BatchRecord, batchRecord, batchState, recordFault } from "@hearth/core";
import { and, eq, inArray, max } from "drizzle-orm";
import { z } from "zod";
import type { Database, Transaction } from "@/data/client";
import { batchEvents, batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { additives, dyes, fragrances, instruments, vessels, waxes } from "@/data/tables/shelf";
import { people, workshops } from "@/data/tables/workshop";
import { canonical } from "../canonical";
import { done, type Outcome, refused } from "../outcome";
import { eventRow, rowOf, sameEvent } from "./append";
import { eventsOf } from "./events";

export interface Imported {
  batchId: string;
  number: number;
  /** What a maker should know of how it was taken in. */
  remarks: string[];
}

/** Reads a record's text. Says what is wrong with a broken, foreign or truncated file. */
export function readRecord(text: string): Outcome<BatchRecord> {
  let raw: unknown;
  try {
    raw = JSON.parse(text.replace(/^\ufeff/, ""));
  } catch {
    const cut = text.trimStart().startsWith("{") && !text.trimEnd().endsWith("}");
    return refused(
      cut
        ? "This file ends in the middle: it was cut off. Export the record again."
        : "This file is not JSON, so it is no batch record. Choose a file exported from a batch's record.",
    );
  }
  const parsed = batchRecord.safeParse(raw);
  if (!parsed.success) {
    const foreign = parsed.error.issues.find((issue) => issue.path[0] === "format" || issue.path[0] === "version");
    if (foreign || typeof raw !== "object" || raw === null) return refused(foreign?.message ?? "This file is not a Hearth Jar batch record.");
    const first = parsed.error.issues[0];
    return refused(
      `This record is damaged at ${first?.path.map(String).join(".") || "its top"}: ${z.prettifyError(parsed.error).split("\n")[0]?.replace(/^✖ /, "")}. Nothing was taken in.`,
    );
  }
  const fault = recordFault(parsed.data);
  return fault ? refused(`${fault} Nothing was taken in.`) : done(parsed.data);
}

/** Takes a record into a workshop, all or nothing. Reading the same record again changes nothing. */
export async function importRecord(db: Database, workshopId: string, record: BatchRecord, now: string): Promise<Outcome<Imported>> {
  return db.transaction(async (tx: Transaction) => {
    const remarks: string[] = [];
    // One import at a time into a workshop, so that batch numbers cannot collide.
    await tx.select({ id: workshops.id }).from(workshops).where(eq(workshops.id, workshopId)).for("update");
    const [already] = await tx
      .select()
      .from(batches)
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, record.batch.id)));
    if (already) {
      const held = (await eventsOf(tx, workshopId, [record.batch.id])).get(record.batch.id) ?? [];
      const same = held.length === record.events.length && record.events.every((event) => held.some((one) => one.id === event.id && sameEvent(one, event)));
      return same
        ? done({ batchId: already.id, number: already.number, remarks: ["This record was here already; nothing changed."] })
        : refused(
            `Batch ${already.number} of this workshop is the same batch with other entries. Nothing was taken in: read it into an empty workshop to compare.`,
          );
    }
    const taken = await tx
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
    if (taken.length > 0) return refused("An entry of this record belongs to another batch here already. Nothing was taken in.");

    const put = async <T extends typeof people | typeof instruments | typeof waxes | typeof fragrances | typeof additives | typeof dyes | typeof vessels>(
      table: T,
      rows: { id: string; name: string }[],
    ) => {
      for (const row of rows) {
        const [old] = await tx
          .select()
          .from(table as typeof people)
          .where(and(eq(table.workshopId, workshopId), eq(table.id, row.id)));
        if (!old) await tx.insert(table as typeof people).values({ ...row, workshopId });
        else if (Object.entries(row).some(([key, value]) => canonical((old as Record<string, unknown>)[key] ?? null) !== canonical(value ?? null)))
          remarks.push(`“${old.name}” was here already and is kept as it is.`);
      }
    };
    await put(people, record.people);
    await put(instruments, record.instruments);
    await put(waxes, record.waxes);
    await put(fragrances, record.fragrances);
    await put(vessels, record.vessels);
    await put(additives, record.additives ?? []);
    await put(dyes, record.dyes ?? []);

    const [formula] = await tx
      .select()
      .from(formulas)
      .where(and(eq(formulas.workshopId, workshopId), eq(formulas.id, record.formula.id)));
    if (!formula) await tx.insert(formulas).values({ ...record.formula, workshopId, updatedAt: now });
    const [version] = await tx
      .select()
      .from(formulaVersions)
      .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, record.formulaVersion.id)));
    if (version) {
      if (canonical(version.spec) !== canonical(record.formulaVersion.spec))
        return refused(`Version ${version.number} of “${record.formula.name}” differs here. Nothing was taken in.`);
    } else {
      const [clash] = await tx
        .select({ id: formulaVersions.id })
        .from(formulaVersions)
        .where(
          and(
            eq(formulaVersions.workshopId, workshopId),
            eq(formulaVersions.formulaId, record.formula.id),
            eq(formulaVersions.number, record.formulaVersion.number),
          ),
        );
      if (clash) return refused(`“${record.formula.name}” has another version ${record.formulaVersion.number} here. Nothing was taken in.`);
      await tx.insert(formulaVersions).values({ ...record.formulaVersion, workshopId, formulaId: record.formula.id });
    }

    const [numbered] = await tx
      .select({ id: batches.id })
      .from(batches)
      .where(and(eq(batches.workshopId, workshopId), eq(batches.number, record.batch.number)));
    let { number } = record.batch;
    if (numbered) {
      const [top] = await tx
        .select({ top: max(batches.number) })
        .from(batches)
        .where(eq(batches.workshopId, workshopId));
      number = (top?.top ?? 0) + 1;
      remarks.push(`Number ${record.batch.number} is taken here, so it became batch ${number}.`);
    }
    const state = batchState(record.events, now);
    await tx.insert(batches).values({ workshopId, id: record.batch.id, number, formulaVersionId: record.formulaVersion.id, ...rowOf(state) });
    // Corrections name earlier entries, which must be there first.
    const rows = [...record.events]
      .sort((a, b) => Date.parse(a.arrivedAt) - Date.parse(b.arrivedAt))
      .map((event) => eventRow(workshopId, record.batch.id, event));
    for (let from = 0; from < rows.length; from += 1_000) await tx.insert(batchEvents).values(rows.slice(from, from + 1_000));
    return done({ batchId: record.batch.id, number, remarks });
  });
}
