import { inUnits, METRIC, type UnitChoice, US_CUSTOMARY } from "../units/measured-text";
import { bad, good, type Parsed } from "../units/parsed";
import { completeValues, missingValues } from "./complete";
import { columnOf, type FieldContext, readField, type ShelfField, writeField } from "./fields";
import { isNameless, SHEET_FIELDS, type SheetKind, shelfFaults } from "./kinds";

/** A table of text as a spreadsheet file holds it: its heads and its rows. */
export interface Sheet {
  heads: string[];
  rows: string[][];
  /** Where cells are parted by semicolons, the comma is the decimal mark: "1,250" is one and a quarter. */
  decimalComma?: boolean;
}

/** Which column of a file feeds which field; null for a field that none feeds. */
export type Mapping = Record<string, number | null>;

export type RowOutcome =
  | { is: "new" | "same"; name: string }
  | { is: "changed"; name: string; what: string[] }
  | { is: "refused"; name: string; why: string[] };

export interface SheetRow {
  /** The row in the file, counted as a spreadsheet counts, heads being row 1. */
  line: number;
  outcome: RowOutcome;
  /** The row of the shelf that it changes. */
  id: string | null;
  values: Record<string, unknown>;
}

type Kept = { id: string; name: string } & Record<string, unknown>;

const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]+/g, "");

/** Returns the separator of a file: the one of comma, semicolon and tab that its first line holds most of, outside quotes. */
export function separatorOf(text: string): "," | ";" | "\t" {
  const line = (/^(?:[^"\r\n]|"(?:[^"]|"")*")*/.exec(text)?.[0] ?? "").replace(/"(?:[^"]|"")*"/g, "");
  const count = (sign: string) => line.split(sign).length;
  return count(";") > count(",") && count(";") >= count("\t") ? ";" : count("\t") > count(",") ? "\t" : ",";
}

/** Windows-1252 above Latin-1, where the two differ: what spreadsheets call "ANSI". Source: the WHATWG Encoding Standard's index. */
const ABOVE_LATIN_1 = "€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ";

/** Reads a file's bytes: UTF-8 with or without a mark, UTF-16 with one; anything else as Windows-1252. */
export function decodeSheet(bytes: Uint8Array, utf8: (bytes: Uint8Array) => string | null): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) {
    let text = "";
    for (let i = 2; i + 1 < bytes.length; i += 2) text += String.fromCharCode((bytes[i] as number) | ((bytes[i + 1] as number) << 8));
    return text;
  }
  const text = utf8(bytes);
  if (text !== null) return text.replace(/^\ufeff/, "");
  let out = "";
  for (const byte of bytes) out += byte >= 0x80 && byte < 0xa0 ? ABOVE_LATIN_1[byte - 0x80] : String.fromCharCode(byte);
  return out;
}

/** Drops rows in which every cell is blank, keeping each row's place in the file. */
export const filledRows = (rows: readonly string[][]): { line: number; cells: string[] }[] =>
  rows.map((cells, index) => ({ line: index + 2, cells })).filter(({ cells }) => cells.some((cell) => cell.trim() !== ""));

/** What columns were called in files written earlier. */
const OLD_COLUMNS: Record<string, string[]> = {
  recommended_cure_h: ["better_cure_h"],
  color_as_set: ["colour_as_set", "colours"],
  vessel_or_mold: ["vessel_or_mould"],
};

/** Guesses which column feeds which field, by its head: the column's own name, or the label of the form. */
export function guessMapping(kind: SheetKind, heads: readonly string[]): Mapping {
  const taken = new Set<number>();
  return Object.fromEntries(
    SHEET_FIELDS[kind].map((field) => {
      const wanted = [field.column, columnOf(field, US_CUSTOMARY), field.label, field.key, ...(OLD_COLUMNS[field.column] ?? [])].map(plain);
      const at = heads.findIndex((head, index) => !taken.has(index) && wanted.includes(plain(head)));
      if (at >= 0) taken.add(at);
      return [field.key, at >= 0 ? at : null];
    }),
  );
}

/** What a spreadsheet would run as a formula: these signs at the start of a cell, but not a plain negative number. */
export const RUNS_AS_FORMULA = /^'*(?:[=+@\t\r]|-(?!\d+(?:\.\d+)?$))/;

/** Returns a cell as it was before export defused it: an apostrophe set before a sign that a spreadsheet would run. */
const armed = (cell: string) => (cell.startsWith("'") && RUNS_AS_FORMULA.test(cell) ? cell.slice(1) : cell);

const isCountedIn = (context: Pick<FieldContext, "names">, id: unknown): boolean => context.names?.material?.find((item) => item.id === id)?.counted === true;

const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** Returns what a wax of the same file is named by until it has an id of its own. */
export const idOfLine = (line: number): string => `line ${line}`;

/** The waxes that a file puts on the shelf, so that its blends can name them, in whatever order they stand. */
function waxesOfSheet(sheet: Sheet, mapping: Mapping, kept: readonly Kept[]): NonNullable<FieldContext["waxes"]> {
  const cell = (cells: readonly string[], key: string) => armed((cells[mapping[key] ?? -1] ?? "").trim());
  return filledRows(sheet.rows).flatMap(({ line, cells }) => {
    const name = cell(cells, "name");
    if (name === "" || kept.some((item) => item.name.toLowerCase() === name.toLowerCase())) return [];
    return [{ id: idOfLine(line), name, blend: cell(cells, "blend") === "" ? null : [] }];
  });
}

/** What a file is read or written with: what it can name, and the units of the workshop; metric where none are given. */
export type SheetContext = Omit<FieldContext, "mass" | "temperature" | "length" | "bare"> & { units?: UnitChoice };

