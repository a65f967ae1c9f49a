"use server";

import { ok, type Result, reject } from "@hearth/core";
import { z } from "zod";
import { undoStart } from "@/server/events/batch-store";
import { command } from "@/server/http/command";

/** Undoes the start of a batch that has no entry yet. */
export async function undoBatch(place: unknown, input: unknown): Promise<Result<null>> {
  return command("bench", z.object({ batchId: z.uuid() }), place, input, async ({ batchId }, { db, workshop }) => {
    const undone = await undoStart(db, workshop.id, batchId);
    return undone.ok ? ok(null) : reject(undone.message);
  });
}
