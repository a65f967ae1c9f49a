import { SHEET_KINDS } from "@hearth/core";
import { z } from "zod";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { sheetContext, sheetTable, standingIn } from "@/server/sheets";
import { ShelfFile } from "@/stations/shelf/file";

export const metadata = { title: "Shelf to and from a file" };

export default async function ShelfFilePage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const { part: kind = "wax" } = await askedOf(searchParams, { part: z.enum(SHEET_KINDS) });
  const table = sheetTable(kind);
  const [rows, { bodies: _bodies, kinds: _kinds, ...context }] = await Promise.all([
    db.select().from(table).where(standingIn(kind, workshop.id)),
    sheetContext(db, workshop),
  ]);
  return <ShelfFile kept={{ kind, rows }} context={context} />;
}
