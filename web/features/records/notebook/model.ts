import {
  batchNote,
  burnNotes,
  candleNote,
  type Grid,
  guessNames,
  guessReading,
  isNoteHead,
  type NameChoices,
  type NameUse,
  type NoteFault,
  type NoteKind,
  type NoteRow,
  type NotesReading,
  nameKey,
  namesUsed,
  readNoteRows,
  type ShelfNames,
  tableOf,
  type UnitChoice,
} from "@hearth/core";

/** What becomes of a row: it is taken in, or it is wrong, or it was left out by hand. */
export interface RowFate {
  line: number;
  fate: "taken" | "wrong" | "left out";
  faults: NoteFault[];
  /** What was read of it, in a few words of its own. */
  row: NoteRow | null;
}

export interface NotesPreview {
  rows: RowFate[];
  uses: NameUse[];
  choices: NameChoices;
}

const isNamed = (shelf: ShelfNames) => {
  const known = new Set([...shelf.wax.map((item) => nameKey("wax", item.name)), ...shelf.fragrance.map((item) => nameKey("fragrance", item.name))]);
  return (name: string) => known.has(nameKey("wax", name)) || known.has(nameKey("fragrance", name));
};

/** Returns how a grid is most likely meant; null where it holds nothing. */
export function beginReading(kind: NoteKind, grid: Grid, how: { units: UnitChoice; dayOrder: "day" | "month"; decimalComma: boolean }): NotesReading | null {
  const table = tableOf(grid, (head) => isNoteHead(kind, head));
  return table && guessReading(kind, table, how);
}

/** Returns what becomes of every row as it is read, and every name with what it means: as chosen, else as it is most likely meant. */
export function previewOf(reading: NotesReading, shelf: ShelfNames, chosen: NameChoices, today: string): NotesPreview {
  const rows = readNoteRows(reading, today, isNamed(shelf));
  const uses = namesUsed(rows);
  const guessed = guessNames(uses, shelf);
  const choices: NameChoices = Object.fromEntries(uses.map(({ key }) => [key, chosen[key] ?? guessed[key] ?? { name: "" }]));
  const faultsOf = (): ((row: NoteRow) => NoteFault[]) => {
    if (reading.kind === "batches") return (row) => batchNote(row, reading, choices, today).faults;
    if (reading.kind === "recipes") return (row) => [...row.faults, ...candleNote(row, reading, choices).faults];
    const { faults } = burnNotes(rows, reading, choices);
    return (row) => faults.get(row.line) ?? [];
  };
  const wrongOf = faultsOf();
  const read = rows.map((row): RowFate => {
    const faults = wrongOf(row);
    return { line: row.line, fate: faults.length > 0 ? "wrong" : "taken", faults, row };
  });
  const leftOut = reading.leftOut.map((line): RowFate => ({ line, fate: "left out", faults: [], row: null }));
  return { rows: [...read, ...leftOut].sort((a, b) => a.line - b.line), uses, choices };
}

/** Returns what a page sends of a notebook to be imported. */
export const importOf = (importId: string, file: string, grid: Grid, { kind, table: _table, ...reading }: NotesReading, choices: NameChoices) => ({
  ...{ importId, kind, file, grid, reading },
  names: choices,
});
