"use server";

import { completeValues, missingValues, ok, type Result, reject, SHELF_KINDS, shelfFaults, shelfValues } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import { waxes } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";
import { command } from "@/server/http/command";
import { tableOf } from "./tables";

const STALE = "Somebody else changed this. Your typing is kept: check the newer version in another window, then save again.";

const saved = z.object({
  kind: z.enum(SHELF_KINDS, { error: "That does not go on the shelf." }),
  id: z.uuid().nullable(),
  /** The id of a new one, made where the button was pressed: pressing it twice makes one. */
  freshId: z.uuid().optional(),
  expectedVersion: z.number().int().nullable(),
  values: z.record(z.string(), z.unknown()),
});

/** Puts a thing on the shelf, or changes one. A stale change is refused with what it is now. */
export async function saveOnShelf(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command(
    (value) => (value.kind === "person" ? "people" : "shelf"),
    saved,
    workshopRef,
    input,
    async (wanted, { db, workshop }) => {
      const parsed = shelfValues(wanted.kind).safeParse(wanted.values);
      if (!parsed.success) {
        const fields: Record<string, string[]> = {};
        for (const issue of parsed.error.issues) {
          const path = `values.${String(issue.path[0])}`;
          fields[path] = [...(fields[path] ?? []), issue.message];
        }
        return reject(parsed.error.issues[0]?.message ?? "Something here cannot be read.", fields);
      }
      parsed.data = completeValues(wanted.kind, parsed.data);
      const faults = Object.entries({ ...missingValues(wanted.kind, parsed.data), ...shelfFaults(wanted.kind, parsed.data) });
      if (faults[0]) return reject(faults[0][1], Object.fromEntries(faults.map(([key, message]) => [`values.${key}`, [message]])));
      const id = wanted.id ?? wanted.freshId ?? v7();
      if (wanted.kind === "person") {
        const values = parsed.data as { name: string };
        if (wanted.id === null)
          await db
            .insert(people)
            .values({ workshopId: workshop.id, id, ...values })
            .onConflictDoNothing();
        else {
          const expected = wanted.expectedVersion ?? 0;
          const changed = await db
            .update(people)
            .set({ ...values, version: expected + 1 })
            .where(and(eq(people.workshopId, workshop.id), eq(people.id, id), eq(people.version, expected)))
            .returning({ id: people.id });
          if (changed.length === 0) return reject(STALE);
        }
      } else {
        // One statement serves them all: they share key and version, and the schema above has matched kind and values.
        const table = tableOf(wanted.kind);
        const values = parsed.data as typeof table.$inferInsert;
        if (wanted.kind === "wax" && Array.isArray(parsed.data.blend)) {
          const parts = parsed.data.blend as { id: string }[];
          const known = await db.select({ id: waxes.id, blend: waxes.blend }).from(waxes).where(eq(waxes.workshopId, workshop.id));
          const bad = parts.some((part) => part.id === id || !known.some((item) => item.id === part.id && item.blend === null));
          if (bad)
            return reject("A blend is made of waxes as bought that stand on this shelf.", { "values.blend": ["Name waxes as bought, from this shelf."] });
        }
        if (wanted.id === null)
          await db
            .insert(table)
            .values({ ...values, workshopId: workshop.id, id })
            .onConflictDoNothing({ target: [table.workshopId, table.id] });
        else {
          const expected = wanted.expectedVersion ?? 0;
          const changed = await db
            .update(table)
            .set({ ...values, version: expected + 1 })
            .where(and(eq(table.workshopId, workshop.id), eq(table.id, id), eq(table.version, expected)))
            .returning({ id: table.id });
          if (changed.length === 0) return reject(STALE);
        }
      }
      return ok({ id });
    },
  );
}
