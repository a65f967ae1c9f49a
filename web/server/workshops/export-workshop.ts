import { mkdtemp, open, rm, stat } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGzip } from "node:zlib";
import { sql } from "drizzle-orm";
import { atOneMoment, type Database, type Transaction } from "@/data/client";
import journal from "@/data/migrations/meta/_journal.json";

export const EXPORT_FORMAT = "hearth-jar-workshop";
export const EXPORT_VERSION = 2;
/** How many migrations the tables of this version have seen: a file that has seen more is of a newer version. */
export const SCHEMA_VERSION = journal.entries.length;

/** So many rows are read at once: a workshop of ten years fits no memory. */
const ROWS_AT_ONCE = 500;
/** Tables that are not exported: they give access to this server, and would give none elsewhere. */
export const OMITTED_TABLES = ["invitation", "device", "device_session"];
/** Columns that are neither exported nor imported: secrets, accounts of this server, and a deletion that was asked for here. */
export const OMITTED_COLUMNS: Readonly<Record<string, readonly string[]>> = {
  member: ["account_id", "pin_hash"],
  planning_settings: ["calendar_key"],
  workshop: ["leaves_at"],
};

/** The tables of a workshop with the columns that are exported, the workshop's own first. What the database numbers itself is left out; rows are in its order. */
async function exportedTables(tx: Transaction): Promise<{ name: string; key: string; columns: string[]; order: string[] }[]> {
  const { rows } = await tx.execute<{ name: string; key: string; columns: string[]; order: string[] }>(sql`
    select c.relname as name, k.attname as key,
      (select json_agg(a.attname order by a.attnum) from pg_attribute a
        where a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped and a.attidentity = '' and a.attgenerated = '') as columns,
      coalesce((select json_agg(a.attname) from pg_attribute a where a.attrelid = c.oid and a.attidentity <> ''),
        (select json_agg(a.attname order by array_position(i.indkey::int2[], a.attnum)) from pg_index i
          join pg_attribute a on a.attrelid = c.oid and a.attnum = any(i.indkey) where i.indrelid = c.oid and i.indisprimary)) as "order"
    from pg_class c join pg_attribute k on k.attrelid = c.oid and k.attname = case when c.relname = 'workshop' then 'id' else 'workshop_id' end
    where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') order by c.relname <> 'workshop', c.relname`);
  return rows.flatMap(({ name, columns, ...rest }) =>
    OMITTED_TABLES.includes(name) ? [] : [{ ...rest, name, columns: columns.filter((column) => !OMITTED_COLUMNS[name]?.includes(column)) }],
  );
}

/**
 * Returns the lines of a workshop's export, each of JSON: first what it is, then `{"table":…,"row":…}` for each row, all as it stood at one moment, and last
 * `{"end":true,"rows":…}`, by which one knows that the file is whole.
 */
async function* exportLines(tx: Transaction, workshopId: string, now: string): AsyncGenerator<string> {
  yield `${JSON.stringify({ format: EXPORT_FORMAT, version: EXPORT_VERSION, schema: SCHEMA_VERSION, at: now, workshop: workshopId })}\n`;
  let count = 0;
  for (const { name, key, columns, order } of await exportedTables(tx)) {
    const list = (names: readonly string[]) =>
      sql.join(
        names.map((column) => sql.identifier(column)),
        sql`, `,
      );
    await tx.execute(
      sql`declare exported no scroll cursor for
        select to_jsonb(r)::text as row from (select ${list(columns)} from ${sql.identifier(name)} where ${sql.identifier(key)} = ${workshopId} order by ${list(order)}) r`,
    );
    for (;;) {
      const { rows } = await tx.execute<{ row: string }>(sql.raw(`fetch ${ROWS_AT_ONCE} from exported`));
      count += rows.length;
      if (rows.length > 0) yield rows.map(({ row }) => `{"table":${JSON.stringify(name)},"row":${row}}\n`).join("");
      if (rows.length < ROWS_AT_ONCE) break;
    }
    await tx.execute(sql`close exported`);
  }
  yield `${JSON.stringify({ end: true, rows: count })}\n`;
}

/**
 * Returns everything that is kept of a workshop, compressed with gzip, and how many bytes that is. It is written to a file first: a client may take it as
 * slowly as it likes without holding up the database. The file goes as soon as it is opened for sending.
 */
export async function exportWorkshop(db: Database, workshopId: string, now: string): Promise<{ body: ReadableStream<Uint8Array>; bytes: number }> {
  const folder = await mkdtemp(join(tmpdir(), "hearth-export-"));
  try {
    const path = join(folder, "workshop.ndjson.gz");
    const written = await open(path, "wx", 0o600);
    await atOneMoment(db, (tx) => pipeline(exportLines(tx, workshopId, now), createGzip(), written.createWriteStream()));
    const { size } = await stat(path);
    const file = await open(path, "r");
    return { body: Readable.toWeb(file.createReadStream()) as ReadableStream<Uint8Array>, bytes: size };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
