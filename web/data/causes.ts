/** Returns an error and what caused it, from the outermost in. */
export function* causesOf(error: unknown): Generator<Partial<Record<string, unknown>>> {
  for (let at: unknown = error; at; at = (at as { cause?: unknown }).cause) yield at as Partial<Record<string, unknown>>;
}
