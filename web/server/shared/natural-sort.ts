import { type SQL, sql } from "drizzle-orm";
import type { AnyPgColumn } from "drizzle-orm/pg-core";

/** Returns orders by a name as people do: "8 oz jar" before "12 oz jar", whatever the capitals. */
export const naturalSort = (column: AnyPgColumn): SQL => sql`${column} collate natural_order`;

/** Returns the letters looked for, as a pattern that means just them. */
export const containing = (text: string): string => `%${text.trim().replace(/[\\%_]/g, (text) => `\\${text}`)}%`;
