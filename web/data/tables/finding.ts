import type { DiagnosisRecord, GradingRules } from "@hearth/core";
import { boolean, doublePrecision, foreignKey, index, integer, jsonb, pgTable, primaryKey, smallint, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { batches } from "./batch";
import { ofWorkshop, workshops } from "./workshop";

/**
 * What came out of one product of a batch, beside what its record says of how it was made: repeated from its entries and written
 * with each that changes it, so that findings over everything count rows and fold no log.
 */
export const outcomes = pgTable(
  "outcome",
  {
    workshopId: ofWorkshop(),
    batchId: uuid("batch_id").notNull(),
    /** Its key within the batch. */
    product: text("product").notNull(),
    pouredAt: timestamp("poured_at", { withTimezone: true, mode: "string" }).notNull(),
    looked: boolean("looked").notNull(),
    jars: integer("jars").notNull(),
    vessel: text("vessel").notNull(),
    family: text("family").notNull(),
    wax: text("wax").notNull(),
    fragrance: text("fragrance").notNull().default(""),
    formula: text("formula").notNull(),
    /** Null where nobody said by which. */
    process: text("process"),
    personId: uuid("person_id"),
    instrumentId: uuid("instrument_id"),
    /** °C and percent of the wax, as recorded; null if they were not. */
    pourC: doublePrecision("pour_c"),
    addC: doublePrecision("add_c"),
    load: doublePrecision("load"),
    roomC: doublePrecision("room_c"),
    stirMinutes: doublePrecision("stir_minutes"),
    cureDays: doublePrecision("cure_days"),
    warmed: text("warmed"),
    halves: boolean("halves"),
    /** Below, inside or above the range: −1, 0, 1. */
    pourSide: smallint("pour_side"),
    addSide: smallint("add_side"),
    /** Mean of the weights that were taken, mg, and what was planned. */
    fillMg: doublePrecision("fill_mg"),
    plannedMg: integer("planned_mg").notNull(),
    record: jsonb("record").$type<DiagnosisRecord>().notNull(),
    /** What was mended and looked at again. */
    repairs: jsonb("repairs").$type<{ defect: string; how: string; jars: number; held: number }[]>().notNull().default([]),
    /** Scores of the cold throw, the same at each product of a batch. */
    smells: jsonb("smells").$type<{ at: string; personId: string | null; score: number }[]>().notNull().default([]),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.batchId, table.product] }),
    foreignKey({ columns: [table.workshopId, table.batchId], foreignColumns: [batches.workshopId, batches.id] }).onDelete("cascade"),
    index("outcome_by_time").on(table.workshopId, table.pouredAt),
    index("outcome_by_product").on(table.workshopId, table.product, table.pouredAt),
  ],
);

/** On how many pieces of it a flaw was seen. */
export const outcomeFlaws = pgTable(
  "outcome_flaw",
  {
    workshopId: ofWorkshop(),
    batchId: uuid("batch_id").notNull(),
    product: text("product").notNull(),
    defect: text("defect").notNull(),
    jars: integer("jars").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.batchId, table.product, table.defect] }),
    foreignKey({
      columns: [table.workshopId, table.batchId, table.product],
      foreignColumns: [outcomes.workshopId, outcomes.batchId, outcomes.product],
    }).onDelete("cascade"),
    index("outcome_flaw_by_defect").on(table.workshopId, table.defect),
  ],
);

/** Causes that a workshop added to the known ones. */
export const customCauses = pgTable(
  "custom_cause",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    cause: jsonb("cause").$type<unknown>().notNull(),
    deleted: boolean("deleted").notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);

/** The grading rules of a workshop. */
export const gradingRules = pgTable("grading_rule", {
  workshopId: uuid("workshop_id")
    .primaryKey()
    .references(() => workshops.id, { onDelete: "cascade" }),
  rules: jsonb("rules").$type<GradingRules>().notNull(),
  version: integer("version").notNull().default(1),
});
