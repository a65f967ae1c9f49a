/** One option of a chooser. */
export interface Choice {
  value: string;
  name: string;
  /** Beside the name: what is on hand, of which family. */
  note?: string;
}

const ACCENTS = /[\u0300-\u036f]/g;
/** A name as it is looked for: without capitals and accents. */
const plain = (text: string): string => text.normalize("NFD").replace(ACCENTS, "").toLowerCase();

const plainNames = new WeakMap<Choice, string>();
function plainName(choice: Choice): string {
  const known = plainNames.get(choice);
  if (known !== undefined) return known;
  const made = plain(choice.name);
  plainNames.set(choice, made);
  return made;
}

/**
 * Returns what has all the words typed in its name, at most `most` of them: names that begin with what is typed first, else in the
 * order given. Nothing typed gives the first ones.
 */
export function matching<C extends Choice>(choices: readonly C[], text: string, most = 40): C[] {
  const letters = plain(text.trim());
  if (letters === "") return choices.slice(0, most);
  const words = letters.split(/\s+/);
  const first: C[] = [];
  const then: C[] = [];
  for (const choice of choices) {
    const name = plainName(choice);
    if (!words.every((word) => name.includes(word))) continue;
    (name.startsWith(letters) ? first : then).push(choice);
  }
  return [...first, ...then].slice(0, most);
}

let collator: Intl.Collator | undefined;
/** Orders names as people do: "8 oz" before "12 oz". Its rules are loaded with the first question, which takes a phone a tenth of a second. */
export function naturally(a: string, b: string): number {
  collator ??= new Intl.Collator("en", { numeric: true, sensitivity: "base" });
  return collator.compare(a, b);
}

/** Returns what was used lately first, then what is on hand, then the rest; each by name. */
export function suggestedFirst<T extends { id: string; name: string }>(
  rows: readonly T[],
  recentlyUsed: Readonly<Record<string, string>>,
  onHand: (id: string) => number | undefined,
): T[] {
  const rank = new Map(rows.map((row) => [row.id, recentlyUsed[row.id] !== undefined ? 0 : (onHand(row.id) ?? 0) > 0 ? 1 : 2]));
  return [...rows].sort(
    (a, b) =>
      (rank.get(a.id) ?? 0) - (rank.get(b.id) ?? 0) ||
      (rank.get(a.id) === 0 ? (recentlyUsed[b.id] ?? "").localeCompare(recentlyUsed[a.id] ?? "") : 0) ||
      naturally(a.name, b.name),
  );
}
