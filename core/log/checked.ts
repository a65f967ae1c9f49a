import { z } from "zod";
import type { Z } from "../shapes";
import { UNREADABLE, type Unreadable } from "./events/unreadable";
import type { AnyEventType, EventOf } from "./log";

const uuid = z.uuid();
/** A moment, in a year that a workshop can have seen. */
export const stamp = z.iso.datetime({ offset: true }).refine((text) => {
  const year = new Date(text).getUTCFullYear();
  return year >= 1970 && year <= 2200;
}, "This date is out of range.");
const sentHead = z.object({
  id: uuid,
  happenedAt: stamp,
  personId: uuid.nullable(),
  instrumentId: uuid.nullable().default(null),
  corrects: uuid.nullable().default(null),
  deviceAt: stamp.nullish(),
});
const storedHead = sentHead.extend({ arrivedAt: stamp });
/** An event that the program which exported it could not read, as it is exported in a record. */
const unreadable = z.object({
  kind: z.literal(UNREADABLE),
  payload: z.object({ kind: z.string().max(60), v: z.number().int(), payload: z.unknown(), why: z.string().max(2_000) }),
});

interface Asked<E> {
  eventTypes: ReadonlyMap<string, AnyEventType<never, never>>;
  currentName: (kind: string) => string;
  upcastPayload: (kind: string, payload: unknown, version: number) => unknown;
  of: (events: readonly E[]) => unknown;
}

/**
 * Returns an aggregate with the schemas of its entries, for code that accepts or reads them. `shapes` is passed to the payload of each
 * event type.
 */
export function checked<E extends EventOf, S extends Asked<E>, Shapes extends { z: Z }>(subject: S & Asked<E>, shapes: Shapes) {
  type EventBody = E extends EventOf ? Pick<E, "kind" | "payload"> : never;
  const payloads = new Map([...subject.eventTypes.values()].map((eventType) => [eventType.kind, eventType.payload(shapes)]));
  const bodies = [...payloads].map(([kind, payload]) => z.object({ kind: z.literal(kind), payload }));
  /** What can happen, with each kind's payload. */
  const body = z.discriminatedUnion("kind", bodies as never) as unknown as z.ZodType<EventBody>;
  const storedBody = z.discriminatedUnion("kind", [...bodies, unreadable] as never) as unknown as z.ZodType<EventBody>;
  return {
    ...subject,
    body,
    /** An entry as it is sent: everything but the time it arrived. */
    sent: z.intersection(sentHead, body),
    /** An entry as it is exported in a record. */
    stored: z.intersection(storedHead.extend({ v: z.number().int().min(1).describe("version of the payload") }), storedBody),

    /** Reads a stored event: its payload brought up to the newest version and checked. One that cannot be read is given back as unreadable. */
    read(raw: EventOf & { v?: number | null }): E {
      const { v, ...stored } = raw;
      const head = { ...stored, kind: subject.currentName(stored.kind) };
      const version = v ?? 1;
      const spoiled = (why: string): E => {
        const payload: Unreadable = { kind: raw.kind, v: version, payload: raw.payload, why };
        return { ...head, kind: UNREADABLE, payload } as unknown as E;
      };
      if (!subject.eventTypes.has(head.kind)) return spoiled("A newer version of the program wrote it.");
      try {
        const parsed = payloads.get(head.kind)?.safeParse(subject.upcastPayload(head.kind, raw.payload, version));
        return parsed?.success ? ({ ...head, payload: parsed.data } as unknown as E) : spoiled(parsed?.error.issues[0]?.message ?? "");
      } catch {
        return spoiled("It is damaged.");
      }
    },
  };
}
