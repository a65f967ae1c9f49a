import { SHEET_KINDS, writeSheet } from "@hearth/core";
import { z } from "zod";
import { wanted } from "@/data/tables/plan";
import { lots } from "@/data/tables/stock";
import { atWorkshop } from "@/server/door/door";
import { writeFile } from "@/server/file-write";
import { naturally } from "@/server/naturally";
import { sheetContext, sheetTable, standingIn } from "@/server/sheets";

/** One part of the shelf, the lots or the products as CSV, its columns as the shelf's file page lists them. */
export const GET = atWorkshop(
  { area: "shelf", act: "see" },
  { kind: z.enum(SHEET_KINDS) },
  "There is no such part of the shelf.",
  async (_request, { db, workshop, named }) => {
    const { kind } = named;
    const table = sheetTable(kind);
    const rows = await db
      .select()
      .from(table)
      .where(standingIn(kind, workshop.id))
      .orderBy(kind === "lot" ? lots.receivedOn : kind === "wanted" ? wanted.wantedOn : naturally(table.name));
    const { bodies: _bodies, kinds: _kinds, ...context } = await sheetContext(db, workshop);
    return new Response(writeFile(writeSheet(kind, rows, context)), {
      headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": `attachment; filename="shelf-${kind}.csv"` },
    });
  },
);
