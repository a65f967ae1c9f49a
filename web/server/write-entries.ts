import type { EventOf, LogFacts } from "@hearth/core";
import { getTableColumns, sql } from "drizzle-orm";
import type { PgTable } from "drizzle-orm/pg-core";
import type { Database, Transaction } from "@/data/client";
import type { Keeper } from "./keeper";
import { telling, tellingWritten } from "./live";
import type { Appended, At, Held, Weighed } from "./weigh";

/** A subject as this process left it, and by what it is told that nobody has touched it since. */
export interface Left<F, C, R> extends Held<F, C, R> {
  /** Which transaction wrote its row, and its newest entry: the first tells of writers beside, the second of a database put back to what it was. */
  mark: string;
  newest: string;
}

/** Columns of a table as statements name them, and rows for them as JSON. */
const columnsOf = (table: PgTable, of?: string[]) => {
  // Places of entries are given by the database.
  const all = Object.entries(getTableColumns(table)).filter(([key, column]) => (of ? of.includes(key) : !column.generatedIdentity));
  return {
    names: sql.raw(all.map(([, column]) => `"${column.name}"`).join(", ")),
    types: sql.raw(all.map(([, column]) => `"${column.name}" ${column.getSQLType()}`).join(", ")),
    toRow: (row: object) => Object.fromEntries(all.map(([key, column]) => [column.name, (row as Record<string, unknown>)[key] ?? null])),
  };
};

/** Writes entries with what their subject's row says then, and tells of them: null, and nothing is written, where the row is not as it was left. */
export async function writeEntries<F extends LogFacts, C, E extends EventOf, R>(
  keeper: Keeper<F, C, E, R>,
  on: Database | Transaction,
  { workshopId, id }: At,
  { row, plan }: Held<F, C, R>,
  { fresh, facts, whole }: Weighed<F, E>,
  left: Left<F, C, R> | null,
): Promise<{ answers: (event: E) => Appended; left: Left<F, C, R> } | null> {
  const { table, rows, what } = keeper;
  const columns = keeper.columns(row, plan, facts);
  const [its, entry] = [columnsOf(rows, Object.keys(columns)), columnsOf(table)];
  const events = fresh.map((event, place) => ({ place, ...entry.toRow(keeper.toRow(workshopId, id, event)) }));
  const own = sql`from ${table} b where b.workshop_id = ${workshopId} and b.${sql.identifier(keeper.of.name)} = ${id}`;
  const asLeft = left
    ? sql` and xmin = ${left.mark}::xid and ${left.newest} = (select b.id ${own} order by b.seq desc limit 1)
        and not exists (select 1 from ${table} b where b.workshop_id = ${workshopId} and b.id = any(${sql.param(fresh.map((event) => event.id))}::uuid[]))`
    : sql``;
  const news = { workshop: workshopId, [what]: id };
  // What only goes on from what was there is told at once; what reaches back is read by the pages anew. The newest is that before this statement.
  const told = whole ? telling(news) : tellingWritten(news, fresh, sql`coalesce((select max(b.seq) ${own}), 0)`, sql`max(seq)`);
  const done = await on.execute<{ mark: string; seqs: string }>(sql`
    with kept as (
      update ${rows} set (${its.names}) = (select ${its.names} from jsonb_to_record(${JSON.stringify(its.toRow(columns))}::jsonb) as it (${its.types}))
      where workshop_id = ${workshopId} and id = ${id}${asLeft} returning xmin::text as mark
    ), written as (
      insert into ${table} (${entry.names})
      select ${entry.names} from kept, jsonb_to_recordset(${JSON.stringify(events)}::jsonb) as sent (place integer, ${entry.types})
      order by place returning seq
    )
    select (select mark from kept) as mark, string_agg(seq::text, ' ' order by seq) as seqs, ${told} as told from written having count(*) > 0`);
  const [one] = done.rows;
  if (!one) return null;
  return {
    answers: (event) => ({ ok: true, repeated: false, seq: Number(one.seqs.split(" ")[fresh.indexOf(event)]) }),
    left: { row: { ...row, ...columns }, plan, facts, mark: one.mark, newest: (fresh.at(-1) as E).id },
  };
}
