import { DEFECTS, type Defect } from "../defects/defects";
import type { Severity } from "../defects/places";
import { readDayAs } from "../units/calendar";
import { parseDay } from "../units/day-text";
import { MG_PER } from "../units/mass";
import { parseNumber, writeNumber } from "../units/number";
import { bad, good, type Parsed } from "../units/parsed";
import { WHOLE } from "../units/percent";
import { parseTemperature, type TemperatureUnit } from "../units/temperature";

/** A cell in its parts: what it says, and what its writer remarked beside it. */
export interface NotedCell {
  value: string;
  /** What stood in brackets; empty if nothing did. */
  comment: string;
}

/** What people write where they noted nothing. */
const NOTHING = /^(?:|[-–—?.]+|n\/?a|none noted|not noted|unknown|tbd|x)$/i;
/** What stands before a figure that was not measured. */
const ABOUT = /^(?:~|≈|ca\.?|approx\.?|about|around|circa)\s*/i;

/** Returns a cell without its remark in brackets, and without "about" before a figure; nothing where it only says that nothing was noted. */
export function splitCell(cell: string): NotedCell {
  const comments: string[] = [];
  const value = cell
    .replace(/\s*[([]([^()[\]]*)[)\]]\s*/g, (_all, inside: string) => {
      comments.push(inside.trim());
      return " ";
    })
    .trim()
    .replace(ABOUT, "")
    .replace(/\s*\?+$/, "");
  return { value: NOTHING.test(value) ? "" : value, comment: comments.filter(Boolean).join("; ") };
}

/** Whether a date such as 3/4/21 begins with its day or its month. */
export type DayOrder = "day" | "month";

/** Returns whether dates of a column begin with the day or the month, where one of them shows it; else null. */
export function dayOrderOf(cells: readonly string[]): DayOrder | null {
  for (const cell of cells) {
    const [, first, second] = /^\s*(\d{1,2})[./-](\d{1,2})[./-]\d{2,4}/.exec(cell) ?? [];
    if (Number(first) > 12) return "day";
    if (Number(second) > 12) return "month";
  }
  return null;
}

/** Reads a day in any of the spellings of one notebook: "3/14/21", "14.3.2021", "March 14th, 2021", "14-Mar-21", "2021-03-14 10:30". Gives ISO text. */
export function readDay(text: string, order: DayOrder, today: string): Parsed<string> {
  const typed = text
    .trim()
    .replace(/[T,]?\s+\d{1,2}:\d{2}(?::\d{2})?(?:\.\d+)?\s*(?:[ap]\.?m\.?)?(?:Z)?$/i, "")
    .replace(/(\d{4}-\d{2}-\d{2})T.*$/, "$1")
    .replace(/(\d)(?:st|nd|rd|th)\b/gi, "$1")
    .replace(/\bsept\b/gi, "Sep");
  const fail = () => bad("not-understood", `“${text}” is not a date. Write it like 2021-03-14.`);
  const numeric = /^(\d{1,2})[./-](\d{1,2})[./-](\d{2}|\d{4})$/.exec(typed);
  if (numeric) {
    const [a, b] = [Number(numeric[1]), Number(numeric[2])];
    // No note is of a year to come: of two digits that would be, the century before is meant.
    const year = numeric[3]?.length === 2 ? `${`20${numeric[3]}` > today.slice(0, 4) ? "19" : "20"}${numeric[3]}` : numeric[3];
    const dayFirst = a > 12 || (b <= 12 && order === "day");
    const [day, month] = dayFirst ? [a, b] : [b, a];
    const read = readDayAs(`${year}-${month}-${day}`, "yyyy-L-d");
    return read ? good(`${year}-${String(month).padStart(2, "0")}-${String(day).padStart(2, "0")}`) : fail();
  }
  const named = /^(\d{1,2})[- ]([a-z]{3,9})\.?[- ,]+(\d{2}|\d{4})$/i.exec(typed) ?? /^([a-z]{3,9})\.?[- ](\d{1,2})[- ,]+(\d{2}|\d{4})$/i.exec(typed);
  const spelled = named ? `${named[1]} ${named[2]} ${named[3]?.length === 2 ? `20${named[3]}` : named[3]}` : typed;
  const day = parseDay(named && /^[a-z]/i.test(spelled) ? spelled.replace(/ (\d{4})$/, ", $1") : spelled, today);
  return day ? good(day) : fail();
}

