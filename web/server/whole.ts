import { sql } from "drizzle-orm";
import { atOneMoment, type Database } from "@/data/client";

/** So many rows are read at once: a workshop of ten years fits no memory. */
const AT_ONCE = 500;
/** What opens a door is not taken along. */
const SECRETS = ["pin_hash", "token_hash", "code_hash", "hash", "calendar_key"];

/** Everything that is kept of a workshop, as lines of JSON: first what it is, then `{"table":…,"row":…}` for each row, all as it stood at one moment. */
export function linesOfWorkshop(db: Database, workshopId: string, now: string): ReadableStream<Uint8Array> {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const writer = writable.getWriter();
  const encoder = new TextEncoder();
  // The reading waits for who takes it; where nobody does any more, it ends.
  const put = (text: string) => writer.write(encoder.encode(text));
  const reading = atOneMoment(db, async (tx) => {
    await put(`${JSON.stringify({ format: "hearth-jar-workshop", version: 1, at: now, workshop: workshopId })}\n`);
    const { rows: tables } = await tx.execute<{ name: string; key: string }>(
      sql`select c.relname as name, a.attname as key from pg_class c
          join pg_attribute a on a.attrelid = c.oid and a.attname = case when c.relname = 'workshop' then 'id' else 'workshop_id' end
          where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') order by c.relname <> 'workshop', c.relname`,
    );
    for (const { name, key } of tables) {
      const row = SECRETS.reduce((one, secret) => sql`${one} - ${secret}::text`, sql`to_jsonb(t)`);
      await tx.execute(
        sql`declare whole no scroll cursor for select (${row})::text as row from ${sql.identifier(name)} t where ${sql.identifier(key)} = ${workshopId}`,
      );
      for (;;) {
        const { rows } = await tx.execute<{ row: string }>(sql.raw(`fetch ${AT_ONCE} from whole`));
        if (rows.length > 0) await put(rows.map((one) => `{"table":${JSON.stringify(name)},"row":${one.row}}\n`).join(""));
        if (rows.length < AT_ONCE) break;
      }
      await tx.execute(sql`close whole`);
    }
  });
  void reading
    .then(
      () => writer.close(),
      (error: unknown) => writer.abort(error),
    )
    .catch(() => undefined);
  return readable;
}
