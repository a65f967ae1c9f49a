import { SHEET_KINDS, writeSheet } from "@hearth/core";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { readSheetRows, sheetContext } from "@/server/inventory/shelf-csv";
import { writeFile } from "@/server/operation/file-write";

/** One part of the shelf, the lots or the products as CSV, its columns as the shelf's file page lists them. */
export const GET = workshopRoute(
  { area: "shelf", action: "see" },
  { kind: z.enum(SHEET_KINDS) },
  "There is no such part of the shelf.",
  async (_request, { db, workshop, named }) => {
    const { kind } = named;
    const rows = await readSheetRows(db, kind, workshop.id);
    const { containers: _bodies, kinds: _kinds, ...context } = await sheetContext(db, workshop);
    return new Response(writeFile(writeSheet(kind, rows, context)), {
      headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": `attachment; filename="shelf-${kind}.csv"` },
    });
  },
);
