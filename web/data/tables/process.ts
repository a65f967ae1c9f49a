import { sql } from "drizzle-orm";
import { boolean, foreignKey, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import { instant } from "./entry";
import { ofWorkshop } from "./workshop";

/** A process of the workshop's own. */
export const processes = pgTable(
  "process",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    /** Counts edits, so that a stale one can be refused. */
    version: integer("version").notNull().default(1),
    archived: boolean("archived").notNull().default(false),
    updatedAt: instant("updated_at").notNull(),
    updatedBy: uuid("updated_by"),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), uniqueIndex("process_name").on(table.workshopId, sql`lower(${table.name})`)],
);

/** What each version of it says. Every save that changes something makes the next one. */
export const processVersions = pgTable(
  "process_version",
  {
    workshopId: ofWorkshop(),
    processId: uuid("process_id").notNull(),
    number: integer("number").notNull(),
    process: jsonb("process").$type<unknown>().notNull(),
    createdAt: instant("created_at").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.processId, table.number] }),
    foreignKey({ columns: [table.workshopId, table.processId], foreignColumns: [processes.workshopId, processes.id] }).onDelete("cascade"),
  ],
);
