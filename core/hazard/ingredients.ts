import type { HazardRequest } from "./schema";

/** One substance of a candle with everything that its ingredients say of it. */
export interface Held {
  name: string;
  /** Of the candle, in percent. */
  c: number;
  classes: Set<string>;
  /** For acute and for chronic harm to water; null where none was given. */
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
function put(to: Held, one: HazardRequest["parts"][number]["ingredients"][number], c: number): void {
  to.c += c;
  for (const each of one.classes) to.classes.add(each);
  to.mAcute = atLeast(to.mAcute, one.m_acute ?? one.m);
  to.mChronic = atLeast(to.mChronic, one.m_chronic ?? one.m);
  to.ate.oral = atMost(to.ate.oral, one.ate_oral_mg_kg);
  to.ate.dermal = atMost(to.ate.dermal, one.ate_dermal_mg_kg);
  to.ate.inhalation = atMost(to.ate.inhalation, one.ate_inhalation_mg_l);
  if (one.inhaled_as === "vapor") to.inhaledAs = "vapor";
  for (const each of one.specific_limits ?? []) to.limits.set(each.class, Math.min(each.percent, to.limits.get(each.class) ?? 100));
  if (one.cas) to.cas.add(one.cas);
  if (one.ec) to.ec.add(one.ec);
}

/** What is in the candle: one substance of two oils is one, by its name whatever its case, or by its CAS or EC number. */
export function heldBy(request: Pick<HazardRequest, "parts">): Held[] {
  const groups: { keys: Set<string>; entries: { one: HazardRequest["parts"][number]["ingredients"][number]; c: number }[] }[] = [];
  for (const part of request.parts)
    for (const one of part.ingredients) {
      const keys = [`name ${plainName(one.name)}`, ...(one.cas ? [`cas ${one.cas}`] : []), ...(one.ec ? [`ec ${one.ec}`] : [])];
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
      group.entries.push({ one, c: (part.percent * one.percent) / 100 });
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
    for (const { one, c } of entries) put(held, one, c);
    return held;
  });
}

/** How many letters have to be changed, put in, left out or swapped to make one word of another, up to a most. */
function lettersApart(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let [before, last] = [[] as number[], Array.from({ length: b.length + 1 }, (_, at) => at)];
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

/** Pairs of substances whose names are spelled nearly alike, and that no numbers tell apart: are they one? */
export function nearlyAlike(held: readonly Held[]): [string, string][] {
  const apart = (a: Set<string>, b: Set<string>) => a.size > 0 && b.size > 0;
  return held.flatMap((one, at) =>
    held.slice(at + 1).flatMap((other): [string, string][] => {
      const [a, b] = [plainName(one.name), plainName(other.name)];
      if (Math.min(a.length, b.length) < MIN_LETTERS || apart(one.cas, other.cas) || apart(one.ec, other.ec)) return [];
      return lettersApart(a, b, MAX_APART) <= MAX_APART ? [[one.name, other.name]] : [];
    }),
  );
}
