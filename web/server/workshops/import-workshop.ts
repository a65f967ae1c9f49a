import { createReadStream } from "node:fs";
import { open as openFile } from "node:fs/promises";
import { Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGunzip } from "node:zlib";
import { ok, type Result, reject } from "@hearth/core";
import { and, eq, sql } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import { codeOf, type Transaction, tenantDatabase } from "@/data/client";
import { rebuildBatch, rebuildOrder, rebuildTrial } from "@/data/rebuild-state";
import { batches } from "@/data/tables/batch";
import { members } from "@/data/tables/people";
import { orders } from "@/data/tables/sales";
import { trials } from "@/data/tables/trial";
import { people, workshops } from "@/data/tables/workshop";
import { inTransaction } from "@/server/shared/transaction";
import { EXPORT_FORMAT, EXPORT_VERSION, OMITTED_COLUMNS, OMITTED_TABLES, SCHEMA_VERSION } from "./export-workshop";
import { upcastExportLine } from "./upcast-export";

/** The largest export that is read: compressed, uncompressed, and the longest of its lines, in bytes. */
export const MAX_COMPRESSED_BYTES = 4 * 1_024 ** 3;
const MAX_BYTES = 40 * 1_024 ** 3;
const MAX_LINE_BYTES = 256 * 1_024 ** 2;
/** Rows are handed to the database so many at a time, or so many bytes. */
const ROWS_AT_ONCE = 500;
const BYTES_AT_ONCE = 4 * 1_024 ** 2;

const exportHeader = z.object({
  format: z.literal(EXPORT_FORMAT),
  version: z.number().int().min(1),
  /** Not there in the first version. */
  schema: z.number().int().optional(),
  workshop: z.uuid(),
});
const exportEnd = z.object({ end: z.literal(true), rows: z.number().int().min(0) });

const NOT_WHOLE = "This file is incomplete. Download the workshop again, and import that file.";
const NOT_AN_EXPORT = "This file is not a workshop export. Choose a file from “Download everything” under People.";

/** What is wrong with the file, in words for whoever chose it. */
class FileFault extends Error {}

const parsed = <S extends z.ZodType>(schema: S, line: string): z.output<S> | null => {
  try {
    return schema.safeParse(JSON.parse(line)).data ?? null;
  } catch {
    return null;
  }
};

/** Lets through what is no longer than an export can be, and says how much has come. */
function limited(): Transform {
  let total = 0;
  let sinceNewline = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, next) {
      total += chunk.length;
      const newline = chunk.lastIndexOf(10);
      sinceNewline = newline < 0 ? sinceNewline + chunk.length : chunk.length - newline - 1;
      next(total > MAX_BYTES || sinceNewline > MAX_LINE_BYTES ? new FileFault("This file is larger than any export of a workshop.") : null, chunk);
    },
  });
}

async function isCompressed(path: string): Promise<boolean> {
  const file = await openFile(path, "r");
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(2), 0, 2, 0);
    return bytesRead === 2 && buffer[0] === 0x1f && buffer[1] === 0x8b;
  } finally {
    await file.close();
  }
}

/** The lines of a file, compressed or not, one after another; `heard` is told how many bytes of it were read. @throws FileFault if it ends in the middle or is damaged. */
async function* linesOf(path: string, heard: (bytes: number) => void): AsyncGenerator<string> {
  const unpacking = (await isCompressed(path)) ? [createGunzip()] : [];
  const file = createReadStream(path);
  const text = limited();
  // A fault of any of them ends the last one, and with it the loop below.
  void pipeline([file, ...unpacking, text]).catch(() => undefined);
  text.setEncoding("utf8");
  let rest = "";
  try {
    for await (const chunk of text as AsyncIterable<string>) {
      heard(file.bytesRead);
      const lines = (rest + chunk).split("\n");
      rest = lines.pop() ?? "";
      yield* lines.filter(Boolean);
    }
  } catch (error) {
    throw error instanceof FileFault ? error : new FileFault(NOT_WHOLE);
  }
  if (rest) yield rest;
}

/** Puts the rows of a file into the transaction's table `incoming`. @throws FileFault if it is not whole. */
async function stage(tx: Transaction, lines: AsyncIterator<string>, { version, schema = 0 }: { version: number; schema?: number | undefined }): Promise<void> {
  await tx.execute(sql`create temporary table incoming (n bigint generated always as identity, name text, line jsonb) on commit drop`);
  // The function that takes them from there is the owner's.
  await tx.execute(sql`grant select on incoming to public`);
  let waiting: string[] = [];
  let bytes = 0;
  let count = 0;
  const flush = async () => {
    if (waiting.length === 0) return;
    await tx.execute(
      sql`insert into incoming (name, line) select l ->> 'table', l from (select value::jsonb as l from json_array_elements_text(${JSON.stringify(waiting)}::json)) s
          where (l ->> 'table') is null or (l ->> 'table') <> all (${sql.param(OMITTED_TABLES)}::text[])`,
    );
    waiting = [];
    bytes = 0;
  };
  let ended = false;
  for (let next = await lines.next(); !next.done; next = await lines.next()) {
    const line = next.value;
    if (ended) throw new FileFault("This file continues after its end. Download the workshop again, and import that file.");
    const end = line.length < 100 ? parsed(exportEnd, line) : null;
    if (end) {
      if (end.rows !== count) throw new FileFault(`This file says that it holds ${end.rows} rows, and it holds ${count}. Download the workshop again.`);
      ended = true;
      continue;
    }
    const upcast = upcastExportLine(line, schema);
    count += 1;
    bytes += upcast.length;
    waiting.push(upcast);
    if (waiting.length >= ROWS_AT_ONCE || bytes >= BYTES_AT_ONCE) await flush();
  }
  await flush();
  if (!ended && version > 1) throw new FileFault(NOT_WHOLE);
}

