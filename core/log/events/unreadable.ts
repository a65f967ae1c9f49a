/** The part kept of a stored event that cannot be read: it does not change the state, and is shown as unreadable. */
export interface Unreadable {
  /** Its event type, version and payload as they are stored. */
  kind: string;
  v: number;
  payload: unknown;
  why: string;
}

/** The event type under which an event that cannot be read is handed on. It is never sent, and never stored under this name. */
export const UNREADABLE = "unreadable";

/** Returns what is kept of an event that cannot be read; null of one that can. */
export const unreadableOf = (event: { kind: string; payload: unknown }): Unreadable | null =>
  event.kind === UNREADABLE ? (event.payload as Unreadable) : null;
