import { LARGEST_MASS_MG } from "../units/mass";
import { HOTTEST } from "../units/temperature";
import { EMBED_MATERIALS, VESSEL_MATERIALS, VESSEL_STATES, VESSEL_USES } from "./cautions";
import { type FieldType, type ShelfField, WAX_FAMILIES } from "./fields";

export const SHELF_KINDS = ["wax", "fragrance", "dye", "additive", "wick", "vessel", "mold", "embed", "pack", "instrument", "person"] as const;
export type ShelfKind = (typeof SHELF_KINDS)[number];

/** The kinds that are received in lots and used up; wicks, vessels, embeds and packing are counted, the others weighed. */
export const STOCKED = ["wax", "fragrance", "dye", "additive", "wick", "vessel", "embed", "pack"] as const;
export type StockedKind = (typeof STOCKED)[number];
export const isCounted = (kind: StockedKind): boolean => kind === "wick" || kind === "vessel" || kind === "embed" || kind === "pack";

/** What packs are made with: boxes by their inner size, and what goes on or round; what is used up while candles are made; and goods that are bought to be resold. */
export const PACK_KINDS = ["box", "lid", "label", "tape", "bag", "wrap", "card", "sticker", "wick bar", "glue", "putty", "goods to resell", "other"] as const;

const field = (key: string, label: string, column: string, type: FieldType, more: Partial<ShelfField> = {}): ShelfField => ({
  key,
  label,
  column,
  type,
  ...more,
});
const choice = (values: readonly string[]): FieldType => ({ is: "choice", of: values.map((value) => ({ value, label: value })) });
const mass = (most = 100_000_000) => ({ is: "mass", least: 1, most }) satisfies FieldType;
const percent = (most: number, name: string): FieldType => ({ is: "percent", least: 0.001, most, name });
const temperature = (most = HOTTEST): FieldType => ({ is: "temperature", most });
const inner: FieldType = { is: "length", least: 5, most: 1_000 };
const unknown = { optional: true, hint: "From the supplier's sheet. Leave empty if you do not know it." };
const optional = { optional: true };

const name = field("name", "Name", "name", { is: "name" });
const remarks = field("remarks", "Remarks", "remarks", { is: "words" }, optional);
const lowWeight = field(
  "low",
  "Low-stock warning at",
  "low_below_g",
  { is: "mass", least: 1, most: LARGEST_MASS_MG },
  { optional: true, hint: "Low-stock warning below this." },
);
const lowCount = field(
  "low",
  "Low-stock warning at",
  "low_below",
  { is: "count", least: 1, most: 1_000_000, name: "pieces" },
  { optional: true, hint: "Low-stock warning below this." },
);
const strength = field("strength", "Strength", "strength", choice(["faint", "middling", "strong"]), { first: "middling", optional: true });
const families = field(
  "families",
  "Suits",
  "suits_families",
  { is: "families" },
  { optional: true, hint: "Families of wax, like soy, coconut. Empty for all." },
);

/**
 * Everything that stands on the shelf, field by field: its label on a form, its column in a CSV file, and its type, from
 * which forms, checks, import and export follow.
 */
