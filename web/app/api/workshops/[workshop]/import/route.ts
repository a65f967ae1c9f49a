import { BURN_FORMAT, LARGEST_RECORD_BYTES } from "@hearth/core";
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { database } from "@/data/client";
import { now } from "@/data/clock";
import { readBody } from "@/server/body";
import { importBurn } from "@/server/burn-record";
import { importRecord, readRecord } from "@/server/record-in";
import { answering, refuse } from "@/server/respond";

export async function POST(request: Request, { params }: { params: Promise<{ workshop: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid() }).safeParse(await params);
    if (!at.success) return refuse(404, "There is no such workshop.");
    const text = await readBody(request, LARGEST_RECORD_BYTES);
    if (text === null)
      return refuse(413, "This file is larger than 8 MB, and no batch record is. Choose a file exported from a batch's record.", {
        file: ["Larger than 8 MB."],
      });
    const record = readRecord(text);
    if (!record.ok) return refuse(400, record.message, { file: [record.message] });
    const draws = new URL(request.url).searchParams.get("stock") === "draw";
    const outcome =
      record.value.format === BURN_FORMAT
        ? await importBurn(database(), at.data.workshop, record.value)
        : await importRecord(database(), at.data.workshop, record.value, now(), draws);
    if (!outcome.ok) return refuse(409, outcome.message, { file: [outcome.message] });
    revalidatePath("/", "layout");
    return Response.json(outcome.value);
  });
}
