import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { z } from "zod";
import { DEFECTS } from "../defects/defects";
import { EXTENTS, PLACES, SEVERITIES } from "../defects/places";
import { toldOf } from "../defects/remedies";
import { aBatch, anId } from "../testing/batch";
import { BATCH, type BatchEvent, versionOf } from "./batch";
import { batchEventSchema, sentEvent } from "./checked";
import { type BatchRecord, batchRecord, recordFault } from "./record";

const uuid = fc.uuid({ version: 7 });
const head = fc.record({
  id: uuid,
  happenedAt: fc.date({ min: new Date(0), max: new Date(4e12), noInvalidDate: true }).map((date) => date.toISOString()),
  arrivedAt: fc.date({ min: new Date(0), max: new Date(4e12), noInvalidDate: true }).map((date) => date.toISOString()),
  personId: fc.option(uuid),
  instrumentId: fc.option(uuid),
  corrects: fc.option(uuid),
});
const body = fc.oneof(
  fc.record({ kind: fc.constant("weighed"), payload: fc.record({ pot: fc.constant(0), componentId: uuid, mg: fc.integer({ min: 1, max: 1e9 }) }) }),
  fc.record({
    kind: fc.constant("read"),
    payload: fc.record({
      step: fc.constantFrom("heat", "add", "cool", null),
      shown: fc.integer({ min: -2_000, max: 16_000 }),
      correction: fc.integer({ min: -2_000, max: 2_000 }),
    }),
  }),
  fc.record({ kind: fc.constant("stirred"), payload: fc.record({ step: fc.constant("stir"), seconds: fc.integer({ min: 1, max: 3_600 }) }) }),
  fc.record({
    kind: fc.constant("poured"),
    payload: fc.record({
      step: fc.constant("pour"),
      filled: fc.constant([]),
      leftMg: fc.option(fc.nat(1e6)),
      roomCelsius: fc.option(fc.integer({ min: 0, max: 3_000 })),
      warmed: fc.option(fc.constantFrom("no" as const, "oven" as const)),
    }),
  }),
  fc.record({ kind: fc.constant("inspected"), payload: fc.record({ jars: fc.integer({ min: 1, max: 500 }) }) }),
  fc.record({
    kind: fc.constant("flaw"),
    payload: fc.record({
      defect: fc.constantFrom(...DEFECTS.map((defect) => defect.id)),
      place: fc.constantFrom(...PLACES),
      severity: fc.constantFrom(...SEVERITIES),
      product: uuid,
      jars: fc.integer({ min: 1, max: 500 }),
    }),
  }),
  fc.record({
    kind: fc.constant("jarsInspected"),
    payload: fc.record({
      product: uuid,
      jars: fc.integer({ min: 1, max: 500 }),
      flaws: fc.array(
        fc.record({ defect: fc.constantFrom(...DEFECTS.map((defect) => defect.id)), place: fc.constantFrom(...PLACES), extent: fc.constantFrom(...EXTENTS) }),
        { maxLength: 12 },
      ),
    }),
  }),
  fc.record({ kind: fc.constant("closed"), payload: fc.record({ missing: fc.array(fc.string()) }) }),
  fc.record({
    kind: fc.constant("withdrawn"),
    payload: fc.record({ why: fc.string({ maxLength: 500 }), mode: fc.constantFrom("delete" as const, "undo" as const) }),
  }),
);

describe("events as they travel", () => {
  it("come back from JSON as they were, whatever their kind", () => {
    fc.assert(
      fc.property(head, body, (item, other) => {
        const event = { ...item, ...other, v: versionOf(other.kind) } as unknown as BatchEvent;
        expect(batchEventSchema.parse(JSON.parse(JSON.stringify(event)))).toEqual(event);
      }),
      { numRuns: 300 },
    );
  });

  it.each([
    ["a weight of nothing", { kind: "weighed", payload: { componentId: anId(), mg: 0 } }],
    ["half a milligram", { kind: "weighed", payload: { componentId: anId(), mg: 0.5 } }],
    ["850 °C", { kind: "read", payload: { step: "heat", shown: 85_000, correction: 0 } }],
    ["a reading without its act", { kind: "read", payload: { shown: 8_500, correction: 0 } }],
    ["a flaw nobody knows", { kind: "flaw", payload: { defect: "gremlins", place: "top", severity: "severe", product: anId(), jars: 1 } }],
    ["a flaw on no jar", { kind: "flaw", payload: { defect: "frosting", place: "top", severity: "severe", product: anId(), jars: 0 } }],
    ["an empty note", { kind: "note", payload: { text: "  " } }],
    ["a kind that is none", { kind: "exploded", payload: {} }],
  ])("refuse %s", (_what, wrong) => {
    const sent = { id: anId(), happenedAt: "2026-03-14T14:20:00.000Z", personId: null, ...wrong };
    expect(sentEvent.safeParse(sent).success).toBe(false);
  });

  it("refuse an id that is no UUID, and a time that is none", () => {
    const sent = { id: anId(), happenedAt: "2026-03-14T14:20:00.000Z", personId: null, kind: "inspected", payload: { jars: 1 } };
    expect(sentEvent.safeParse(sent).success).toBe(true);
    expect(sentEvent.safeParse({ ...sent, id: "7" }).success).toBe(false);
    expect(sentEvent.safeParse({ ...sent, happenedAt: "14.3.2026" }).success).toBe(false);
  });
});

