import { z } from "zod";
import { GATE_NAMES } from "../heat/gate";
import { flaw } from "../look/defects";
import { SECONDS } from "../quantity/duration";
import { LARGEST_MASS_MG } from "../quantity/mass";
import { COLDEST, HOTTEST } from "../quantity/temperature";
import { batchPlan } from "./plan";

const uuid = z.uuid();

/** What can happen to a batch. Each kind's payload; masses in mg, temperatures in hundredths of °C, times in s. */
export const eventBody = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("started"), payload: z.object({ plan: batchPlan }) }),
  z.object({
    kind: z.literal("weighed"),
    payload: z.object({ componentId: uuid, mg: z.number().int().min(1, "The weight must be more than zero.").max(LARGEST_MASS_MG) }),
  }),
  /** Drops or pieces of a dye, counted into the pot. */
  z.object({ kind: z.literal("counted"), payload: z.object({ componentId: uuid, n: z.number().int().min(1, "Count at least one.").max(100_000) }) }),
  z.object({
    kind: z.literal("read"),
    payload: z.object({
      gate: z.enum([...GATE_NAMES, "watch"]),
      /** As the instrument showed it. */
      shown: z.number().int().min(COLDEST, "Colder than any workshop.").max(HOTTEST, "Hotter than any wax is heated."),
      /** The instrument's correction at that moment, added to what it showed. */
      correction: z.number().int().min(-2_000).max(2_000),
    }),
  }),
  z.object({ kind: z.literal("stirred"), payload: z.object({ seconds: z.number().int().min(1, "Stirring takes more than no time.").max(SECONDS.h) }) }),
  z.object({ kind: z.literal("poured"), payload: z.object({ warmedJars: z.boolean().nullable().default(null) }) }),
  z.object({ kind: z.literal("flaw"), payload: flaw }),
  z.object({ kind: z.literal("looked"), payload: z.object({ jars: z.number().int().min(1) }) }),
  z.object({ kind: z.literal("note"), payload: z.object({ text: z.string().trim().min(1, "Write something.").max(2_000) }) }),
  z.object({ kind: z.literal("closed"), payload: z.object({ missing: z.array(z.string()) }) }),
  /** Takes the event it corrects back without putting another in its place. */
  z.object({ kind: z.literal("withdrawn"), payload: z.object({ why: z.string().max(500).default("") }) }),
]);
export type EventBody = z.output<typeof eventBody>;
export type EventKind = EventBody["kind"];
export type PayloadOf<K extends EventKind> = Extract<EventBody, { kind: K }>["payload"];

const stamp = z.iso.datetime({ offset: true });

const eventHead = z.object({
  /** UUIDv7, made where the event happened: sending it twice changes nothing. */
  id: uuid,
  happenedAt: stamp,
  personId: uuid.nullable(),
  instrumentId: uuid.nullable().default(null),
  /** The event that this one replaces or takes back. */
  corrects: uuid.nullable().default(null),
});

/** An event as it is sent: everything but the time it arrived. */
export const sentEvent = z.intersection(eventHead, eventBody);
export type SentEvent = z.output<typeof sentEvent>;

/** An event as it is kept. */
export const batchEvent = z.intersection(eventHead.extend({ arrivedAt: stamp }), eventBody);
export type BatchEvent = z.output<typeof batchEvent>;

/** An event may be dated this far ahead of the server's clock, for clocks that disagree a little. */
export const CLOCK_TOLERANCE_MS = 90_000;
