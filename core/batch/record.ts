import { z } from "zod";
import { temperatureRange } from "../heat/schema";
import { stamp } from "../log/checked";
import { hasCorrectionCycle } from "../log/log";
import { renameKeys, type Stored, upcastList } from "../log/stored";
import { currentChoice, type FieldType, type ShelfField } from "../materials/fields";
import { SHELF_FIELDS, type ShelfKind } from "../materials/kinds";
import { formulaSpec } from "../recipe/schema";
import { upcastFormula } from "../recipe/spec";
import { BATCH } from "./batch";
import { batchEventSchema } from "./checked";

const uuid = z.uuid();
/** A name, and any longer text: a file from elsewhere may hold anything. Names of products are put together from several. */
export const text = z.string().max(2_000, "At most 2000 letters fit here.");
const nameText = z.string().max(300, "A name has at most 120 letters.");
const whole = z.number().int().min(-2_147_483_647).max(2_147_483_647);
/** The most people, instruments or materials that one batch names. */
const MAX_ROWS = 200;

export const personRow = z.object({ id: uuid, name: nameText });

/** What numbers of a type are, for readers of the published schema. */
const UNITS: Partial<Record<FieldType["is"], string>> = {
  temperature: "hundredths of °C",
  difference: "hundredths of °C, added to what it shows",
  range: "hundredths of °C",
  percent: "millionths of the wax",
  mass: "milligrams",
  length: "micrometers",
  density: "µg/ml",
  duration: "seconds",
  step: "micrograms",
};
/** Choices that an earlier version, or another workshop, may have had more of. */
const isOpen = (kind: RowKind, key: string): boolean =>
  key === "family" || key === "material" || key === "strength" || ((kind === "wick" || kind === "mold") && key === "kind");
/** Fields that records of before do not say, where the table has a default. */
const SAID_LATER = new Set(["state", "shape", "headspaceUm", "waterTo", "wicks", "sizeEstimated", "use", "cavities", "testJars"]);

/** Returns the schema of one field of a material as it is exported. */
function travelingField(kind: RowKind, { key, type, optional }: ShelfField): z.ZodType {
  const described = (schema: z.ZodType): z.ZodType => (UNITS[type.is] ? schema.describe(UNITS[type.is] ?? "") : schema);
  switch (type.is) {
    case "name":
      return nameText;
    case "words":
      return text.optional();
    case "choice":
      return optional || SAID_LATER.has(key)
        ? (isOpen(kind, key) ? text : z.enum(type.of.map((item) => item.value))).nullish()
        : isOpen(kind, key)
          ? text
          : z.enum(type.of.map((item) => item.value));
    case "day":
      return z.iso.date().nullish();
    case "yes":
      return SAID_LATER.has(key) ? z.boolean().optional() : z.boolean();
    case "families":
      return z.array(text).max(MAX_ROWS).nullish();
    case "blend":
      return z
        .array(z.object({ id: uuid, share: z.number().positive() }))
        .nullish()
        .describe("what it is weighed from, by share");
    case "range":
      return described(temperatureRange.nullish());
    default: {
      const number = type.is === "count" ? whole.min(type.least) : type.is === "mass" || type.is === "density" || type.is === "step" ? whole.positive() : whole;
      return described(optional ? number.nullish() : SAID_LATER.has(key) ? number.optional() : number);
    }
  }
}

/** A material, vessel or instrument as it is exported: its fields as the shelf describes them, one schema a kind. */
type TravelingRow = { id: string; name: string; archived?: boolean | undefined } & Record<string, unknown>;
type RowKind = Exclude<ShelfKind, "person" | "pack">;
const travelingRow = (kind: RowKind): z.ZodType<TravelingRow> =>
  z.object({
    id: uuid,
    ...Object.fromEntries(SHELF_FIELDS[kind].map((field) => [field.key, travelingField(kind, field)])),
    archived: z.boolean().optional().describe("archived"),
  }) as unknown as z.ZodType<TravelingRow>;
const rowsOf = (kind: RowKind) => z.array(travelingRow(kind)).max(MAX_ROWS);
export const instrumentRow = travelingRow("instrument");

/** The largest record that is read: some twenty thousand events. */
export const LARGEST_RECORD_BYTES = 8 * 1_024 * 1_024;

/** The largest batch number. */
export const LARGEST_NUMBER = 9_999_999;

export const RECORD_FORMAT = "hearth-jar/batch-record";

