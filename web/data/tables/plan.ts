import { sql } from "drizzle-orm";
import { boolean, check, date, foreignKey, index, integer, jsonb, pgTable, primaryKey, text, timestamp, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import { products } from "./product";
import { ofWorkshop } from "./workshop";

/** What is wanted: so many of a product, for an order, a market or the stock. */
export const demandLines = pgTable(
  "demand_line",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    productId: uuid("product_id").notNull(),
    count: integer("count").notNull(),
    /** Pieces of it that were poured already. */
    made: integer("made").notNull().default(0),
    /** The day it must be ready; none for stock to keep. */
    wantedOn: date("wanted_on", { mode: "string" }),
    note: text("note").notNull().default(""),
    /** The order that was short of it, where it was put on the list from there: one line for each order and product. */
    orderId: uuid("order_id"),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull().defaultNow(),
    /** Taken off the list by hand; it can be put back. */
    deleted: boolean("deleted").notNull().default(false),
    version: integer("version").notNull().default(1),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    foreignKey({ columns: [table.workshopId, table.productId], foreignColumns: [products.workshopId, products.id] }),
    index("demand_line_by_day").on(table.workshopId, table.deleted, table.wantedOn),
    uniqueIndex("demand_line_by_order").on(table.workshopId, table.orderId, table.productId).where(sql`order_id is not null`),
    check("demand_line_amounts", sql`count > 0 and made >= 0`),
  ],
);

/** What a workshop plans with: hours, hands, burners; and the secret part of the address of its calendar. */
export const planningSettingRows = pgTable(
  "planning_settings",
  {
    workshopId: ofWorkshop(),
    /** Brought up to the newest shape when it is read. */
    settings: jsonb("settings").$type<unknown>().notNull(),
    calendarKey: text("calendar_key"),
    version: integer("version").notNull().default(1),
  },
  (table) => [primaryKey({ columns: [table.workshopId] })],
);

/** A day at the pots as it was last left. */
export const dayPlans = pgTable(
  "day_plan",
  {
    workshopId: ofWorkshop(),
    on: date("on_day", { mode: "string" }).notNull(),
    /** Brought up to the newest shape when it is read. */
    data: jsonb("data").$type<unknown>().notNull(),
    version: integer("version").notNull().default(1),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.on] })],
);
