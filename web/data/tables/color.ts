import type { ColorRecipe } from "@hearth/core";
import { boolean, jsonb, pgTable, primaryKey, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop } from "./workshop";

/** A color as the workshop makes it: dyes by dose, for a wax and a scent. */
export const colors = pgTable(
  "color",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    recipe: jsonb("recipe").$type<ColorRecipe>().notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    /** Taken away by hand; it can be put back. */
    deleted: boolean("deleted").notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);