export const SHELF_FIELDS: Readonly<Record<ShelfKind, readonly ShelfField[]>> = {
  wax: [
    name,
    field("family", "Family", "family", choice(WAX_FAMILIES), { first: "soy" }),
    field("familyName", "Family, in your words", "family_in_words", { is: "words" }, { optional: true, hint: "For “other”: like tallow." }),
    field("maxLoadPpm", "Maximum fragrance load · % of the wax", "largest_load_percent", percent(100, "a maximum fragrance load"), unknown),
    field("melt", "Melts at", "melts_at_c", temperature(), optional),
    field("heatRange", "Supplier: heat to", "sheet_heat_to_c", { is: "range" }, optional),
    field("addRange", "Supplier: add at", "sheet_add_at_c", { is: "range" }, optional),
    field("pourRange", "Supplier: pour at", "sheet_pour_at_c", { is: "range" }, optional),
    field("ceiling", "Maximum temperature", "ceiling_c", temperature(), { optional: true, hint: "It scorches above this." }),
    field("setDensity", "Solid density", "density_set_g_per_ml", { is: "density" }, { optional: true, hint: "Like {0.9 g/ml|0.9}." }),
    field("liquidDensity", "Liquid density", "density_liquid_g_per_ml", { is: "density" }, optional),
    field("leastCureSeconds", "Minimum cure", "least_cure_h", { is: "duration", unit: "d" }, { optional: true, hint: "In days, or like 36 h." }),
    field("cureSeconds", "Recommended cure", "recommended_cure_h", { is: "duration", unit: "d" }, { optional: true, hint: "In days." }),
    field(
      "wickAdvice",
      "Supplier: wicks",
      "sheet_wicks",
      { is: "words" },
      { optional: true, hint: "The wicks that its supplier recommends, as the data sheet says them." },
    ),
    field("blend", "Blend of", "blend_of", { is: "blend" }, { optional: true, hint: "Like 75 container soy + 25 coconut blend: weighed as its parts." }),
    lowWeight,
    remarks,
  ],
  fragrance: [
    name,
    field("kind", "Kind", "kind", choice(["fragrance", "essential oil"]), { first: "fragrance" }),
    field("maxLoadPpm", "Maximum fragrance load · % of the wax", "largest_load_percent", percent(100, "a maximum fragrance load"), unknown),
    field("usualLoadPpm", "Usual fragrance load · % of the wax", "usual_load_percent", percent(100, "a usual load"), optional),
    field("purity", "Pure or cut", "purity", choice(["pure", "cut with a carrier", "not known"]), {
      first: "not known",
      optional: true,
      hint: "A cut oil needs more for the same scent: ask its supplier.",
    }),
    field("purePpm", "Share of pure oil", "pure_percent", percent(100, "a share of pure oil"), { optional: true, hint: "Of an oil that is cut." }),
    field(
      "ratings",
      "Strength by wax",
      "strength_by_wax",
      { is: "words" },
      { optional: true, hint: "The supplier's or your own, like soy: 8 of 10; paraffin: 9 of 10." },
    ),
    field("bestLoads", "Load found best, by wax", "best_load_by_wax", { is: "words" }, { optional: true, hint: "Like soy: 8 %; coconut: 9 %." }),
    field("flashPoint", "Flash point", "flash_point_c", temperature(3 * HOTTEST), { optional: true, hint: "Leave empty if you do not know it." }),
    field("density", "Density", "density_g_per_ml", { is: "density" }, { optional: true, hint: "Turns a volume into weight: {milliliters|fluid ounces}." }),
    families,
    strength,
    lowWeight,
    remarks,
  ],
  dye: [
    name,
    field("kind", "Kind", "kind", choice(["liquid", "chip", "block", "powder"]), { first: "liquid" }),
    field("eachMg", "One drop or piece weighs", "drop_or_piece_g", mass(1_000_000), {
      optional: true,
      hint: "Weigh twenty and divide, like {0.03 g|0.001 oz}.",
    }),
    strength,
    field("colors", "Color as set", "color_as_set", { is: "words" }, { optional: true, hint: "By family, like soy: pale rose; paraffin: brick red." }),
    lowWeight,
    remarks,
  ],
  additive: [
    name,
    field("usualPpm", "Usual share · % of the wax", "usual_percent", percent(50, "a usual share"), optional),
    field("maxPpm", "Largest share · % of the wax", "largest_percent", percent(50, "a largest share"), unknown),
    field("does", "What it does", "what_it_does", { is: "words" }, { optional: true, hint: "Hardens, helps throw, keeps color in light." }),
    lowWeight,
    remarks,
  ],
  wick: [
    name,
    field(
      "kind",
      "Kind",
      "kind",
      choice(["flat-braid cotton", "square-braid cotton", "cotton with paper core", "zinc core", "wooden", "hemp", "linen", "other"]),
      {
        first: "flat-braid cotton",
      },
    ),
    field(
      "kindName",
      "Kind, in your words",
      "kind_in_words",
      { is: "words" },
      { optional: true, hint: "For “other”, or how it was treated: like waxed, or boiled in salt water." },
    ),
    field("series", "Series", "series", { is: "words" }, { optional: true, hint: "Its maker's line of sizes; empty for all of its kind." }),
    field("size", "Size", "size", { is: "words" }, { optional: true, hint: "As its maker numbers it: ordered within its series." }),
    field("fromUm", "For diameters from", "from_diameter_mm", inner, { optional: true, hint: "Inner diameter at the wax line." }),
    field("toUm", "to", "to_diameter_mm", inner, optional),
    families,
    lowCount,
    remarks,
  ],
  vessel: [
    name,
    field("material", "Material", "material", choice(VESSEL_MATERIALS), { first: "heat-safe glass" }),
    field("use", "What it is for", "use", choice(VESSEL_USES), {
      first: "candle",
      hint: "Plastic is filled only where no flame is, or as a tealight cup rated for it.",
    }),
    field("state", "Kept as", "kept_as", choice(VESSEL_STATES), { first: "for sale" }),
    field(
      "shape",
      "Shape",
      "shape",
      {
        is: "choice",
        of: [
          { value: "straight", label: "straight or tapered" },
          { value: "bowl", label: "bowl" },
        ],
      },
      { first: "straight" },
    ),
    field("waterMg", "Weight of water", "water_g", { ...mass(), water: true }, { optional: true, hint: "Vessel on the scale, tare, fill with water." }),
    field(
      "waterTo",
      "Water weighed",
      "water_to",
      {
        is: "choice",
        of: [
          { value: "line", label: "to the fill line" },
          { value: "rim", label: "to the rim" },
        ],
      },
      { first: "line" },
    ),
    field(
      "nominalUl",
      "Volume it is sold as",
      "nominal_ml",
      { is: "volume", most: 20_000_000 },
      { optional: true, hint: "Like {20 cl|8 fl oz}. The fill is then an estimate: weigh water once." },
    ),
    field("statedFillMg", "Net weight", "stated_fill_g", mass(), { derived: true, hint: "The weight it is sold with. Empty: as the fill weight." }),
    field("workingFillMg", "Fill weight", "working_fill_g", mass(), {
      derived: true,
      hint: "What you pour. Empty: from the weight of water, the volume it is sold as, or its measures.",
    }),
    field("soldByWeight", "Sold by weight", "sold_by_weight", { is: "yes" }, { first: "no" }),
    field("innerTopUm", "Inner diameter at the rim", "inner_rim_mm", inner, { derived: true }),
    field("innerBottomUm", "Inner diameter at the bottom", "inner_bottom_mm", inner, { derived: true }),
    field("heightUm", "Inner height", "inner_height_mm", inner, { derived: true }),
    field(
      "headspaceUm",
      "Headspace",
      "headspace_mm",
      { is: "length", least: 0, most: 500 },
      { first: "{10 mm|3/8 in}", hint: "From the fill line to the rim." },
    ),
    field("outerUm", "Outer diameter", "outer_diameter_mm", inner, { optional: true, hint: "For its size in a box." }),
    field("outerHeightUm", "Height with the lid", "outer_height_mm", inner, { optional: true, hint: "For its size in a box." }),
    field(
      "cavities",
      "Cavities in one piece",
      "cavities",
      { is: "count", least: 1, most: 200, name: "cavities" },
      { first: "1", hint: "Of a clamshell: its fill is that of the whole piece." },
    ),
    field("wicks", "Wicks", "wicks", { is: "count", least: 1, most: 3, name: "wicks" }, { first: "1" }),
    field(
      "testJars",
      "Of these, test jars",
      "test_jars",
      { is: "count", least: 0, most: 100_000, name: "test jars" },
      { first: "0", hint: "Chipped pieces that are kept for your own test burns: trials use them first." },
    ),
    field(
      "leadTestedOn",
      "Lead test passed on",
      "lead_tested_on",
      { is: "day" },
      { optional: true, hint: "Of an old glazed or painted vessel, like 2026-03-14." },
    ),
    lowCount,
    remarks,
    field("sizeEstimated", "Size is estimated", "size_estimated", { is: "yes" }, { first: "no", hint: "Set it to no once you have measured it." }),
  ],
  mold: [
    name,
    field("kind", "Kind", "kind", choice(["pillar mold", "silicone mold", "melt tray"]), { first: "pillar mold" }),
    field("cavities", "Cavities", "cavities", { is: "count", least: 1, most: 200, name: "cavities" }, { first: "1", hint: "Candles it makes at a time." }),
    field("fillMg", "Fill of one cavity", "fill_g", mass(), { hint: "What one candle takes, filled to the chosen height." }),
    field("innerTopUm", "Inner diameter at the open end", "inner_rim_mm", inner),
    field("innerBottomUm", "Inner diameter at the closed end", "inner_bottom_mm", inner),
    field("heightUm", "Height of the candle", "inner_height_mm", inner),
    remarks,
  ],
  embed: [
    name,
    field("material", "Material", "material", choice(EMBED_MATERIALS), { first: "shell", hint: "Nothing that burns is laid into a candle." }),
    field(
      "volumeUl",
      "Volume of one",
      "volume_ml",
      { is: "volume", most: 2_000_000 },
      { hint: "How far it raises water in a measuring cup, like {5 ml|0.2 fl oz}. Of sand or beads: the portion for one candle." },
    ),
    lowCount,
    remarks,
  ],
  pack: [
    name,
    field("kind", "Kind", "kind", choice(PACK_KINDS), { first: "box" }),
    field("lengthUm", "Inner length", "inner_length_mm", inner, { optional: true, hint: "Of a box: what goes in is held against it." }),
    field("widthUm", "Inner width", "inner_width_mm", inner, optional),
    field("heightUm", "Inner height", "inner_height_mm", inner, optional),
    lowCount,
    remarks,
  ],
  instrument: [
    name,
    field(
      "kind",
      "Kind",
      "kind",
      {
        is: "choice",
        of: [
          { value: "probe", label: "probe thermometer" },
          { value: "infrared", label: "infrared thermometer" },
          { value: "glass", label: "glass thermometer" },
          { value: "scale", label: "scale" },
          { value: "tool", label: "another tool" },
        ],
      },
      { first: "probe" },
    ),
    field("correction", "Correction", "correction_c", { is: "difference" }, { first: "0", hint: "Added to what a thermometer shows, like −0.5." }),
    field("resolutionUg", "One step of the scale", "scale_step_g", { is: "step" }, { optional: true, hint: "Only for scales, like {1 g|0.1 oz}." }),
    field(
      "scaleUnit",
      "The scale shows",
      "scale_unit",
      {
        is: "choice",
        of: [
          { value: "g", label: "grams" },
          { value: "oz", label: "ounces" },
          { value: "lb", label: "pounds and ounces" },
        ],
      },
      { optional: true, hint: "Amounts for it are given so; not said, in the unit of its step." },
    ),
    field("price", "Price", "price", { is: "money" }, { optional: true, hint: "With how long it lasts, a candle's cost can include it." }),
    field(
      "lifePieces",
      "Lasts for",
      "lasts_for_candles",
      { is: "count", least: 1, most: 10_000_000, name: "candles" },
      { optional: true, hint: "How many candles it lasts for." },
    ),
    field("capacityMg", "The scale takes up to", "scale_capacity_g", mass(LARGEST_MASS_MG), { optional: true, hint: "Larger weights are weighed in parts." }),
  ],
  person: [field("name", "First name", "name", { is: "name" })],
};

