import { bigint, integer, jsonb, text, timestamp, uuid } from "drizzle-orm/pg-core";

export const instant = (name: string) => timestamp(name, { withTimezone: true, mode: "string" });

/** Returns what every log keeps of an entry, whatever it is about. */
export const entryColumns = () => ({
  kind: text("kind").notNull(),
  happenedAt: instant("happened_at").notNull(),
  arrivedAt: instant("arrived_at").notNull(),
  personId: uuid("person_id"),
  instrumentId: uuid("instrument_id"),
  corrects: uuid("corrects"),
  /** What the device's own clock said, where it was off. */
  deviceAt: instant("device_at"),
  /** Version of the payload; brought up to the newest when it is read. */
  v: integer("v").notNull().default(1),
  payload: jsonb("payload").$type<unknown>().notNull(),
  /** The order of writing, for those who read on from where they were. */
  seq: bigint("seq", { mode: "number" }).generatedAlwaysAsIdentity(),
});
