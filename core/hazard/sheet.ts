import { z } from "zod";
import { isoDay } from "../units/day";
import { parseNumber } from "../units/number";
import { bad, good, type Parsed } from "../units/parsed";
import { casNumber, ecNumber } from "./numbers";
import { classNamed } from "./rules";

const percent = z.number().min(0).max(100);

const mFactor = z.number().min(1).max(1_000_000);
const estimate = z.number().positive().max(100_000);
/** One ingredient as a supplier's safety data sheet names it. Percent of the material. */
export const sheetIngredient = z
  .object({
    name: z.string().trim().min(1, "Name the ingredient.").max(200),
    /** The lower end, where the sheet gives a range. */
    from: percent.optional(),
    /** What counts: the figure, or the upper end of its range. */
    percent: percent.gt(0, "Above 0 %."),
    classes: z.array(z.string().min(1).max(40)).max(30),
    /** Classes that the sheet gives and no rule here reckons with. */
    unread: z.array(z.string().min(1).max(80)).max(30).default([]),
    /** Numbers of the substance: names are spelled in many ways. */
    cas: casNumber.optional(),
    ec: ecNumber.optional(),
    /** M-factors, of acute and chronic harm to water; `m` stands for both. */
    m: mFactor.optional(),
    mAcute: mFactor.optional(),
    mChronic: mFactor.optional(),
    /** mg/kg; inhaled in mg/l. */
    ateOral: estimate.optional(),
    ateDermal: estimate.optional(),
    ateInhaled: estimate.optional(),
    limits: z
      .array(z.object({ class: z.string().min(1).max(40), percent: percent.gt(0) }))
      .max(30)
      .default([]),
  })
  .refine((item) => item.from === undefined || item.from <= item.percent, { path: ["percent"], error: "Enter the smaller figure of a range first." })
  // Classes that an earlier version did not know.
  .transform(({ classes, unread, ...rest }) => ({
    ...rest,
    classes: [...new Set([...classes, ...unread.flatMap((each) => classNamed(each) ?? [])])],
    unread: unread.filter((each) => classNamed(each) === null),
  }));
export type SheetIngredient = z.output<typeof sheetIngredient>;

/** What a supplier's safety data sheet says of what is in a material. No ingredient at all: it names nothing that is classified. */
export const supplierSheet = z
  .object({
    /** As the sheet calls its own version. */
    revision: z.string().trim().max(60).default(""),
    /** The day of the sheet, ISO. */
    on: isoDay("Give the day of the sheet, like 2026-03-14."),
    ingredients: z.array(sheetIngredient).max(500),
  })
  .refine((item) => item.ingredients.reduce((sum, each) => sum + (each.from ?? each.percent), 0) <= 100.5, {
    path: ["ingredients"],
    error: "The ingredients come to more than 100 %. Check the percentages.",
  });
export type SupplierSheet = z.output<typeof supplierSheet>;

/** Classes out of a cell: "Skin Sens. 1B, H317; Aquatic Chronic 2, H411". A route is told by its sentence: H302 after "Acute Tox. 4" is oral, H336 after "STOT SE 3" drowsiness. */
export function readClasses(text: string): { classes: string[]; unread: string[] } {
  const parts = text
    .split(/[;,\n|/]+/)
    .map((part) => part.trim())
    .filter(Boolean);
  const classes = new Set<string>();
  const unread = new Set<string>();
  parts.forEach((part, index) => {
    if (/^(eu)?h\s?\d{3}\w*$/i.test(part) || part === "-" || /^(not classified|none)$/i.test(part)) return;
    const bare = part.replace(/\s*[-:]?\s*\(?H\d{3}\w*\)?$/i, "").trim();
    const sentence = `${part} ${parts[index + 1] ?? ""}`;
    // The route of an acute toxicity, and which harm of a single exposure, is told by the sentence.
    const told = /^(acute tox\. \d|stot se 3)$/i.test(bare) ? /\bH(30[0-2]|31[0-2]|33[0-26])\b/i.exec(sentence)?.[0] : undefined;
    const known = classNamed(told ? `${bare} ${told}` : bare);
    if (known) classes.add(known);
    else unread.add(bare);
  });
  return { classes: [...classes], unread: [...unread] };
}

