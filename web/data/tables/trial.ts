import type { TrialPlan, TrialState } from "@hearth/core";
import { boolean, doublePrecision, foreignKey, index, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from "drizzle-orm/pg-core";
import { entryColumns, instant } from "./entry";
import { instruments } from "./shelf";
import { ofWorkshop, people } from "./workshop";

/** A burn trial: its frozen plan, and the state that follows from its entries. */
export const trials = pgTable(
  "trial",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    number: integer("number").notNull(),
    name: text("name").notNull(),
    stage: text("stage", { enum: ["open", "closed"] }).notNull(),
    plan: jsonb("plan").$type<TrialPlan>().notNull(),
    state: jsonb("state").$type<TrialState>().notNull(),
    startedAt: instant("started_at").notNull(),
    lastAt: instant("last_at").notNull(),
    /** From when one of its test candles that burned already needs attention again, by its protocol. */
    handsFrom: instant("hands_from"),
    /** The import of a notebook that it came with; null of a trial that was burned here. */
    noteImportId: uuid("note_import_id"),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    unique("trial_number").on(table.workshopId, table.number),
    index("trial_by_stage").on(table.workshopId, table.stage, table.startedAt, table.id),
  ],
);

/** What happened. Append-only: a trigger refuses UPDATE and DELETE. */
export const trialEvents = pgTable(
  "trial_event",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    trialId: uuid("trial_id").notNull(),
    ...entryColumns(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    foreignKey({ columns: [table.workshopId, table.trialId], foreignColumns: [trials.workshopId, trials.id] }),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }),
    foreignKey({ columns: [table.workshopId, table.instrumentId], foreignColumns: [instruments.workshopId, instruments.id] }),
    foreignKey({ columns: [table.workshopId, table.corrects], foreignColumns: [table.workshopId, table.id] }),
    index("trial_event_by_seq").on(table.workshopId, table.trialId, table.seq),
    index("trial_event_by_corrects").on(table.workshopId, table.corrects),
  ],
);

/** What became of each test candle: written with the entries that change it, so that a table of wicks folds no log. */
export const burnOutcomes = pgTable(
  "burn_outcome",
  {
    workshopId: ofWorkshop(),
    trialId: uuid("trial_id").notNull(),
    testCandle: text("test_candle").notNull(),
    variant: text("variant").notNull(),
    says: text("says").notNull(),
    productId: uuid("product_id"),
    batchId: uuid("batch_id"),
    containerId: uuid("container_id").notNull(),
    vessel: text("vessel").notNull(),
    /** Inner diameter at the wax line, in micrometers. */
    widthUm: integer("width_um").notNull(),
    family: text("family").notNull(),
    wax: text("wax").notNull(),
    scent: text("scent").notNull(),
    loadPpm: doublePrecision("load_ppm").notNull(),
    wickId: uuid("wick_id"),
    wickKind: text("wick_kind").notNull(),
    wickSize: text("wick_size").notNull(),
    wickName: text("wick_name").notNull(),
    wicks: integer("wicks").notNull(),
    half: boolean("half").notNull(),
    sessions: integer("sessions").notNull(),
    safe: boolean("safe"),
    pool: text("pool").notNull(),
    advice: text("advice").notNull(),
    gramsPerHour: doublePrecision("grams_per_hour"),
    /** What the maker made of the variant it belongs to; empty while that is open. */
    decided: text("decided", { enum: ["", "passed", "failed"] }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.trialId, table.testCandle] }),
    foreignKey({ columns: [table.workshopId, table.trialId], foreignColumns: [trials.workshopId, trials.id] }).onDelete("cascade"),
    index("burn_outcome_by_container").on(table.workshopId, table.containerId),
    index("burn_outcome_by_product").on(table.workshopId, table.productId),
  ],
);
