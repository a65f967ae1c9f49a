/** Why something was not done: in words, and by the field that it was about. */
export interface Problem {
  ok: false;
  message: string;
  fields: Record<string, string[]>;
}

/** What was asked for, or why not. `More` stands beside the words of a refusal: the status of an answer. */
export type Result<T, More = unknown> = { ok: true; value: T } | (Problem & More);

export const ok = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const reject = (message: string, fields: Record<string, string[]> = {}): Problem => ({ ok: false, message, fields });
