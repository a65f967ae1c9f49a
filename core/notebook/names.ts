import { FILL_MG_PER_NOMINAL_ML } from "../product/quick-vessel";
import { MG_PER } from "../units/mass";
import { parseVolume } from "../units/volume";
import type { NoteRow } from "./rows";

/** What of the shelf a notebook names. */
export const NAMED_KINDS = ["wax", "fragrance", "vessel", "wick"] as const;
export type NamedKind = (typeof NAMED_KINDS)[number];

export type ShelfNames = Readonly<Record<NamedKind, readonly { id: string; name: string }[]>>;

/** What is meant by a name of the notebook: a thing of the shelf, or one that is put there. */
export type NameChoice = { id: string } | { name: string; family?: string | undefined; fillMg?: number | undefined };
/** The choices by kind and name, as `nameKey` gives it. */
export type NameChoices = Readonly<Record<string, NameChoice>>;

/** A name as the notebook has it. */
export interface NameUse {
  kind: NamedKind;
  key: string;
  name: string;
  rows: number;
  /** The fill of one that a row notes beside this vessel, in mg. */
  fillMg: number | null;
}

const plainName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();
export const nameKey = (kind: NamedKind, name: string): string => `${kind}:${plainName(name)}`;

/** Reads how many wicks of which name one candle has: "2 x braid 4", "braid 4 x2", "double braid 4", "braid 4". */
export function readWick(text: string): { name: string; count: number } {
  const typed = text.trim();
  const [, before, after] = /^(\d)\s*[x×]\s*(.+)$/i.exec(typed) ?? [];
  if (before && after) return { name: after.trim(), count: Math.max(1, Number(before)) };
  const [, name, count] = /^(.+?)\s*[x×]\s*(\d)$/i.exec(typed) ?? [];
  if (name && count) return { name: name.trim(), count: Math.max(1, Number(count)) };
  const [, double] = /^double\s+(.+)$/i.exec(typed) ?? [];
  return double ? { name: double.trim(), count: 2 } : { name: typed, count: 1 };
}
/** What is written where a candle has no wick. */
export const isNoWick = (text: string): boolean => /^(?:none|no wick|wickless|no)$/i.test(text.trim());

/** Returns every name that rows of a notebook use, by kind, those of most rows first. */
export function namesUsed(rows: readonly NoteRow[]): NameUse[] {
  const uses = new Map<string, NameUse>();
  const spellings = new Map<string, Map<string, number>>();
  const put = (kind: NamedKind, name: string, fillMg: number | null = null) => {
    const key = nameKey(kind, name);
    const spelled = spellings.get(key) ?? new Map<string, number>();
    spellings.set(key, spelled.set(name, (spelled.get(name) ?? 0) + 1));
    const use = uses.get(key) ?? { kind, key, name, rows: 0, fillMg: null };
    // A name is kept as most rows spell it.
    const [most] = [...spelled].reduce((best, item) => (item[1] > best[1] ? item : best));
    uses.set(key, { ...use, name: most, rows: use.rows + 1, fillMg: use.fillMg ?? fillMg });
  };
  for (const { values } of rows) {
    for (const part of values.wax ?? []) put("wax", part.name);
    for (const part of values.scent ?? []) if (!isUnscented(part.name)) put("fragrance", part.name);
    if (values.vessel) put("vessel", values.vessel, values.fill ?? null);
    if (values.wick && !isNoWick(values.wick)) put("wick", readWick(values.wick).name);
  }
  return [...uses.values()].sort((a, b) => NAMED_KINDS.indexOf(a.kind) - NAMED_KINDS.indexOf(b.kind) || b.rows - a.rows || (a.name < b.name ? -1 : 1));
}
export const isUnscented = (name: string): boolean => /^(?:none|unscented|no scent|no fragrance|plain)$/i.test(name.trim());

