"use server";

import { customCause, gradingRulesSchema, ok, type Result, reject } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { customCauses, gradingRules } from "@/data/tables/finding";
import { command } from "@/server/http/command";

/** Sets by which rules the workshop grades its jars. */
export async function saveGrades(workshopRef: unknown, input: unknown): Promise<Result<{ version: number }>> {
  return command(
    "findings",
    z.object({ rules: gradingRulesSchema, version: z.number().int().min(0) }),
    workshopRef,
    input,
    async ({ rules, version }, { db, workshop }) => {
      const rows =
        version === 0
          ? await db.insert(gradingRules).values({ workshopId: workshop.id, rules }).onConflictDoNothing().returning({ version: gradingRules.version })
          : await db
              .update(gradingRules)
              .set({ rules, version: version + 1 })
              .where(and(eq(gradingRules.workshopId, workshop.id), eq(gradingRules.version, version)))
              .returning({ version: gradingRules.version });
      if (!rows[0]) return reject("Somebody else changed this. Reload the page, then save.");
      return ok({ version: rows[0].version });
    },
  );
}

/** Adds a cause of the workshop's own to the known ones, or changes it. */
export async function saveCause(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("findings", customCause, workshopRef, input, async (cause, { db, workshop }) => {
    await db
      .insert(customCauses)
      .values({ workshopId: workshop.id, id: cause.id, cause })
      .onConflictDoUpdate({ target: [customCauses.workshopId, customCauses.id], set: { cause, deleted: false } });
    return ok({ id: cause.id });
  });
}

/** Takes a cause of the workshop's own out, or puts it back. */
export async function dropCause(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("findings", z.object({ id: z.uuid(), gone: z.boolean() }), workshopRef, input, async ({ id, gone }, { db, workshop }) => {
    await db
      .update(customCauses)
      .set({ deleted: gone })
      .where(and(eq(customCauses.workshopId, workshop.id), eq(customCauses.id, id)));
    return ok({ id });
  });
}
