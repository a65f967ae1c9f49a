import { sql } from "drizzle-orm";
import { bigint, boolean, check, date, foreignKey, index, integer, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { batches } from "./batch";
import { ofWorkshop, people } from "./workshop";

const amount = () => bigint("amount", { mode: "number" }).notNull();
const kind = () => text("kind", { enum: ["wax", "fragrance", "dye", "additive", "wick", "vessel", "embed", "pack"] }).notNull();

/** What was received: milligrams, or pieces of what is counted. */
export const lots = pgTable(
  "lot",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    kind: kind(),
    materialId: uuid("material_id").notNull(),
    /** The supplier's own lot code. */
    code: text("code").notNull().default(""),
    amount: amount(),
    /** Of the whole lot, in minor units of the workshop's currency. */
    cost: bigint("cost", { mode: "number" }),
    /** The same before a discount. */
    listCost: bigint("list_cost", { mode: "number" }),
    receivedOn: date("received_on", { mode: "string" }).notNull(),
    /** The moment, where it is known: a count of the same morning came before it. */
    receivedAt: timestamp("received_at", { withTimezone: true, mode: "string" }),
    /** Taken back: as if it had never come. */
    withdrawn: boolean("withdrawn").notNull().default(false),
    version: integer("version").notNull().default(1),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    index("lot_by_material").on(table.workshopId, table.materialId, table.receivedOn),
    check("lot_amount", sql`amount >= 0`),
  ],
);

/** What was found to be there when somebody looked. */
export const stockCounts = pgTable(
  "stock_count",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    materialId: uuid("material_id").notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    amount: amount(),
    personId: uuid("person_id"),
    withdrawn: boolean("withdrawn").notNull().default(false),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    index("stock_count_by_material").on(table.workshopId, table.materialId, table.at),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }),
    check("stock_count_amount", sql`amount >= 0`),
  ],
);

/**
 * The ledger of what was drawn from stock: a row for each entry of a batch and material, written with the entry, and for each lot of packs of goods that
 * are resold as they were bought. Rows of an entry that was corrected or deleted go with it.
 */
export const stockUses = pgTable(
  "stock_use",
  {
    workshopId: ofWorkshop(),
    /** Null for goods that are resold: no batch drew them. */
    batchId: uuid("batch_id"),
    /** The entry of the batch, or the lot of packs. */
    eventId: uuid("event_id").notNull(),
    /** The material as the event names it. */
    namedId: uuid("named_id").notNull(),
    /** The same under the name that is kept now, where it was merged with another. */
    materialId: uuid("material_id").notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    amount: amount(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.eventId, table.namedId] }),
    foreignKey({ columns: [table.workshopId, table.batchId], foreignColumns: [batches.workshopId, batches.id] }).onDelete("cascade"),
    index("stock_use_by_material").on(table.workshopId, table.materialId, table.at),
    index("stock_use_by_batch").on(table.workshopId, table.batchId),
    index("stock_use_by_name").on(table.workshopId, table.namedId),
    check("stock_use_amount", sql`amount > 0`),
  ],
);
