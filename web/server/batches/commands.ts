"use server";

import { ok, type Result, reject } from "@hearth/core";
import { z } from "zod";
import { undoStart } from "@/server/events/batch-store";
import { command } from "@/server/http/command";
import { pastBatchInput, recordPastBatchIn } from "./past-batch";
import { batchWanted, startBatchIn } from "./start-batch";

/** Undoes the start of a batch that has no entry yet, or only those that were recorded with it. */
export async function undoBatch(workshopRef: unknown, input: unknown): Promise<Result<null>> {
  return command("bench", z.object({ batchId: z.uuid() }), workshopRef, input, async ({ batchId }, { db, workshop }) => {
    const undone = await undoStart(db, workshop.id, batchId);
    return undone.ok ? ok(null) : reject(undone.message);
  });
}

/** Starts a batch: works the amounts out again on the server, freezes them with all they rest on, and records the start. */
export async function startBatch(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; number: number }>> {
  return command("plan", batchWanted, workshopRef, input, async (request, context) => {
    if (request.startedAt && Date.parse(request.startedAt) > Date.parse(context.now) + 90_000)
      return reject("The start is in the future.", { startedAt: ["In the future."] });
    const outcome = await startBatchIn(context.db, context, request);
    if (!outcome.ok) return outcome;
    return ok({ id: outcome.value.id, number: outcome.value.number });
  });
}

/** Records a batch that is already made: its start and what was noted of it, in one act. */
export async function recordPastBatch(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; number: number; entries: number }>> {
  return command("plan", pastBatchInput, workshopRef, input, (value, context) => recordPastBatchIn(context.db, context, value));
}
