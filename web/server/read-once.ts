/** So much that was read is kept. */
const MOST = 300;

/**
 * Reads what is stored and never changes, like a frozen plan, once: checking it takes longer than folding an entry onto it. What is given
 * is shared, and only read. Told apart by its whole text, so that it never is another's.
 */
export function readOnce<T>(read: (stored: unknown) => T): (stored: unknown) => T {
  const known = new Map<string, T>();
  return (stored) => {
    const text = JSON.stringify(stored);
    const there = known.get(text);
    if (there !== undefined) return there;
    if (known.size >= MOST) known.clear();
    const made = read(stored);
    known.set(text, made);
    return made;
  };
}