/** Returns the units in which a column's bare figures are: those that its head says, else the workshop's. */
function unitsOfColumn(field: ShelfField, head: string, workshop: UnitChoice): UnitChoice {
  const [asMetric, asUs] = [plain(columnOf(field, METRIC)), plain(columnOf(field, US_CUSTOMARY))];
  if (asMetric === asUs) return workshop;
  return plain(head) === asUs
    ? US_CUSTOMARY
    : plain(head) === asMetric || OLD_COLUMNS[field.column]?.some((old) => plain(old) === plain(head))
      ? METRIC
      : workshop;
}

/**
 * Reads the rows of a file against the shelf: what becomes of each, and the values it brings. A row changes the thing of
 * the same name; fields that no column feeds stay as they are, or begin with what the form would offer.
 */
export function readSheet(kind: SheetKind, sheet: Sheet, mapping: Mapping, kept: readonly Kept[], context: SheetContext): SheetRow[] {
  const workshop = context.units ?? METRIC;
  const known: FieldContext = {
    ...context,
    ...workshop,
    bare: true,
    ...(kind === "wax" ? { waxes: [...(context.waxes ?? []), ...waxesOfSheet(sheet, mapping, kept)] } : {}),
  };
  const fields = SHEET_FIELDS[kind];
  const seen = new Map<string, number>();
  return filledRows(sheet.rows).map(({ line, cells }): SheetRow => {
    const why: string[] = [];
    const values: Record<string, unknown> = {};
    const unitsOf = (field: ShelfField): FieldContext => ({ ...known, ...unitsOfColumn(field, sheet.heads[mapping[field.key] ?? -1] ?? "", workshop) });
    const cellOf = (field: ShelfField): string | null => {
      const at = mapping[field.key];
      if (at === null || at === undefined) return null;
      const cell = armed((cells[at] ?? "").trim());
      const inWords = ["name", "words", "choice", "families", "blend", "ref", "day"].includes(field.type.is);
      return sheet.decimalComma && !inWords && !cell.includes(".") ? cell.replace(/(\d),(\d)/g, "$1.$2") : cell;
    };
    const nameField = fields[0] as ShelfField;
    const name = cellOf(nameField) ?? "";
    const nameless = isNameless(kind);
    const old = nameless ? null : (kept.find((item) => item.name.toLowerCase() === name.toLowerCase()) ?? null);
    for (const field of fields) {
      const cell = cellOf(field);
      let read: Parsed<unknown>;
      if (cell === null && old) read = good(old[field.key]);
      // An empty cell of what may be unknown says that it is not known.
      else if ((cell === null || (cell === "" && !field.optional && !field.derived)) && field.first !== undefined)
        read = readField(field, inUnits(field.first, workshop), known);
      else if (cell === null && !field.optional && !field.derived) read = bad("unknown", `No column gives “${field.label}”.`);
      else read = readField(field, cell ?? "", unitsOf(field));
      if (read.ok) values[field.key] = read.value;
      else why.push(cell === null ? read.message : `${field.label}: ${read.message}`);
    }
    if (why.length === 0 && kind !== "product" && kind !== "lot" && kind !== "wanted") {
      Object.assign(values, completeValues(kind, values));
      why.push(...Object.values({ ...missingValues(kind, values), ...shelfFaults(kind, values) }));
    }
    if (cells.length > sheet.heads.length && cells.slice(sheet.heads.length).some((cell) => cell.trim() !== ""))
      why.push(`The row has ${cells.length} cells, but the file has ${sheet.heads.length} columns: is a separator in a text without quotes?`);
    // What has no name of its own is the same as one like it in everything, and there may be many of one thing.
    if (nameless) {
      // Of a lot a bare number was read as a weight; of what is counted it means pieces.
      if (why.length === 0 && kind === "lot" && isCountedIn(context, values.materialId)) {
        const pieces = Number(cellOf(fields.find((field) => field.type.is === "amount") as ShelfField));
        if (Number.isInteger(pieces)) values.amount = pieces;
        else why.push("Amount: pieces are counted in whole numbers.");
      }
      if (why.length > 0) return { line, id: null, values, outcome: { is: "refused", name, why } };
      const alike = kept.find((item) => fields.every((field) => same(item[field.key], values[field.key])));
      return { line, id: alike?.id ?? null, values, outcome: { is: alike ? "same" : "new", name } };
    }
    const twin = name === "" ? undefined : seen.get(name.toLowerCase());
    if (twin !== undefined) why.push(`“${name}” stands in row ${twin} already.`);
    else if (name !== "") seen.set(name.toLowerCase(), line);
    const id = old?.id ?? null;
    if (why.length > 0) return { line, id, values, outcome: { is: "refused", name, why } };
    if (!old) return { line, id, values, outcome: { is: "new", name } };
    const what = fields.flatMap((field) => {
      if (same(old[field.key], values[field.key])) return [];
      const show = (value: unknown) => writeField(field, value, known) || "nothing";
      return [`${field.label}: ${show(old[field.key])} → ${show(values[field.key])}`];
    });
    return { line, id, values, outcome: what.length === 0 ? { is: "same", name } : { is: "changed", name, what } };
  });
}

/** Returns the shelf's things of one kind as rows of text, in the units of the workshop, hours and percent. */
export function writeSheet(kind: SheetKind, rows: readonly Record<string, unknown>[], context: SheetContext): Sheet {
  const workshop = context.units ?? METRIC;
  const known: FieldContext = { ...context, ...workshop, bare: true };
  const fields = SHEET_FIELDS[kind];
  return {
    heads: fields.map((field) => columnOf(field, workshop)),
    rows: rows.map((row) =>
      fields.map((field) =>
        field.type.is === "amount" && isCountedIn(context, row.materialId) ? String(row[field.key]) : writeField(field, row[field.key], known, true),
      ),
    ),
  };
}
