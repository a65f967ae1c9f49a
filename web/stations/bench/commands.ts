"use server";

import { z } from "zod";
import { undoStart } from "@/server/keep-batch";
import { command, done, type Outcome, refused } from "@/server/outcome";

/** Undoes the start of a batch that has no entry yet. */
export async function undoBatch(place: unknown, input: unknown): Promise<Outcome<null>> {
  return command("bench", z.object({ batchId: z.uuid() }), place, input, async ({ batchId }, { db, workshop }) => {
    const undone = await undoStart(db, workshop.id, batchId);
    return undone.ok ? done(null) : refused(undone.message);
  });
}
