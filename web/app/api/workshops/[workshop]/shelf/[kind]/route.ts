import { SHEET_KINDS, writeSheet } from "@hearth/core";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { database } from "@/data/client";
import { wanted } from "@/data/tables/plan";
import { lots } from "@/data/tables/stock";
import { workshops } from "@/data/tables/workshop";
import { writeFile } from "@/server/file-write";
import { naturally } from "@/server/naturally";
import { answering, refuse } from "@/server/respond";
import { sheetContext, sheetTable, standingIn } from "@/server/sheets";

/** One part of the shelf, the lots or the products as CSV, its columns as the shelf's file page lists them. */
export async function GET(_request: Request, { params }: { params: Promise<{ workshop: string; kind: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), kind: z.enum(SHEET_KINDS) }).safeParse(await params);
    const [workshop] = at.success ? await database().select().from(workshops).where(eq(workshops.id, at.data.workshop)) : [];
    if (!at.success || !workshop) return refuse(404, "There is no such part of the shelf.");
    const { kind } = at.data;
    const table = sheetTable(kind);
    const rows = await database()
      .select()
      .from(table)
      .where(standingIn(kind, workshop.id))
      .orderBy(kind === "lot" ? lots.receivedOn : kind === "wanted" ? wanted.wantedOn : naturally(table.name));
    const { bodies: _bodies, kinds: _kinds, ...context } = await sheetContext(database(), workshop);
    return new Response(writeFile(writeSheet(kind, rows, context)), {
      headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": `attachment; filename="shelf-${kind}.csv"` },
    });
  });
}