/** Reads a temperature; of a range, "135–140 F", the middle. Gives hundredths of °C. */
export function readTemperature(text: string, unit: TemperatureUnit): Parsed<number> {
  const range = /^(\d+(?:[.,]\d+)?)\s*(?:°?\s*[cf])?\s*(?:[-–—]|\bto\b)\s*(\d+(?:[.,]\d+)?)\s*(?:[°º˚]|deg\.?)?\s*([cf])?$/i.exec(text);
  if (!range) return parseTemperature(text, unit);
  const [from, to] = [range[1], range[2]].map((figure) => Number((figure ?? "").replace(",", "."))) as [number, number];
  if (from > to) return bad("out-of-range", `“${text}” begins with its higher end.`);
  return parseTemperature(`${writeNumber((from + to) / 2, 3)} ${range[3] ?? unit}`, unit);
}

/** How a fragrance load is written: percent of the wax, a share of one, or a weight to a weight of wax. */
export const LOAD_UNITS = ["%", "share", "oz/lb", "g/kg"] as const;
export type LoadUnit = (typeof LOAD_UNITS)[number];
const MAX_LOAD_PPM = 300_000;

/** Reads a fragrance load: "8 %", "0.08", "1 oz/lb", "1.5 oz per pound", "80 g per kg". Gives millionths of the wax. */
export function readLoad(text: string, unit: LoadUnit): Parsed<number> {
  const typed = text.trim().toLowerCase();
  const per = /^([\d.,/\s½¼¾⅓⅔⅛⅜⅝⅞]+?)\s*(oz|ounces?|g|grams?)\.?\s*(?:\/|per|p|to a|a|to)\s*(lbs?|pounds?|pp|p|kg|kilos?|kilograms?)\b\.?$/.exec(
    typed.replace(/\boz\s*pp\b/, "oz per pp"),
  );
  const figure = parseNumber(per ? (per[1] ?? "") : typed.replace(/\s*(?:%|percent|per cent|pct|oz\/lb|g\/kg)$/, ""));
  if (!figure.ok) return figure.code === "ambiguous" ? figure : bad("not-understood", `“${text}” is not a fragrance load. Write it like 8 % or 1 oz/lb.`);
  const meant: LoadUnit = /%|percent|per cent|pct/.test(typed) ? "%" : /oz\/lb$/.test(typed) ? "oz/lb" : /g\/kg$/.test(typed) ? "g/kg" : unit;
  const ounces = per?.[2]?.startsWith("o");
  const pounds = per && !per[3]?.startsWith("k");
  const ppm = per
    ? (figure.value * (ounces ? MG_PER.oz : MG_PER.g) * WHOLE) / (pounds ? MG_PER.lb : MG_PER.kg)
    : figure.value * (meant === "%" ? WHOLE / 100 : meant === "share" ? WHOLE : meant === "oz/lb" ? WHOLE / 16 : WHOLE / 1_000);
  if (ppm < 0) return bad("negative", `“${text}”: a load cannot be negative.`);
  if (ppm > MAX_LOAD_PPM) return bad("too-large", `${writeNumber(ppm / 10_000, 2)} % is more fragrance than any wax holds. Look at the unit of this column.`);
  return good(Math.round(ppm));
}

/** One part of a blend as it was noted: its name and its share, which is null where no share was given. */
export interface NotedPart {
  name: string;
  share: number | null;
}

const NUMBER = String.raw`\d+(?:[.,]\d+)?`;
/**
 * Reads a blend: "80 % soy + 20 % coconut", "soy 80 / coconut 20", "soy/coconut 80:20", "soy & coconut". A text without shares that `isName` knows as a whole, or
 * without a sign between parts, is one part. Shares are as written; null where none is.
 */
