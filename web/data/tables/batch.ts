import type { BatchEvent } from "@hearth/core";
import { foreignKey, index, integer, jsonb, pgTable, primaryKey, text, timestamp, unique, uuid } from "drizzle-orm/pg-core";
import { formulaVersions } from "./formula";
import { instruments } from "./shelf";
import { ofWorkshop, people } from "./workshop";

const instant = (name: string) => timestamp(name, { withTimezone: true, mode: "string" });

/**
 * A batch. Its state is a function of its events; the columns from `started_at` on repeat a little of that state so that
 * lists can be found and ordered by an index. They are written with each event, in the same transaction.
 */
export const batches = pgTable(
  "batch",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    number: integer("number").notNull(),
    formulaVersionId: uuid("formula_version_id").notNull(),
    stage: text("stage", { enum: ["pot", "rack", "closed"] }).notNull(),
    startedAt: instant("started_at").notNull(),
    pouredAt: instant("poured_at"),
    lookedAt: instant("looked_at"),
    closedAt: instant("closed_at"),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    unique("batch_number").on(table.workshopId, table.number),
    foreignKey({ columns: [table.workshopId, table.formulaVersionId], foreignColumns: [formulaVersions.workshopId, formulaVersions.id] }),
    index("batch_by_stage").on(table.workshopId, table.stage, table.startedAt, table.id),
    index("batch_by_version").on(table.workshopId, table.formulaVersionId),
  ],
);

/** What happened. Append-only: a trigger refuses UPDATE and DELETE. */
export const batchEvents = pgTable(
  "batch_event",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    batchId: uuid("batch_id").notNull(),
    kind: text("kind").notNull(),
    happenedAt: instant("happened_at").notNull(),
    arrivedAt: instant("arrived_at").notNull(),
    personId: uuid("person_id"),
    instrumentId: uuid("instrument_id"),
    corrects: uuid("corrects"),
    payload: jsonb("payload").$type<BatchEvent["payload"]>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    foreignKey({ columns: [table.workshopId, table.batchId], foreignColumns: [batches.workshopId, batches.id] }),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }),
    foreignKey({ columns: [table.workshopId, table.instrumentId], foreignColumns: [instruments.workshopId, instruments.id] }),
    foreignKey({ columns: [table.workshopId, table.corrects], foreignColumns: [table.workshopId, table.id] }),
    index("batch_event_by_batch").on(table.workshopId, table.batchId, table.happenedAt, table.id),
  ],
);
