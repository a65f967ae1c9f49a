/** Signs that no keyboard types: controls other than tab and new line, and halves of a sign in two parts. */
const UNSEEN = /(?![\t\n])\p{Cc}|\p{Cs}/gu;
/** Returns what no database keeps. Older records may hold other controls, and are still read. */
const isUnkept = (text: string): boolean => text.includes("\u0000") || /\p{Cs}/u.test(text);

/** Returns text without invisible characters, which pasted text can contain, and with every line end as "\n". */
export const cleanText = (text: string): string => text.replace(/\r\n?/g, "\n").replace(UNSEEN, "");

/** The deepest nesting that is looked through. */
const DEEPEST = 64;

/** Returns the path within a value at which a text contains a character that cannot be stored; null if none does. Keys are checked too. */
export function oddTextIn(value: unknown, path: readonly string[] = []): string | null {
  if (typeof value === "string") return isUnkept(value) ? path.join(".") || "text" : null;
  if (!value || typeof value !== "object" || path.length > DEEPEST) return null;
  for (const [key, item] of Object.entries(value)) {
    if (isUnkept(key)) return [...path, "?"].join(".");
    const found = oddTextIn(item, [...path, key]);
    if (found) return found;
  }
  return null;
}

const ENGLISH = new Intl.PluralRules("en");
/** Returns a count with its noun in the right number: "1 batch", "1,240 batches". */
export const countOf = (n: number, one: string, many: string): string => `${n.toLocaleString("en-US")} ${ENGLISH.select(n) === "one" ? one : many}`;
