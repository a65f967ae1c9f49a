/** Why a typed value was not taken. */
export type Fault =
  | "empty"
  | "not-understood"
  /** It can be read in two ways, a thousandfold apart. */
  | "ambiguous"
  | "too-small"
  | "too-large"
  | "out-of-range"
  | "negative"
  | "not-whole"
  | "too-fine"
  | "too-long"
  | "out-of-order"
  /** A volume where a weight is wanted. */
  | "volume"
  | "density-unknown"
  /** It names something that is not on the shelf or in the list. */
  | "unknown"
  | "twice"
  | "not-allowed";

/** What reading a person's typing gives: a value, or a code with a sentence that says what is wrong and what to do. */
export type Parsed<T> = { ok: true; value: T } | Unread;
export interface Unread {
  ok: false;
  code: Fault;
  message: string;
}

export const good = <T>(value: T): Parsed<T> => ({ ok: true, value });
export const bad = (code: Fault, message: string): Unread => ({ ok: false, code, message });
