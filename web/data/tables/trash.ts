import { jsonb, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop } from "./workshop";

/** What was deleted, so that it can be put back: rows by the table they came from. */
export const trash = pgTable(
  "trash",
  {
    workshopId: ofWorkshop(),
    /** The id that the thing had. */
    id: uuid("id").notNull(),
    kind: text("kind").notNull(),
    rows: jsonb("rows").$type<Record<string, Record<string, unknown>[]>>().notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);
