import { SECONDS } from "../units/duration";
import type { UnitChoice } from "../units/measured-text";
import { type DayOrder, dayOrderOf, LOAD_UNITS, splitCell } from "./cells";
import type { NotesTable } from "./table";

/** What a notebook is brought in as: one row a batch, a check of a burning candle, or a recipe. */
export const NOTE_KINDS = ["batches", "burns", "recipes"] as const;
export type NoteKind = (typeof NOTE_KINDS)[number];

/** What the cells of a column hold, and so how they are read. */
export type NoteType =
  | "day"
  | "name"
  | "blend"
  | "load"
  | "count"
  | "temperature"
  | "mass"
  | "length"
  | "days"
  | "minutes"
  | "flaws"
  | "seen"
  | "score"
  | "text";

export interface NoteField {
  key: string;
  label: string;
  type: NoteType;
  /** Headings under which makers keep it, in lower case without signs. */
  heads: RegExp;
  /** Without it a row cannot be taken in. */
  isNeeded?: true;
  /** An empty cell means what stands above it. */
  isCarriedDown?: true;
}

const field = (key: string, label: string, type: NoteType, heads: RegExp, more: Partial<NoteField> = {}): NoteField => ({ key, label, type, heads, ...more });
const needed = { isNeeded: true } as const;
const DAY = field("day", "Date", "day", /^(?:date|day|poured?(?: on| date)?|pour date|made(?: on)?|date (?:poured|made|of pour)|when)$/, {
  ...needed,
  isCarriedDown: true,
});
const WAX = field("wax", "Wax or blend", "blend", /^(?:wax(?:es)?|wax (?:type|blend|used|name)|blend|base(?: wax)?)$/, needed);
const SCENT = field("scent", "Scent", "blend", /^(?:scents?|fragrances?|fo|fos|oils?|fragrance oils?|scent name|fragrance name|eo|essential oils?)$/);
const LOAD = field(
  "load",
  "Fragrance load",
  "load",
  /^(?:loads?|fragrance load|fo load|scent load|oil load|fo|fo pct|fo percent|load pct|percent|pct|fragrance pct|scent pct|load percent|fragrance percent)$/,
);
const VESSEL = field("vessel", "Vessel", "name", /^(?:vessels?|jars?|containers?|jar type|tins?|jar tin|vessel type|container type|tumblers?|mold)$/, needed);
const WICK = field("wick", "Wick", "name", /^(?:wicks?|wick (?:type|size|used|name)|wick series)$/);
const REMARKS = field("remarks", "Remarks", "text", /^(?:remarks?|notes?|comments?|observations?|thoughts|other|misc)$/);
const FILL = field("fill", "Fill of one", "mass", /^(?:fill|fill weight|net weight|wax per (?:jar|candle|vessel)|weight per jar|fill per jar|size|jar size)$/);