export function readParts(text: string, isName: (name: string) => boolean): NotedPart[] {
  const typed = text.trim().replace(/\s+/g, " ");
  if (typed === "") return [];
  if (isName(typed)) return [{ name: typed, share: null }];
  const ratio = new RegExp(String.raw`^(.+?)[\s,(]+(${NUMBER}(?:\s*[/:]\s*${NUMBER})+)\s*%?\)?$`).exec(typed);
  if (ratio) {
    const shares = (ratio[2] ?? "").split(/[/:]/).map((share) => Number(share.trim().replace(",", ".")));
    const names = (ratio[1] ?? "").split(/\s*(?:[/+&,]| and )\s*/i).filter(Boolean);
    if (names.length === shares.length) return names.map((name, index) => ({ name, share: shares[index] as number }));
  }
  const pieces = typed.split(/\s*(?:\+|;)\s*/).flatMap((piece) => (/\d/.test(piece) ? piece.split(/\s*(?:[/&,]| and )\s*/i) : [piece]));
  const parts = pieces.filter(Boolean).map((piece): NotedPart => {
    const before = new RegExp(String.raw`^(${NUMBER})\s*%?\s*(?:of |parts? )?(\D.*)$`).exec(piece);
    const after = new RegExp(String.raw`^(.*\D)\s+(${NUMBER})\s*%?$`).exec(piece);
    const isShare = piece.includes("%") || pieces.length > 1;
    if (isShare && before) return { name: (before[2] ?? "").trim(), share: Number((before[1] ?? "").replace(",", ".")) };
    if (isShare && after) return { name: (after[1] ?? "").trim(), share: Number((after[2] ?? "").replace(",", ".")) };
    return { name: piece.trim(), share: null };
  });
  // What is left to a hundred belongs to the one part without a share.
  const open = parts.filter((part) => part.share === null);
  const given = parts.reduce((sum, part) => sum + (part.share ?? 0), 0);
  return open.length === 1 && parts.length > 1 && given < 100 && given > 0 ? parts.map((part) => ({ ...part, share: part.share ?? 100 - given })) : parts;
}

/** Words by which makers name a flaw, beside its name. Common practice, no source. */
const FLAW_WORDS: readonly (readonly [id: string, words: RegExp])[] = [
  ["gel_bubbles", /bubbles? in (?:the )?gel/],
  ["cracked_glass", /crack(?:ed|s)? (?:glass|jar|vessel)|(?:glass|jar|vessel) crack/],
  ["weak_cold_throw", /(?:weak|no|poor|low) (?:cold throw|ct\b)/],
  ["weak_hot_throw", /(?:weak|no|poor|low) (?:hot throw|ht\b)/],
  ["large_flame", /(?:large|big|high|tall|jumping|dancing) flame/],
  ["surface_ignition", /ignit|flare|flash ?over/],
  ["water_in_wax", /water/],
  ["wet_spot", /wet ?spot|pull(?:ed|ing)? away|delamin|adhesion|let go of the (?:glass|jar)/],
  ["frosting", /frost/],
  ["sinkhole", /sink|crater|cave|void|\bholes?\b/],
  ["cracks", /crack/],
  ["rough_top", /rough|pitt|lump|bump|cottage|uneven|ugly top|grainy top/],
  ["wrinkles", /wrinkl|jump ?line|chatter|ring(?:s|ed)? (?:line|around)/],
  ["bubbles", /bubble|air pocket/],
  ["sweating", /sweat|seep|weep|oily/],
  ["scorched", /scorch|discolou?r|yellow|brown/],
  ["mottling", /mottl|snowflake/],
  ["leaning_wick", /lean|off.?cent(?:er|re)|crooked/],
  ["tunnelling", /tunnel/],
  ["mushrooming", /mushroom/],
  ["soot", /soot|smok/],
  ["drowning", /drown|went out|self.?exting/],
  ["bloom", /bloom/],
];
/** What says that there was no flaw. */
const NO_FLAW =
  /^(?:0|none|no|nil|ok|okay|fine|good|great|perfect|clean|smooth|flat|clear|nice|no flaws?|no issues?|no problems?|all (?:good|fine|ok|smooth)|passed?|n)$/i;
