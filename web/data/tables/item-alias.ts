import { boolean, index, jsonb, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop } from "./workshop";

/**
 * Two entries of the same thing made one. What a batch froze still names the one that went, so that what it draws is looked
 * up here. `moved` says what was moved over, so that it can be undone.
 */
export const itemAliases = pgTable(
  "item_alias",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    kind: text("kind").notNull(),
    goneId: uuid("gone_id").notNull(),
    keptId: uuid("kept_id").notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    moved: jsonb("moved").$type<Record<string, string[]>>().notNull(),
    deleted: boolean("deleted").notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), index("item_alias_by_gone").on(table.workshopId, table.goneId)],
);
