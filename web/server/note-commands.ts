"use server";

import { and, eq } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { notes } from "@/data/tables/note";
import { command, done, type Outcome, refused } from "./outcome";

/** Takes a note away, or puts it back. */
export async function takeNoteAway(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command(z.object({ id: z.uuid(), gone: z.boolean() }), place, input, async ({ id, gone }, { db, workshop }) => {
    const rows = await db
      .update(notes)
      .set({ gone })
      .where(and(eq(notes.workshopId, workshop.id), eq(notes.id, id)))
      .returning({ id: notes.id });
    if (rows.length === 0) return refused("This note is not in this workshop any more.");
    revalidatePath("/", "layout");
    return done({ id });
  });
}
