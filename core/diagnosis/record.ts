/** What a record may say of a batch or a burn: in which unit, and in which words it is asked for. */
export interface RecordKey {
  kind: "number" | "yes-no";
  unit: "" | "°C" | "percent" | "minutes" | "hours" | "days" | "drops a pound" | "mm" | "g" | "steps" | "wicks";
  words: string;
  least?: number;
  most?: number;
}
const number = (words: string, unit: RecordKey["unit"], least: number, most: number) => ({ kind: "number" as const, unit, words, least, most });
const yes = (words: string) => ({ kind: "yes-no" as const, unit: "" as const, words });

/** Every key that a cause can rest on. */
export const RECORD_KEYS = {
  heat_c: number("heated to", "°C", -50, 400),
  add_c: number("fragrance added at", "°C", -50, 400),
  pour_c: number("poured at", "°C", -50, 400),
  load_percent_of_wax: number("load", "percent", 0, 100),
  room_c: number("room", "°C", -50, 100),
  vessel_warmed: yes("vessels warmed"),
  stir_minutes: number("stirred", "minutes", 0, 600),
  minutes_above_ceiling: number("above the maximum temperature", "minutes", 0, 10_000),
  minutes_hot_with_oil: number("kept hot with the fragrance in it", "minutes", 0, 10_000),
  halves: yes("poured in two goes"),
  cure_days: number("cured", "days", 0, 10_000),
  dye_drops_per_lb: number("dye", "drops a pound", 0, 10_000),
  additive_percent_of_wax: number("additives", "percent", 0, 100),
  sun: yes("stood in the sun"),
  draught: yes("stood in a draft"),
  wick_size_steps: number("wick against the table for the diameter", "steps", -20, 20),
  vessel_diameter_mm: number("inner diameter", "mm", 1, 2_000),
  vessel_height_mm: number("inner height", "mm", 1, 2_000),
  odd_shape: yes("vessel of an odd shape"),
  poured_fast: yes("poured fast"),
  poured_slowly: yes("poured slowly"),
  stirred_hard: yes("stirred hard"),
  tapped: yes("jars tapped"),
  wick_held: yes("wick held by a bar"),
  wick_pulled: yes("wick pulled"),
  poured_on_wick: yes("poured onto the wick"),
  vessel_dry: yes("vessels wiped and dry"),
  vessel_inspected: yes("vessels inspected"),
  double_boiler: yes("melted in a double boiler"),
  direct_heat: yes("melted on a plate, without water under it"),
  microwaved: yes("melted in a microwave"),
  water_got_in: yes("water got into the wax"),
  mixing_test: yes("oil tried with mineral oil first"),
  relief_holes: yes("relief holes made"),
  second_pour_hours: number("second pour after", "hours", 0, 1_000),
  mould_sealed: yes("mold sealed and tried with water"),
  spare_percent: number("extra", "percent", 0, 1_000),
  left_in_pitcher_g: number("left in the pitcher", "g", 0, 100_000),
  fill_over_percent: number("filled over what is planned", "percent", -100, 1_000),
  wicks: number("wicks in a vessel", "wicks", 0, 20),
  wick_trim_mm: number("wick trimmed to", "mm", 0, 100),
  mica: yes("mica or embeds"),
  narrows: yes("vessel narrows to the bottom"),
  first_burn_hours: number("first burn", "hours", 0, 1_000),
  strong_oil: yes("oil strong out of the bottle"),
  essential_oil: yes("essential oil"),
  wick_suits_wax: yes("wick series said to suit the wax"),
  wax_g: number("wax in a jar", "g", 0, 100_000),
  pool_to_edge_mm: number("from the pool to the edge", "mm", 0, 1_000),
} as const satisfies Record<string, RecordKey>;
export type RecordKeyName = keyof typeof RECORD_KEYS;
export const RECORD_KEY_NAMES = Object.keys(RECORD_KEYS) as RecordKeyName[];
export const keyOf = (name: RecordKeyName): RecordKey => RECORD_KEYS[name];

type Values = { [K in RecordKeyName]?: (typeof RECORD_KEYS)[K] extends { kind: "yes-no" } ? boolean : number };

export type DiagnosisRecord = Omit<Values, "halves"> & {
  halves?: boolean | number;
  max_load_percent?: number;
  asked_load_percent?: number;
  instrument?: string;
};