/** Returns a share as sheets write it: "12", "2,5 %", "10 - 25 %", "≥ 1 - < 5", "< 0.1", "≤ 5". The upper end counts. */
export function readShare(text: string): Parsed<{ from?: number; percent: number }> {
  const plain = text
    .replace(/%/g, "")
    .replace(/[–—]|\bto\b/g, "-")
    .trim();
  if (plain === "") return bad("empty", "Give the percent, or a range like 10 - 25.");
  const ends = plain.split("-").map((part) => part.replace(/[<>≤≥=\s]+/g, ""));
  const numbers = ends.map((end) => parseNumber(end));
  const upper = numbers.at(-1);
  const fault = numbers.find((item) => !item.ok);
  if (fault && !fault.ok && fault.code === "ambiguous") return fault;
  if (fault || !upper?.ok || ends.length > 2) return bad("not-understood", `“${text.trim()}” is not a percentage. Write it like 12, or 10 - 25.`);
  const open = /^[<≤]/.test(plain) && ends.length === 1;
  const from = ends.length === 2 && numbers[0]?.ok ? numbers[0].value : open ? 0 : undefined;
  // "> 10" has no upper end: all of it could be.
  if (/^[>≥]/.test(plain) && ends.length === 1) return good({ from: upper.value, percent: 100 });
  if (upper.value > 100 || upper.value <= 0) return bad("out-of-range", `“${text.trim()}” is not a share: above 0 and at most 100 %.`);
  if (from !== undefined && from > upper.value) return bad("out-of-range", `In “${text.trim()}”, enter the smaller figure first.`);
  return good({ ...(from === undefined ? {} : { from }), percent: upper.value });
}

/** Limits of the sheet's own: "Skin Sens. 1B ≥ 0.5 %; Eye Irrit. 2: 5". */
function readLimits(text: string): { limits: { class: string; percent: number }[]; unread: string[] } {
  const limits: { class: string; percent: number }[] = [];
  const unread: string[] = [];
  for (const part of text.split(/[;\n|]+/).map((text) => text.trim())) {
    if (part === "" || part === "-") continue;
    const match = /^(.*?[\w.])\s*(?:[:=≥>]|C\s*≥)+\s*([\d.,]+)\s*%?.*$/.exec(part.replace(/;?\s*H\d{3}\w*/gi, ""));
    const known = match ? classNamed(match[1] ?? "") : null;
    const value = match ? parseNumber(match[2] ?? "") : null;
    if (known && value?.ok && value.value > 0 && value.value <= 100) limits.push({ class: known, percent: value.value });
    else unread.push(part);
  }
  return { limits, unread };
}

