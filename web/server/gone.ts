import type { Area } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import type { colours } from "@/data/tables/colour";
import type { notes } from "@/data/tables/note";
import { command, done, type Outcome, refused } from "./outcome";

/** Takes a row away by hand, or puts it back; `missing` is said where there is none. */
export const turnGone = (area: Area, table: typeof notes | typeof colours, missing: string, place: unknown, input: unknown): Promise<Outcome<{ id: string }>> =>
  command(area, z.object({ id: z.uuid(), gone: z.boolean() }), place, input, async ({ id, gone }, { db, workshop }) => {
    const any = table as typeof notes;
    const rows = await db
      .update(any)
      .set({ gone })
      .where(and(eq(any.workshopId, workshop.id), eq(any.id, id)))
      .returning({ id: any.id });
    if (rows.length === 0) return refused(missing);
    return done({ id });
  });
