/** So many rows go into one statement. */
const ROWS_AT_ONCE = 500;

/** Hands a list on in parts that fit one statement each, one after another. */
export async function inParts<T>(list: readonly T[], put: (part: T[]) => Promise<unknown>): Promise<void> {
  for (let from = 0; from < list.length; from += ROWS_AT_ONCE) await put(list.slice(from, from + ROWS_AT_ONCE));
}
