import type { LabelSheet, SupplierSheet } from "@hearth/core";
import { boolean, date, foreignKey, index, integer, jsonb, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop, people } from "./workshop";

/** A supplier's safety data sheet of something on the shelf, as it was put in; the newest by its own day counts. */
export const supplierSheets = pgTable(
  "supplier_sheet",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    materialId: uuid("material_id").notNull(),
    on: date("on_day", { mode: "string" }).notNull(),
    sheet: jsonb("sheet").$type<SupplierSheet>().notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    personId: uuid("person_id"),
    /** Taken away by hand; it can be put back. */
    deleted: boolean("deleted").notNull().default(false),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    index("supplier_sheet_by_material").on(table.workshopId, table.materialId, table.on, table.at),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }),
  ],
);

/** A sheet of labels as the workshop measured it. */
export const labelSheets = pgTable(
  "label_sheet",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    sheet: jsonb("sheet").$type<LabelSheet>().notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    deleted: boolean("deleted").notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);

/** What a workshop puts on its labels in its own words, and where its pages for buyers are hosted. */
export const labelling = pgTable(
  "labelling",
  {
    workshopId: ofWorkshop(),
    /** Brought up to the newest shape when it is read. */
    settings: jsonb("settings").$type<unknown>().notNull(),
    version: integer("version").notNull().default(1),
  },
  (table) => [primaryKey({ columns: [table.workshopId] })],
);