/** What goes to a file and comes from one: the kinds of the shelf, and lots and products beside them. */
export const SHEET_KINDS = [...SHELF_KINDS.filter((kind): kind is Exclude<ShelfKind, "person"> => kind !== "person"), "lot", "product", "wanted"] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** The fields of a received lot as a row says them. */
const LOT_FIELDS: readonly ShelfField[] = [
  field(
    "materialId",
    "Of what",
    "of_what",
    { is: "ref", to: "material" },
    { hint: "The name of a wax, scent, dye, additive, wick, vessel, embed or packing part on the shelf." },
  ),
  field(
    "amount",
    "Amount",
    "amount",
    { is: "amount" },
    { hint: "{Grams|Ounces}, or pieces of wicks, vessels, embeds and packing. A weight may carry its own unit." },
  ),
  field("cost", "Cost of the lot", "cost", { is: "money" }, optional),
  field("listCost", "Before discount", "cost_before_discount", { is: "money" }, optional),
  field("code", "Supplier's lot code", "lot_code", { is: "words" }, optional),
  field("receivedOn", "Received on", "received_on", { is: "day" }, { hint: "Like 2026-03-14." }),
];

/** The fields of what is wanted as a row says them. */
const WANTED_FIELDS: readonly ShelfField[] = [
  field("productId", "Product", "product", { is: "ref", to: "product" }, { hint: "The name of a product." }),
  field("count", "Pieces", "pieces", { is: "count", least: 1, most: 100_000, name: "pieces" }),
  field("wantedOn", "Wanted by", "wanted_by", { is: "day" }, { optional: true, hint: "Like 2026-12-05; empty for stock to keep." }),
  field("note", "Who or what for", "for", { is: "words" }, optional),
];

