import { dayAt, pouredAt } from "@hearth/core";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { readBatch } from "@/server/batches/batches";
import { errorResponse } from "@/server/http/respond";
import { paperAnswer, workshopAddress } from "@/server/paper/answer";
import { scalesOf } from "@/server/paper/day";

/** The sheet of a batch, or the tags of its jars (`what=tags`), as PDF in `size` a4 or letter. */
export const GET = workshopRoute(
  { area: "bench", action: "see" },
  { batch: z.uuid() },
  "There is no such batch in this workshop.",
  async (request, { db, workshop, named }) => {
    const batch = await readBatch(db, workshop.id, named.batch);
    if (!batch) return errorResponse(404, "There is no such batch in this workshop.");
    const day = dayAt(pouredAt(batch.plan, batch.state) ?? batch.state.startedAt, workshop.timeZone);
    const sheet = {
      name: `Batch ${batch.number}`,
      day,
      plan: batch.plan,
      address: `${workshopAddress(request, workshop.id)}/bench/${batch.id}`,
      opens: "opens this batch at the bench",
    };
    const { capacities } = await scalesOf(db, workshop.id);
    return paperAnswer(request, [sheet], workshop, capacities, `batch-${batch.number}`);
  },
);
