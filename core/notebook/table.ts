/** A file as its program or the clipboard gave it: rows of cells as text. Row 1 of a spreadsheet is the first. */
export type Grid = readonly (readonly string[])[];

/** A grid with its headings found. */
export interface NotesTable {
  heads: string[];
  /** The row that the headings stand in. */
  headingLine: number;
  /** What is below the headings; `line` is the row's number as a spreadsheet counts. */
  rows: { line: number; cells: string[] }[];
}

/** Headings stand in one of so many first rows: above them are titles, names and dates. */
const MAX_ROWS_ABOVE = 25;

const isBlank = (row: readonly string[]) => row.every((cell) => cell.trim() === "");

/** Returns the letters that a spreadsheet gives a column: 0 is A, 26 is AA. */
export function columnLetters(index: number): string {
  const rest = Math.floor(index / 26);
  return `${rest > 0 ? columnLetters(rest - 1) : ""}${String.fromCharCode(65 + (index % 26))}`;
}
/** Returns the name that a spreadsheet gives a cell: "F12". */
export const cellName = (column: number, line: number): string => `${columnLetters(column)}${line}`;

/** Returns a row of group headings with each carried on over the blank cells that it is merged with. */
function carriedOn(row: readonly string[], width: number): string[] {
  let last = "";
  return Array.from({ length: width }, (_, index) => {
    last = row[index]?.trim() || last;
    return last;
  });
}

/**
 * Returns a grid's headings and rows. The headings are the row, among the first ones, that has the most cells which `isKnown` knows; a row of group headings
 * right above them is read with them, "temps" over "melt" as "temps melt", also where its cells are merged. Null if the grid holds nothing.
 */
export function tableOf(grid: Grid, isKnown: (head: string) => boolean): NotesTable | null {
  const width = grid.reduce((most, row) => Math.max(most, row.length), 0);
  const scored = grid.slice(0, MAX_ROWS_ABOVE).map((row, index) => ({ index, known: row.filter((cell) => cell.trim() !== "" && isKnown(cell)).length }));
  const firstFilled = grid.findIndex((row) => !isBlank(row));
  if (firstFilled < 0) return null;
  const best = scored.reduce((most, row) => (row.known > most.known ? row : most), { index: firstFilled, known: 0 });
  const at = best.index;
  const heads = Array.from({ length: width }, (_, index) => (grid[at]?.[index] ?? "").trim());
  const group = grid[at - 1] ?? [];
  const filled = group.filter((cell) => cell.trim() !== "").length;
  // A single cell in the first column is a title, not a group.
  const isGroup = filled > 1 || (filled === 1 && (group[0] ?? "").trim() === "");
  for (const [index, name] of (isGroup ? carriedOn(group, width) : []).entries()) {
    const own = heads[index] as string;
    if (name !== "" && own === "") heads[index] = name;
    else if (name !== "" && !isKnown(own)) heads[index] = `${name} ${own}`;
  }
  const rows = grid
    .map((row, index) => ({ line: index + 1, cells: Array.from({ length: width }, (_, column) => (row[column] ?? "").trim()) }))
    .slice(at + 1)
    .filter((row) => !isBlank(row.cells));
  return { heads, headingLine: at + 1, rows };
}
