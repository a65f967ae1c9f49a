import { SCALE_UNITS, type TemperatureRange } from "@hearth/core";
import { sql } from "drizzle-orm";
import { type AnyPgColumn, bigint, boolean, date, doublePrecision, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import { ofWorkshop } from "./workshop";

const own = () => ({
  workshopId: ofWorkshop(),
  id: uuid("id").notNull(),
  name: text("name").notNull(),
  version: integer("version").notNull().default(1),
  /** Kept, since it was used, but not offered any more. */
  archived: boolean("archived").notNull().default(false),
});
/** Names are unique in a workshop, without regard to case. */
const named = (what: string, table: { workshopId: AnyPgColumn; name: AnyPgColumn }) =>
  uniqueIndex(`${what}_name`).on(table.workshopId, sql`lower(${table.name})`);
const milligrams = (name: string) => bigint(name, { mode: "number" });
const range = (name: string) => jsonb(name).$type<TemperatureRange>();
const families = () => jsonb("families").$type<string[]>();
const remarks = () => text("remarks").notNull().default("");
/** Below this it is low: milligrams, or pieces. */
const low = () => milligrams("low");

/** Temperatures in hundredths of °C, densities in µg/ml, times in seconds, shares in millionths of the wax. */
export const waxes = pgTable(
  "wax",
  {
    ...own(),
    family: text("family").notNull(),
    familyName: text("family_name").notNull().default(""),
    maxLoadPpm: integer("max_load_ppm"),
    melt: integer("melt"),
    heatRange: range("heat_range"),
    addRange: range("add_range"),
    pourRange: range("pour_range"),
    ceiling: integer("ceiling"),
    setDensity: integer("set_density"),
    liquidDensity: integer("liquid_density"),
    leastCureSeconds: integer("least_cure_seconds"),
    cureSeconds: integer("cure_seconds"),
    /** The wicks that its supplier recommends. */
    wickAdvice: text("wick_advice").notNull().default(""),
    /** What a blend is weighed from; null for a wax as bought. */
    blend: jsonb("blend").$type<{ id: string; share: number }[]>(),
    low: low(),
    remarks: remarks(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("wax", table)],
);

export const fragrances = pgTable(
  "fragrance",
  {
    ...own(),
    kind: text("kind", { enum: ["fragrance", "essential oil"] }).notNull(),
    maxLoadPpm: integer("max_load_ppm"),
    usualLoadPpm: integer("usual_load_ppm"),
    purity: text("purity"),
    purePpm: integer("pure_ppm"),
    /** By family of wax, as written: "soy: 8 of 10; paraffin: 9 of 10". */
    ratings: text("ratings").notNull().default(""),
    bestLoads: text("best_loads").notNull().default(""),
    flashPoint: integer("flash_point"),
    density: integer("density"),
    families: families(),
    strength: text("strength"),
    low: low(),
    remarks: remarks(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("fragrance", table)],
);

export const dyes = pgTable(
  "dye",
  {
    ...own(),
    kind: text("kind", { enum: ["liquid", "chip", "block", "powder"] }).notNull(),
    /** Weight of one drop or piece. */
    eachMg: milligrams("each_mg"),
    strength: text("strength"),
    colors: text("colors").notNull().default(""),
    low: low(),
    remarks: remarks(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("dye", table)],
);

export const additives = pgTable(
  "additive",
  { ...own(), usualPpm: integer("usual_ppm"), maxPpm: integer("max_ppm"), does: text("does").notNull().default(""), low: low(), remarks: remarks() },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("additive", table)],
);

export const wicks = pgTable(
  "wick",
  {
    ...own(),
    kind: text("kind").notNull(),
    kindName: text("kind_name").notNull().default(""),
    /** Its maker's line of sizes; empty for all of its kind. */
    series: text("series").notNull().default(""),
    size: text("size").notNull().default(""),
    /** Inner diameters at the wax line that it suits, in micrometers. */
    fromUm: integer("from_um"),
    toUm: integer("to_um"),
    families: families(),
    low: low(),
    remarks: remarks(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("wick", table)],
);

export const vessels = pgTable(
  "vessel",
  {
    ...own(),
    material: text("material").notNull(),
    use: text("use", { enum: ["candle", "melts", "tealight cup"] })
      .notNull()
      .default("candle"),
    state: text("state", { enum: ["for sale", "test jar", "cracked", "may hold lead"] })
      .notNull()
      .default("for sale"),
    shape: text("shape", { enum: ["straight", "bowl"] })
      .notNull()
      .default("straight"),
    statedFillMg: milligrams("stated_fill_mg").notNull(),
    workingFillMg: milligrams("working_fill_mg").notNull(),
    soldByWeight: boolean("sold_by_weight").notNull().default(false),
    /** Inner measures in micrometers. */
    innerTopUm: integer("inner_top_um").notNull(),
    innerBottomUm: integer("inner_bottom_um").notNull(),
    heightUm: integer("height_um").notNull(),
    headspaceUm: integer("headspace_um").notNull().default(10_000),
    waterMg: milligrams("water_mg"),
    /** The volume that it is sold as, in microliters. */
    nominalUl: integer("nominal_ul"),
    cavities: integer("cavities").notNull().default(1),
    /** Pieces that are kept for test burns. */
    testJars: integer("test_jars").notNull().default(0),
    leadTestedOn: date("lead_tested_on", { mode: "string" }),
    waterTo: text("water_to", { enum: ["line", "rim"] })
      .notNull()
      .default("line"),
    /** Outer measures, for the box it goes into. */
    outerUm: integer("outer_um"),
    outerHeightUm: integer("outer_height_um"),
    wicks: integer("wicks").notNull().default(1),
    low: low(),
    remarks: remarks(),
    /** Whether its inner measures follow from its volume: nobody measured it yet. */
    sizeEstimated: boolean("size_estimated").notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("vessel", table)],
);

/** What is laid into a candle; the volume of one in microliters. */
export const embeds = pgTable(
  "embed",
  {
    ...own(),
    material: text("material").notNull(),
    volumeUl: integer("volume_ul").notNull(),
    low: low(),
    remarks: remarks(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("embed", table)],
);

/** What packs are made with; inner measures of boxes in micrometers. */
export const packs = pgTable(
  "pack",
  {
    ...own(),
    kind: text("kind").notNull(),
    lengthUm: integer("length_um"),
    widthUm: integer("width_um"),
    heightUm: integer("height_um"),
    low: low(),
    remarks: remarks(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("pack", table)],
);

/** Molds are used again, so they are no stock. Measures in micrometers. */
export const molds = pgTable(
  "mold",
  {
    ...own(),
    kind: text("kind").notNull(),
    cavities: integer("cavities").notNull().default(1),
    fillMg: milligrams("fill_mg").notNull(),
    innerTopUm: integer("inner_top_um").notNull(),
    innerBottomUm: integer("inner_bottom_um").notNull(),
    heightUm: integer("height_um").notNull(),
    remarks: remarks(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("mold", table)],
);

export const instruments = pgTable(
  "instrument",
  {
    ...own(),
    kind: text("kind", { enum: ["probe", "infrared", "glass", "scale", "tool"] }).notNull(),
    /** Hundredths of °C added to what a thermometer shows. */
    correction: integer("correction").notNull().default(0),
    /** The resolution of a scale, in micrograms. */
    resolutionUg: doublePrecision("resolution_ug"),
    /** What a scale shows; null if its resolution tells. */
    scaleUnit: text("scale_unit", { enum: SCALE_UNITS }),
    /** The most that a scale takes. */
    capacityMg: milligrams("capacity_mg"),
    /** What it cost, in minor units, and for how many candles it lasts. */
    price: bigint("price", { mode: "number" }),
    lifePieces: integer("life_pieces"),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), named("instrument", table)],
);
