import { CLP, type HazardRules } from "./rules";
import type { HazardAnswer } from "./schema";
import table from "./sentences.json" with { type: "json" };

/** The languages that labels are written in. */
export const LANGUAGES = ["en", "de", "fr"] as const;
export type Language = (typeof LANGUAGES)[number];
export const LANGUAGE_NAMES: Record<Language, string> = { en: "English", de: "German", fr: "French" };

const SENTENCES = table as Record<string, Record<Language, string>>;

/** Returns the words that stand for a code (H317, P102, EUH208, "Warning") in a language. Wording by the regulation's annexes III and IV, from memory. */
export const sentenceOf = (code: string, language: Language, names: readonly string[] = []): string =>
  (SENTENCES[code]?.[language] ?? code).replace("{names}", names.join(", "));

/** Returns the precautions of a label for the public: fitting its sentences, no more than the rules want, each once. */
export function precautionsFor(h: readonly string[], rules: HazardRules = CLP): string[] {
  if (h.length === 0) return [];
  const lists = h.map((code) => rules.precautions[code] ?? []);
  const longest = Math.max(...lists.map((list) => list.length));
  // The first of each sentence before the second of any.
  const byNeed = Array.from({ length: longest }, (_, index) => lists.flatMap((list) => list[index] ?? [])).flat();
  return [...new Set([...rules.always, ...byNeed])].slice(0, rules.mostPrecautions);
}

/** A label in words. */
export interface HazardWords {
  signal: string | null;
  pictograms: readonly string[];
  /** What has to be named, where it is not named by a sentence of its own. */
  contains: string | null;
  h: string[];
  euh: string[];
  p: string[];
  /** That it is a draft, and what it lacks. */
  draft: string;
  rests: string | null;
}

/** Returns what the label says in a language; `without` names what no supplier's sheet is here of. */
export function wordsOf(answer: HazardAnswer, language: Language, without: readonly string[] = [], rules: HazardRules = CLP): HazardWords {
  const named = answer.euh.includes("EUH208");
  return {
    signal: answer.signal && sentenceOf(answer.signal, language),
    pictograms: answer.pictograms,
    contains: answer.contains.length > 0 && !named ? sentenceOf("contains", language, answer.contains) : null,
    h: answer.h.length > 0 ? answer.h.map((code) => sentenceOf(code, language)) : named || without.length > 0 ? [] : [sentenceOf("none", language)],
    euh: answer.euh.map((code) => sentenceOf(code, language, answer.contains)),
    p: precautionsFor(answer.h, rules).map((code) => sentenceOf(code, language)),
    draft: sentenceOf("draft", language),
    rests: without.length > 0 ? sentenceOf("rests", language, without) : null,
  };
}
