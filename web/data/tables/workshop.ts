import { sql } from "drizzle-orm";
import { integer, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";

export const workshops = pgTable("workshop", {
  id: uuid("id").primaryKey(),
  name: text("name").notNull(),
  massUnit: text("mass_unit", { enum: ["g", "oz"] }).notNull(),
  temperatureUnit: text("temperature_unit", { enum: ["C", "F"] }).notNull(),
  timeZone: text("time_zone").notNull(),
  /** ISO 4217, for what lots cost. */
  currency: text("currency").notNull().default("EUR"),
  version: integer("version").notNull().default(1),
  createdAt: timestamp("created_at", { withTimezone: true, mode: "string" }).notNull().default(sql`now()`),
});

/** The workshop that a row belongs to. Ids are unique within a workshop, so that a record can be read into another. */
export const ofWorkshop = () =>
  uuid("workshop_id")
    .notNull()
    .references(() => workshops.id, { onDelete: "cascade" });

export const people = pgTable("person", { workshopId: ofWorkshop(), id: uuid("id").notNull(), name: text("name").notNull() }, (table) => [
  primaryKey({ columns: [table.workshopId, table.id] }),
]);
