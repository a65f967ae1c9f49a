import { type AnyColumn, type SQL, sql } from "drizzle-orm";

/** Returns the condition that a column is one of these ids, however many: they are one parameter, where `inArray` has one for each. */
export const amongIds = (column: AnyColumn, ids: readonly string[]): SQL => sql`${column} = any(${`{${ids.join()}}`}::uuid[])`;
