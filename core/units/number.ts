import { bad, good, type Parsed } from "./parsed";

const SPACES = /[\s\u00a0\u2009\u202f]+/g;

/**
 * Reads one decimal number as people write it: "12.5", "12,5", "1 250", "1/2", ".5".
 * A single comma or point is the decimal mark, except where it could as well group thousands ("1,250"):
 * that is refused, because guessing wrong would be out by a thousand.
 */
export function parseNumber(text: string): Parsed<number> {
  const typed = text.trim();
  if (typed === "") return bad("Type a number.");
  const plain = typed.replace(SPACES, "").replace(/^[\u2212\u2013]/, "-");
  const fraction = /^(-?\d+)\/(\d+)$/.exec(plain);
  if (fraction) {
    const below = Number(fraction[2]);
    if (below === 0) return bad(`“${typed}” divides by zero.`);
    return good(Number(fraction[1]) / below);
  }
  if (/^-?[1-9]\d{0,2},\d{3}$/.test(plain)) {
    const joined = plain.replace(",", "");
    return bad(
      `“${typed}” can be read as ${joined} or as ${plain.replace(",", ".")}. Write ${joined} or ${plain.replace(",", ".").replace(/0+$/, "").replace(/\.$/, "")}.`,
    );
  }
  let normal = plain;
  const lastComma = plain.lastIndexOf(",");
  const lastPoint = plain.lastIndexOf(".");
  if (lastComma >= 0 && lastPoint >= 0) {
    // Both marks: the last one is the decimal mark, the other groups thousands.
    const group = lastComma > lastPoint ? "." : ",";
    normal = plain.split(group).join("").replace(",", ".");
  } else if (lastComma >= 0) {
    if (plain.indexOf(",") !== lastComma) normal = plain.split(",").join("");
    else normal = plain.replace(",", ".");
  }
  if (!/^-?(\d+\.?\d*|\.\d+)$/.test(normal)) {
    return bad(`“${typed}” is not a number. Write it like 12.5.`);
  }
  const value = Number(normal);
  if (!Number.isFinite(value)) return bad(`“${typed}” is too large to use.`);
  return good(value);
}

/** Writes a number with at most `decimals` places and no trailing zeros; a true minus sign is used. */
export function writeNumber(value: number, decimals: number, keepZeros = false): string {
  const fixed = value.toFixed(decimals);
  const text = keepZeros ? fixed : String(Number(fixed));
  return value < 0 ? (Number(fixed) === 0 ? text.replace("-", "") : text.replace("-", "\u2212")) : text;
}
