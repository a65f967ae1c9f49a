import { z } from "zod";
import { database } from "@/data/client";
import { readSince } from "@/server/batches";
import { answering, refuse } from "@/server/respond";

/** What was written to a batch after `after`: its facts as they are now, and the new entries. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), batch: z.uuid() }).safeParse(await params);
    const after = z.coerce
      .number()
      .int()
      .min(0)
      .safeParse(new URL(request.url).searchParams.get("after") ?? "0");
    if (!after.success) return refuse(400, "“after” is the number of the last entry that is known.");
    const told = at.success ? await readSince(database(), at.data.workshop, at.data.batch, after.data) : null;
    return told ? Response.json(told, { headers: { "cache-control": "no-store" } }) : refuse(404, "There is no such batch.");
  });
}