/** The kinds whose rows have no name of their own: one like it in everything is the same. */
const NAMELESS = ["lot", "wanted"] as const;
export const isNameless = (kind: SheetKind): boolean => (NAMELESS as readonly string[]).includes(kind);

/** The fields of a product as a row says them. */
const PRODUCT_FIELDS: readonly ShelfField[] = [
  name,
  field("formulaId", "Formula", "formula", { is: "ref", to: "formula" }),
  field("containerId", "Vessel or mold", "vessel_or_mold", { is: "ref", to: "container" }),
  field("wickId", "Wick", "wick", { is: "ref", to: "wick" }, { optional: true, hint: "Empty for melts." }),
  field("wicks", "Wicks in one", "wicks", { is: "count", least: 1, most: 9, name: "wicks" }, { first: "1" }),
  field("price", "Price per pack", "price", { is: "money" }, optional),
  field("pack", "Candles per pack", "pack", { is: "count", least: 1, most: 1_000, name: "pieces" }, { first: "1" }),
  field("packCost", "Packing cost per pack", "pack_cost", { is: "money" }, optional),
  field("soldBy", "Sold by", "sold_by", choice(["piece", "weight"]), { first: "piece" }),
  remarks,
];

/** The fields of every kind that goes to a file. */
export const SHEET_FIELDS: Readonly<Record<SheetKind | "person", readonly ShelfField[]>> = {
  ...SHELF_FIELDS,
  lot: LOT_FIELDS,
  product: PRODUCT_FIELDS,
  wanted: WANTED_FIELDS,
};

