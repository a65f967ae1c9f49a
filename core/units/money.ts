import { parseNumber } from "./number";
import { bad, good, type Parsed } from "./parsed";

/** Money is held in whole minor units (cents, pence) of the workshop's currency. */
export type Minor = number;

/** Made once for each currency, place and number of decimals: making one takes 0.1 ms or more, twenty times as long as writing an amount with it. */
const formats = new Map<string, Intl.NumberFormat>();
function formatOf(currency: string, locale: string, decimals?: { minimumFractionDigits: number; maximumFractionDigits: number }): Intl.NumberFormat {
  const key = [currency, locale, decimals?.maximumFractionDigits].join();
  let format = formats.get(key);
  if (!format) {
    format = new Intl.NumberFormat(locale, { style: "currency", currency, ...decimals });
    formats.set(key, format);
  }
  return format;
}

/** Returns how many decimals a currency has, as the Unicode data that comes with JavaScript says. */
export const currencyDecimals = (currency: string): number => formatOf(currency, "en").resolvedOptions().maximumFractionDigits ?? 2;

/** Reads an amount of money: "18.40", "18,40". Gives minor units; refuses what is finer than the currency. */
export function parseMoney(text: string, currency: string): Parsed<Minor> {
  const typed = text.trim().replace(/^[^\d.,−-]+|[^\d.,]+$/g, "");
  const number = parseNumber(typed);
  if (!number.ok) return number.code === "ambiguous" ? number : bad("not-understood", `“${text.trim()}” is not an amount of money. Write it like 18.40.`);
  if (number.value < 0) return bad("negative", "A cost cannot be negative.");
  const minor = number.value * 10 ** currencyDecimals(currency);
  if (Math.abs(minor - Math.round(minor)) > 1e-6) return bad("too-fine", `${typed} is finer than the smallest coin of ${currency}.`);
  return minor > 1e12 ? bad("too-large", "That is more money than can be kept here.") : good(Math.round(minor));
}

/** "€18.40", "¥300", as a place writes it. A cost per jar may be given finer, with `extra` decimals. */
export function writeMoney(minor: number, currency: string, extra = 0, locale = "en"): string {
  const decimals = currencyDecimals(currency);
  const format = formatOf(currency, locale === "en-GB" ? "en" : locale, { minimumFractionDigits: decimals, maximumFractionDigits: decimals + extra });
  return format.format(minor / 10 ** decimals);
}

/** Returns whether JavaScript's currency data knows a code of three letters (ISO 4217). */
export const isCurrency = (code: string): boolean => Intl.supportedValuesOf("currency").includes(code);
