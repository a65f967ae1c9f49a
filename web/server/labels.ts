import { type LabelSheet, labelSheet, READY_SHEETS } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import type { Database } from "@/data/client";
import { labelling, labelSheets } from "@/data/tables/label";
import { naturally } from "./naturally";

/** What a workshop puts on its labels in its own words. */
export const labelSettings = z.object({
  format: z.literal(1).default(1),
  /** Who made it, and how to reach them: on every hazard and safety label, as most rules ask. */
  maker: z.string().trim().max(300).default(""),
  /** Further sentences on the fire-safety label, a line each. */
  own: z.array(z.string().trim().min(1).max(200)).max(8).default([]),
  /** Where the pages for buyers are hosted; empty where this program serves them itself. */
  base: z
    .string()
    .trim()
    .max(200)
    .refine((text) => text === "" || /^https?:\/\/[^\s]+$/.test(text), "Give the whole address, like https://example.org/candles.")
    .default(""),
});
export type LabelSettings = z.output<typeof labelSettings>;

export async function readLabelling(db: Database, workshopId: string): Promise<{ settings: LabelSettings; version: number }> {
  const [row] = await db.select().from(labelling).where(eq(labelling.workshopId, workshopId));
  const read = labelSettings.safeParse(row?.settings ?? {});
  return { settings: read.success ? read.data : labelSettings.parse({}), version: row?.version ?? 0 };
}

export interface KeptLabelSheet {
  id: string;
  name: string;
  sheet: LabelSheet;
  own: boolean;
}

/** The sheets that the workshop measured, and those that everybody begins with. */
export async function listLabelSheets(db: Database, workshopId: string): Promise<KeptLabelSheet[]> {
  const rows = await db
    .select()
    .from(labelSheets)
    .where(and(eq(labelSheets.workshopId, workshopId), eq(labelSheets.gone, false)))
    .orderBy(naturally(labelSheets.name))
    .limit(200);
  return [
    ...rows.flatMap((row) => {
      const read = labelSheet.safeParse(row.sheet);
      return read.success ? [{ id: row.id, name: row.name, sheet: read.data, own: true }] : [];
    }),
    ...READY_SHEETS.map((one) => ({ ...one, own: false })),
  ];
}
