import { bad, good, type Parsed, type Unread } from "./parsed";

/** A space or an apostrophe before three digits and no more. */
const BETWEEN_THOUSANDS = /(?<=^\d{1,3}|[\s\u00a0\u2009\u202f'’]\d{3})[\s\u00a0\u2009\u202f'’](?=\d{3}(?!\d))/g;

/** The signs for common fractions, as they are pasted or typed on a phone. */
const SIGNS: Record<string, string> = {
  "½": "1/2",
  "⅓": "1/3",
  "⅔": "2/3",
  "¼": "1/4",
  "¾": "3/4",
  "⅕": "1/5",
  "⅖": "2/5",
  "⅗": "3/5",
  "⅘": "4/5",
  "⅙": "1/6",
  "⅚": "5/6",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
};
/** What stands for a fraction within a number: the signs, and the slash of the typesetters. */
export const FRACTION_SIGNS = `${Object.keys(SIGNS).join("")}⁄`;

/**
 * Reads one decimal number as people write it: "12.5", "12,5", "1 250", "1'250", "1/2", "1 1/2", "1½", ".5".
 * A single comma or point is the decimal mark, except where it could as well group thousands ("1,250"):
 * that is refused, because guessing wrong would be out by a thousand.
 */
export function parseNumber(text: string): Parsed<number> {
  const typed = text.trim();
  if (typed === "") return bad("empty", "Type a number.");
  const signed = typed.replace(new RegExp(`[${FRACTION_SIGNS}]`, "g"), (sign) => (sign === "⁄" ? "/" : ` ${SIGNS[sign]}`)).trim();
  const minus = /^[-\u2212\u2013]\s*/.exec(signed) ? -1 : 1;
  const bare = signed.replace(/^[-\u2212\u2013]\s*/, "");
  // A whole number may stand before a fraction; without the space between them "11/2" is eleven halves.
  const fraction = /^(?:(\d+)(?:[\s\u00a0\u2009\u202f]+|\s*-\s*))?(\d+)\s*\/\s*(\d+)$/.exec(bare);
  if (fraction) {
    const below = Number(fraction[3]);
    if (below === 0) return bad("not-understood", `“${typed}” divides by zero.`);
    const value = minus * (Number(fraction[1] ?? 0) + Number(fraction[2]) / below);
    return Number.isFinite(value) ? good(value) : bad("too-large", `“${typed}” is too large to use.`);
  }
  // Spaces and apostrophes stand between thousands, and nowhere else.
  const plain = `${minus < 0 ? "-" : ""}${bare.replace(BETWEEN_THOUSANDS, "")}`;
  if (/^-?[1-9]\d{0,2},\d{3}$/.test(plain)) return thousandOr(typed, plain.replace(",", ""), plain.replace(",", "."));
  const comma = plain.lastIndexOf(",");
  const point = plain.lastIndexOf(".");
  const [decimal, group] = comma > point ? [",", "."] : [".", ","];
  const isOne = (sign: string) => plain.indexOf(sign) === plain.lastIndexOf(sign);
  // A mark that stands more than once, and the other one beside a decimal mark, are between thousands.
  const grouped = !isOne(decimal) ? decimal : plain.includes(group) ? group : null;
  const [whole = "", ...rest] = grouped === decimal ? [plain] : plain.split(decimal);
  const digits = grouped === null ? whole : new RegExp(`^-?\\d{1,3}(\\${grouped}\\d{3})+$`).test(whole) ? whole.split(grouped).join("") : "?";
  const normal = [digits, ...rest].join(".");
  if (!/^-?(\d+\.?\d*|\.\d+)$/.test(normal)) {
    return bad("not-understood", `“${typed}” is not a number. Write it like 12.5.`);
  }
  const value = Number(normal);
  if (!Number.isFinite(value)) return bad("too-large", `“${typed}” is too large to use.`);
  return good(value);
}

/** Asks which of two numbers is meant, a thousandfold apart. @param decimal the decimal mark of the place */
function thousandOr(typed: string, joined: string, parted: string, decimal = "."): Unread {
  const part = parted.replace(".", decimal);
  const short = parted.replace(/0+$/, "").replace(/\.$/, "").replace(".", decimal);
  return bad("ambiguous", `“${typed}” can be read as ${joined} or as ${part}. Write ${joined} or ${short}.`);
}

/**
 * Returns a question where a figure in a text could group thousands as the place writes them: "12.500" in Germany is twelve thousand five hundred,
 * or twelve and a half. Null if no figure can. (A comma is asked about wherever it stands, by `parseNumber`.)
 */
export function askWhetherThousands(text: string, { group, decimal }: { group: string; decimal: string }): Unread | null {
  if (group !== ".") return null;
  const [figure] = /(?<![\d.,])[1-9]\d{0,2}\.\d{3}(?![\d]|[.,]\d)/.exec(text) ?? [];
  return figure ? thousandOr(figure, figure.replace(".", ""), figure, decimal) : null;
}

/** Writes a number with at most `decimals` places and no trailing zeros; a true minus sign is used. */
export function writeNumber(value: number, decimals: number, keepZeros = false): string {
  const fixed = value.toFixed(decimals);
  const text = keepZeros ? fixed : String(Number(fixed));
  return value < 0 ? (Number(fixed) === 0 ? text.replace("-", "") : text.replace("-", "\u2212")) : text;
}
