import { SHEET_KINDS } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { lots } from "@/data/tables/stock";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { sheetContext, sheetTable } from "@/server/sheets";
import { ShelfFile } from "@/stations/shelf/file";

export const metadata = { title: "Shelf to and from a file" };

export default async function ShelfFilePage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const { part: kind = "wax" } = await askedOf(searchParams, { part: z.enum(SHEET_KINDS) });
  const table = sheetTable(kind);
  const mine = eq(table.workshopId, workshop.id);
  const [rows, { bodies: _bodies, kinds: _kinds, ...context }] = await Promise.all([
    db
      .select()
      .from(table)
      .where(kind === "lot" ? and(mine, eq(lots.withdrawn, false)) : mine),
    sheetContext(db, workshop),
  ]);
  return <ShelfFile kept={{ kind, rows }} context={context} />;
}
