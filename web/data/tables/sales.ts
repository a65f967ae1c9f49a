import type { OrderPlan, OrderState, Packaging } from "@hearth/core";
import { sql } from "drizzle-orm";
import { bigint, boolean, check, date, foreignKey, index, integer, jsonb, pgTable, primaryKey, text, unique, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import { batches } from "./batch";
import { entryColumns, instant } from "./entry";
import { instruments } from "./shelf";
import { ofWorkshop, people } from "./workshop";

const money = (name: string) => bigint(name, { mode: "number" });

/** Sets: several products sold as one pack. */
export const sets = pgTable(
  "product_set",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    version: integer("version").notNull().default(1),
    archived: boolean("archived").notNull().default(false),
    contents: jsonb("contents").$type<{ productId: string; count: number }[]>().notNull(),
    packaging: jsonb("packaging").$type<Packaging>().notNull(),
    /** Of one pack, in minor units of the workshop's currency. */
    price: money("price"),
    remarks: text("remarks").notNull().default(""),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), uniqueIndex("product_set_name").on(table.workshopId, sql`lower(${table.name})`)],
);

/** Packs that were made at one time: a lot of finished goods. What is left of it is `packs` less `gone`. */
export const packRuns = pgTable(
  "pack_run",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    /** The product or set that it is sold as. */
    sellableId: uuid("sellable_id").notNull(),
    name: text("name").notNull(),
    packs: integer("packs").notNull(),
    /** Packs that went out and did not come back: repeated from the orders, written with each of their entries. */
    gone: integer("gone").notNull().default(0),
    /** Packs that an earlier version let go out though they were not there. */
    oversold: integer("oversold").notNull().default(0),
    at: instant("at").notNull(),
    /** When the oldest of it was poured: what is sold first. */
    pouredAt: instant("poured_at").notNull(),
    /** What one pack cost, in minor units; null if that is not known. */
    costEach: money("cost_each"),
    /** Net weights taken at packing, with what is stated on the pack. */
    weightsMg: jsonb("weights_mg").$type<number[]>().notNull().default([]),
    statedMg: money("stated_mg"),
    personId: uuid("person_id"),
    /** Taken apart again. */
    deleted: boolean("deleted").notNull().default(false),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    index("pack_run_in_stock").on(table.workshopId, table.sellableId, table.pouredAt).where(sql`packs > gone and not deleted`),
    index("pack_run_by_time").on(table.workshopId, table.at),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }),
    check("pack_run_gone", sql`gone >= 0 and gone <= packs + oversold`),
    check("pack_run_packs", sql`packs > 0 and oversold >= 0`),
  ],
);

/** Pieces of a batch that went into packs. */
export const packedPieces = pgTable(
  "packed_piece",
  {
    workshopId: ofWorkshop(),
    packRunId: uuid("pack_run_id").notNull(),
    batchId: uuid("batch_id").notNull(),
    /** Its key within the batch. */
    product: text("product").notNull(),
    productId: uuid("product_id").notNull(),
    pieces: integer("pieces").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.packRunId, table.batchId, table.product] }),
    foreignKey({ columns: [table.workshopId, table.packRunId], foreignColumns: [packRuns.workshopId, packRuns.id] }).onDelete("cascade"),
    foreignKey({ columns: [table.workshopId, table.batchId], foreignColumns: [batches.workshopId, batches.id] }),
    index("packed_piece_by_batch").on(table.workshopId, table.batchId),
    check("packed_piece_pieces", sql`pieces > 0`),
  ],
);

/** An order or a market day: its plan, and the state that follows from its entries. */
export const orders = pgTable(
  "sale_order",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    number: integer("number").notNull(),
    what: text("what", { enum: ["order", "market"] }).notNull(),
    name: text("name").notNull(),
    wantedOn: date("wanted_on", { mode: "string" }),
    stage: text("stage", { enum: ["open", "closed"] }).notNull(),
    plan: jsonb("plan").$type<OrderPlan>().notNull(),
    state: jsonb("state").$type<OrderState>().notNull(),
    startedAt: instant("started_at").notNull(),
    lastAt: instant("last_at").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    unique("sale_order_number").on(table.workshopId, table.number),
    index("sale_order_by_stage").on(table.workshopId, table.stage, table.wantedOn),
  ],
);

/** What happened. Append-only: a trigger refuses UPDATE and DELETE. */
export const orderEvents = pgTable(
  "sale_order_event",
  { workshopId: ofWorkshop(), id: uuid("id").notNull(), orderId: uuid("order_id").notNull(), ...entryColumns() },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    foreignKey({ columns: [table.workshopId, table.orderId], foreignColumns: [orders.workshopId, orders.id] }),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }),
    foreignKey({ columns: [table.workshopId, table.instrumentId], foreignColumns: [instruments.workshopId, instruments.id] }),
    foreignKey({ columns: [table.workshopId, table.corrects], foreignColumns: [table.workshopId, table.id] }),
    index("sale_order_event_by_seq").on(table.workshopId, table.orderId, table.seq),
    index("sale_order_event_by_corrects").on(table.workshopId, table.corrects),
  ],
);

/** What an order asks for, or a market day means to take; and what of it went out, thing by thing. Written with the entries that change it. */
export const orderLines = pgTable(
  "sale_line",
  {
    workshopId: ofWorkshop(),
    orderId: uuid("order_id").notNull(),
    sellableId: uuid("sellable_id").notNull(),
    name: text("name").notNull(),
    asked: integer("asked").notNull(),
    shortage: integer("shortage").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.orderId, table.sellableId] }),
    foreignKey({ columns: [table.workshopId, table.orderId], foreignColumns: [orders.workshopId, orders.id] }).onDelete("cascade"),
    index("sale_line_shortage").on(table.workshopId, table.sellableId).where(sql`shortage > 0`),
    check("sale_line_amounts", sql`asked >= 0 and shortage >= 0`),
  ],
);

/** What became of the packs of one packing with one order: by it sales are summed and jars are found again. */
export const orderPacks = pgTable(
  "sale_goods",
  {
    workshopId: ofWorkshop(),
    orderId: uuid("order_id").notNull(),
    packRunId: uuid("pack_run_id").notNull(),
    sellableId: uuid("sellable_id").notNull(),
    name: text("name").notNull(),
    what: text("what", { enum: ["order", "market"] }).notNull(),
    /** When it was sold last; when it went out, where nothing was. */
    at: instant("at").notNull(),
    out: integer("out").notNull(),
    sold: integer("sold").notNull(),
    given: integer("given").notNull(),
    second: integer("second").notNull(),
    back: integer("back").notNull(),
    /** Minor units: what it brought, and what the packs that are gone had cost; null if that is not known. */
    money: money("money").notNull(),
    cost: money("cost"),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.orderId, table.packRunId] }),
    foreignKey({ columns: [table.workshopId, table.orderId], foreignColumns: [orders.workshopId, orders.id] }).onDelete("cascade"),
    index("sale_goods_by_pack_run").on(table.workshopId, table.packRunId),
    index("sale_goods_by_time").on(table.workshopId, table.at),
    check("sale_goods_amounts", sql`sold >= 0 and given >= 0 and second >= 0 and back >= 0 and "out" >= sold + given + second + back`),
  ],
);
