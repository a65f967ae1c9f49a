/** Returns a value as text that does not depend on the order of its keys: jsonb does not keep it. */
export const canonical = (value: unknown): string =>
  JSON.stringify(value, (_key, part: unknown) =>
    part && typeof part === "object" && !Array.isArray(part) ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1))) : part,
  );
