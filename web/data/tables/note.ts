import { NOTE_SUBJECTS } from "@hearth/core";
import { boolean, customType, foreignKey, index, integer, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop, people } from "./workshop";

const bytea = customType<{ data: Buffer }>({ dataType: () => "bytea" });

/** What was noted of a formula, a batch, a product or a thing of the shelf. */
export const notes = pgTable(
  "note",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    kind: text("kind", { enum: NOTE_SUBJECTS }).notNull(),
    ofId: uuid("of_id").notNull(),
    text: text("text").notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    personId: uuid("person_id"),
    /** Taken away by hand; it can be put back. */
    deleted: boolean("deleted").notNull().default(false),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    index("note_by_of").on(table.workshopId, table.ofId, table.at),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }),
  ],
);

/** A picture with a note: a JPEG without anything but the picture. */
export const pictures = pgTable(
  "picture",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    noteId: uuid("note_id").notNull(),
    place: integer("place").notNull(),
    width: integer("width").notNull(),
    height: integer("height").notNull(),
    jpeg: bytea("jpeg").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    index("picture_by_note").on(table.workshopId, table.noteId),
    foreignKey({ columns: [table.workshopId, table.noteId], foreignColumns: [notes.workshopId, notes.id] }).onDelete("cascade"),
  ],
);
