import type { BatchEvent } from "@hearth/core";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { batchRecordOf, eventsCsv } from "@/server/batches/export-record";
import { errorResponse } from "@/server/http/respond";
import { unitChoiceOf } from "@/server/workshops/workshops";

export const GET = workshopRoute(
  { area: "records", action: "see" },
  { batch: z.uuid() },
  "There is no such batch in this workshop.",
  async (request, { db, workshop, named }) => {
    const record = await batchRecordOf(db, workshop.id, named.batch);
    if (!record) return errorResponse(404, "There is no such batch in this workshop.");
    const csv = new URL(request.url).searchParams.get("as") === "csv";
    const names = new Map([...record.people, ...record.instruments].map((item) => [item.id, item.name]));
    const body = csv
      ? eventsCsv(record.events as BatchEvent[], record.batch.number, (id) => names.get(id ?? "") ?? "", unitChoiceOf(workshop))
      : `${JSON.stringify(record, null, 2)}\n`;
    return new Response(body, {
      headers: {
        "content-type": csv ? "text/csv; charset=utf-8" : "application/json; charset=utf-8",
        "content-disposition": `attachment; filename="batch-${record.batch.number}.${csv ? "csv" : "json"}"`,
      },
    });
  },
);
