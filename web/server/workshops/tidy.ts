"use server";

import { type Area, ok, type Result, reject, SHELF_KINDS, type ShelfKind } from "@hearth/core";
import { and, desc, eq, type SQL, sql } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import type { Transaction } from "@/data/client";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { processes, processVersions } from "@/data/tables/process";
import { products } from "@/data/tables/product";
import { sets } from "@/data/tables/sales";
import { trash } from "@/data/tables/trash";
import { people } from "@/data/tables/workshop";
import { command } from "@/server/http/command";
import { MATERIAL_COLUMNS } from "@/server/inventory/material-columns";
import { type NamedTable, type ThingTable, tableOf } from "@/server/inventory/tables";
import { lockWorkshop } from "./workshops";

/** What can be tidied: things of the shelf, people, formulas, processes, products and sets. */
const kinds = z.enum([...SHELF_KINDS, "formula", "process", "product", "set"]);
type Kind = z.output<typeof kinds>;
const zodObject = z.object({ kind: kinds, id: z.uuid() });

/** The table of a kind, as far as all are alike: key, name, edits counted, put away. */
const TABLES = { person: people, formula: formulas, process: processes, product: products, set: sets } as const;
const tableFor = (kind: Kind): ThingTable => (kind in TABLES ? TABLES[kind as keyof typeof TABLES] : tableOf(kind as Exclude<ShelfKind, "person">));

/** Returns the part of the program that a kind belongs to. */
const areaOf = ({ kind }: { kind: Kind }): Area =>
  kind === "person" ? "people" : kind === "formula" || kind === "process" ? "formulas" : kind === "product" ? "products" : kind === "set" ? "sell" : "shelf";

const GONE = "That is no longer in this workshop.";

/** Puts a thing away, so that it is not offered any more, or takes it back out. What was made with it keeps it. */
export async function archive(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command(areaOf, zodObject.extend({ away: z.boolean() }), workshopRef, input, async ({ kind, id, away }, { db, workshop }) => {
    const table = tableFor(kind);
    if (kind === "person" && away) {
      const existing = await db
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.workshopId, workshop.id), eq(people.archived, false)))
        .for("no key update");
      if (existing.length < 2 && existing.some((row) => row.id === id)) return reject("At least one person must work here: add another first.");
    }
    const rows = await db
      .update(table)
      .set({ archived: away, version: sql`${table.version} + 1` })
      .where(and(eq(table.workshopId, workshop.id), eq(table.id, id)))
      .returning({ id: table.id });
    if (rows.length === 0) return reject(GONE);
    return ok({ id });
  });
}

/** What a maker is told of tables that point at people and instruments; a table that is not named here is told by its own name. */
const TABLE_WORDS: Readonly<Record<string, string>> = {
  batch_event: "entries of batches",
  trial_event: "entries of burn tests",
  sale_order_event: "entries of orders",
  stock_count: "counts of the stock",
  supplier_sheet: "safety data sheets",
  pack_run: "packs",
  note: "notes",
};

/** In what a row is used by the foreign keys that point at it, those left out whose rows go with it; null if in nothing. */
async function usedByKeys(tx: Transaction, workshopId: string, table: string, id: string): Promise<string | null> {
  const { rows } = await tx.execute<{ table: string; column: string }>(sql`
    select c.conrelid::regclass::text as "table", a.attname as "column" from pg_constraint c
    join pg_attribute a on a.attrelid = c.conrelid and a.attnum = any(c.conkey) and a.attname <> 'workshop_id'
    where c.contype = 'f' and c.confrelid = ${table}::regclass and c.confdeltype = 'a' order by 1`);
  for (const row of rows) {
    const found = await tx.execute(
      sql`select 1 from ${sql.identifier(row.table)} where workshop_id = ${workshopId} and ${sql.identifier(row.column)} = ${id}::uuid limit 1`,
    );
    if (found.rows.length > 0) return TABLE_WORDS[row.table] ?? row.table.replaceAll("_", " ");
  }
  return null;
}

