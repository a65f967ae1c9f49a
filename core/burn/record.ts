import { z } from "zod";
import { instrumentRow, personRow, text, upcastRows } from "../batch/record";
import { hasCorrectionCycle } from "../log/log";
import { CHECKED_TRIAL } from "./checked";
import { TRIAL } from "./trial";

export const BURN_FORMAT = "hearth-jar/burn-record";

/** One whole trial as it is exported to another workshop. */
export const burnRecord = z.object({
  format: z.literal(BURN_FORMAT, { error: "This file is not a Hearth Jar burn record." }),
  version: z.literal(2, { error: "This record was written by a newer Hearth Jar: bring this one up to date first." }),
  workshop: z.object({ name: text }),
  trial: z.object({ id: z.uuid(), number: z.number().int().positive().max(9_999_999) }),
  people: z.array(personRow).max(200),
  instruments: z.array(instrumentRow).max(200),
  events: z.array(CHECKED_TRIAL.stored).min(1).max(20_000),
});
export type BurnRecord = z.output<typeof burnRecord>;

/** Returns a record of an earlier format in this one; anything else as it is. */
export function upcastBurnRecord(raw: unknown): unknown {
  const old = raw as Record<string, unknown> | null;
  if (!old || typeof old !== "object" || old.format !== BURN_FORMAT || old.version !== 1) return raw;
  return {
    ...old,
    ...upcastRows(old),
    version: 2,
    events: Array.isArray(old.events)
      ? old.events.map((event: { kind?: unknown; v?: number; payload?: unknown }) => {
          const kind = TRIAL.currentName(String(event?.kind));
          return { ...event, kind, v: TRIAL.eventTypes.get(kind)?.version ?? event?.v, payload: TRIAL.upcastPayload(kind, event?.payload, event?.v ?? 1) };
        })
      : old.events,
  };
}

/** Returns what is inconsistent in a well-formed record; null if all is in order. */
export function burnFault(record: BurnRecord): string | null {
  const byId = new Map(record.events.map((event) => [event.id, event]));
  if (byId.size !== record.events.length) return "Two events in this record carry the same id.";
  if (record.events.filter((event) => event.kind === "started").length !== 1) return "This record must hold exactly one “started” event.";
  if (hasCorrectionCycle(record.events)) return "An entry of this record corrects itself, by a detour or none.";
  const people = new Set(record.people.map((item) => item.id));
  const instruments = new Set(record.instruments.map((instrument) => instrument.id));
  for (const event of record.events) {
    if (event.personId && !people.has(event.personId)) return "An event names a person that the record does not hold.";
    if (event.instrumentId && !instruments.has(event.instrumentId)) return "An event names an instrument that the record does not hold.";
    const target = event.corrects ? byId.get(event.corrects) : undefined;
    if (event.corrects && !target) return "An event corrects one that the record does not hold.";
    if (target && event.kind !== "withdrawn" && event.kind !== target.kind) return "An entry of this record corrects one of another kind.";
    if (target?.kind === "started") return "An entry of this record corrects the start of the trial.";
  }
  return null;
}