/** Returns the share of pairs of letters that two names have in common, from 0 to 1 (Dice 1945, Ecology 26:297; from memory). */
function likeness(a: string, b: string): number {
  const pairs = (text: string) => Array.from({ length: Math.max(0, text.length - 1) }, (_, index) => text.slice(index, index + 2));
  const [of, other] = [pairs(a), pairs(b)];
  let common = 0;
  for (const pair of of) {
    const at = other.indexOf(pair);
    if (at < 0) continue;
    other.splice(at, 1);
    common += 1;
  }
  return of.length === 0 ? 0 : (2 * common) / (of.length + pairs(b).length);
}
/** From this likeness on a name is taken for a spelling of another. Our choice. */
const ALIKE = 0.8;

/** Returns what of the shelf a name most likely means: the same name whatever its capitals and signs, else the one that is most like it. `isSame` says which; null if none is like it. */
export function matchName(name: string, shelf: readonly { id: string; name: string }[]): { id: string; name: string; isSame: boolean } | null {
  const wanted = plainName(name);
  const same = shelf.find((item) => plainName(item.name) === wanted);
  if (same) return { id: same.id, name: same.name, isSame: true };
  // A figure is a size, so that names with other figures are other things.
  const figures = (text: string) => (text.match(/\d+/g) ?? []).join(" ");
  const [best] = shelf
    .filter((item) => figures(plainName(item.name)) === figures(wanted))
    .map((item) => ({ item, is: likeness(plainName(item.name), wanted) }))
    .sort((a, b) => b.is - a.is);
  return best && best.is >= ALIKE ? { id: best.item.id, name: best.item.name, isSame: false } : null;
}

const FAMILY_WORDS: readonly (readonly [family: string, words: RegExp])[] = [
  ["paraffin–soy", /para.*soy|soy.*para/],
  ["blend", /coco.*(?:soy|apricot|para)|(?:soy|para).*coco|blend|\bmix\b/],
  ["beeswax", /bees/],
  ["coconut", /coco/],
  ["palm", /palm/],
  ["gel", /\bgel\b/],
  ["paraffin", /para|pillar/],
  ["soy", /soy/],
];
/** Returns the family that a wax's name tells; "other" where it tells none. */
export const familyNamed = (name: string): string => FAMILY_WORDS.find(([, words]) => words.test(name.toLowerCase()))?.[0] ?? "other";

/** Returns the fill that a vessel's name tells, in mg: "8 oz tin", "200 ml tumbler" by what a vessel of that volume holds of wax, "180 g jar"; null if it tells none. */
export function fillNamed(name: string): number | null {
  const [, grams] = /(\d+(?:[.,]\d+)?)\s*g(?:r|rams?)?\b/i.exec(name) ?? [];
  if (grams) return Math.round(Number(grams.replace(",", ".")) * MG_PER.g);
  const [volume] = /\d+(?:[.,]\d+)?\s*(?:ml|cl)\b/i.exec(name) ?? [];
  // Vessels sold by the ounce are sold by its volume.
  const [, ounces] = /(\d+(?:[.,]\d+)?)\s*(?:fl\.?\s*)?oz\b/i.exec(name) ?? [];
  const read = ounces ? parseVolume(`${ounces} fl oz`) : volume ? parseVolume(volume) : null;
  return read?.ok ? Math.round(read.value.ml * FILL_MG_PER_NOMINAL_ML) : null;
}

/** Returns the choice that each name begins with: what of the shelf it most likely means, or a new thing with what its name tells. */
export const guessNames = (uses: readonly NameUse[], shelf: ShelfNames): NameChoices =>
  Object.fromEntries(
    uses.map(({ kind, key, name, fillMg }): [string, NameChoice] => {
      const match = matchName(name, shelf[kind]);
      if (match) return [key, { id: match.id }];
      if (kind === "wax") return [key, { name, family: familyNamed(name) }];
      if (kind === "vessel") return [key, { name, ...((fillMg ?? fillNamed(name)) ? { fillMg: fillMg ?? fillNamed(name) ?? undefined } : {}) }];
      return [key, { name }];
    }),
  );
