import { type EventOf, unreadableOf } from "@hearth/core";

const iso = (text: string) => new Date(text).toISOString();

/** A row of any log, as far as they are alike. */
export interface EntryRow {
  id: string;
  kind: string;
  happenedAt: string;
  arrivedAt: string;
  personId: string | null;
  instrumentId: string | null;
  corrects: string | null;
  deviceAt: string | null;
  v: number;
  payload: unknown;
}

/** Type, version and payload as they are stored: of one that could not be read, as they were. */
function storedBody(event: EventOf, versionOf: (kind: string) => number): Pick<EntryRow, "kind" | "v" | "payload"> {
  const { kind, v, payload } = unreadableOf(event) ?? { ...event, v: versionOf(event.kind) };
  return { kind, v, payload };
}

/** Returns how the entries of a subject are read from their rows, and written to them. */
export const entryRows = <E extends EventOf>(subject: { read: (raw: EventOf & { v: number }) => E; versionOf: (kind: string) => number }) => ({
  /** A stored row as the entry that core reads: its payload brought up to the newest version and checked. */
  toEvent: (row: EntryRow): E =>
    subject.read({
      id: row.id,
      kind: row.kind,
      happenedAt: iso(row.happenedAt),
      arrivedAt: iso(row.arrivedAt),
      personId: row.personId,
      instrumentId: row.instrumentId,
      corrects: row.corrects,
      ...(row.deviceAt ? { deviceAt: iso(row.deviceAt) } : {}),
      v: row.v,
      payload: row.payload,
    }),
  toRow: (event: EventOf): EntryRow => ({
    id: event.id,
    // As UTC: a database takes fewer offsets than are written.
    happenedAt: iso(event.happenedAt),
    arrivedAt: iso(event.arrivedAt),
    personId: event.personId,
    instrumentId: event.instrumentId,
    corrects: event.corrects,
    deviceAt: event.deviceAt ? iso(event.deviceAt) : null,
    ...storedBody(event, subject.versionOf),
  }),
});
