import { parseRange, type TemperatureRange } from "../heat/range";
import { askWhetherFactor } from "../recipe/load";
import { type Density, parseDensity, writeDensity } from "../units/density";
import { parseDuration, SECONDS, writeDuration } from "../units/duration";
import { type LengthUnit, parseLength, UM_PER, writeLength } from "../units/length";
import { exactResolution, type MassUnit, MG_PER, parseMass, parseMassExactly, writeMass, writeResolution } from "../units/mass";
import { columnInUnits } from "../units/measured-columns";
import type { UnitChoice } from "../units/measured-text";
import { currencyDecimals, parseMoney } from "../units/money";
import { parseNumber, writeNumber } from "../units/number";
import { bad, good, type Parsed } from "../units/parsed";
import { parseCount, parsePercent } from "../units/percent";
import { degreesAsTyped, HOTTEST, parseTemperature, type TemperatureUnit, toFahrenheit, writeDifference } from "../units/temperature";
import { ML_PER, parseVolume, parseWater } from "../units/volume";

/** What a field of the shelf can hold, and how it is read, written and checked. */
export type FieldType =
  | { is: "name" }
  | { is: "words" }
  | { is: "choice"; of: readonly { value: string; label: string }[] }
  | { is: "yes" }
  | { is: "mass"; least: number; most: number /** Water, of which a volume is a weight too. */; water?: true }
  /** Share in percent; stored in millionths. */
  | { is: "percent"; least: number; most: number; name: string }
  | { is: "temperature"; most: number }
  | { is: "difference" }
  | { is: "range" }
  /** `unit`: what a number without one means at the form; a CSV column says its own. */
  | { is: "duration"; unit: "min" | "h" | "d" }
  | { is: "density" }
  | { is: "length"; least: number; most: number }
  | { is: "families" }
  /** One step of a scale, in micrograms. */
  | { is: "step" }
  | { is: "count"; least: number; most: number; name: string }
  /** Waxes by share, "75 container soy + 25 coconut blend". */
  | { is: "blend" }
  /** Something of the workshop by its name. */
  | { is: "ref"; to: Referred }
  /** An amount of money, in minor units. */
  | { is: "money" }
  /** A day, as ISO text. */
  | { is: "day" }
  /** A volume that something is sold as, in microliters. */
  | { is: "volume"; most: number }
  /** An amount of the material that the row names: a weight, or pieces of what is counted. */
  | { is: "amount" };

/** The kinds of things that a row of a CSV file can refer to. */
export type Referred = "formula" | "container" | "wick" | "material" | "product";

export interface ShelfField {
  /** The column of the table, and the key of the value. */
  key: string;
  label: string;
  /** The column in a CSV file; it carries the unit. */
  column: string;
  type: FieldType;
  /** May stand empty. */
  optional?: boolean;
  /** May stand empty in a form or a file: it then follows from other fields, and is always stored. */
  derived?: boolean;
  /** What a new row begins with, as typed. */
  first?: string;
  hint?: string;
}

/** How plain numbers are meant, and what names stand for. */
export interface FieldContext {
  mass: MassUnit;
  temperature: TemperatureUnit;
  length?: LengthUnit;
  /** A file, whose columns name their units: hours for durations, whatever the form would mean. */
  bare?: boolean;
  /** What can be named, by its sort, and the workshop's currency: for products and lots. */
  names?: Partial<Record<Referred, readonly { id: string; name: string; counted?: boolean }[]>>;
  currency?: string;
  /** The waxes of the shelf, for blends. */
  waxes: readonly { id: string; name: string; blend?: unknown }[];
}

/**
 * Returns what a field's column is called in a CSV file whose figures are in the given units: "water_g" or "water_oz", "melts_at_c" or "melts_at_f",
 * "inner_rim_mm" or "inner_rim_in", "density_g_per_ml" or "specific_gravity". A cell may carry its own unit whatever its column says.
 */
export function columnOf({ column, type }: Pick<ShelfField, "column" | "type">, units: UnitChoice): string {
  switch (type.is) {
    case "volume":
      return units.mass === "g" ? column : column.replace(/_ml$/, "_fl_oz");
    case "amount":
      return units.mass === "g" ? column : `${column}_oz_or_pieces`;
    case "density":
      return units.mass === "g" ? column : column.replace("density", "specific_gravity").replace(/_g_per_ml$/, "");
    case "mass":
    case "step":
    case "temperature":
    case "range":
    case "difference":
    case "length":
      return columnInUnits(column, units);
    default:
      return column;
  }
}

export const WAX_FAMILIES = ["soy", "coconut", "paraffin", "paraffin–soy", "beeswax", "palm", "gel", "blend", "other"] as const;

const REFERRED: Record<Referred, string> = {
  formula: "formula",
  container: "vessel or mold on the shelf called",
  product: "product",
  wick: "wick on the shelf called",
  material: "thing on the shelf called",
};

/** Returns what a choice is called now: earlier versions called a test jar a tester, and spelled molds the British way. */
export const currentChoice = (typed: string): string => (typed === "tester" ? "test jar" : typed.replace("mould", "mold"));

