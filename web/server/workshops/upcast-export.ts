import { currentChoice } from "@hearth/core";

/** How many migrations a database had seen when tables and columns got the names that they have now. */
const STANDARD_NAMES_SCHEMA = 23;

/** Names of tables in earlier exports. */
const RENAMED_TABLES: Readonly<Record<string, string>> = {
  audit: "audit_log",
  bin: "trash",
  merged: "item_alias",
  wanted: "demand_line",
  planning: "planning_settings",
  grading: "grading_rule",
  own_cause: "custom_cause",
  mould: "mold",
  colour: "color",
  packing: "pack_run",
};
/** Tables whose rows said by `gone` that they were deleted; that of a pack run counts packs. */
const DELETED_AS_GONE = new Set(["colour", "own_cause", "supplier_sheet", "label_sheet", "note", "wanted"]);
const DELETED_AS_UNDONE = new Set(["packing", "merged"]);

/** Columns of one table that were renamed, by their table in earlier exports. */
const RENAMED_COLUMNS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  sale_line: { lacking: "shortage" },
  dye: { colours: "colors" },
  product: { body: "container", body_id: "container_id", label_body: "label_container", packing: "packaging" },
  product_set: { packing: "packaging" },
  packed_piece: { packing_id: "pack_run_id" },
  sale_goods: { packing_id: "pack_run_id" },
  burn_outcome: { tester: "test_candle", option: "variant", body_id: "container_id" },
};
/** Columns with a word in them that was renamed, by their table in earlier exports. */
const RESPELLED_VALUES: Readonly<Record<string, string>> = {
  product: "container",
  mould: "kind",
  vessel: "state",
  note: "kind",
  merged: "kind",
  bin: "kind",
};

/** Names within stored JSON. */
const MOVED_KEYS = [
  ['"colours":', '"colors":'],
  ['"bodies":', '"containers":'],
] as const;
const TRASH_KEYS = [
  ['"putAway":', '"archived":'],
  ['"body":"mould"', '"container":"mold"'],
  ['"body":"vessel"', '"container":"vessel"'],
  ['"bodyId":', '"containerId":'],
  ['"labelBody":', '"labelContainer":'],
  ['"packing":', '"packaging":'],
  ['"colours":', '"colors":'],
  ['"moulds":', '"molds":'],
  ['"state":"tester"', '"state":"test jar"'],
  [' mould"', ' mold"'],
] as const;

type Row = Record<string, unknown>;
interface ExportLine {
  table: string;
  row: Row;
}

const renamedKey = (table: string, key: string): string => {
  if (key === "put_away") return "archived";
  if (key === "facts") return "state";
  if ((key === "gone" && DELETED_AS_GONE.has(table)) || (key === "undone" && DELETED_AS_UNDONE.has(table))) return "deleted";
  return RENAMED_COLUMNS[table]?.[key] ?? key;
};

/** Returns a stored value with parts of its JSON text replaced. */
const replaceIn = (value: unknown, pairs: readonly (readonly [string, string])[]): unknown =>
  JSON.parse(pairs.reduce((text, [from, to]) => text.replaceAll(from, to), JSON.stringify(value ?? null)));

/** Returns a line of an export with the names of tables and columns as they are now. `schema` is what the header says; 0 where it says nothing. */
export function upcastExportLine(line: string, schema: number): string {
  if (schema >= STANDARD_NAMES_SCHEMA) return line;
  const { table, row } = JSON.parse(line) as ExportLine;
  if (typeof table !== "string" || !row || typeof row !== "object") return line;
  const renamed: Row = Object.fromEntries(
    Object.entries(row).map(([key, value]) => {
      const column = renamedKey(table, key);
      return [column, column === RESPELLED_VALUES[table] && typeof value === "string" ? currentChoice(value) : value];
    }),
  );
  if (table === "merged") renamed.moved = replaceIn(renamed.moved, MOVED_KEYS);
  // Rows in the trash have the names of the program and not those of the database.
  if (table === "bin") renamed.rows = replaceIn(renamed.rows ?? {}, TRASH_KEYS);
  return JSON.stringify({ table: RENAMED_TABLES[table] ?? table, row: renamed });
}
