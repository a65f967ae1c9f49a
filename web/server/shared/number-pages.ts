import { type AnyColumn, asc, desc, gt, lt, type SQL } from "drizzle-orm";
import { readPage } from "./pages";

/** The number that a page begins after, or ends before, in a list that is ordered by number, the highest first. */
export interface NumberPage {
  after?: number | undefined;
  before?: number | undefined;
}

/** Returns a page of what is numbered, the highest first, and where the pages beside it begin. `read` gets the further condition, the order and how many rows. */
export async function pageByNumber<Row extends { number: number }>(
  column: AnyColumn,
  place: NumberPage,
  read: (where: SQL | undefined, order: SQL, most: number) => Promise<Row[]>,
): Promise<{ rows: Row[]; older: string | null; newer: string | null }> {
  const { rows, older, newer } = await readPage<Row, number>(
    { after: place.after ?? null, before: place.before ?? null },
    (row) => row.number,
    ({ olderThan, newerThan }, most) =>
      newerThan === undefined
        ? read(olderThan === undefined ? undefined : lt(column, olderThan), desc(column), most)
        : read(gt(column, newerThan), asc(column), most),
  );
  return { rows, older: older?.toString() ?? null, newer: newer?.toString() ?? null };
}
