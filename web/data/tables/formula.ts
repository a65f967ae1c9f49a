import { boolean, foreignKey, index, integer, jsonb, pgTable, primaryKey, text, timestamp, unique, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop } from "./workshop";

export const formulas = pgTable(
  "formula",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    /** Counts edits, so that a stale one can be refused. */
    version: integer("version").notNull().default(1),
    archived: boolean("archived").notNull().default(false),
    updatedAt: timestamp("updated_at", { withTimezone: true, mode: "string" }).notNull(),
    updatedBy: uuid("updated_by"),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), index("formula_by_time").on(table.workshopId, table.updatedAt, table.id)],
);

export const formulaVersions = pgTable(
  "formula_version",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    formulaId: uuid("formula_id").notNull(),
    number: integer("number").notNull(),
    /** Brought up to the newest shape when it is read. */
    spec: jsonb("spec").$type<unknown>().notNull(),
    createdAt: timestamp("created_at", { withTimezone: true, mode: "string" }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    unique("formula_version_number").on(table.workshopId, table.formulaId, table.number),
    foreignKey({ columns: [table.workshopId, table.formulaId], foreignColumns: [formulas.workshopId, formulas.id] }),
  ],
);