/** M-factors: "10", "M = 10", "acute 10, chronic 1", "10 (acute); 1 (chronic)". */
function readMFactors(text: string): Parsed<Pick<SheetIngredient, "m" | "mAcute" | "mChronic">> {
  if (text === "" || text === "-") return good({});
  const apart: Pick<SheetIngredient, "mAcute" | "mChronic"> = {};
  for (const part of /acute|chronic/i.test(text) ? text.split(/[;,/]\s*(?=\D|\d+\s*\()|\n/) : []) {
    const figure = parseNumber(/\d[\d.]*/.exec(part)?.[0] ?? "");
    if (!figure.ok) return bad("not-understood", `“${text}” is not an M-factor.`);
    if (/chronic/i.test(part)) apart.mChronic = figure.value;
    else if (/acute/i.test(part)) apart.mAcute = figure.value;
  }
  if (Object.keys(apart).length > 0) return good(apart);
  const number = parseNumber(text.replace(/^m\s*=\s*/i, ""));
  return number.ok ? good({ m: number.value }) : bad("not-understood", `“${text}” is not an M-factor.`);
}

/** Estimates of acute toxicity: "1200 mg/kg", which is oral, "dermal 1100 mg/kg", "inhalation: 11 mg/l". */
function readEstimates(text: string): Parsed<Pick<SheetIngredient, "ateOral" | "ateDermal" | "ateInhaled">> {
  const out: Pick<SheetIngredient, "ateOral" | "ateDermal" | "ateInhaled"> = {};
  if (text === "" || text === "-") return good(out);
  for (const part of text.split(/[;\n|]+/)) {
    const number = parseNumber(/\d[\d., ]*/.exec(part)?.[0]?.trim() ?? "");
    if (!number.ok) return bad("not-understood", `“${text}” is not an estimate in mg/kg.`);
    if (/mg\s*\/\s*l\b|inhal/i.test(part)) out.ateInhaled = number.value;
    else if (/dermal|skin/i.test(part)) out.ateDermal = number.value;
    else out.ateOral = number.value;
  }
  return good(out);
}

/** The columns of a table of ingredients, and by which heads they are known. */
const COLUMNS: [key: "name" | "percent" | "classes" | "m" | "ate" | "limits" | "cas" | "ec", head: RegExp][] = [
  ["cas", /\bcas\b/i],
  ["ec", /\bec\b|einecs/i],
  ["limits", /limit|scl/i],
  ["m", /^m\b|m.?factor/i],
  ["ate", /ate|ld50/i],
  ["name", /name|ingredient|substance|component/i],
  ["percent", /%|percent|share|content|concentration|conc\.?/i],
  ["classes", /class|hazard|clp/i],
];

/** A row of a table as it was read, or what is wrong with it. */
export interface ReadRow {
  row: number;
  ingredient: SheetIngredient | null;
  fault: string;
}

/**
 * Returns the ingredients out of a table that was pasted: name, percent or range, classes, and where they are there M-factors, estimates of acute
 * toxicity, limits of their own, CAS and EC number. With a row of heads in any order, or without in this one.
 */
export function readIngredients(rows: readonly (readonly string[])[]): ReadRow[] {
  const filled = rows.map((row, index) => ({ row, at: index })).filter(({ row }) => row.some((cell) => cell.trim() !== ""));
  const heads = filled[0]?.row ?? [];
  const headed = heads.some((cell) => /^\s*(name|ingredient|substance|component)/i.test(cell));
  const order = ["name", "percent", "classes", "m", "ate", "limits", "cas", "ec"] as const;
  const at = new Map<string, number>();
  if (headed)
    heads.forEach((cell, column) => {
      const key = COLUMNS.find(([, head]) => head.test(cell.trim()))?.[0];
      if (key && !at.has(key)) at.set(key, column);
    });
  else for (const [column, key] of order.entries()) at.set(key, column);
  return filled.slice(headed ? 1 : 0).map(({ row, at: line }): ReadRow => {
    const cell = (key: string) => (at.has(key) ? (row[at.get(key) as number] ?? "").trim() : "");
    const no = (fault: string): ReadRow => ({ row: line + 1, ingredient: null, fault });
    if (cell("name") === "") return no("The name is missing.");
    const share = readShare(cell("percent"));
    if (!share.ok) return no(share.message);
    const { classes, unread } = readClasses(cell("classes"));
    const { limits, unread: odd } = readLimits(cell("limits"));
    const m = readMFactors(cell("m"));
    if (!m.ok) return no(m.message);
    const ate = readEstimates(cell("ate"));
    if (!ate.ok) return no(ate.message);
    const numbered = { ...(cell("cas").replace(/^-$/, "") ? { cas: cell("cas") } : {}), ...(cell("ec").replace(/^-$/, "") ? { ec: cell("ec") } : {}) };
    const made = sheetIngredient.safeParse({
      name: cell("name"),
      ...share.value,
      classes,
      unread: [...unread, ...odd],
      ...numbered,
      ...m.value,
      ...ate.value,
      limits,
    });
    return made.success ? { row: line + 1, ingredient: made.data, fault: "" } : no(made.error.issues[0]?.message ?? "This row cannot be read.");
  });
}
