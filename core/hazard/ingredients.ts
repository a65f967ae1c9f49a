import type { HazardRequest } from "./schema";

/** One substance in a candle, with its share and the hazard classes and limits that the supplier sheets give for it. */
export interface Held {
  name: string;
  /** Of the candle, in percent. */
  c: number;
  classes: Set<string>;
  /** For acute and for chronic harm to water; null if none was given. */
  mAcute: number | null;
  mChronic: number | null;
  /** mg/kg; inhaled in mg/l. */
  ate: { oral: number | null; dermal: number | null; inhalation: number | null };
  inhaledAs: "vapor" | "dust";
  /** Limits of its own, by class. */
  limits: Map<string, number>;
  cas: Set<string>;
  ec: Set<string>;
}

/** A name as it is compared: whatever its case, spaces and hyphens. */
const plainName = (name: string): string =>
  name
    .normalize("NFKC")
    .toLowerCase()
    .replace(/[\s‐-–-]+/g, " ")
    .trim();

const atMost = (a: number | null | undefined, b: number | null | undefined): number | null => (a == null ? (b ?? null) : b == null ? a : Math.min(a, b));
const atLeast = (a: number | null, b: number | null | undefined): number | null => (a === null ? (b ?? null) : Math.max(a, b ?? a));

/** The gravest of what two entries of one substance say. */
function put(to: Held, item: HazardRequest["parts"][number]["ingredients"][number], c: number): void {
  to.c += c;
  for (const each of item.classes) to.classes.add(each);
  to.mAcute = atLeast(to.mAcute, item.m_acute ?? item.m);
  to.mChronic = atLeast(to.mChronic, item.m_chronic ?? item.m);
  to.ate.oral = atMost(to.ate.oral, item.ate_oral_mg_kg);
  to.ate.dermal = atMost(to.ate.dermal, item.ate_dermal_mg_kg);
  to.ate.inhalation = atMost(to.ate.inhalation, item.ate_inhalation_mg_l);
  if (item.inhaled_as === "vapor") to.inhaledAs = "vapor";
  for (const each of item.specific_limits ?? []) to.limits.set(each.class, Math.min(each.percent, to.limits.get(each.class) ?? 100));
  if (item.cas) to.cas.add(item.cas);
  if (item.ec) to.ec.add(item.ec);
}

/** Returns what is in the candle: one substance of two oils is one, by its name whatever its case, or by its CAS or EC number. */
export function heldBy(request: Pick<HazardRequest, "parts">): Held[] {
  const groups: { keys: Set<string>; entries: { one: HazardRequest["parts"][number]["ingredients"][number]; c: number }[] }[] = [];
  for (const part of request.parts)
    for (const ingredient of part.ingredients) {
      const keys = [
        `name ${plainName(ingredient.name)}`,
        ...(ingredient.cas ? [`cas ${ingredient.cas}`] : []),
        ...(ingredient.ec ? [`ec ${ingredient.ec}`] : []),
      ];
      const [first, ...more] = groups.filter((group) => keys.some((key) => group.keys.has(key)));
      const group = first ?? { keys: new Set<string>(), entries: [] };
      if (!first) groups.push(group);
      // An entry can show that two that were kept apart are one: the same number under two names.
      for (const other of more) {
        for (const key of other.keys) group.keys.add(key);
        group.entries.push(...other.entries);
        groups.splice(groups.indexOf(other), 1);
      }
      for (const key of keys) group.keys.add(key);
      group.entries.push({ one: ingredient, c: (part.percent * ingredient.percent) / 100 });
    }
  return groups.map(({ entries }) => {
    const held: Held = {
      name: entries[0]?.one.name ?? "",
      c: 0,
      classes: new Set(),
      mAcute: null,
      mChronic: null,
      ate: { oral: null, dermal: null, inhalation: null },
      inhaledAs: "dust",
      limits: new Map(),
      cas: new Set(),
      ec: new Set(),
    };
    for (const { one: item, c } of entries) put(held, item, c);
    return held;
  });
}

/** Returns how many letters have to be changed, put in, left out or swapped to make one word of another, up to a most. */
function lettersApart(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let [before, last] = [[] as number[], Array.from({ length: b.length + 1 }, (_, index) => index)];
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const changed = (last[j - 1] as number) + (a[i - 1] === b[j - 1] ? 0 : 1);
      const swapped = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1] ? (before[j - 2] as number) + 1 : Number.POSITIVE_INFINITY;
      row.push(Math.min((last[j] as number) + 1, (row[j - 1] as number) + 1, changed, swapped));
    }
    [before, last] = [last, row];
  }
  return last[b.length] as number;
}

/** Shorter names are alike by chance. */
const MIN_LETTERS = 6;
const MAX_APART = 2;

/**
 * Returns pairs of substances with nearly the same name and no CAS or EC number that tells them apart: the maker is asked whether they are
 * one.
 */
export function nearlyAlike(held: readonly Held[]): [string, string][] {
  const apart = (a: Set<string>, b: Set<string>) => a.size > 0 && b.size > 0;
  return held.flatMap((item, index) =>
    held.slice(index + 1).flatMap((other): [string, string][] => {
      const [a, b] = [plainName(item.name), plainName(other.name)];
      if (Math.min(a.length, b.length) < MIN_LETTERS || apart(item.cas, other.cas) || apart(item.ec, other.ec)) return [];
      return lettersApart(a, b, MAX_APART) <= MAX_APART ? [[item.name, other.name]] : [];
    }),
  );
}
