import {
  type BatchRecord,
  batchRecord,
  burnRecord,
  formulaSpec,
  guessMapping,
  PRESET_PROCESSES,
  processFrom,
  readFormula,
  readSheet,
  SHEET_FIELDS,
  SHEET_KINDS,
  SHELF_FIELDS,
  SHELF_KINDS,
  type SheetKind,
  type ShelfField,
  STEP_TYPES,
  shelfValues,
  writeSheet,
} from "@hearth/core";
import { and, eq, getTableColumns } from "drizzle-orm";
import { v7 } from "uuid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { batchRecordOf } from "../web/server/batches/export-record";
import { importRecord, readRecord } from "../web/server/batches/import-record";
import { burnRecordOf, importBurn } from "../web/server/burn/burn-record";
import { tableOf } from "../web/server/inventory/tables";
import { type TestDatabase, testDatabase } from "../web/testing/database";
import { putDemo } from "./load";

const NOW = new Date("2026-11-20T10:00:00.000Z");
let test: TestDatabase;
const demo = v7();
beforeAll(async () => {
  test = await testDatabase();
  await putDemo(test.db, { id: demo, name: "Quillfen candle shed" }, NOW, true);
}, 120_000);
afterAll(() => test.pool.end());

const IDS = { a: v7(), b: v7(), formula: v7(), container: v7(), wick: v7(), product: v7(), material: v7() };

/** A value that a field can hold, other than what a form begins with. */
function sampleOf({ type, key }: ShelfField): unknown {
  switch (type.is) {
    case "name":
      return `a name of ${key}`;
    case "words":
      return "some words, with a comma";
    case "choice":
      return type.of.at(-1)?.value;
    case "yes":
      return true;
    case "mass":
      return Math.min(type.most, Math.max(type.least, 123_400));
    case "percent":
      return 45_000;
    case "temperature":
      return 6_050;
    case "difference":
      return -50;
    case "range":
      return { low: 5_700, high: 6_300 };
    case "duration":
      return 172_800;
    case "density":
      return 905_000;
    case "length":
      return 60_500;
    case "families":
      return ["soy", "coconut"];
    case "step":
      return 100_000;
    case "count":
      return type.least + 1;
    case "blend":
      return [
        { id: IDS.a, share: 3 },
        { id: IDS.b, share: 1 },
      ];
    case "ref":
      return type.to === "formula"
        ? IDS.formula
        : type.to === "container"
          ? IDS.container
          : type.to === "wick"
            ? IDS.wick
            : type.to === "product"
              ? IDS.product
              : IDS.material;
    case "money":
      return 1_250;
    case "day":
      return "2026-03-14";
    case "volume":
      return 200_000;
    case "amount":
      return 500_000;
  }
}
/** A row with every field filled, and one in which all that may be unknown is. */
const rowsOf = (fields: readonly ShelfField[]): Record<string, unknown>[] => {
  const full = Object.fromEntries(fields.map((field) => [field.key, sampleOf(field)]));
  // Heights and fills have to agree with one another.
  if ("heightUm" in full) Object.assign(full, { heightUm: 90_000 });
  if ("toUm" in full) Object.assign(full, { toUm: 80_000 });
  if ("leastCureSeconds" in full) Object.assign(full, { leastCureSeconds: 86_400 });
  if ("maxLoadPpm" in full || "maxPpm" in full) Object.assign(full, "maxPpm" in full ? { maxPpm: 60_000 } : { maxLoadPpm: 120_000 });
  const bare = Object.fromEntries(fields.map((field) => [field.key, field.optional ? (field.type.is === "words" ? "" : null) : full[field.key]]));
  return [full, { ...bare, ...("name" in full ? { name: "another name" } : {}) }];
};

const CONTEXT = {
  waxes: [
    { id: IDS.a, name: "plain soy", blend: null },
    { id: IDS.b, name: "hard one", blend: null },
  ],
  currency: "USD",
  names: {
    formula: [{ id: IDS.formula, name: "Rain" }],
    container: [{ id: IDS.container, name: "tumbler" }],
    wick: [{ id: IDS.wick, name: "braid 6" }],
    product: [{ id: IDS.product, name: "Rain, tumbler" }],
    material: [{ id: IDS.material, name: "plain soy", counted: false }],
  },
} as unknown as Parameters<typeof readSheet>[4];

