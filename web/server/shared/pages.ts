const PAGE = 25;

/** Where a page begins in a list that is ordered from the newest: after one row, back from another, or at the top where both are null. */
export interface PagePlace<Cursor> {
  after: Cursor | null;
  before: Cursor | null;
}
/** What to read: rows older than a cursor, the newest of them first; or newer, the oldest first; or the newest of all. */
export interface PageRead<Cursor> {
  olderThan?: Cursor;
  newerThan?: Cursor;
}

/** Returns a page of a list, the newest first, and the cursors of the pages before and after it; null where there is none. */
export async function readPage<Row, Cursor>(
  { after, before }: PagePlace<Cursor>,
  cursorOf: (row: Row) => Cursor,
  read: (what: PageRead<Cursor>, most: number) => Promise<Row[]>,
): Promise<{ rows: Row[]; older: Cursor | null; newer: Cursor | null }> {
  const isBack = before !== null && after === null;
  const found = await read(after !== null ? { olderThan: after } : before !== null ? { newerThan: before } : {}, PAGE + 1);
  const rows = isBack ? found.slice(0, PAGE).reverse() : found.slice(0, PAGE);
  const [first, last] = [rows[0], rows.at(-1)];
  const isMore = found.length > PAGE;
  const hasNewer = isBack ? isMore : after !== null && first !== undefined && (await read({ newerThan: cursorOf(first) }, 1)).length > 0;
  return {
    rows,
    older: last !== undefined && (isBack || isMore) ? cursorOf(last) : null,
    newer: first !== undefined && hasNewer ? cursorOf(first) : null,
  };
}

/** A row in a list that is ordered by time and id. */
export interface TimeCursor {
  at: string;
  id: string;
}
const FIRST_ID = "00000000-0000-0000-0000-000000000000";
const writeTimeCursor = ({ at, id }: TimeCursor) => `${new Date(at).toISOString()}_${id}`;
/** Returns a cursor as it stands in an address; null where it is none. */
function readTimeCursor(text: string | undefined): TimeCursor | null {
  const [at, id] = text?.split("_") ?? [];
  return at && id && !Number.isNaN(Date.parse(at)) && /^[0-9a-f-]{36}$/.test(id) ? { at, id } : null;
}
/** Returns the cursor after which a list goes back from a moment. */
export const timeCursorAt = (moment: string): string => writeTimeCursor({ at: moment, id: FIRST_ID });

/** Returns a page of what is ordered by time and id, the newest first, as `readPage`; cursors are given and returned as they stand in an address. */
export async function pageByTime<Row>(
  place: { after?: string | undefined; before?: string | undefined },
  cursorOf: (row: Row) => TimeCursor,
  read: (what: PageRead<TimeCursor>, most: number) => Promise<Row[]>,
): Promise<{ rows: Row[]; older: string | null; newer: string | null }> {
  const { rows, older, newer } = await readPage({ after: readTimeCursor(place.after), before: readTimeCursor(place.before) }, cursorOf, read);
  return { rows, older: older && writeTimeCursor(older), newer: newer && writeTimeCursor(newer) };
}
