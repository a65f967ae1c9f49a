/** Why something was not done: a message, and messages by field. */
export interface Problem {
  ok: false;
  message: string;
  fields: Record<string, string[]>;
}

/** The value that was asked for, or the problem. `More` adds to a problem, for instance the status of an HTTP answer. */
export type Result<T, More = unknown> = { ok: true; value: T } | (Problem & More);

export const ok = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const reject = (message: string, fields: Record<string, string[]> = {}): Problem => ({ ok: false, message, fields });
