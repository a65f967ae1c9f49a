import type { NamedKind, NoteKind } from "@hearth/core";
import { integer, jsonb, pgTable, primaryKey, text, uuid } from "drizzle-orm/pg-core";
import { instant } from "./entry";
import { ofWorkshop } from "./workshop";

/** What an import put on the shelf and among the formulas, so that undoing it can take that away again. */
export interface CreatedByImport {
  shelf: { kind: NamedKind; id: string }[];
  formulas: string[];
  versions: string[];
}

/** Notebooks that were brought in, each in one act that can be undone as one. */
export const noteImports = pgTable(
  "note_import",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    kind: text("kind").$type<NoteKind>().notNull(),
    /** The name of the file, or what it was pasted from. */
    file: text("file").notNull(),
    at: instant("at").notNull(),
    personId: uuid("person_id"),
    batches: integer("batches").notNull(),
    trials: integer("trials").notNull(),
    formulas: integer("formulas").notNull(),
    created: jsonb("created").$type<CreatedByImport>().notNull(),
    undoneAt: instant("undone_at"),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);
