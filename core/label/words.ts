import type { Language } from "../hazard/sentences";
import table from "./texts.json" with { type: "json" };

const TEXTS = table as Record<string, Record<Language, string>>;
export type TextKey = keyof typeof table;

/** A text of labels and cards in a language, with what goes into its gaps. */
export const textOf = (key: TextKey, language: Language, gaps: Readonly<Record<string, string>> = {}): string =>
  Object.entries(gaps).reduce((text, [name, value]) => text.replace(`{${name}}`, value), TEXTS[key]?.[language] ?? key);

/** What a candle is, as far as its warnings depend on it. */
export const BODIES = ["container", "tealight", "pillar", "outdoor", "melt"] as const;
export type LabelBody = (typeof BODIES)[number];
export const BODY_NAMES: Record<LabelBody, string> = {
  container: "in a container",
  tealight: "tealight",
  pillar: "pillar or moulded",
  outdoor: "for outdoors",
  melt: "melt, without a wick",
};

/** How far apart candles burn, and how long a wick is trimmed: common practice, no source. */
const DISTANCE: Record<Language, string> = { en: "10 cm (4 in)", de: "10 cm", fr: "10 cm" };
const TRIM: Record<Language, string> = { en: "5 mm (1/4 in)", de: "5 mm", fr: "5 mm" };

/** The four warnings that every candle bears (EN 15494, from memory; our own wording of them): their texts, and the sign that stands for each. */
export const ALWAYS = ["unattended", "children", "fuel", "distance"] as const;
export type SafetySign = (typeof ALWAYS)[number];

/** What else is said, by body: common practice, no source. The standard, local rules and the maker's insurer come first. */
const MORE: Record<LabelBody, readonly TextKey[]> = {
  container: ["trim", "draught", "pool", "move", "water"],
  tealight: ["tealight", "draught", "move"],
  pillar: ["pillar", "trim", "draught", "move"],
  outdoor: ["outdoor", "draught", "move", "water"],
  melt: [],
};

/** The warnings of a fire-safety label: always the four, then those of the body, then the workshop's own. Of a melt that bears no flame, what it is. */
export function safetyTexts(
  body: LabelBody,
  language: Language,
  own: readonly string[] = [],
): { always: { sign: SafetySign; text: string }[]; more: string[] } {
  const gaps = { distance: DISTANCE[language], trim: TRIM[language] };
  if (body === "melt") return { always: [], more: [textOf("melt", language), textOf("children", language), ...own] };
  return {
    always: ALWAYS.map((sign) => ({ sign, text: textOf(sign, language, gaps) })),
    more: [...MORE[body].map((key) => textOf(key, language, gaps)), ...own],
  };
}

/** What a buyer is told of burning it well; common practice, no source. */
export function careTexts(body: LabelBody, language: Language, soy: boolean): string[] {
  if (body === "melt") return [textOf("melt", language), textOf("lid", language)];
  return [
    textOf("first", language),
    textOf("trim", language, { trim: TRIM[language] }),
    textOf("hours", language),
    ...(body === "container" ? [textOf("stop", language, { rest: language === "en" ? "12 mm (1/2 in)" : "12 mm" })] : []),
    textOf("lid", language),
    ...(soy ? [textOf("rough", language)] : []),
  ];
}

/** How long it burns, in words: whole hours, "about". */
export function burnTimeWords(hours: { low: number; high: number }, language: Language): string {
  const [low, high] = [Math.floor(hours.low), Math.floor(hours.high)];
  const said = low === high ? textOf("about", language, { low: String(low) }) : textOf("between", language, { low: String(low), high: String(high) });
  return textOf("time", language, { hours: said });
}
