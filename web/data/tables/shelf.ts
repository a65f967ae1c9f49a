import { bigint, boolean, integer, pgTable, primaryKey, text, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop } from "./workshop";

const own = () => ({ workshopId: ofWorkshop(), id: uuid("id").notNull(), name: text("name").notNull(), version: integer("version").notNull().default(1) });
const milligrams = (name: string) => bigint(name, { mode: "number" });

export const waxes = pgTable(
  "wax",
  { ...own(), family: text("family").notNull(), maxLoadPpm: integer("max_load_ppm"), remarks: text("remarks").notNull().default("") },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);

export const fragrances = pgTable(
  "fragrance",
  {
    ...own(),
    kind: text("kind", { enum: ["fragrance", "essential oil"] }).notNull(),
    maxLoadPpm: integer("max_load_ppm"),
    /** Hundredths of °C. */
    flashPoint: integer("flash_point"),
    remarks: text("remarks").notNull().default(""),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);

export const vessels = pgTable(
  "vessel",
  {
    ...own(),
    material: text("material").notNull(),
    statedFillMg: milligrams("stated_fill_mg").notNull(),
    workingFillMg: milligrams("working_fill_mg").notNull(),
    soldByWeight: boolean("sold_by_weight").notNull().default(false),
    /** Inner measures in micrometres. */
    innerTopUm: integer("inner_top_um").notNull(),
    innerBottomUm: integer("inner_bottom_um").notNull(),
    heightUm: integer("height_um").notNull(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);

export const instruments = pgTable(
  "instrument",
  {
    ...own(),
    kind: text("kind", { enum: ["probe", "infrared", "glass", "scale"] }).notNull(),
    /** Hundredths of °C added to what a thermometer shows. */
    correction: integer("correction").notNull().default(0),
    /** One step of a scale, in micrograms. */
    resolutionUg: milligrams("resolution_ug"),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] })],
);
