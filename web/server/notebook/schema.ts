import { LOAD_UNITS, MAX_NOTE_ROWS, NOTE_FIELDS, NOTE_KINDS, WAX_FAMILIES } from "@hearth/core";
import { z } from "zod";

const FIELD_KEYS = [...new Set(Object.values(NOTE_FIELDS).flatMap((fields) => fields.map((field) => field.key)))] as [string, ...string[]];
const field = z.enum(FIELD_KEYS);
/** Columns of a sheet, and letters of a cell: more is no notebook. */
const MAX_COLUMNS = 80;
const MAX_CELL = 2_000;

/** What a page sends of a notebook: its cells as they are, how they are read, and what its names mean. */
export const notesInput = z.object({
  /** Made where the button was pressed: pressing it twice imports once. */
  importId: z.uuid(),
  kind: z.enum(NOTE_KINDS),
  file: z.string().trim().min(1).max(160),
  grid: z
    .array(z.array(z.string().max(MAX_CELL, "A cell holds more than 2,000 letters.")).max(MAX_COLUMNS, "The sheet has more than 80 columns."))
    .max(MAX_NOTE_ROWS, `At most ${MAX_NOTE_ROWS} rows at a time.`),
  reading: z.object({
    columns: z.partialRecord(field, z.number().int().min(0).max(MAX_COLUMNS).nullable()),
    units: z.partialRecord(field, z.enum(["F", "C", ...LOAD_UNITS, "oz", "g", "in", "mm", "days", "weeks", "hours", "minutes"])),
    everywhere: z.partialRecord(field, z.string().max(200)),
    dayOrder: z.enum(["day", "month"]),
    decimalComma: z.boolean(),
    flawsOn: z.enum(["every jar", "one jar"]),
    leftOut: z.array(z.number().int().min(1)).max(MAX_NOTE_ROWS),
  }),
  names: z.record(
    z.string().max(200),
    z.union([
      z.object({ id: z.uuid() }),
      z.object({
        name: z.string().trim().min(1, "Enter a name.").max(120),
        family: z.enum(WAX_FAMILIES).optional(),
        fillMg: z.number().int().min(1).max(100_000_000).optional(),
      }),
    ]),
  ),
});
export type NotesInput = z.output<typeof notesInput>;