const family = (text: string): string | null => {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/\s*[-‐‑–—/]\s*/g, "–");
  return WAX_FAMILIES.find((waxFamily) => waxFamily === plain) ?? null;
};

function parseBlend(text: string, context: FieldContext): Parsed<{ id: string; share: number }[]> {
  const parts: { id: string; share: number }[] = [];
  for (const piece of text.split("+")) {
    const match = /^\s*([\d.,]+)\s*%?\s+(.+?)\s*$/.exec(piece);
    const share = parseNumber(match?.[1] ?? "");
    if (!match || !share.ok || share.value <= 0)
      return bad("not-understood", `“${piece.trim()}” is no part of a blend. Write it like 75 container soy + 25 coconut blend.`);
    const wax = context.waxes.find((wax) => wax.name.toLowerCase() === (match[2] ?? "").toLowerCase());
    if (!wax) return bad("unknown", `There is no wax “${match[2]}” on the shelf: put it there first.`);
    if (wax.blend) return bad("not-allowed", `“${wax.name}” is a blend itself: name the waxes that it is made of.`);
    if (parts.some((part) => part.id === wax.id)) return bad("twice", `“${wax.name}” is named twice.`);
    parts.push({ id: wax.id, share: share.value });
  }
  return parts.length < 2 ? bad("too-small", "A blend has at least two waxes. Leave it empty for a wax as bought.") : good(parts);
}

/** Reads what was typed into a field, or stood in a cell. Empty optional fields give null. */
export function readField(field: ShelfField, text: string, context: FieldContext): Parsed<unknown> {
  const typed = text.trim();
  const { type } = field;
  if (typed === "" && (field.optional || field.derived)) return good(type.is === "words" ? "" : null);
  switch (type.is) {
    case "name":
      return typed === "" ? bad("empty", "Enter a name.") : typed.length > 120 ? bad("too-long", "A name has at most 120 letters.") : good(typed);
    case "words":
      return typed.length > 2_000 ? bad("too-long", `At most 2000 letters fit here; this has ${typed.length}.`) : good(typed);
    case "choice": {
      const asked = currentChoice(typed.toLowerCase());
      const found = type.of.find((item) => [item.value, item.label].some((name) => name.toLowerCase() === asked)) ?? null;
      const asFamily = found ?? type.of.find((item) => item.value === family(typed));
      return asFamily
        ? good(asFamily.value)
        : bad(
            "unknown",
            `“${typed}” is none of ${type.of
              .map((item) => item.value)
              .filter(Boolean)
              .join(", ")}.`,
          );
    }
    case "yes":
      return /^(yes|y|true|1)$/i.test(typed)
        ? good(true)
        : /^(no|n|false|0|)$/i.test(typed)
          ? good(false)
          : bad("not-understood", `“${typed}” is neither yes nor no.`);
    case "mass":
      return (type.water ? parseWater : parseMass)(typed, { unit: context.mass, least: type.least, most: type.most });
    case "percent":
      return (type.name.endsWith("load") ? askWhetherFactor(typed, type.name.replace(/^an? /, "")) : null) ?? parsePercent(typed, type);
    case "temperature": {
      const read = parseTemperature(typed, context.temperature);
      if (read.ok || type.most <= HOTTEST) return read;
      // Flash points lie above anything a pot is heated to.
      const number = parseNumber(typed.replace(/\s*°?\s*[cf]$/i, ""));
      const f = /f$/i.test(typed) || (context.temperature === "F" && !/c$/i.test(typed));
      const centi = number.ok ? Math.round(f ? ((number.value - 32) / 1.8) * 100 : number.value * 100) : Number.NaN;
      return centi > HOTTEST && centi <= type.most ? good(centi) : read;
    }
    case "difference": {
      const read = parseNumber(typed.replace(/^\+/, "").replace(/\s*°?\s*[cf]$/i, ""));
      if (!read.ok) return read;
      const f = /f$/i.test(typed) || (context.temperature === "F" && !/c$/i.test(typed));
      const centi = Math.round((read.value * 100) / (f ? 1.8 : 1));
      return Math.abs(centi) > 2_000
        ? bad("too-large", `A correction of ${writeDifference(centi, context.temperature)} is more than any thermometer worth keeping needs.`)
        : good(centi);
    }
    case "range":
      return parseRange(typed, context.temperature);
    case "duration":
      return parseDuration(typed, context.bare ? "h" : type.unit);
    case "density":
      return parseDensity(typed, context.mass);
    case "length":
      return parseLength(typed, type, context.length);
    case "families": {
      const names = typed.split(/[,;]/).map((text) => text.trim());
      const unknown = names.find((name) => family(name) === null);
      return unknown === undefined ? good(names.map(family)) : bad("unknown", `“${unknown}” is no family of wax: ${WAX_FAMILIES.join(", ")}.`);
    }
    case "step": {
      // A step in ounces is no whole number of milligrams, so it is kept in micrograms.
      const read = parseMassExactly(typed, context.mass);
      if (!read.ok) return read;
      const ug = exactResolution(Math.round(read.value * 1e6) / 1_000);
      return ug >= 1_000 && ug <= 100_000_000
        ? good(ug)
        : bad("out-of-range", `A scale's step lies between ${context.mass === "g" ? "0.001 g and 100 g" : "0.0001 oz and 3.5 oz"}.`);
    }
    case "count":
      return parseCount(typed, type);
    case "blend":
      return parseBlend(typed, context);
    case "ref": {
      const found = context.names?.[type.to]?.filter((item) => item.name.toLowerCase() === typed.toLowerCase()) ?? [];
      if (found.length > 1) return bad("ambiguous", `There are several things called “${typed}”: give them names of their own first.`);
      return found[0] ? good(found[0].id) : bad("unknown", `There is no ${REFERRED[type.to]} “${typed}”: put it there first.`);
    }
    case "money":
      return parseMoney(typed, context.currency ?? "EUR");
    case "day":
      return /^\d{4}-\d\d-\d\d$/.test(typed) && !Number.isNaN(Date.parse(typed))
        ? good(typed)
        : bad("not-understood", `“${typed}” is no day. Write it like 2026-03-14.`);
    case "volume": {
      const unit = context.mass === "g" ? "ml" : "fl oz";
      const read = parseVolume(/[a-z]/i.test(typed) ? typed : `${typed} ${unit}`);
      if (!read) return bad("not-understood", `“${typed}” is no volume. Write it like 200 ml, 20 cl or 8 fl oz.`);
      if (!read.ok) return read;
      const ul = Math.round(read.value.ml * 1_000);
      return ul >= 1_000 && ul <= type.most ? good(ul) : bad("out-of-range", "A vessel holds from {1 ml|0.04 fl oz} to {20 l|670 fl oz}.");
    }
    case "amount": {
      // How it is measured hangs on what it is of: a bare number is a weight in grams, or pieces.
      const mass = parseMass(typed, { unit: context.mass });
      return mass.ok ? good(mass.value) : mass;
    }
  }
}