/** The fields that a notebook of each kind can have. Headings and spellings: common practice, no source. */
export const NOTE_FIELDS: Readonly<Record<NoteKind, readonly NoteField[]>> = {
  batches: [
    DAY,
    WAX,
    SCENT,
    LOAD,
    VESSEL,
    FILL,
    field(
      "count",
      "Number made",
      "count",
      /^(?:count|how many|made|poured|no|nr|number|number of (?:jars|candles)|qty|quantity|jars made|candles made|candles|pcs|pieces|amount|units)$/,
      needed,
    ),
    WICK,
    field("heat", "Melted to", "temperature", /^(?:(?:temps? |temperatures? )?(?:melt(?:ed)?|heat(?:ed)?)(?: to| temps?| temperatures?)?|max temp|top temp)$/),
    field(
      "add",
      "Fragrance added at",
      "temperature",
      /^(?:(?:temps? |temperatures? )?(?:(?:fo |fragrance |scent |oil )?add(?:ed)?(?: fo| at| in)?|mix)(?: temps?| temperatures?| at)?)$/,
    ),
    field("pour", "Poured at", "temperature", /^(?:(?:temps? |temperatures? )?pour(?:ed|ing)?(?: temps?| temperatures?| at)?)$/),
    field("room", "Room", "temperature", /^(?:room(?: temps?| temperatures?)?|ambient(?: temps?)?|shop temp)$/),
    field("cure", "Cured before it was tested", "days", /^(?:cured?|cure(?:d)? (?:time|days|for|weeks)|days cured|curing(?: time)?|age)$/),
    field("flaws", "Flaws", "flaws", /^(?:flaws?|defects?|issues?|problems?|looks?|appearance|results?|surface|finish)$/),
    field("tops", "Tops", "flaws", /^(?:tops?|top finish|surface tops?|how tops look)$/),
    field("wetSpots", "Wet spots", "seen", /^(?:wet ?spots?|adhesion)$/),
    field("frosting", "Frosting", "seen", /^(?:frost(?:ing|ed)?)$/),
    field("cold", "Cold throw", "score", /^(?:ct|cold|cold (?:throw|scent|score)|throw cold)$/),
    field("hot", "Hot throw", "score", /^(?:ht|hot|hot (?:throw|scent|score)|throw hot)$/),
    field("hotRoom", "Room of the hot throw", "name", /^(?:ht room|room tested|test room|tested in|burn room|room burned)$/),
    REMARKS,
  ],
  burns: [
    field("candle", "Candle", "name", /^(?:candle|test|label|id|test candle|code|name|sample)$/),
    { ...DAY, heads: /^(?:date|day|burn date|tested|date burned|burned on|when)$/ },
    WAX,
    SCENT,
    LOAD,
    VESSEL,
    FILL,
    { ...WICK, isNeeded: true },
    field("session", "Session", "count", /^(?:session|burn|burn no|burn number|burn nr|round|session no)$/),
    field(
      "after",
      "After lighting",
      "minutes",
      /^(?:after|time|hours?|hrs?|minutes?|mins?|elapsed|burn time|check|at|time (?:lit|burning)|hours in|check at)$/,
      needed,
    ),
    field("trim", "Wick trimmed to", "length", /^(?:trim(?:med)?(?: to)?|wick (?:trim|length))$/),
    field("pool", "Melt pool across", "length", /^(?:mp|melt ?pool|pool|pool (?:width|diameter|across)|mp (?:width|diameter)|diameter)$/),
    field("depth", "Melt pool depth", "length", /^(?:depth|mp depth|pool depth|melt ?pool depth|deep)$/),
    field("flame", "Flame", "text", /^(?:flame|flame (?:height|size|look))$/),
    field("mushroom", "Mushroom", "seen", /^(?:mushrooms?|mushrooming|mush)$/),
    field("soot", "Soot", "seen", /^(?:soot|smoke|sooting)$/),
    field("wall", "Glass temperature", "temperature", /^(?:glass(?: temps?)?|jar temps?|wall(?: temps?)?|outside temps?|container temps?)$/),
    field("hot", "Hot throw", "score", /^(?:ht|hot|hot (?:throw|scent|score)|throw)$/),
    field("hotRoom", "Room", "name", /^(?:room|ht room|room tested|test room|tested in|where)$/),
    field("result", "Result", "text", /^(?:result|verdict|pass|pass fail|passed|outcome|ok)$/),
    REMARKS,
  ],
  recipes: [
    field("name", "Name", "name", /^(?:name|recipe|recipe name|candle|formula|product|title)$/, needed),
    WAX,
    SCENT,
    { ...LOAD },
    field("heat", "Melt to", "temperature", /^(?:(?:temps? |temperatures? )?(?:melt|heat)(?:ed)?(?: to| temps?| temperatures?)?)$/),
    field(
      "add",
      "Add fragrance at",
      "temperature",
      /^(?:(?:temps? |temperatures? )?(?:(?:fo |fragrance |scent |oil )?add(?:ed)?(?: fo| at| in)?|mix)(?: temps?| temperatures?| at)?)$/,
    ),
    field("pour", "Pour at", "temperature", /^(?:(?:temps? |temperatures? )?pour(?:ed|ing)?(?: temps?| temperatures?| at)?)$/),
    field("cure", "Cure", "days", /^(?:cured?|cure (?:time|days|for|weeks)|curing(?: time)?)$/),
    field("vessel", "Vessel", "name", VESSEL.heads),
    WICK,
    REMARKS,
  ],
};