describe("what is exported and read in again", () => {
  it.each(SHELF_KINDS.filter((kind) => kind !== "person"))("has in the table of a %s the fields that the shelf describes, and no other", (kind) => {
    const columns = Object.keys(getTableColumns(tableOf(kind)));
    const own = ["workshopId", "id", "version", "archived"];
    expect(columns.filter((column) => !own.includes(column)).sort()).toEqual(SHELF_FIELDS[kind].map((field) => field.key).sort());
    for (const row of rowsOf(SHELF_FIELDS[kind])) expect(shelfValues(kind).parse(row)).toEqual(row);
  });

  it.each(SHEET_KINDS)("keeps every field of a %s through a file of rows, known or not", (kind: SheetKind) => {
    const rows = rowsOf(SHEET_FIELDS[kind]);
    const sheet = writeSheet(kind, rows, CONTEXT);
    const read = readSheet(kind, sheet, guessMapping(kind, sheet.heads), [], CONTEXT);
    for (const [index, row] of rows.entries()) expect(read[index], JSON.stringify(read[index]?.outcome)).toMatchObject({ outcome: { is: "new" }, values: row });
    // Read back onto the rows it was written from, it changes nothing.
    const kept = rows.map((row) => ({ id: v7(), name: "", ...row })) as never;
    expect(readSheet(kind, sheet, guessMapping(kind, sheet.heads), kept, CONTEXT).map((sheet) => sheet.outcome.is)).toEqual(["same", "same"]);
  });

  it("takes a blend and the waxes it is made of from one file, in whatever order they stand", () => {
    const fields = SHEET_FIELDS.wax;
    const [row] = rowsOf(fields);
    const waxes = [
      {
        ...row,
        name: "house blend",
        blend: [
          { id: IDS.a, share: 3 },
          { id: IDS.b, share: 1 },
        ],
      },
      { ...row, name: "plain soy", blend: null },
      { ...row, name: "hard one", blend: null },
    ];
    const sheet = writeSheet("wax", waxes, CONTEXT);
    const read = readSheet("wax", sheet, guessMapping("wax", sheet.heads), [], { ...CONTEXT, waxes: [] });
    expect(read.map((sheet) => sheet.outcome.is)).toEqual(["new", "new", "new"]);
    expect(read[0]?.values.blend).toEqual([
      { id: "line 3", share: 3 },
      { id: "line 4", share: 1 },
    ]);
  });

  it("keeps every field of every material in a batch's record, into an empty workshop and out of it", async () => {
    const { rows } = await test.pool.query<{ id: string }>("select id from batch where workshop_id = $1 and stage = 'closed' order by number limit 1", [demo]);
    const record = (await batchRecordOf(test.db, demo, rows[0]?.id ?? "")) as BatchRecord;
    const parts = {
      wax: "waxes",
      fragrance: "fragrances",
      dye: "dyes",
      additive: "additives",
      wick: "wicks",
      vessel: "vessels",
      mold: "molds",
      instrument: "instruments",
    } as const;
    const samples = Object.entries(parts).flatMap(([kind, part]) =>
      rowsOf(SHELF_FIELDS[kind as keyof typeof parts]).map((row) => ({
        kind: kind as keyof typeof parts,
        part,
        row: { ...row, id: v7(), archived: kind === "wick" } as Record<string, unknown>,
      })),
    );
    const travelling = structuredClone(record) as unknown as Record<string, unknown[]>;
    for (const { part, row } of samples) travelling[part] = [...(travelling[part] ?? []), row];
    const read = readRecord(JSON.stringify(travelling));
    if (!read.ok) throw new Error(read.message);
    const empty = await test.workshop();
    const taken = await importRecord(test.db, empty, read.value as BatchRecord, NOW.toISOString());
    expect(taken).toMatchObject({ ok: true });
    for (const { kind, row } of samples) {
      const table = tableOf(kind);
      const [kept] = await test.db
        .select()
        .from(table)
        .where(and(eq(table.workshopId, empty), eq(table.id, String(row.id))));
      expect(kept, kind).toMatchObject(row);
    }
  });

  it("is equal for every batch and every burn trial of the demo", async () => {
    const empty = await test.workshop();
    const ids = async (table: string) =>
      (await test.pool.query<{ id: string }>(`select id from ${table} where workshop_id = $1 order by number`, [demo])).rows.map((row) => row.id);
    const all = await ids("batch");
    expect(all.length).toBeGreaterThan(50);
    for (const id of all) {
      const record = JSON.parse(JSON.stringify(await batchRecordOf(test.db, demo, id)));
      expect(batchRecord.parse(record)).toEqual(record);
      const outcome = await importRecord(test.db, empty, record, NOW.toISOString());
      expect(outcome.ok ? outcome.value.number : outcome.message).toBe(record.batch.number);
      expect({ ...JSON.parse(JSON.stringify(await batchRecordOf(test.db, empty, id))), workshop: record.workshop }).toEqual(record);
    }
    for (const id of await ids("trial")) {
      const record = JSON.parse(JSON.stringify(await burnRecordOf(test.db, demo, id)));
      expect(burnRecord.parse(record)).toEqual(record);
      expect(await importBurn(test.db, empty, record, NOW.toISOString())).toMatchObject({ ok: true });
      expect({ ...JSON.parse(JSON.stringify(await burnRecordOf(test.db, empty, id))), workshop: record.workshop }).toEqual(record);
    }
  }, 120_000);

  it("keeps every act with all it says, in a formula and in the ready processes", () => {
    const base = processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]);
    for (const kind of STEP_TYPES) {
      const item = { ...kind.first, id: `own-${kind.kind}`, kind: kind.kind } as never;
      // Pours add up to the whole fill already.
      const isWhole = kind.kind === "pour" || kind.kind === "pour-again";
      // A rest is a pot of its own, which is weighed too.
      const rest = kind.kind === "split" ? [{ id: "weigh-rest", kind: "weigh", pot: 1 }] : [];
      const added = rest.length > 0 ? { ...(item as object), pot: 1 } : item;
      const process = isWhole ? base : { ...base, steps: [...base.steps, added, ...rest] };
      const spec = { waxes: [{ id: v7(), share: 1 }], fragrances: [], basis: "wax" as const, loadPpm: 0, notes: "", process };
      const parsed = formulaSpec.safeParse(spec);
      if (!parsed.success) throw new Error(`${kind.kind}: ${parsed.error.issues[0]?.message}`);
      const stored = JSON.parse(JSON.stringify(parsed.data));
      expect(readFormula(stored), kind.kind).toEqual(parsed.data);
      if (process !== base) expect(parsed.data.process.steps, kind.kind).toContainEqual(expect.objectContaining(item));
    }
    for (const preset of PRESET_PROCESSES) {
      const process = processFrom(preset);
      expect(JSON.parse(JSON.stringify(process))).toEqual(process);
    }
  });
});

