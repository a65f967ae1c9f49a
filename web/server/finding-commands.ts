"use server";

import { gradeRules, ownCause } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { grading, ownCauses } from "@/data/tables/finding";
import { command, done, type Outcome, refused } from "./outcome";

/** Sets by which rules the workshop grades its jars. */
export async function saveGrades(place: unknown, input: unknown): Promise<Outcome<{ version: number }>> {
  return command("findings", z.object({ rules: gradeRules, version: z.number().int().min(0) }), place, input, async ({ rules, version }, { db, workshop }) => {
    const rows =
      version === 0
        ? await db.insert(grading).values({ workshopId: workshop.id, rules }).onConflictDoNothing().returning({ version: grading.version })
        : await db
            .update(grading)
            .set({ rules, version: version + 1 })
            .where(and(eq(grading.workshopId, workshop.id), eq(grading.version, version)))
            .returning({ version: grading.version });
    if (!rows[0]) return refused("Somebody else changed this in the meantime. Load the page again, then save.");
    return done({ version: rows[0].version });
  });
}

/** Adds a cause of the workshop's own to the known ones, or changes it. */
export async function saveCause(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("findings", ownCause, place, input, async (cause, { db, workshop }) => {
    await db
      .insert(ownCauses)
      .values({ workshopId: workshop.id, id: cause.id, cause })
      .onConflictDoUpdate({ target: [ownCauses.workshopId, ownCauses.id], set: { cause, gone: false } });
    return done({ id: cause.id });
  });
}

/** Takes a cause of the workshop's own out, or puts it back. */
export async function dropCause(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("findings", z.object({ id: z.uuid(), gone: z.boolean() }), place, input, async ({ id, gone }, { db, workshop }) => {
    await db
      .update(ownCauses)
      .set({ gone })
      .where(and(eq(ownCauses.workshopId, workshop.id), eq(ownCauses.id, id)));
    return done({ id });
  });
}
