import { isCounted, type SheetKind, STOCKED } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { formulas } from "@/data/tables/formula";
import { wanted } from "@/data/tables/plan";
import { products } from "@/data/tables/product";
import { moulds, vessels, type waxes, wicks } from "@/data/tables/shelf";
import { lots } from "@/data/tables/stock";
import { tableOf } from "./tables";

/** The table that a sheet's rows go into. */
export const sheetTable = (kind: SheetKind): typeof waxes =>
  (kind === "lot" ? lots : kind === "product" ? products : kind === "wanted" ? wanted : tableOf(kind)) as unknown as typeof waxes;

/** What the rows of a sheet can name in a workshop, and which kind each thing is. */
export async function sheetContext(db: Database | Transaction, workshop: { id: string; currency: string }) {
  const named = <T extends typeof waxes>(table: T) =>
    db
      .select({ id: table.id, name: table.name })
      .from(table as typeof waxes)
      .where(eq(table.workshopId, workshop.id));
  // One after the other: within a transaction there is one connection.
  const stocked: { id: string; name: string }[][] = [];
  for (const kind of STOCKED) stocked.push(await named(tableOf(kind)));
  const inVessels = await named(vessels as unknown as typeof waxes);
  const inMoulds = await named(moulds as unknown as typeof waxes);
  const formula = await named(formulas as unknown as typeof waxes);
  const product = await named(products as unknown as typeof waxes);
  const wick = await named(wicks as unknown as typeof waxes);
  const blends = await db
    .select({ id: tableOf("wax").id, name: tableOf("wax").name, blend: tableOf("wax").blend })
    .from(tableOf("wax"))
    .where(eq(tableOf("wax").workshopId, workshop.id));
  const material = STOCKED.flatMap((kind, at) => (stocked[at] ?? []).map((row) => ({ ...row, kind, counted: isCounted(kind) })));
  const kinds = new Map<string, string>(material.map((row) => [row.id, row.kind]));
  const body = [...inVessels, ...inMoulds];
  const bodies = new Map<string, "vessel" | "mould">([
    ...inVessels.map((row) => [row.id, "vessel"] as const),
    ...inMoulds.map((row) => [row.id, "mould"] as const),
  ]);
  return { waxes: blends, currency: workshop.currency, names: { formula, body, wick, material, product }, bodies, kinds };
}

/** Which rows of a sheet's table stand: of this workshop, and not taken back. */
export const standingIn = (kind: SheetKind, workshopId: string) =>
  and(eq(sheetTable(kind).workshopId, workshopId), kind === "lot" ? eq(lots.withdrawn, false) : kind === "wanted" ? eq(wanted.gone, false) : undefined);
