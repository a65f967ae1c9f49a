import { SHEET_KINDS } from "@hearth/core";
import { z } from "zod";
import { ShelfFile } from "@/features/shelf/file";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { readSheetRows, sheetContext } from "@/server/inventory/shelf-csv";

export const metadata = { title: "Import and export" };

export default async function ShelfFilePage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const { part: kind = "wax" } = await parseQuery(searchParams, { part: z.enum(SHEET_KINDS) });
  const [rows, { containers: _bodies, kinds: _kinds, ...context }] = await Promise.all([readSheetRows(db, kind, workshop.id), sheetContext(db, workshop)]);
  return <ShelfFile kept={{ kind, rows }} context={context} />;
}
