"use server";

import { WeighOutError } from "@hearth/core";
import { command, done, type Outcome, refused } from "@/server/outcome";
import { batchWanted, startBatchIn } from "@/server/start-batch";

/** Starts a batch: works the amounts out again on the server, freezes them with all they rest on, and records the start. */
export async function startBatch(place: unknown, input: unknown): Promise<Outcome<{ id: string; number: number }>> {
  return command("plan", batchWanted, place, input, async (wanted, context) => {
    if (wanted.startedAt && Date.parse(wanted.startedAt) > Date.parse(context.now) + 90_000)
      return refused("That start is still to come.", { startedAt: ["Still to come."] });
    const outcome = await context.db
      .transaction((tx) => startBatchIn(tx, context, wanted))
      .catch((error: unknown) => {
        if (error instanceof WeighOutError) return refused(error.message, { [error.field]: [error.message] });
        throw error;
      });
    if (!outcome.ok) return outcome;
    return done({ id: outcome.value.id, number: outcome.value.number });
  });
}