/** Writes a value so that `readField` gives it back; `bare` leaves units out, for CSV. */
export function writeField(field: ShelfField, value: unknown, context: FieldContext, bare = false): string {
  if (value === null || value === undefined) return "";
  const { type } = field;
  const n = value as number;
  switch (type.is) {
    case "name":
    case "words":
    case "choice":
      return String(value);
    case "yes":
      return value ? "yes" : "no";
    case "mass":
      return bare ? writeNumber(n / MG_PER[context.mass], 6) : writeMass(n, context.mass);
    case "percent": {
      const text = writeNumber(n / 10_000, 4);
      return type.name.endsWith("load") && askWhetherFactor(text) ? `${text} %` : text;
    }
    case "temperature":
      return bare
        ? writeNumber(context.temperature === "F" ? toFahrenheit(n) : n / 100, 3).replace("\u2212", "-")
        : `${degreesAsTyped(n, context.temperature).replace("\u2212", "-")} °${context.temperature}`;
    case "difference":
      return writeNumber((n / 100) * (context.temperature === "F" ? 1.8 : 1), bare ? 3 : 2).replace("\u2212", "-");
    case "range": {
      const { low, high } = value as TemperatureRange;
      const end = (centi: number) => degreesAsTyped(centi, context.temperature).replace("\u2212", "-");
      return `${end(low)}–${end(high)}`;
    }
    case "duration":
      return bare ? writeNumber(n / SECONDS.h, 6) : n % SECONDS.d === 0 || n < 3 * SECONDS.d ? writeDuration(n) : `${writeNumber(n / SECONDS.h, 4)} h`;
    case "density":
      return bare ? writeNumber(n / 1e6, 6) : context.mass === "g" ? writeDensity(n as Density) : writeNumber(n / 1e6, 4);
    case "length":
      return bare ? writeNumber(n / UM_PER[context.length ?? "mm"], context.length === "in" ? 6 : 3) : writeLength(n, context.length ?? "mm", 3);
    case "families":
      return (value as string[]).join(", ");
    case "step":
      return bare ? writeNumber(n / 1_000 / MG_PER[context.mass], 12) : writeResolution({ resolutionUg: n });
    case "count":
    case "day":
      return String(value);
    case "ref":
      return context.names?.[type.to]?.find((item) => item.id === value)?.name ?? "";
    case "money":
      return writeNumber(n / 10 ** currencyDecimals(context.currency ?? "EUR"), 4);
    case "volume": {
      const inOunces = context.mass === "oz";
      const figure = writeNumber(n / 1_000 / (inOunces ? ML_PER["fl oz"] : 1), inOunces ? (bare ? 7 : 4) : 3);
      return bare ? figure : `${figure} ${inOunces ? "fl oz" : "ml"}`;
    }
    case "amount":
      return writeNumber(n / MG_PER[context.mass], context.mass === "g" ? 3 : 6);
    case "blend":
      return (value as { id: string; share: number }[])
        .map((part) => `${writeNumber(part.share, 4)} ${context.waxes.find((wax) => wax.id === part.id)?.name ?? "something no longer here"}`)
        .join(" + ");
  }
}
