import { type AnyColumn, asc, desc, gt, lt, type SQL } from "drizzle-orm";

const PAGE = 25;

/** The number that a page begins after, or ends before, in a list that is ordered by number, the highest first. */
export interface NumberPage {
  after?: number | undefined;
  before?: number | undefined;
}

/** Returns a page of what is numbered, the highest first, and where the pages beside it begin. `read` gets the further condition, the order and how many rows. */
export async function pageByNumber<R extends { number: number }>(
  column: AnyColumn,
  { after, before }: NumberPage,
  read: (where: SQL | undefined, order: SQL, most: number) => Promise<R[]>,
): Promise<{ rows: R[]; older: string | null; newer: string | null }> {
  const isBack = before !== undefined && after === undefined;
  const where = after !== undefined ? lt(column, after) : before !== undefined ? gt(column, before) : undefined;
  const found = await read(where, isBack ? asc(column) : desc(column), PAGE + 1);
  const rows = isBack ? found.slice(0, PAGE).reverse() : found.slice(0, PAGE);
  const [first, last] = [rows[0], rows.at(-1)];
  const isMore = found.length > PAGE;
  const newerThere = first && (isBack ? isMore : after !== undefined && (await read(gt(column, first.number), asc(column), 1)).length > 0);
  return { rows, older: last && (isBack || isMore) ? String(last.number) : null, newer: first && newerThere ? String(first.number) : null };
}
