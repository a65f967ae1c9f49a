import type { Area } from "@hearth/core";
import { ok, type Result, reject } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import type { colors } from "@/data/tables/color";
import type { notes } from "@/data/tables/note";
import type { oilTests } from "@/data/tables/oil-test";
import { command } from "@/server/http/command";

/** Takes a row away by hand, or puts it back; `missing` is said where there is none. */
export const setDeleted = (
  area: Area,
  table: typeof notes | typeof colors | typeof oilTests,
  missing: string,
  workshopRef: unknown,
  input: unknown,
): Promise<Result<{ id: string }>> =>
  command(area, z.object({ id: z.uuid(), gone: z.boolean() }), workshopRef, input, async ({ id, gone }, { db, workshop }) => {
    const any = table as typeof notes;
    const rows = await db
      .update(any)
      .set({ deleted: gone })
      .where(and(eq(any.workshopId, workshop.id), eq(any.id, id)))
      .returning({ id: any.id });
    if (rows.length === 0) return reject(missing);
    return ok({ id });
  });
