/** What a command gives back: its value, or what is wrong, field by field. */
export type Outcome<T> = { ok: true; value: T } | { ok: false; message: string; fields: Record<string, string[]> };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });
export const refused = (message: string, fields: Record<string, string[]> = {}): Outcome<never> => ({ ok: false, message, fields });
