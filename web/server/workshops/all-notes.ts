import type { NoteSubject } from "@hearth/core";
import { type SQL, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { ALL_TIME, type Period, within } from "@/server/http/period";
import { SHELF_TABLES } from "@/server/inventory/tables";
import { containing } from "@/server/shared/natural-sort";
import { pageByTime } from "@/server/shared/pages";

/** A note with what it is about. */
export interface NoteListed {
  id: string;
  kind: NoteSubject;
  ofId: string;
  /** The name of what it is about; of a batch its number. */
  of: string;
  text: string;
  at: string;
  by: string | null;
}

/** What notes can be asked for by. */
export interface NotesAsked {
  /** Words in it. */
  q?: string | undefined;
  kind?: NoteSubject | undefined;
  /** Who wrote it. */
  by?: string | undefined;
  period?: Period;
  /** The last note of the page before, or the first of the page after. */
  after?: string | undefined;
  before?: string | undefined;
}

/**
 * Notes that stand: of the notebook, and of the logs of batches, where a later entry can have corrected or deleted one. A deletion that was
 * itself deleted, and a correction that was undone, do not count. Corrections are few and are read once, before the notes: as a join inside
 * a join, a database that has no statistics of the workshop yet read the whole log again for each note.
 */
const standing = (workshopId: string) => sql`
  with correction as materialized (
    select id, corrects, kind, payload ->> 'mode' as mode from batch_event where workshop_id = ${workshopId} and corrects is not null
  ), undone as materialized (
    select d.corrects as id from correction d join correction c on c.id = d.corrects
    where d.kind = 'withdrawn' and (c.kind = 'withdrawn' or d.mode = 'undo')
  )
  select id, kind, of_id, text, at, person_id from note where workshop_id = ${workshopId} and not deleted
  union all
  select e.id, 'batch', e.batch_id, e.payload ->> 'text', e.happened_at, e.person_id from batch_event e
  where e.workshop_id = ${workshopId} and e.kind = 'note'
    and e.id not in (select corrects from correction where id not in (select id from undone))`;

const matching = (workshopId: string, { q, kind, by, period = ALL_TIME }: NotesAsked): SQL => sql`
  from (${standing(workshopId)}) n where ${q ? sql`n.text ilike ${containing(q)}` : sql`true`} and ${kind ? sql`n.kind = ${kind}` : sql`true`}
    and ${by ? sql`n.person_id = ${by}::uuid` : sql`true`} and ${within(period, sql`n.at`)}`;

/** Returns how many notes there are of what is asked for. */
export async function countNotes(db: Database, workshopId: string, asked: NotesAsked): Promise<number> {
  const { rows } = await db.execute<{ n: number }>(sql`select count(*)::int n ${matching(workshopId, asked)}`);
  return rows[0]?.n ?? 0;
}

/** Returns notes of what is asked for, the newest first, at most `most`; with `before` those right after it, the oldest first. */
async function readNotes(db: Database, workshopId: string, asked: NotesAsked, most: number, cursor: SQL = sql`true`, isBack = false): Promise<NoteListed[]> {
  const order = isBack ? sql`asc` : sql`desc`;
  const names = sql.join(
    [...Object.values(SHELF_TABLES), sql.identifier("formula"), sql.identifier("product"), sql.identifier("trial")].map(
      (table) => sql`select id, name from ${table} where workshop_id = ${workshopId}`,
    ),
    sql` union all `,
  );
  const { rows } = await db.execute<{ id: string; kind: NoteSubject; of_id: string; of: string | null; text: string; at: string; by: string | null }>(sql`
    with page as (select n.* ${matching(workshopId, asked)} and ${cursor} order by n.at ${order}, n.id ${order} limit ${most})
    select page.id::text, page.kind, page.of_id::text, page.text, page.at, p.name as by, coalesce('batch ' || b.number, s.name) as of
    from page left join person p on p.workshop_id = ${workshopId} and p.id = page.person_id
      left join batch b on page.kind = 'batch' and b.workshop_id = ${workshopId} and b.id = page.of_id
      left join (${names}) s on s.id = page.of_id
    order by page.at ${order}, page.id ${order}`);
  return rows.map(({ of_id, of, at, ...row }) => ({ ...row, ofId: of_id, of: of ?? "something no longer here", at: new Date(at).toISOString() }));
}

/** Returns the newest notes with these words, at most `most`. */
export const notesWith = (db: Database, workshopId: string, words: string, most: number) => readNotes(db, workshopId, { q: words }, most);

/** Returns a page of the notes, the newest first, and where the pages before and after it begin. */
export async function listNotes(
  db: Database,
  workshopId: string,
  asked: NotesAsked,
): Promise<{ notes: NoteListed[]; older: string | null; newer: string | null }> {
  // A cursor counts milliseconds: so are the notes compared.
  const cursor = sql`(date_trunc('milliseconds', n.at), n.id)`;
  const { rows, older, newer } = await pageByTime<NoteListed>(
    asked,
    ({ at, id }) => ({ at, id }),
    ({ olderThan, newerThan }, most) => {
      const condition = olderThan
        ? sql`${cursor} < (${olderThan.at}::timestamptz, ${olderThan.id}::uuid)`
        : newerThan && sql`${cursor} > (${newerThan.at}::timestamptz, ${newerThan.id}::uuid)`;
      return readNotes(db, workshopId, asked, most, condition, newerThan !== undefined);
    },
  );
  return { notes: rows, older, newer };
}