describe("a record that hangs together", () => {
  const whole = (): BatchRecord => {
    const batch = aBatch();
    batch.pourAll();
    const version = anId();
    const started = batch.events[0];
    if (started?.kind !== "started") throw new Error("no start");
    const { pots, process } = started.payload.plan;
    const spec = { ...pots[0]?.recipe, process };
    return batchRecord.parse({
      format: "hearth-jar/batch-record",
      version: 3,
      workshop: { name: "Test" },
      batch: { id: anId(), number: 1, formulaVersionId: version },
      formula: { id: anId(), name: "F" },
      formulaVersion: { id: version, number: 1, spec, createdAt: "2026-02-01T00:00:00.000Z" },
      people: [],
      instruments: [],
      waxes: [{ id: batch.wax, name: "soy", family: "soy", maxLoadPpm: null, remarks: "" }],
      fragrances: [{ id: batch.oil, name: "rain", kind: "fragrance", maxLoadPpm: null, flashPoint: null, remarks: "" }],
      vessels: [],
      events: batch.events.map((event) => ({ ...event, v: versionOf(event.kind) })),
    });
  };

  it("is told from one that does not", () => {
    expect(recordFault(whole())).toBeNull();
    const spoil = (run: (record: BatchRecord) => void) => {
      const record = whole();
      run(record);
      return recordFault(record);
    };
    expect(spoil((record) => Object.assign(record.batch, { formulaVersionId: anId() }))).toMatch(/formula version that the record does not hold/);
    expect(spoil((record) => Object.assign(record.events[1] ?? {}, { instrumentId: anId() }))).toMatch(/instrument that the record does not hold/);
    expect(spoil((record) => record.fragrances.splice(0))).toMatch(/fragrance that the record does not hold/);
    expect(spoil((record) => record.events.push(...record.events.slice(0, 1)))).toMatch(/same id/);
    expect(spoil((record) => Object.assign(record.events[1] ?? {}, { corrects: record.events[1]?.id }))).toMatch(/corrects itself/);
    expect(spoil((record) => Object.assign(record.events[1] ?? {}, { corrects: record.events[3]?.id }))).toMatch(/of another kind/);
  });

  it("has a JSON Schema that other programs can read: an object with what it requires", () => {
    const schema = z.toJSONSchema(batchRecord, { io: "input" }) as { type: string; required: string[]; properties: Record<string, unknown> };
    expect(schema.type).toBe("object");
    expect(schema.required).toEqual(expect.arrayContaining(["format", "version", "batch", "events"]));
  });
});

describe("the list of flaws", () => {
  it("has each once, with its class, how it looks and what helps", () => {
    expect(new Set(DEFECTS.map((defect) => defect.id)).size).toBe(DEFECTS.length);
    for (const defect of DEFECTS) {
      expect(defect.classes.length, defect.name).toBeGreaterThan(0);
      const told = toldOf(defect.id);
      for (const text of [told?.looks, told?.remedy]) expect(text?.trim(), defect.name).toBeTruthy();
    }
  });

  it("calls a safety matter what can hurt somebody", () => {
    const safety = DEFECTS.filter((defect) => defect.classes.includes("S")).map((defect) => defect.id);
    expect(safety.sort()).toEqual(
      [
        ...["collapse", "cracked_glass", "hot_vessel", "large_flame", "leaning_wick", "mushrooming", "oil_on_bottom", "overfilled", "soot"],
        ...["surface_ignition", "sweating", "tunnelling", "water_in_wax"],
      ].sort(),
    );
  });
});

describe("an entry that somebody made up", () => {
  it("is refused and breaks nothing, whatever its kind and its times are said to be", () => {
    const whole = { id: anId(), happenedAt: "2026-02-02T09:00:00Z", personId: null, kind: "note", payload: { text: "x" } };
    expect(sentEvent.safeParse(BATCH.upcastSent(whole)).success).toBe(true);
    for (const odd of [
      { ...whole, kind: { toString: "none" } },
      { ...whole, kind: ["note"] },
      { ...whole, kind: "__proto__" },
      { ...whole, happenedAt: "0000-01-01T00:00:00Z" },
      { ...whole, happenedAt: "9999-12-31T23:59:59Z" },
      { ...whole, happenedAt: "2026-02-30T10:00:00Z" },
    ])
      expect(sentEvent.safeParse(BATCH.upcastSent(odd)).success, JSON.stringify(odd)).toBe(false);
  });
});
