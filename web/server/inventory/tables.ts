import type { ShelfKind } from "@hearth/core";
import type { AnyPgColumn, PgTable } from "drizzle-orm/pg-core";
import { additives, dyes, embeds, fragrances, instruments, molds, packs, vessels, waxes, wicks } from "@/data/tables/shelf";

/** The table of each kind of thing; people have none of their own here, since they belong to the workshop. */
export const SHELF_TABLES = {
  wax: waxes,
  fragrance: fragrances,
  dye: dyes,
  additive: additives,
  wick: wicks,
  vessel: vessels,
  mold: molds,
  embed: embeds,
  pack: packs,
  instrument: instruments,
};

export type TextColumn = AnyPgColumn<{ data: string; notNull: true }>;
/** A table whose rows belong to a workshop and have an id: what every such table has in common. */
export interface OwnedTable extends PgTable {
  workshopId: TextColumn;
  id: TextColumn;
}
/** A table of named things. */
export interface NamedTable extends OwnedTable {
  name: TextColumn;
}
/** A table of things with a name that can be archived; `version` counts their edits. */
export interface ThingTable extends NamedTable {
  archived: AnyPgColumn<{ data: boolean; notNull: true }>;
  version: AnyPgColumn<{ data: number; notNull: true }>;
}

/** A table of things of which stock can be: `low` is the stock, in milligrams or pieces, below which it is low. */
export interface StockedTable extends ThingTable {
  low: AnyPgColumn<{ data: number }>;
}

/** The table of a kind of the shelf, by what all of them have in common. */
export const tableOf = (kind: Exclude<ShelfKind, "person">): ThingTable => SHELF_TABLES[kind];
