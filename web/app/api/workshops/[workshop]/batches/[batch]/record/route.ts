import type { BatchEvent } from "@hearth/core";
import { z } from "zod";
import { database } from "@/data/client";
import { batchRecordOf, eventsCsv } from "@/server/record-out";
import { answering, refuse } from "@/server/respond";

export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), batch: z.uuid() }).safeParse(await params);
    const record = at.success ? await batchRecordOf(database(), at.data.workshop, at.data.batch) : null;
    if (!record) return refuse(404, "There is no such batch in this workshop.");
    const csv = new URL(request.url).searchParams.get("as") === "csv";
    const names = new Map([...record.people, ...record.instruments].map((one) => [one.id, one.name]));
    const body = csv
      ? eventsCsv(record.events as BatchEvent[], record.batch.number, (id) => names.get(id ?? "") ?? "")
      : `${JSON.stringify(record, null, 2)}\n`;
    return new Response(body, {
      headers: {
        "content-type": csv ? "text/csv; charset=utf-8" : "application/json; charset=utf-8",
        "content-disposition": `attachment; filename="batch-${record.batch.number}.${csv ? "csv" : "json"}"`,
      },
    });
  });
}