const SEVERE = /\b(?:bad|badly|severe|heavy|heavily|lots|very|huge|major|terrible)\b/;
const SLIGHT = /\b(?:slight|slightly|small|minor|bit|little|few|light|tiny|some)\b/;

/** A flaw as it was noted: on how many jars, or on how many is not said; how bad. */
export interface NotedFlaw {
  defect: string;
  jars: number | null;
  severity: Severity;
}

/** Returns the flaw that a few words name; null if they name none that is known. */
export function flawNamed(text: string): Defect | null {
  const lower = text.toLowerCase();
  const id =
    DEFECTS.find((defect) => defect.name === lower || defect.id === lower.replace(/[ -]/g, "_"))?.id ?? FLAW_WORDS.find(([, words]) => words.test(lower))?.[0];
  return DEFECTS.find((defect) => defect.id === id) ?? null;
}

/**
 * Reads what was seen: "wet spots 3, frosting", "2/12 rough", "smooth", "none". Gives the flaws, whether it says that somebody looked, and the words that name no
 * flaw.
 */
export function readFlaws(text: string): { flaws: NotedFlaw[]; isLookedAt: boolean; unknown: string[] } {
  const unknown: string[] = [];
  let saysNone = false;
  const flaws = text
    .split(/\s*(?:[,;+\n]|\band\b|&)\s*/i)
    .map((piece) => piece.trim())
    .filter(Boolean)
    .flatMap((piece): NotedFlaw[] => {
      if (NO_FLAW.test(piece) || /^no\s/i.test(piece)) {
        saysNone = true;
        return [];
      }
      const defect = flawNamed(piece);
      if (!defect) {
        unknown.push(piece);
        return [];
      }
      const lower = piece.toLowerCase();
      const [, jars] = /(\d+)\s*(?:\/|of|out of)\s*\d+/.exec(lower) ?? /(?:^|[\sx×:])(\d+)(?:\s*[x×])?(?=$|[\s:])/.exec(lower) ?? [];
      return [
        {
          defect: defect.id,
          jars: jars === undefined ? null : Number(jars),
          severity: SEVERE.test(lower) ? "severe" : SLIGHT.test(lower) ? "slight" : "clear",
        },
      ];
    });
  return { flaws: flaws.filter((flaw) => flaw.jars !== 0), isLookedAt: saysNone || flaws.length > 0, unknown };
}

/** Reads a column that belongs to one flaw: "3", "yes", "no", "a few". Gives its jars; null where it is only said that it was seen; 0 where it was not. */
export function readSeen(text: string): Parsed<number | null> {
  if (NO_FLAW.test(text.trim())) return good(0);
  if (/^(?:y|yes|x|✓|✔|seen|true|some|few|a few|slight|bad|lots)$/i.test(text.trim())) return good(null);
  const [, jars] = /^(\d+)(?:\s*(?:\/|of|out of)\s*\d+)?(?:\s*(?:jars?|candles?|pcs?|tins?))?$/i.exec(text.trim()) ?? [];
  return jars === undefined ? bad("not-understood", `“${text}” is not a number of jars. Write it like 3, yes or no.`) : good(Number(jars));
}

/** Reads a score from 0 to 10: "7", "7/10", "3.5/5", "★★★". Gives halves. */
export function readScore(text: string): Parsed<number> {
  const typed = text.trim();
  const stars = /^[★⭐*]+$/.exec(typed);
  const of = /^(\d+(?:[.,]\d+)?)\s*(?:\/|of|out of)\s*(\d+)$/i.exec(typed);
  const value = stars ? [...typed].length * 2 : of ? (Number((of[1] ?? "").replace(",", ".")) / Number(of[2])) * 10 : Number(typed.replace(",", "."));
  if (!Number.isFinite(value)) return bad("not-understood", `“${text}” is not a score. Write it like 7 or 7/10.`);
  if (value < 0 || value > 10) return bad("out-of-range", `${writeNumber(value, 1)} is not from 0 to 10. Write what it is out of, like 4/5.`);
  return good(Math.round(value * 2) / 2);
}