/** One whole batch as it is exported to another workshop: everything its page shows, and nothing else. */
export const batchRecord = z.object({
  format: z.literal(RECORD_FORMAT, { error: "This file is not a Hearth Jar batch record." }),
  version: z.literal(3, { error: "This record was written by a newer Hearth Jar: bring this one up to date first." }),
  workshop: z.object({ name: nameText }),
  batch: z.object({ id: uuid, number: whole.positive().max(LARGEST_NUMBER, "This batch number is too large."), formulaVersionId: uuid }),
  formula: z.object({ id: uuid, name: nameText }),
  formulaVersion: z.object({ id: uuid, number: whole.positive(), spec: formulaSpec, createdAt: stamp }),
  people: z.array(personRow).max(MAX_ROWS),
  instruments: rowsOf("instrument"),
  waxes: rowsOf("wax"),
  fragrances: rowsOf("fragrance"),
  vessels: rowsOf("vessel"),
  /** Not there in records written before additives and dyes were known. */
  additives: rowsOf("additive").optional(),
  dyes: rowsOf("dye").optional(),
  /** Wicks and molds that the products name. */
  wicks: rowsOf("wick").optional(),
  molds: rowsOf("mold").optional(),
  /** What is laid into the candles; not there in records written before embeds were known. */
  embeds: rowsOf("embed").optional(),
  events: z.array(batchEventSchema).min(1).max(20_000),
});
export type BatchRecord = z.output<typeof batchRecord>;

const ROW_LISTS = ["instruments", "waxes", "fragrances", "vessels", "additives", "dyes", "wicks", "molds", "embeds"] as const;
const upcastRowKeys = renameKeys({ putAway: "archived", colours: "colors", heatGate: "heatRange", addGate: "addRange", pourGate: "pourRange" });
/** Returns a row of the shelf as it is now: keys had other names, and words were spelled the British way. */
function upcastRow(stored: Stored): Stored {
  const row = upcastRowKeys(stored);
  for (const key of ["state", "kind"]) if (typeof row[key] === "string") row[key] = currentChoice(row[key]);
  return row;
}
/** Returns the rows of the shelf of a record of an earlier format. */
export function upcastRows(record: Stored): Stored {
  const renamed = renameKeys({ moulds: "molds" })(record);
  return Object.fromEntries(ROW_LISTS.flatMap((list) => (Array.isArray(renamed[list]) ? [[list, upcastList(renamed[list], upcastRow)]] : [])));
}

/** Returns a record of an earlier format in this one; anything else as it is. */
export function upcastRecord(raw: unknown): unknown {
  const old = raw as Record<string, unknown> | null;
  if (!old || typeof old !== "object" || old.format !== RECORD_FORMAT || (old.version !== 1 && old.version !== 2)) return raw;
  const version = old.formulaVersion as { spec?: unknown } | undefined;
  return {
    ...old,
    ...upcastRows(old),
    version: 3,
    formulaVersion: version && { ...version, spec: upcastFormula(version.spec) },
    events: Array.isArray(old.events)
      ? old.events.map((event: { kind?: string; v?: number; payload?: Record<string, unknown> }) => {
          const kind = BATCH.currentName(String(event?.kind));
          const v = old.version === 1 ? 1 : (event?.v ?? 1);
          return { ...event, kind, v: BATCH.eventTypes.get(kind)?.version ?? v, payload: BATCH.upcastPayload(kind, event?.payload, v) };
        })
      : old.events,
  };
}

/** Returns what is inconsistent in a well-formed record; null if all is in order. */
export function recordFault(record: BatchRecord): string | null {
  const ids = new Set(record.events.map((event) => event.id));
  if (ids.size !== record.events.length) return "Two events in this record carry the same id.";
  if (record.events.filter((event) => event.kind === "started").length !== 1) return "This record must hold exactly one “started” event.";
  if (record.batch.formulaVersionId !== record.formulaVersion.id) return "The batch points at a formula version that the record does not hold.";
  const people = new Set(record.people.map((item) => item.id));
  const instruments = new Set(record.instruments.map((instrument) => instrument.id));
  for (const event of record.events) {
    if (event.corrects && !ids.has(event.corrects)) return "An event corrects one that the record does not hold.";
    if (event.personId && !people.has(event.personId)) return "An event names a person that the record does not hold.";
    if (event.instrumentId && !instruments.has(event.instrumentId)) return "An event names an instrument that the record does not hold.";
  }
  if (hasCorrectionCycle(record.events)) return "An entry of this record corrects itself, by a detour or none.";
  const byId = new Map(record.events.map((event) => [event.id, event]));
  for (const event of record.events) {
    const target = event.corrects ? byId.get(event.corrects) : undefined;
    if (target && event.kind !== "withdrawn" && event.kind !== target.kind) return "An entry of this record corrects one of another kind.";
    if (target?.kind === "started") return "An entry of this record corrects the start of the batch.";
  }
  const waxes = new Set(record.waxes.map((wax) => wax.id));
  const fragrances = new Set(record.fragrances.map((fragrance) => fragrance.id));
  if (record.formulaVersion.spec.waxes.some((part) => !waxes.has(part.id))) return "The formula names a wax that the record does not hold.";
  if (record.formulaVersion.spec.fragrances.some((part) => !fragrances.has(part.id))) return "The formula names a fragrance that the record does not hold.";
  const others = new Set([...(record.additives ?? []), ...(record.dyes ?? [])].map((traveling) => traveling.id));
  if ([...(record.formulaVersion.spec.additives ?? []), ...(record.formulaVersion.spec.dyes ?? [])].some((part) => !others.has(part.id)))
    return "The formula names an additive or a dye that the record does not hold.";
  return null;
}