describe("merging", () => {
  it("knows every column that names a thing of the shelf", async () => {
    // Columns of ids that are no key to another table: each says what it names.
    const KNOWN: Record<string, string> = {
      "lot.material_id": "moved by a merge",
      "stock_count.material_id": "moved by a merge",
      "supplier_sheet.material_id": "moved by a merge",
      "product.container_id": "moved by a merge",
      "product.wick_id": "moved by a merge",
      "note.of_id": "moved by a merge",
      "stock_use.material_id": "booked anew by a merge",
      "stock_use.named_id": "as the entry says it",
      "stock_use.event_id": "an entry of a batch, or a pack run",
      "item_alias.gone_id": "the merge itself",
      "item_alias.kept_id": "the merge itself",
      "burn_outcome.container_id": "frozen with the trial",
      "burn_outcome.wick_id": "frozen with the trial",
      "burn_outcome.batch_id": "a batch",
      "batch.note_import_id": "an import of notes",
      "trial.note_import_id": "an import of notes",
      "note_import.person_id": "who imported it",
      "burn_outcome.product_id": "a product",
      "outcome.person_id": "a person, as the pour says it",
      "outcome.instrument_id": "an instrument, as the reading says it",
      "packed_piece.product_id": "a product",
      "pack_run.sellable_id": "a product or a set",
      "sale_line.sellable_id": "a product or a set",
      "sale_goods.sellable_id": "a product or a set",
      "sale_goods.pack_run_id": "a pack run",
      "demand_line.order_id": "an order",
      "device.person_id": "who works on it now",
      "audit_log.person_id": "who did it, also of somebody who is gone",
      "formula.updated_by": "who saved it last, also of somebody who is gone",
      "process.updated_by": "who saved it last, also of somebody who is gone",
    };
    const { rows } = await test.pool.query<{ column: string }>(`
      select c.relname || '.' || a.attname as column from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
      where c.relnamespace = 'public'::regnamespace and c.relkind = 'r' and a.atttypid = 'uuid'::regtype and a.attname not in ('id', 'workshop_id', 'corrects')
        and not exists (select 1 from pg_constraint k where k.contype = 'f' and k.conrelid = c.oid and a.attnum = any(k.conkey)) order by 1`);
    expect(rows.map((row) => row.column).filter((column) => !(column in KNOWN))).toEqual([]);
    expect(Object.keys(KNOWN).filter((column) => !rows.some((row) => row.column === column))).toEqual([]);
  });
});
