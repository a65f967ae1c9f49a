import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { burnCsv, burnRecordOf } from "@/server/burn/burn-record";
import { errorResponse } from "@/server/http/respond";
import { unitChoiceOf } from "@/server/workshops/workshops";

/** A trial to take along: whole as JSON, or its sessions and looks as CSV. */
export const GET = workshopRoute(
  { area: "burn", action: "see" },
  { trial: z.uuid() },
  "There is no such trial in this workshop.",
  async (request, { db, workshop, named }) => {
    const record = await burnRecordOf(db, workshop.id, named.trial);
    if (!record) return errorResponse(404, "There is no such trial in this workshop.");
    const csv = new URL(request.url).searchParams.get("as") === "csv";
    return new Response(csv ? burnCsv(record, unitChoiceOf(workshop)) : `${JSON.stringify(record, null, 2)}\n`, {
      headers: {
        "content-type": csv ? "text/csv; charset=utf-8" : "application/json; charset=utf-8",
        "content-disposition": `attachment; filename="burn-trial-${record.trial.number}.${csv ? "csv" : "json"}"`,
      },
    });
  },
);
