import { parseDuration, SECONDS } from "../units/duration";
import { parseLength } from "../units/length";
import { type MassUnit, parseMass } from "../units/mass";
import { parseNumber } from "../units/number";
import { bad, type Parsed } from "../units/parsed";
import { parseCount } from "../units/percent";
import type { TemperatureUnit } from "../units/temperature";
import {
  type LoadUnit,
  type NotedFlaw,
  type NotedPart,
  readDay,
  readFlaws,
  readLoad,
  readParts,
  readScore,
  readSeen,
  readTemperature,
  splitCell,
} from "./cells";
import { NOTE_FIELDS, type NoteField, type NotesReading, SECONDS_IN } from "./columns";
import { cellName } from "./table";

/** What is wrong with a row, and in which cell; the cell is empty where it is none of the file. */
export interface NoteFault {
  cell: string;
  message: string;
}

type FlawsRead = ReturnType<typeof readFlaws>;

/** What a row says, field by field; what is not noted is absent. Weights in mg, temperatures in hundredths of °C, times in seconds, lengths in micrometers, loads in millionths of the wax. */
export interface NoteValues {
  day?: string;
  candle?: string;
  name?: string;
  wax?: NotedPart[];
  scent?: NotedPart[];
  load?: number;
  vessel?: string;
  fill?: number;
  count?: number;
  wick?: string;
  heat?: number;
  add?: number;
  pour?: number;
  room?: number;
  cure?: number;
  flaws?: FlawsRead;
  tops?: FlawsRead;
  wetSpots?: number | null;
  frosting?: number | null;
  cold?: number;
  hot?: number;
  hotRoom?: string;
  session?: number;
  after?: number;
  trim?: number;
  pool?: number;
  depth?: number;
  flame?: string;
  mushroom?: number | null;
  soot?: number | null;
  wall?: number;
  result?: string;
  remarks?: string;
}

/** One row of notes as it was read. */
export interface NoteRow {
  line: number;
  values: NoteValues;
  /** What stood in brackets in its cells. */
  comments: string[];
  faults: NoteFault[];
}

/** Ten years of a busy workshop have fewer rows. */
export const MAX_NOTE_ROWS = 5_000;

/** The longest time that is noted: a cure of a year and more. */
const MAX_NOTED_S = 400 * SECONDS.d;

interface CellContext {
  unit: string;
  reading: NotesReading;
  today: string;
  isName: (name: string) => boolean;
}

/** Reads one cell by what its column holds. */
function readCell(item: NoteField, text: string, { unit, reading, today, isName }: CellContext): Parsed<unknown> {
  // A comma between digits is a decimal mark where the file's own mark it is.
  const figure = reading.decimalComma && !text.includes(".") ? text.replace(/(\d),(\d)/g, "$1.$2") : text;
  switch (item.type) {
    case "day":
      return readDay(text, reading.dayOrder, today);
    case "blend":
      return { ok: true, value: readParts(text, isName) };
    case "load":
      return readLoad(figure, unit as LoadUnit);
    case "count":
      return parseCount(figure.replace(/^(\d+)\s*(?:x|jars?|candles?|pcs?|tins?)$/i, "$1"), {
        least: 1,
        most: 100_000,
        name: item.key === "count" ? "pieces" : "sessions",
      });
    case "temperature":
      return readTemperature(figure, unit as TemperatureUnit);
    case "mass":
      return parseMass(figure, { unit: unit as MassUnit });
    case "length":
      return parseLength(figure, { least: 0, most: 1_000 }, unit as "mm" | "in");
    case "days":
    case "minutes": {
      // A bare figure is in the unit of its column, "1:30" in hours and minutes.
      if (/[a-z]/i.test(figure)) return parseDuration(figure.replace(/\bwks?\b/i, "weeks").replace(/\+$/, ""), "s");
      const clock = /^(\d+):([0-5]\d)$/.exec(figure);
      if (clock) return { ok: true, value: (Number(clock[1]) * 60 + Number(clock[2])) * SECONDS.min };
      const number = parseNumber(figure.replace(/\+$/, ""));
      if (!number.ok) return number;
      const seconds = Math.round(number.value * (SECONDS_IN[unit] ?? 1));
      return seconds < 0 || seconds > MAX_NOTED_S
        ? bad("out-of-range", `“${text}” ${unit} is not a length of time that can be meant here.`)
        : { ok: true, value: seconds };
    }
    case "flaws":
      return { ok: true, value: readFlaws(text) };
    case "seen":
      return readSeen(text);
    case "score":
      return readScore(figure);
    case "name":
    case "text":
      return { ok: true, value: text };
  }
}

