import { sql } from "drizzle-orm";
import { bigint, boolean, integer, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";

export const workshops = pgTable("workshop", {
  id: uuid("id").primaryKey(),
  name: text("name").notNull(),
  massUnit: text("mass_unit", { enum: ["g", "oz"] }).notNull(),
  temperatureUnit: text("temperature_unit", { enum: ["C", "F"] }).notNull(),
  timeZone: text("time_zone").notNull(),
  lengthUnit: text("length_unit", { enum: ["mm", "in"] })
    .notNull()
    .default("mm"),
  /** Weights of a pound and more as pounds and ounces, where ounces are weighed. */
  pounds: boolean("pounds").notNull().default(false),
  /** How days, the clock and the decimal mark are written: a name in core's list of manners. */
  locale: text("locale").notNull().default("en-GB"),
  /** What an hour of hands and an hour of heat cost, in minor units; null if it is not counted. */
  handsCost: bigint("hands_cost", { mode: "number" }),
  heatCost: bigint("heat_cost", { mode: "number" }),
  /** ISO 4217, for what lots cost. */
  currency: text("currency").notNull().default("EUR"),
  /** The rooms in which candles are smelled, one a line with its size; empty for the usual ones. */
  rooms: text("rooms").notNull().default(""),
  version: integer("version").notNull().default(1),
  /** When it goes with all that is in it, where its owner asked for that; until then it can be kept. */
  leavesAt: timestamp("leaves_at", { withTimezone: true, mode: "string" }),
  createdAt: timestamp("created_at", { withTimezone: true, mode: "string" }).notNull().default(sql`now()`),
});

/** Returns the workshop that a row belongs to. Ids are unique within a workshop, so that a record can be read into another. */
export const ofWorkshop = () =>
  uuid("workshop_id")
    .notNull()
    .references(() => workshops.id, { onDelete: "cascade" });

export const people = pgTable(
  "person",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    version: integer("version").notNull().default(1),
    archived: boolean("archived").notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);
