import type { Language } from "../hazard/sentences";
import table from "./texts.json" with { type: "json" };

const TEXTS = table as Record<string, Record<Language, string>>;
export type TextKey = keyof typeof table;

/** A text of labels and cards in a language, with what goes into its gaps. */
export const textOf = (key: TextKey, language: Language, gaps: Readonly<Record<string, string>> = {}): string =>
  Object.entries(gaps).reduce((text, [name, value]) => text.replace(`{${name}}`, value), TEXTS[key]?.[language] ?? key);

/** What a candle is, as far as its warnings depend on it. */
export const LABEL_CONTAINERS = ["container", "tealight", "pillar", "outdoor", "melt"] as const;
export type LabelContainer = (typeof LABEL_CONTAINERS)[number];
export const CONTAINER_NAMES: Record<LabelContainer, string> = {
  container: "in a container",
  tealight: "tealight",
  pillar: "pillar or molded",
  outdoor: "for outdoors",
  melt: "melt, without a wick",
};

/** How far apart candles burn, and how long a wick is trimmed: common practice, no source. */
const LENGTHS = {
  distance: { metric: "10 cm", us: "4 in" },
  trim: { metric: "6 mm", us: "1/4 in" },
  rest: { metric: "12 mm", us: "1/2 in" },
} as const;

/** Returns a length of a label: in English in both systems, that of the workshop's country first; elsewhere in metric alone. */
function lengthOf(what: keyof typeof LENGTHS, language: Language, isUs: boolean): string {
  const { metric, us } = LENGTHS[what];
  return language !== "en" ? metric : isUs ? `${us} (${metric})` : `${metric} (${us})`;
}

/** A text as it is written in the United States. */
const inUs = (text: string): string =>
  text
    .replace(/draught/g, "draft")
    .replace(/colour/g, "color")
    .replace(/mould/g, "mold");
const written = (text: string, language: Language, isUs: boolean): string => (language === "en" && isUs ? inUs(text) : text);

/** The four warnings that every candle bears (EN 15494, from memory; our own wording of them): their texts, and the sign that stands for each. */
export const ALWAYS = ["unattended", "children", "fuel", "distance"] as const;
export type SafetySign = (typeof ALWAYS)[number];

/** What else is said, by container: common practice, no source. The standard, local rules and the maker's insurer come first. */
const MORE: Record<LabelContainer, readonly TextKey[]> = {
  container: ["trim", "draft", "pool", "move", "water"],
  tealight: ["tealight", "draft", "move"],
  pillar: ["pillar", "trim", "draft", "move"],
  outdoor: ["outdoor", "draft", "move", "water"],
  melt: [],
};

/** Returns the warnings of a fire-safety label: always the four, then those of the container, then the workshop's own. Of a melt that bears no flame, what it is. */
export function safetyTexts(
  container: LabelContainer,
  language: Language,
  own: readonly string[] = [],
  isUs = false,
): { always: { sign: SafetySign; text: string }[]; more: string[] } {
  const gaps = { distance: lengthOf("distance", language, isUs), trim: lengthOf("trim", language, isUs) };
  const text = (key: TextKey) => written(textOf(key, language, gaps), language, isUs);
  if (container === "melt") return { always: [], more: [text("melt"), text("children"), ...own] };
  return {
    always: ALWAYS.map((sign) => ({ sign, text: text(sign) })),
    more: [...MORE[container].map(text), ...own],
  };
}

/** Returns what a buyer is told of burning it well; common practice, no source. */
export function careTexts(container: LabelContainer, language: Language, soy: boolean, isUs = false): string[] {
  if (container === "melt") return [textOf("melt", language), textOf("lid", language)];
  return [
    textOf("first", language),
    textOf("trim", language, { trim: lengthOf("trim", language, isUs) }),
    textOf("hours", language),
    ...(container === "container" ? [textOf("stop", language, { rest: lengthOf("rest", language, isUs) })] : []),
    textOf("lid", language),
    ...(soy ? [textOf("rough", language)] : []),
  ].map((text) => written(text, language, isUs));
}

/** Returns how long it burns, in words: whole hours, "about". */
export function burnTimeWords(hours: { low: number; high: number }, language: Language): string {
  const [low, high] = [Math.floor(hours.low), Math.floor(hours.high)];
  const text = low === high ? textOf("about", language, { low: String(low) }) : textOf("between", language, { low: String(low), high: String(high) });
  return textOf("time", language, { hours: text });
}