/** Returns what is wrong between the fields of one thing, by field; empty if nothing is. */
export function shelfFaults(kind: ShelfKind, values: Readonly<Record<string, unknown>>): Record<string, string> {
  const faults: Record<string, string> = {};
  const n = (key: string) => values[key] as number;
  if (kind === "vessel") {
    if (values.soldByWeight === true && n("workingFillMg") < n("statedFillMg"))
      faults.workingFillMg = "This vessel is sold by weight, so the fill weight cannot be below the net weight.";
    if (n("headspaceUm") >= n("heightUm")) faults.headspaceUm = "The headspace leaves no room for wax: it must be less than the inner height.";
  }
  if (kind === "wick" && values.fromUm != null && values.toUm != null && n("toUm") < n("fromUm"))
    faults.toUm = "The larger diameter cannot be below the smaller one.";
  if (kind === "wax" && values.leastCureSeconds != null && values.cureSeconds != null && n("cureSeconds") < n("leastCureSeconds"))
    faults.cureSeconds = "The recommended cure cannot be shorter than the minimum cure.";
  if (kind === "instrument" && (values.price == null) !== (values.lifePieces == null))
    faults[values.price == null ? "price" : "lifePieces"] = "Enter both the price and how many candles it lasts for, or neither.";
  if (kind === "fragrance" && values.maxLoadPpm != null && values.usualLoadPpm != null && n("usualLoadPpm") > n("maxLoadPpm"))
    faults.usualLoadPpm = "The usual load cannot be above the largest load.";
  if (kind === "additive" && values.maxPpm != null && values.usualPpm != null && n("usualPpm") > n("maxPpm"))
    faults.usualPpm = "The usual share cannot be above the largest share.";
  return faults;
}
