import type { EmbedChoice, LabelContainer, Packaging, TestedState } from "@hearth/core";
import { sql } from "drizzle-orm";
import { bigint, boolean, foreignKey, index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import { formulas } from "./formula";
import { ofWorkshop } from "./workshop";

/** What is sold: a formula in a container with its wicks, at a price. */
export const products = pgTable(
  "product",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    version: integer("version").notNull().default(1),
    archived: boolean("archived").notNull().default(false),
    formulaId: uuid("formula_id").notNull(),
    /** The vessel or mold, by its id on the shelf. */
    container: text("container", { enum: ["vessel", "mold"] }).notNull(),
    containerId: uuid("container_id").notNull(),
    /** None for melts. */
    wickId: uuid("wick_id"),
    wicks: integer("wicks").notNull().default(1),
    /** What is laid into one piece. */
    embeds: jsonb("embeds").$type<EmbedChoice[]>(),
    /** Of one pack, in minor units of the workshop's currency. */
    price: bigint("price", { mode: "number" }),
    soldBy: text("sold_by", { enum: ["piece", "weight"] })
      .notNull()
      .default("piece"),
    /** Pieces in one pack. */
    pack: integer("pack").notNull().default(1),
    /** What the packing of one pack costs: box, label, lid. */
    packCost: bigint("pack_cost", { mode: "number" }),
    /** Hands and heat that one piece takes, in seconds; null if it is not counted. */
    handsSeconds: integer("hands_seconds"),
    heatSeconds: integer("heat_seconds"),
    /** Whether its wick was tested in burns, and how that went. */
    wickTest: text("wick_test", { enum: ["tested", "test due", "failed"] })
      .notNull()
      .default("test due"),
    /** What the test was of; a change of it makes the test due again. */
    testedAs: jsonb("tested_as").$type<TestedState>(),
    /** What one pack takes of the shelf beside what is in it. */
    packaging: jsonb("packaging").$type<Packaging>(),
    /** By which its warnings go; as its container and wick say where it is not set. */
    labelContainer: text("label_container").$type<LabelContainer>(),
    /** The rooms that its scent fills, and whether buyers are told; null where nobody said. */
    fillsRooms: jsonb("fills_rooms").$type<{ rooms: string[]; isTold: boolean }>(),
    remarks: text("remarks").notNull().default(""),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    uniqueIndex("product_name").on(table.workshopId, sql`lower(${table.name})`),
    foreignKey({ columns: [table.workshopId, table.formulaId], foreignColumns: [formulas.workshopId, formulas.id] }),
    index("product_by_formula").on(table.workshopId, table.formulaId),
  ],
);
