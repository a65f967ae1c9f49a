import { type LabelSheet, labelSheet, PRESET_SHEETS } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import type { Database } from "@/data/client";
import { labelling, labelSheets } from "@/data/tables/label";
import { naturalSort } from "@/server/shared/natural-sort";

/** Sixteen characters in four blocks, without those that are read for another (CLP, annex VIII, from memory). */
const ufi = z
  .string()
  .trim()
  .toUpperCase()
  .regex(/^[0-9AC-HJKMNP-Y]{4}(-[0-9AC-HJKMNP-Y]{4}){3}$/, "A UFI is four blocks of four characters, like A1C2-D3E4-F5G6-H7J8, without B, I, L, O and Z.");

/** What a workshop puts on its labels in its own words. */
export const labelSettings = z.object({
  format: z.literal(1).default(1),
  /** Who made it, and how to reach them: on every hazard and safety label, as most rules ask. */
  maker: z.string().trim().max(300).default(""),
  /** On the hazard label, with the maker's name: CLP, article 17. */
  address: z.string().trim().max(300).default(""),
  phone: z.string().trim().max(60).default(""),
  /** The unique formula identifier of a mixture, by the id of its formula. */
  ufis: z.record(z.uuid(), ufi).default({}),
  /** Whether the cut-off values of the regulation are used; without them more is classified. */
  cutOffs: z.boolean().default(false),
  /** Further sentences on the fire-safety label, a line each. */
  own: z.array(z.string().trim().min(1).max(200)).max(8).default([]),
  /** Where the pages for buyers are hosted; empty if this program serves them itself. */
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

/** Returns the sheets that the workshop measured, and those that everybody begins with. */
export async function listLabelSheets(db: Database, workshopId: string): Promise<KeptLabelSheet[]> {
  const rows = await db
    .select()
    .from(labelSheets)
    .where(and(eq(labelSheets.workshopId, workshopId), eq(labelSheets.deleted, false)))
    .orderBy(naturalSort(labelSheets.name));
  return [
    ...rows.flatMap((row) => {
      const read = labelSheet.safeParse(row.sheet);
      return read.success ? [{ id: row.id, name: row.name, sheet: read.data, own: true }] : [];
    }),
    ...PRESET_SHEETS.map((presetSheet) => ({ ...presetSheet, own: false })),
  ];
}
