/** Signs that no keyboard types: controls other than tab and new line, and halves of a sign in two parts. */
const UNSEEN = /(?![\t\n])\p{Cc}|\p{Cs}/gu;
/** Returns what no database keeps. Older records may hold other controls, and are still read. */
const isUnkept = (text: string): boolean => text.includes("\u0000") || /\p{Cs}/u.test(text);

/** Text as it was meant: what is pasted can carry signs that nobody sees. Line ends are made one. */
export const cleanText = (text: string): string => text.replace(/\r\n?/g, "\n").replace(UNSEEN, "");

/** The deepest nesting that is looked through. */
const DEEPEST = 64;

/** Returns where in a value a text holds a sign that cannot be kept; null if none does. Keys count too. */
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
