/** How many migrations a database had seen when tables and columns got the names that they have now. */
const STANDARD_NAMES_SCHEMA = 23;

/** Names of tables in exports of earlier versions. */
const RENAMED_TABLES: Readonly<Record<string, string>> = {
  audit: "audit_log",
  bin: "trash",
  merged: "item_alias",
  wanted: "demand_line",
  planning: "planning_settings",
  grading: "grading_rule",
  own_cause: "custom_cause",
};
/** Tables whose rows said by `gone` that they were deleted; that of a pack run counts packs. */
const DELETED_AS_GONE = new Set(["colour", "own_cause", "supplier_sheet", "label_sheet", "note", "wanted"]);
const DELETED_AS_UNDONE = new Set(["packing", "merged"]);

type Row = Record<string, unknown>;
interface ExportLine {
  table: string;
  row: Row;
}

const renamedKey = (table: string, key: string): string => {
  if (key === "put_away") return "archived";
  if (key === "facts") return "state";
  if (key === "lacking" && table === "sale_line") return "shortage";
  if ((key === "gone" && DELETED_AS_GONE.has(table)) || (key === "undone" && DELETED_AS_UNDONE.has(table))) return "deleted";
  return key;
};

/** Rows in the trash have the names of the program and not those of the database. */
const upcastTrash = (rows: unknown): unknown => JSON.parse(JSON.stringify(rows ?? {}).replaceAll('"putAway":', '"archived":'));

/** Returns a line of an export with the names of tables and columns as they are now. `schema` is what the header says; 0 where it says nothing. */
export function upcastExportLine(line: string, schema: number): string {
  if (schema >= STANDARD_NAMES_SCHEMA) return line;
  const { table, row } = JSON.parse(line) as ExportLine;
  if (typeof table !== "string" || !row || typeof row !== "object") return line;
  const renamed = Object.fromEntries(Object.entries(row).map(([key, value]) => [renamedKey(table, key), value]));
  if (table === "bin") renamed.rows = upcastTrash(renamed.rows);
  return JSON.stringify({ table: RENAMED_TABLES[table] ?? table, row: renamed });
}
