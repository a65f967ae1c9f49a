import type { OilTestKind, OilTestVerdict } from "@hearth/core";
import { boolean, date, jsonb, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop } from "./workshop";

/** Tests of oils and blends before any wax is melted. */
export const oilTests = pgTable(
  "oil_test",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    kind: text("kind").$type<OilTestKind>().notNull(),
    /** The oils with their drops. */
    parts: jsonb("parts").$type<{ id: string; drops: number }[]>().notNull(),
    on: date("on", { mode: "string" }).notNull(),
    verdict: text("verdict").$type<OilTestVerdict>().notNull(),
    note: text("note").notNull().default(""),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    deleted: boolean("deleted").notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);
