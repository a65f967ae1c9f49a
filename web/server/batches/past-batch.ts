import { CLOCK_TOLERANCE_MS, ok, pastBatch, pastEntries, type Result, reject, sentEvent } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v5 } from "uuid";
import { z } from "zod";
import type { Transaction } from "@/data/client";
import { instruments } from "@/data/tables/shelf";
import { appendIn } from "@/server/events/append";
import { batchStore } from "@/server/events/batch-store";
import type { Actor } from "@/server/http/context";
import { batchWanted, startBatchIn } from "./start-batch";

export const pastBatchInput = z.object({ wanted: batchWanted, past: pastBatch });

/** Returns what is added to a thermometer's readings, in hundredths of °C; null if it is not on the shelf. */
async function correctionOf(tx: Transaction, workshopId: string, thermometerId: string): Promise<number | null> {
  const [thermometer] = await tx
    .select({ correction: instruments.correction })
    .from(instruments)
    .where(and(eq(instruments.workshopId, workshopId), eq(instruments.id, thermometerId)));
  return thermometer ? (thermometer.correction ?? 0) : null;
}

/**
 * Records a batch that is already made, within a transaction: its start and every entry that was noted. Recording it again under the
 * same id changes nothing. Rejected, with the field it belongs to, if one of its entries is; the caller rolls back.
 * @throws WeighOutError if the amounts cannot be worked out
 */
export async function recordPastBatchIn(
  tx: Transaction,
  actor: Actor,
  { wanted: request, past }: z.output<typeof pastBatchInput>,
): Promise<Result<{ id: string; number: number; entries: number }>> {
  const { startedAt } = request;
  if (!startedAt) return reject("Enter the day it was made.", { day: ["Enter the day it was made."] });
  const times = [
    { field: "day", at: startedAt },
    ...past.steps.map((step) => ({ field: `time:${step.prompt}`, at: step.at })),
    { field: "seenAt", at: past.inspection?.at ?? null },
  ];
  for (const { field, at } of times) {
    if (at === null) continue;
    const fault =
      Date.parse(at) > Date.parse(actor.now) + CLOCK_TOLERANCE_MS
        ? "This time is in the future."
        : Date.parse(at) < Date.parse(startedAt)
          ? "This is before the batch was started."
          : null;
    if (fault) return reject(fault, { [field]: [fault] });
  }
  const correction = past.thermometerId ? await correctionOf(tx, actor.workshop.id, past.thermometerId) : 0;
  if (correction === null) return reject("This thermometer is no longer on the shelf. Choose another.", { thermometer: ["Choose another."] });
  const started = await startBatchIn(tx, actor, request);
  if (!started.ok) return started;
  const { id, number, plan } = started.value;
  const entries = pastEntries(plan, past, startedAt, correction).map(({ field, body, ...head }) => ({
    field,
    // The same id for the same field, so that pressing the button twice records it once.
    sent: { ...head, id: v5(field, id), personId: actor.person?.id ?? null, corrects: null, ...body },
  }));
  const refuse = (at: number, message: string) => reject(message, { [`value:${entries[at]?.field}`]: [message] });
  for (const [index, { sent }] of entries.entries()) {
    const checked = sentEvent.safeParse(sent);
    if (!checked.success) return refuse(index, checked.error.issues[0]?.message ?? "This cannot be read.");
  }
  const answers = await appendIn(
    batchStore,
    tx,
    actor.workshop.id,
    id,
    entries.map(({ sent }) => ({ now: actor.now, sent })),
  );
  for (const [index, answer] of answers.entries()) if (!answer.ok) return refuse(index, answer.message);
  return ok({ id, number, entries: entries.length });
}
