import { parseNumber, writeNumber } from "./number";
import { bad, good, type Parsed } from "./parsed";

/** A length is held in micrometres. */
export type Micrometres = number;

/** Micrometres in one unit. NIST Special Publication 811, appendix B: 1 in = 25.4 mm exactly. */
const UM_PER = { mm: 1_000, cm: 10_000, in: 25_400 } as const;

/** Reads a length: "78", "7.8 cm", "3 in", '3"'; millimetres where nothing is said. Bounds in millimetres. */
export function parseLength(text: string, bounds: { least: number; most: number }): Parsed<Micrometres> {
  const typed = text.trim();
  const unit = /(mm|cm|in|inch|inches|")$/i.exec(typed)?.[1]?.toLowerCase() ?? "mm";
  const number = parseNumber(typed.replace(/\s*(mm|cm|in|inch|inches|")$/i, ""));
  if (!number.ok) return number.message.includes("can be read") ? number : bad(`“${typed}” is not a length. Write it like 78 mm or 3 in.`);
  const um = Math.round(number.value * UM_PER[unit === "mm" || unit === "cm" ? unit : "in"]);
  return um < bounds.least * 1_000 || um > bounds.most * 1_000
    ? bad(`${writeNumber(um / 1_000, 1)} mm cannot be: it lies between ${bounds.least} and ${bounds.most} mm.`)
    : good(um);
}
