/**
 * How numbers, days and the clock are written in a place. The names of days and months stay those of the language of
 * this program; order and marks follow the place. Held against the platform's own locale data in the tests.
 */
export interface LocaleFormat {
  name: string;
  decimal: "." | ",";
  /** Between thousands, in numbers that are only shown. */
  group: string;
  /** A day without its year, and a whole date, in tokens: ccc weekday, d day, LLL month, L month's number, yyyy year. */
  day: string;
  date: string;
  hours: 12 | 24;
}

const NARROW = "\u202f";

export const LOCALE_FORMATS = {
  "en-GB": { name: "Britain: Sat 14 Mar, 23:40", decimal: ".", group: ",", day: "ccc d LLL", date: "dd/LL/yyyy", hours: 24 },
  "en-US": { name: "United States: Sat, Mar 14, 11:40 pm", decimal: ".", group: ",", day: "ccc, LLL d", date: "L/d/yyyy", hours: 12 },
  "en-CA": { name: "Canada: Sat, Mar 14, 11:40 pm", decimal: ".", group: ",", day: "ccc, LLL d", date: "yyyy-LL-dd", hours: 12 },
  "en-AU": { name: "Australia: Sat 14 Mar, 11:40 pm", decimal: ".", group: ",", day: "ccc d LLL", date: "dd/LL/yyyy", hours: 12 },
  "en-IE": { name: "Ireland: Sat 14 Mar, 23:40", decimal: ".", group: ",", day: "ccc d LLL", date: "d/L/yyyy", hours: 24 },
  "de-DE": { name: "Germany: Sat, 14. Mar, 23:40; 12,5", decimal: ",", group: ".", day: "ccc, d. LLL", date: "d.L.yyyy", hours: 24 },
  "fr-FR": { name: "France: Sat 14 Mar, 23:40; 12,5", decimal: ",", group: NARROW, day: "ccc d LLL", date: "dd/LL/yyyy", hours: 24 },
  "sv-SE": { name: "Sweden: Sat 14 Mar, 23:40; 12,5", decimal: ",", group: "\u00a0", day: "ccc d LLL", date: "yyyy-LL-dd", hours: 24 },
} as const satisfies Record<string, LocaleFormat>;
export type Locale = keyof typeof LOCALE_FORMATS;

export const isLocale = (text: string): text is Locale => text in LOCALE_FORMATS;

/** The manner that suits what a browser says of its languages; Britain's where none is known. */
export function localeFor(languages: readonly string[]): Locale {
  for (const tag of languages) {
    if (isLocale(tag)) return tag;
    const language = tag.split("-")[0];
    const near = language === "en" ? undefined : (Object.keys(LOCALE_FORMATS) as Locale[]).find((name) => name.startsWith(`${language}-`));
    if (near) return near;
  }
  return "en-GB";
}

const CURRENCIES: Record<Locale, string> = {
  "en-GB": "GBP",
  "en-US": "USD",
  "en-CA": "CAD",
  "en-AU": "AUD",
  "en-IE": "EUR",
  "de-DE": "EUR",
  "fr-FR": "EUR",
  "sv-SE": "SEK",
};
/** Returns the currency that a new workshop begins with. British manners are chosen elsewhere too: pounds only where the zone is that of Britain. */
export const currencyFor = (locale: Locale, zone: string): string => (locale === "en-GB" && zone !== "Europe/London" ? "EUR" : CURRENCIES[locale]);

/** Returns a text with the numbers in it as a place writes them: its decimal mark, and its mark between thousands from ten thousand on. Only for what is shown, never for what is typed over. */
export function localize(text: string, { decimal, group }: Pick<LocaleFormat, "decimal" | "group">): string {
  // Only numbers: no version "1.2.3", no date, no code of letters and digits.
  return text.replace(/(?<![\w.,])\d+(?:\.\d+)?(?![\d]|[.,]\d)/g, (number) => {
    const [whole = "", part] = number.split(".");
    const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, group) : whole;
    return part === undefined ? grouped : `${grouped}${decimal}${part}`;
  });
}

/** Returns how a place writes its numbers, days and clock; Britain's manner where the place is not known. */
export const localeFormatOf = (locale: string | undefined): LocaleFormat => LOCALE_FORMATS[isLocale(locale ?? "") ? (locale as Locale) : "en-GB"];