/** Returns a heading as it is compared: lower case, without signs and without the unit behind it. */
export const plainHead = (head: string): string =>
  head
    .toLowerCase()
    .replace(/\([^)]*\)|\[[^\]]*\]/g, " ")
    .replace(/%/g, " pct ")
    .replace(/#/g, " number ")
    .replace(/°\s*[cf]\b/g, " ")
    .replace(/[^a-z0-9 ]+/g, " ")
    .replace(/\b(?:in )?(?:deg(?:rees)?|fahrenheit|celsius|oz|ounces?|grams?|lbs?|mm|cm|inch(?:es)?)\b/g, " ")
    .replace(/ [fcg] *$/, " ")
    .replace(/\s+/g, " ")
    .trim();

/** Returns whether a heading is one under which something of this kind of notebook is kept. */
export const isNoteHead = (kind: NoteKind, head: string): boolean => NOTE_FIELDS[kind].some((item) => item.heads.test(plainHead(head)));

/** The units in which the bare figures of a column can be, by what it holds. */
export const NOTE_UNITS: Readonly<Partial<Record<NoteType, readonly string[]>>> = {
  temperature: ["F", "C"],
  load: LOAD_UNITS,
  mass: ["oz", "g"],
  length: ["in", "mm"],
  days: ["days", "weeks", "hours"],
  minutes: ["minutes", "hours"],
};

/** Seconds in the units of a column that holds a length of time. */
export const SECONDS_IN: Readonly<Record<string, number>> = { minutes: SECONDS.min, hours: SECONDS.h, days: SECONDS.d, weeks: SECONDS.w };

/** How a table of notes is read: which column feeds which field, in which unit, and what is meant where a cell is empty. */
export interface NotesReading {
  kind: NoteKind;
  table: NotesTable;
  /** The column of each field; null where none feeds it. */
  columns: Readonly<Record<string, number | null | undefined>>;
  units: Readonly<Record<string, string | undefined>>;
  /** What is meant for every row that says nothing, by field, as typed. */
  everywhere: Readonly<Record<string, string | undefined>>;
  dayOrder: DayOrder;
  /** The decimal mark of the file is the comma, so that "1,250" is one and a quarter. */
  decimalComma: boolean;
  /** On how many jars a flaw without a number was. */
  flawsOn: "every jar" | "one jar";
  /** Rows that are left out, by their line. */
  leftOut: readonly number[];
}

/** Above this a bare figure of a column of wax temperatures is in °F, below it in °C: no wax is worked at 100 °C and more but gel, none below 38 °C. */
const HOT_CELSIUS = 100;
/** So much of the wax no fragrance is: figures up to this are shares of one. */
const MAX_SHARE = 0.4;

const figuresOf = (cells: readonly string[]): number[] => cells.flatMap((cell) => (/^-?\d+(?:[.,]\d+)?$/.test(cell) ? [Number(cell.replace(",", "."))] : []));

/** Returns the unit of a column's bare figures: as its heading says, as its figures must be meant, else the workshop's. */
export function guessUnit(type: NoteType, head: string, cells: readonly string[], workshop: UnitChoice): string {
  const lower = head.toLowerCase();
  const figures = figuresOf(cells);
  const middle = [...figures].sort((a, b) => a - b)[Math.floor(figures.length / 2)];
  switch (type) {
    case "temperature":
      if (/°\s*f|\bf\b|fahrenheit/.test(lower)) return "F";
      if (/°\s*c|\bc\b|celsius/.test(lower)) return "C";
      return middle === undefined ? workshop.temperature : middle > HOT_CELSIUS ? "F" : /room|ambient|shop/.test(lower) ? (middle > 45 ? "F" : "C") : "C";
    case "load":
      if (/%|pct|percent/.test(lower)) return figures.length > 0 && figures.every((figure) => figure <= MAX_SHARE) ? "share" : "%";
      if (/oz.*(?:lb|pound|pp)/.test(lower)) return "oz/lb";
      if (/g.*kg/.test(lower)) return "g/kg";
      return figures.length > 0 && figures.every((figure) => figure <= MAX_SHARE) ? "share" : "%";
    case "mass":
      return /\boz\b|ounce/.test(lower) ? "oz" : /\bg\b|gram/.test(lower) ? "g" : middle !== undefined && middle > 40 ? "g" : workshop.mass;
    case "length":
      return /\bmm\b/.test(lower) ? "mm" : /\bin\b|inch|"/.test(lower) ? "in" : middle !== undefined && middle > 6 ? "mm" : workshop.length;
    case "days":
      return /week|wk/.test(lower) ? "weeks" : /hour|hr/.test(lower) ? "hours" : "days";
    case "minutes":
      return /min/.test(lower) ? "minutes" : /hour|hr|\bh\b/.test(lower) || (middle !== undefined && middle <= 10) ? "hours" : "minutes";
    default:
      return "";
  }
}

/** Returns how a table is most likely meant: its columns by their headings, their units, and whether its dates begin with the day. */
export function guessReading(
  kind: NoteKind,
  table: NotesTable,
  { units: workshop, dayOrder, decimalComma = false }: { units: UnitChoice; dayOrder: DayOrder; decimalComma?: boolean },
): NotesReading {
  const taken = new Set<number>();
  const columns: Record<string, number | null> = {};
  const cellsOf = (column: number) => table.rows.map((row) => splitCell(row.cells[column] ?? "").value).filter(Boolean);
  const isFigures = (column: number) => {
    const cells = cellsOf(column);
    return cells.length > 0 && cells.filter((cell) => /^[\d.,/\s%]+(?:\s*(?:%|oz.*|g\/kg|percent))?$/i.test(cell)).length > cells.length / 2;
  };
  for (const item of NOTE_FIELDS[kind]) {
    // "FO" stands over the oil in one notebook and over its load in another: the cells tell.
    const suits = (column: number) => (item.type === "load" ? isFigures(column) : item.type === "blend" ? !isFigures(column) : true);
    const at = table.heads.findIndex((head, index) => !taken.has(index) && head !== "" && item.heads.test(plainHead(head)) && suits(index));
    columns[item.key] = at >= 0 ? at : null;
    if (at >= 0) taken.add(at);
  }
  const units = Object.fromEntries(
    NOTE_FIELDS[kind].flatMap((item) => {
      if (!NOTE_UNITS[item.type]) return [];
      const column = columns[item.key] ?? null;
      return [[item.key, guessUnit(item.type, column === null ? "" : (table.heads[column] ?? ""), column === null ? [] : cellsOf(column), workshop)]];
    }),
  );
  const days = columns.day === null || columns.day === undefined ? [] : cellsOf(columns.day);
  return { kind, table, columns, units, everywhere: {}, dayOrder: dayOrderOf(days) ?? dayOrder, decimalComma, flawsOn: "every jar", leftOut: [] };
}
