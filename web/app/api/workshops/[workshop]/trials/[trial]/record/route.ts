import { z } from "zod";
import { database } from "@/data/client";
import { burnCsv, burnRecordOf } from "@/server/burn-record";
import { answering, refuse } from "@/server/respond";

/** A trial to take along: whole as JSON, or its sessions and looks as CSV. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; trial: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), trial: z.uuid() }).safeParse(await params);
    const record = at.success ? await burnRecordOf(database(), at.data.workshop, at.data.trial) : null;
    if (!record) return refuse(404, "There is no such trial in this workshop.");
    const csv = new URL(request.url).searchParams.get("as") === "csv";
    return new Response(csv ? burnCsv(record) : `${JSON.stringify(record, null, 2)}\n`, {
      headers: {
        "content-type": csv ? "text/csv; charset=utf-8" : "application/json; charset=utf-8",
        "content-disposition": `attachment; filename="burn-trial-${record.trial.number}.${csv ? "csv" : "json"}"`,
      },
    });
  });
}