/** Returns where a thing is used, as text for the maker; null if it was never used. */
async function usedIn(tx: Transaction, workshopId: string, kind: Kind, id: string): Promise<string | null> {
  const condition = sql`workshop_id = ${workshopId}`;
  const inSpecs = sql`select 1 from formula_version where ${condition} and spec::text like ${`%${id}%`} limit 1`;
  const like = `%${id}%`;
  const inPlans: [string, SQL] = ["batches", sql`select 1 from batch where ${condition} and plan::text like ${like} limit 1`];
  const uses: Record<"person" | "instrument" | "formula" | "process" | "product" | "set" | "other", [string, SQL][]> = {
    person: [],
    instrument: [inPlans],
    formula: [
      [
        "batches",
        sql`select 1 from batch b join formula_version v on v.workshop_id = b.workshop_id and v.id = b.formula_version_id where b.workshop_id = ${workshopId} and v.formula_id = ${id} limit 1`,
      ],
      ["products", sql`select 1 from product where ${condition} and formula_id = ${id} limit 1`],
    ],
    process: [["formulas", inSpecs]],
    product: [
      ["what is wanted", sql`select 1 from demand_line where ${condition} and product_id = ${id} limit 1`],
      ["packs", sql`select 1 from packed_piece where ${condition} and product_id = ${id} limit 1`],
      ["orders", sql`select 1 from sale_line where ${condition} and sellable_id = ${id} limit 1`],
      ["a set", sql`select 1 from product_set where ${condition} and contents::text like ${like} limit 1`],
    ],
    set: [
      ["packs", sql`select 1 from pack_run where ${condition} and sellable_id = ${id} limit 1`],
      ["orders", sql`select 1 from sale_line where ${condition} and sellable_id = ${id} limit 1`],
    ],
    other: [
      ["formulas", inSpecs],
      ...Object.values(MATERIAL_COLUMNS).flatMap(({ table, column, used }): [string, SQL][] =>
        used ? [[used, sql`select 1 from ${table} where ${eq(table.workshopId, workshopId)} and ${column} = ${id} limit 1`]] : [],
      ),
      ["products", sql`select 1 from product where ${condition} and (packaging::text like ${like} or embeds::text like ${like}) limit 1`],
      ["a set", sql`select 1 from product_set where ${condition} and packaging::text like ${like} limit 1`],
      ["color recipes", sql`select 1 from color where ${condition} and not deleted and recipe::text like ${like} limit 1`],
      ["a blend", sql`select 1 from wax where ${condition} and blend::text like ${like} limit 1`],
      inPlans,
    ],
  };
  for (const [words, query] of uses[kind in uses ? (kind as keyof typeof uses) : "other"]) if ((await tx.execute(query)).rows.length > 0) return words;
  return kind === "person" || kind === "instrument" ? usedByKeys(tx, workshopId, kind, id) : null;
}

/** Deletes what was never used. It can be put back. What was used is refused: it can be put away. */
export async function remove(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command(areaOf, zodObject, workshopRef, input, async ({ kind, id }, { db, workshop, now }) => {
    const workshopId = workshop.id;
    // Nothing may begin to use it meanwhile.
    await lockWorkshop(db, workshopId);
    const used = await usedIn(db, workshopId, kind, id);
    if (used) return reject(`It is used in ${used}, so it cannot be deleted. Archive it instead: then it is no longer offered.`);
    if (kind === "person" && (await db.select({ id: people.id }).from(people).where(eq(people.workshopId, workshopId)).limit(2)).length < 2)
      return reject("At least one person must work here: add another first.");
    const rows: Record<string, Record<string, unknown>[]> = {};
    if (kind === "formula")
      rows.formula_version = await db
        .delete(formulaVersions)
        .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.formulaId, id)))
        .returning();
    if (kind === "process")
      rows.process_version = await db
        .delete(processVersions)
        .where(and(eq(processVersions.workshopId, workshopId), eq(processVersions.processId, id)))
        .returning();
    const table = tableFor(kind);
    rows.own = await db
      .delete(table)
      .where(and(eq(table.workshopId, workshopId), eq(table.id, id)))
      .returning();
    if (rows.own.length === 0) return reject(GONE);
    await db
      .insert(trash)
      .values({ workshopId, id, kind, rows, at: now })
      .onConflictDoUpdate({ target: [trash.workshopId, trash.id], set: { rows, at: now } });
    return ok({ id });
  });
}

