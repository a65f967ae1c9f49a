import { isCounted, type SheetKind, STOCKED } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { formulas } from "@/data/tables/formula";
import { demandLines } from "@/data/tables/plan";
import { products } from "@/data/tables/product";
import { molds, vessels, waxes, wicks } from "@/data/tables/shelf";
import { lots } from "@/data/tables/stock";
import { naturalSort } from "@/server/shared/natural-sort";
import { unitChoiceOf, type Workshop } from "@/server/workshops/workshops";
import { type NamedTable, type OwnedTable, tableOf } from "./tables";

/** Returns the table that a sheet's rows go into. */
export const sheetTable = (kind: SheetKind): OwnedTable =>
  kind === "lot" ? lots : kind === "product" ? products : kind === "wanted" ? demandLines : tableOf(kind);

/** Returns what the rows of a sheet can name in a workshop, and which kind each thing is. */
export async function sheetContext(db: Database | Transaction, workshop: Pick<Workshop, "id" | "currency" | "massUnit" | "temperatureUnit" | "lengthUnit">) {
  const named = (table: NamedTable) => db.select({ id: table.id, name: table.name }).from(table).where(eq(table.workshopId, workshop.id));
  // One after the other: within a transaction there is one connection.
  const stocked: { id: string; name: string }[][] = [];
  for (const kind of STOCKED) stocked.push(await named(tableOf(kind)));
  const inVessels = await named(vessels);
  const inMolds = await named(molds);
  const formula = await named(formulas);
  const product = await named(products);
  const wick = await named(wicks);
  const blends = await db.select({ id: waxes.id, name: waxes.name, blend: waxes.blend }).from(waxes).where(eq(waxes.workshopId, workshop.id));
  const material = STOCKED.flatMap((kind, index) => (stocked[index] ?? []).map((row) => ({ ...row, kind, counted: isCounted(kind) })));
  const kinds = new Map<string, string>(material.map((row) => [row.id, row.kind]));
  const container = [...inVessels, ...inMolds];
  const containers = new Map<string, "vessel" | "mold">([
    ...inVessels.map((row) => [row.id, "vessel"] as const),
    ...inMolds.map((row) => [row.id, "mold"] as const),
  ]);
  return {
    waxes: blends,
    currency: workshop.currency,
    units: unitChoiceOf(workshop),
    names: { formula, container, wick, material, product },
    containers,
    kinds,
  };
}

/** A row of a sheet's table. Lots and wanted lines have no name of their own. */
export type SheetRow = Record<string, unknown> & { id: string; name: string; version?: number };

/** Returns the rows of a sheet that stand, in the order of its file. `lock` holds them until the transaction ends. */
export async function readSheetRows(db: Database | Transaction, kind: SheetKind, workshopId: string, lock = false): Promise<SheetRow[]> {
  const asked = db
    .select()
    .from(sheetTable(kind))
    .where(standingIn(kind, workshopId))
    .orderBy(kind === "lot" ? lots.receivedOn : kind === "wanted" ? demandLines.wantedOn : naturalSort((kind === "product" ? products : tableOf(kind)).name));
  return (await (lock ? asked.for("no key update") : asked)) as SheetRow[];
}

/** Returns which rows of a sheet's table stand: of this workshop, and not taken back. */
const standingIn = (kind: SheetKind, workshopId: string) =>
  and(eq(sheetTable(kind).workshopId, workshopId), kind === "lot" ? eq(lots.withdrawn, false) : kind === "wanted" ? eq(demandLines.deleted, false) : undefined);
