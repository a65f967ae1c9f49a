import { dayAt, pouredAt } from "@hearth/core";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { database } from "@/data/client";
import { workshops } from "@/data/tables/workshop";
import { readBatch } from "@/server/batches";
import { originOf, paperAnswer } from "@/server/paper/answer";
import { scalesOf } from "@/server/paper/day";
import { answering, refuse } from "@/server/respond";

/** The sheet of a batch, or the tags of its jars (`what=tags`), as PDF in `size` a4 or letter. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), batch: z.uuid() }).safeParse(await params);
    const db = database();
    const [workshop] = at.success ? await db.select().from(workshops).where(eq(workshops.id, at.data.workshop)) : [];
    const batch = workshop && at.success ? await readBatch(db, workshop.id, at.data.batch) : null;
    if (!workshop || !batch) return refuse(404, "There is no such batch in this workshop.");
    const day = dayAt(pouredAt(batch.plan, batch.facts) ?? batch.facts.startedAt, workshop.timeZone);
    const sheet = {
      name: `Batch ${batch.number}`,
      day,
      plan: batch.plan,
      address: `${originOf(request)}/bench/${batch.id}`,
      opens: "opens this batch at the bench",
    };
    const { capacities } = await scalesOf(db, workshop.id);
    return (
      (await paperAnswer(request, [sheet], workshop, capacities, `batch-${batch.number}`)) ?? refuse(400, "Ask for size a4 or letter, and for sheets or tags.")
    );
  });
}
