import { SHELF_KINDS, writeSheet } from "@hearth/core";
import { asc, eq } from "drizzle-orm";
import { z } from "zod";
import { database } from "@/data/client";
import { writeFile } from "@/server/file-write";
import { answering, refuse } from "@/server/respond";
import { tableOf } from "@/server/tables";

/** One part of the shelf as CSV, its columns as the shelf's file page lists them. */
export async function GET(_request: Request, { params }: { params: Promise<{ workshop: string; kind: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), kind: z.enum(SHELF_KINDS).exclude(["person"]) }).safeParse(await params);
    if (!at.success) return refuse(404, "There is no such part of the shelf.");
    const { workshop, kind } = at.data;
    const rowsOf = (one: typeof kind) => {
      const table = tableOf(one);
      return database().select().from(table).where(eq(table.workshopId, workshop)).orderBy(asc(table.name));
    };
    const [rows, waxes] = await Promise.all([rowsOf(kind), rowsOf("wax")]);
    return new Response(writeFile(writeSheet(kind, rows, { waxes })), {
      headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": `attachment; filename="shelf-${kind}.csv"` },
    });
  });
}
