import { BURN_FORMAT, LARGEST_RECORD_BYTES } from "@hearth/core";
import { revalidatePath } from "next/cache";
import { workshopRoute } from "@/server/auth/authorize";
import { importRecord, readRecord } from "@/server/batches/import-record";
import { importBurn } from "@/server/burn/burn-record";
import { readBody } from "@/server/http/body";
import { errorResponse } from "@/server/http/respond";

export const POST = workshopRoute({ area: "records", action: "change" }, {}, "There is no such workshop.", async (request, { db, workshop, now }) => {
  const text = await readBody(request, LARGEST_RECORD_BYTES);
  if (text === null)
    return errorResponse(413, "This file is larger than 8 MB, and no batch record is. Choose a file exported from a batch's record.", {
      file: ["Larger than 8 MB."],
    });
  const record = readRecord(text);
  if (!record.ok) return errorResponse(400, record.message, { file: [record.message] });
  const draws = new URL(request.url).searchParams.get("stock") === "draw";
  const outcome =
    record.value.format === BURN_FORMAT ? await importBurn(db, workshop.id, record.value, now) : await importRecord(db, workshop.id, record.value, now, draws);
  if (!outcome.ok) return errorResponse(409, outcome.message, { file: [outcome.message] });
  revalidatePath("/", "layout");
  return Response.json(outcome.value);
});
