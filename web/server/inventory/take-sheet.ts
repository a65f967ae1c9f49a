import { idOfLine, type Mapping, ok, type Result, readSheet, reject, SHEET_FIELDS, type Sheet, type SheetKind } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import type { Transaction } from "@/data/client";
import { markTestsDue, newestSpecs } from "@/server/products/products";
import { lockWorkshop, type Workshop } from "@/server/workshops/workshops";
import { readSheetRows, sheetContext, sheetTable } from "./shelf-csv";

/** How many rows of a file are new on the shelf, change something there, or say what is there already. */
export interface SheetTally {
  new: number;
  changed: number;
  same: number;
}

/**
 * Takes the rows of a file onto the shelf, within a transaction: all of them, or none where one is refused. With `shown`, what a preview said of them, also none
 * where that is no longer so.
 */
export async function takeSheetRows(
  db: Transaction,
  workshop: Workshop,
  file: { kind: SheetKind; sheet: Required<Sheet>; mapping: Mapping },
  shown?: SheetTally,
): Promise<Result<SheetTally>> {
  const { kind } = file;
  // One statement serves them all: they share key and workshop, and the reading has matched kind and values.
  const table = sheetTable(kind);
  await lockWorkshop(db, workshop.id);
  const kept = await readSheetRows(db, kind, workshop.id, true);
  const { containers, ...context } = await sheetContext(db, workshop);
  const rows = readSheet(kind, file.sheet, file.mapping, kept, context);
  const refusedRow = rows.find((row) => row.outcome.is === "refused");
  if (refusedRow?.outcome.is === "refused") return reject(`Row ${refusedRow.line}: ${refusedRow.outcome.why.join(" ")} Nothing was imported.`);
  const tally: SheetTally = { new: 0, changed: 0, same: 0 };
  for (const row of rows) if (row.outcome.is !== "refused") tally[row.outcome.is] += 1;
  if (shown && (tally.new !== shown.new || tally.changed !== shown.changed || tally.same !== shown.same))
    return reject("The shelf has changed since this preview. Nothing was taken in: look at the preview again.");
  // A blend may name a wax that the same file brings.
  const fresh = new Map(rows.flatMap((row) => (row.outcome.is === "new" ? [[idOfLine(row.line), v7()] as const] : [])));
  for (const row of rows) {
    const blend = row.values.blend as { id: string; share: number }[] | null | undefined;
    if (blend) row.values.blend = blend.map((part) => ({ ...part, id: fresh.get(part.id) ?? part.id }));
    const values = Object.fromEntries(SHEET_FIELDS[kind].map((field) => [field.key, row.values[field.key]])) as typeof table.$inferInsert;
    if (kind === "product") Object.assign(values, { container: containers.get(String(row.values.containerId)) });
    if (kind === "lot") Object.assign(values, { kind: context.kinds.get(String(row.values.materialId)), receivedAt: null });
    if (row.outcome.is === "new") await db.insert(table).values({ ...values, workshopId: workshop.id, id: fresh.get(idOfLine(row.line)) ?? v7() });
    else if (row.outcome.is === "changed" && row.id)
      await db
        .update(table)
        .set({ ...values, version: (kept.find((there) => there.id === row.id)?.version ?? 1) + 1 })
        .where(and(eq(table.workshopId, workshop.id), eq(table.id, row.id)));
  }
  // A product that changed its wick or its vessel asks for another test, whichever way it was changed.
  if (kind === "product" && tally.changed > 0)
    for (const [formulaId, spec] of await newestSpecs(db, workshop.id, [...new Set(rows.map((row) => String(row.values.formulaId)))]))
      await markTestsDue(db, workshop.id, formulaId, spec);
  return ok(tally);
}