/** Puts back what was deleted. */
export async function restore(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command(areaOf, zodObject, workshopRef, input, async ({ kind, id }, { db, workshop }) => {
    const workshopId = workshop.id;
    const [kept] = await db
      .delete(trash)
      .where(and(eq(trash.workshopId, workshopId), eq(trash.id, id), eq(trash.kind, kind)))
      .returning();
    if (!kept) return reject("It was restored already, or was never deleted here.");
    await db.insert(tableFor(kind)).values(kept.rows.own ?? []);
    const versions = kept.rows.formula_version as (typeof formulaVersions.$inferInsert)[] | undefined;
    if (versions?.length) await db.insert(formulaVersions).values(versions);
    const processed = kept.rows.process_version as (typeof processVersions.$inferInsert)[] | undefined;
    if (processed?.length) await db.insert(processVersions).values(processed);
    return ok({ id });
  });
}

/** A name that nothing of the kind has yet: "hay, copy", "hay, copy 2". */
async function freeName(tx: Transaction, workshopId: string, table: NamedTable, name: string): Promise<string> {
  const base = `${name.replace(/, copy( \d+)?$/, "").slice(0, 105)}, copy`;
  const taken = new Set(
    (
      await tx
        .select({ name: table.name })
        .from(table)
        .where(and(eq(table.workshopId, workshopId), sql`lower(${table.name}) like lower(${base}) || '%'`))
    ).map((row) => row.name.toLowerCase()),
  );
  for (let n = 1; ; n++) {
    const wanted = n === 1 ? base : `${base} ${n}`;
    if (!taken.has(wanted.toLowerCase())) return wanted;
  }
}

/** Makes another like it, to be changed. Stock, price history and use stay with the first. */
export async function duplicate(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; name: string }>> {
  return command(areaOf, zodObject.extend({ freshId: z.uuid() }), workshopRef, input, async ({ kind, id, freshId }, { db, workshop, person, now }) => {
    const workshopId = workshop.id;
    const table = tableFor(kind);
    await lockWorkshop(db, workshopId);
    const [again] = await db
      .select({ id: table.id, name: table.name })
      .from(table)
      .where(and(eq(table.workshopId, workshopId), eq(table.id, freshId)));
    if (again) return ok(again);
    const [row] = await db
      .select()
      .from(table)
      .where(and(eq(table.workshopId, workshopId), eq(table.id, id)));
    if (!row) return reject(GONE);
    const name = await freeName(db, workshopId, table, String(row.name));
    const fresh = { ...row, id: freshId, name, version: 1, archived: false };
    if (kind === "product") Object.assign(fresh, { wickTest: "test due", testedAs: null });
    if (kind === "formula" || kind === "process") Object.assign(fresh, { updatedAt: now, updatedBy: person?.id ?? null });
    await db.insert(table).values(fresh);
    if (kind === "formula") {
      const [newest] = await db
        .select()
        .from(formulaVersions)
        .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.formulaId, id)))
        .orderBy(desc(formulaVersions.number))
        .limit(1);
      if (newest) await db.insert(formulaVersions).values({ ...newest, id: v7(), formulaId: freshId, number: 1, createdAt: now });
    }
    if (kind === "process") {
      const [newest] = await db
        .select()
        .from(processVersions)
        .where(and(eq(processVersions.workshopId, workshopId), eq(processVersions.processId, id)))
        .orderBy(desc(processVersions.number))
        .limit(1);
      if (newest)
        await db.insert(processVersions).values({ ...newest, processId: freshId, number: 1, createdAt: now, process: { ...(newest.process as object), name } });
    }
    return ok({ id: freshId, name });
  });
}