/** What was worked out and kept beside the logs is never taken on trust: it is recalculated from them. */
async function rebuildState(tx: Transaction, workshopId: string, heard: (share: number) => void): Promise<void> {
  const idsIn = (table: typeof batches | typeof trials | typeof orders) =>
    tx
      .select({ id: table.id })
      .from(table as typeof batches)
      .where(eq(table.workshopId, workshopId));
  const rebuilds = [
    ...(await idsIn(batches)).map(
      ({ id }) =>
        () =>
          rebuildBatch(tx, workshopId, id),
    ),
    ...(await idsIn(trials)).map(
      ({ id }) =>
        () =>
          rebuildTrial(tx, workshopId, id),
    ),
    ...(await idsIn(orders)).map(
      ({ id }) =>
        () =>
          rebuildOrder(tx, workshopId, id),
    ),
  ];
  for (const [index, rebuild] of rebuilds.entries()) {
    await rebuild();
    heard((index + 1) / rebuilds.length);
  }
}

/** Makes the account that read a workshop its owner: as the owner of that name among its people, or as somebody new. */
async function takeOwnership(tx: Transaction, workshopId: string, account: { id: string; name: string }): Promise<void> {
  const [owner] = await tx
    .select({ personId: members.personId })
    .from(members)
    .innerJoin(people, and(eq(people.workshopId, members.workshopId), eq(people.id, members.personId)))
    .where(and(eq(members.workshopId, workshopId), eq(members.role, "owner"), sql`lower(${people.name}) = lower(${account.name})`));
  if (owner) {
    await tx
      .update(members)
      .set({ accountId: account.id })
      .where(and(eq(members.workshopId, workshopId), eq(members.personId, owner.personId)));
    return;
  }
  const named = await tx
    .select({ name: sql<string>`lower(${people.name})` })
    .from(people)
    .where(eq(people.workshopId, workshopId));
  const isTaken = named.some((item) => item.name === account.name.toLowerCase());
  const personId = v7();
  await tx.insert(people).values({ workshopId, id: personId, name: isTaken ? `${account.name} (new account)` : account.name });
  await tx.insert(members).values({ workshopId, personId, role: "owner", accountId: account.id });
}

/**
 * Reads a whole workshop from the file of its export, all or nothing, under the id that it had. `heard` is told what share of the work is done, from 0 to 1.
 * Accounts, PINs, devices and invitations do not come with it: people come with their roles, and `account` becomes its owner. `open` gives
 * the database as that workshop sees it.
 */
export async function importWorkshop(
  path: string,
  bytes: number,
  account: { id: string; name: string } | null,
  heard: (share: number) => void,
  open: typeof tenantDatabase = tenantDatabase,
): Promise<Result<{ id: string; name: string }>> {
  // Reading the rows, putting them in, and working out what follows from them take about as long.
  const lines = linesOf(path, (read) => heard((read / Math.max(1, bytes)) * 0.4));
  try {
    const first = await lines.next();
    const header = first.done ? null : parsed(exportHeader, first.value);
    if (!header) return reject(NOT_AN_EXPORT);
    if (header.version > EXPORT_VERSION || (header.schema ?? 0) > SCHEMA_VERSION)
      return reject("This file was written by a newer Hearth Jar. Update this one first.");
    const workshopId = header.workshop;
    const db = open(workshopId, { through: account ? "an account" : "this machine" });
    const [existing] = await db.select({ name: workshops.name }).from(workshops).where(eq(workshops.id, workshopId));
    // Its name is not told: whoever has the file need not be a member.
    if (existing) return reject("The workshop of this file is on this server already. Nothing was changed.");
    return await inTransaction(db, async (tx) => {
      await tx.execute(sql`set local statement_timeout to 0`);
      await stage(tx, lines, header);
      heard(0.4);
      await tx.execute(sql`select import_workshop(${workshopId}, ${JSON.stringify(OMITTED_COLUMNS)}::jsonb)`);
      heard(0.6);
      await rebuildState(tx, workshopId, (share) => heard(0.6 + share * 0.4));
      heard(1);
      if (account) await takeOwnership(tx, workshopId, account);
      const [workshop] = await tx.select({ id: workshops.id, name: workshops.name }).from(workshops).where(eq(workshops.id, workshopId));
      return workshop ? ok(workshop) : reject(NOT_AN_EXPORT);
    });
  } catch (error) {
    if (error instanceof FileFault) return reject(error.message);
    // What the tables do not take: a rule broken, a value that is none, a line that is no JSON, or what the function refuses.
    if (/^(22|23|P0001)/.test(codeOf(error))) return reject(`This file is inconsistent: ${messageOf(error)}. Nothing was imported.`);
    throw error;
  } finally {
    await lines.return?.(undefined);
  }
}

/** Returns the words of the database. */
function messageOf(error: unknown): string {
  let at = error as { cause?: unknown; message?: string; code?: string };
  while (at.cause && !at.code) at = at.cause as typeof at;
  return at.message ?? "";
}
