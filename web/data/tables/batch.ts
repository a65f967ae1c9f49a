import type { BatchState, JarTotals, LooseOf } from "@hearth/core";
import { sql } from "drizzle-orm";
import { boolean, check, foreignKey, index, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from "drizzle-orm/pg-core";
import { entryColumns, instant } from "./entry";
import { formulaVersions } from "./formula";
import { instruments } from "./shelf";
import { ofWorkshop, people } from "./workshop";

/**
 * A batch: its frozen plan, and the state that follows from its entries. The columns from `started_at` on repeat a little of
 * them, so that lists are found and ordered by an index and fold no log. All are written with each entry, in its transaction.
 */
export const batches = pgTable(
  "batch",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    number: integer("number").notNull(),
    formulaVersionId: uuid("formula_version_id").notNull(),
    stage: text("stage", { enum: ["pot", "rack", "closed", "abandoned", "rehearsal", "rehearsed"] }).notNull(),
    /** Brought up to the newest format when it is read. */
    plan: jsonb("plan").$type<unknown>(),
    state: jsonb("state").$type<BatchState>(),
    startedAt: instant("started_at").notNull(),
    pouredAt: instant("poured_at"),
    lookedAt: instant("looked_at"),
    closedAt: instant("closed_at"),
    /** When it has set, may be tested, may be sold, by its process. */
    setAt: instant("set_at"),
    testFrom: instant("test_from"),
    sellFrom: instant("sell_from"),
    /** Pieces that may be packed and sold: released, and still on the rack. */
    loose: integer("loose").notNull().default(0),
    /** The same product by product, so that stock reads no plan. */
    /** The formulas of all its pots. */
    formulaIds: uuid("formula_ids").array().notNull().default([]),
    looseOf: jsonb("loose_of").$type<LooseOf[]>().notNull().default([]),
    /** What it is called, and what became of its jars, so that a recall of any size reads no plan. */
    title: text("title").notNull().default(""),
    jarTotals: jsonb("jar_totals").$type<JarTotals>().notNull().default({ jars: 0, statuses: [], whom: [] }),
    /** Where an import decided that it draws no stock here. */
    drawsStock: boolean("draws_stock").notNull().default(true),
    /** The import of a notebook that it came with; null of a batch that was made here. */
    noteImportId: uuid("note_import_id"),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    unique("batch_number").on(table.workshopId, table.number),
    foreignKey({ columns: [table.workshopId, table.formulaVersionId], foreignColumns: [formulaVersions.workshopId, formulaVersions.id] }),
    index("batch_by_stage").on(table.workshopId, table.stage, table.startedAt, table.id),
    index("batch_to_look").on(table.workshopId, table.stage, table.lookedAt, table.setAt),
    index("batch_loose").on(table.workshopId, table.pouredAt).where(sql`loose > 0`),
    index("batch_by_pour").on(table.workshopId, table.pouredAt, table.id).where(sql`poured_at is not null`),
    index("batch_by_import").on(table.workshopId, table.noteImportId).where(sql`note_import_id is not null`),
    index("batch_by_version").on(table.workshopId, table.formulaVersionId),
    check("batch_loose_pieces", sql`loose >= 0`),
  ],
);

/** What happened. Append-only: a trigger refuses UPDATE and DELETE. */
export const batchEvents = pgTable(
  "batch_event",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    batchId: uuid("batch_id").notNull(),
    ...entryColumns(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    foreignKey({ columns: [table.workshopId, table.batchId], foreignColumns: [batches.workshopId, batches.id] }),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }),
    foreignKey({ columns: [table.workshopId, table.instrumentId], foreignColumns: [instruments.workshopId, instruments.id] }),
    foreignKey({ columns: [table.workshopId, table.corrects], foreignColumns: [table.workshopId, table.id] }),
    index("batch_event_by_seq").on(table.workshopId, table.batchId, table.seq),
    index("batch_event_by_corrects").on(table.workshopId, table.corrects),
    // Words are searched in notes only.
    index("batch_event_notes").on(table.workshopId, table.happenedAt).where(sql`kind = 'note'`),
    // What became of jars and wax, whenever their batch was poured; earlier versions called these entries otherwise.
    index("batch_event_of_year").on(table.workshopId, table.happenedAt).where(sql`kind in ('statusChanged', 'fated', 'transferred', 'moved')`),
    index("batch_event_by_batch").on(table.workshopId, table.batchId, table.happenedAt, table.id),
  ],
);
