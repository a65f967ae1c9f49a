/** What reading a person's typing gives: a value, or a sentence that says what is wrong and what to do. */
export type Parsed<T> = { ok: true; value: T } | { ok: false; message: string };

export const good = <T>(value: T): Parsed<T> => ({ ok: true, value });
export const bad = (message: string): Parsed<never> => ({ ok: false, message });