/**
 * Reads every row of a table of notes. A cell that cannot be read is a fault with its name, "F12"; what stands in brackets is a comment.
 * @param today the workshop's day, which no note is after
 * @param isName whether the shelf knows something by this name, as a whole
 */
export function readNoteRows(reading: NotesReading, today: string, isName: (name: string) => boolean): NoteRow[] {
  const fields = NOTE_FIELDS[reading.kind];
  const above: Record<string, unknown> = {};
  const rows: NoteRow[] = [];
  for (const { line, cells } of reading.table.rows) {
    if (reading.leftOut.includes(line)) continue;
    // A single filled cell is a heading between rows, such as a month.
    if (cells.filter(Boolean).length < 2 || /^(?:sum|totals?|average)\b/i.test(cells.find(Boolean) ?? "")) continue;
    const values: Record<string, unknown> = {};
    const comments: string[] = [];
    const faults: NoteFault[] = [];
    for (const item of fields) {
      const column = reading.columns[item.key] ?? null;
      const raw = column === null ? "" : (cells[column] ?? "");
      const isBlend = item.type === "blend";
      // A blend's brackets hold its shares.
      const { value: noted, comment } =
        isBlend || item.type === "text" || item.type === "flaws" ? { value: splitCell(raw).value === "" ? "" : raw, comment: "" } : splitCell(raw);
      if (comment) comments.push(`${item.label}: ${comment}`);
      const text = noted || (reading.everywhere[item.key] ?? "").trim();
      if (text === "") {
        if (item.isCarriedDown && above[item.key] !== undefined) values[item.key] = above[item.key];
        continue;
      }
      const read = readCell(item, text, { unit: reading.units[item.key] ?? "", reading, today, isName });
      if (read.ok) {
        values[item.key] = read.value;
        if (item.isCarriedDown) above[item.key] = read.value;
      } else faults.push({ cell: column === null || noted === "" ? "" : cellName(column, line), message: `${item.label}: ${read.message}` });
    }
    const day = values.day as string | undefined;
    if (day && day > today) faults.push({ cell: noteCell(reading, "day", line), message: `Date: ${day} is in the future.` });
    for (const item of fields)
      if (item.isNeeded && values[item.key] === undefined && !faults.some((fault) => fault.message.startsWith(`${item.label}:`)))
        faults.push({ cell: noteCell(reading, item.key, line), message: `${item.label} is missing.` });
    rows.push({ line, values: values as NoteValues, comments, faults });
  }
  return rows;
}

/** Returns the name of the cell that a field of a row stands in; empty where no column feeds it. */
export function noteCell(reading: NotesReading, key: string, line: number): string {
  const column = reading.columns[key] ?? null;
  return column === null ? "" : cellName(column, line);
}

/** Returns everything that was seen on a row's jars: the flaws, and whether somebody looked at all. `jars` is null where the number was not noted. */
export function flawsOfRow(values: NoteValues): { flaws: NotedFlaw[]; isLookedAt: boolean; unknown: string[] } {
  const texts = [values.flaws, values.tops].flatMap((text) => (text ? [text] : []));
  const columns = (["wetSpots", "frosting"] as const).flatMap((key) =>
    values[key] === undefined ? [] : [{ defect: key === "wetSpots" ? "wet_spot" : "frosting", jars: values[key] ?? null }],
  );
  const all = [...texts.flatMap((text) => text.flaws), ...columns.filter(({ jars }) => jars !== 0).map((seen): NotedFlaw => ({ ...seen, severity: "clear" }))];
  // One flaw in two columns is one flaw; the one with a number counts.
  const byDefect = new Map<string, NotedFlaw>();
  for (const flaw of all) if (!byDefect.has(flaw.defect) || flaw.jars !== null) byDefect.set(flaw.defect, flaw);
  return {
    flaws: [...byDefect.values()],
    isLookedAt: columns.length > 0 || texts.some((text) => text.isLookedAt),
    unknown: texts.flatMap((text) => text.unknown),
  };
}
