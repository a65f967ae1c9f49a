import type { ShelfKind } from "@hearth/core";
import { additives, dyes, fragrances, instruments, moulds, packs, vessels, waxes, wicks } from "@/data/tables/shelf";

/** The table of each kind of thing; people have none of their own here, since they belong to the workshop. */
export const SHELF_TABLES = {
  wax: waxes,
  fragrance: fragrances,
  dye: dyes,
  additive: additives,
  wick: wicks,
  vessel: vessels,
  mould: moulds,
  pack: packs,
  instrument: instruments,
};

/** Any of them, as far as they are alike: key, name and version. */
export const tableOf = (kind: Exclude<ShelfKind, "person">): typeof waxes => SHELF_TABLES[kind] as unknown as typeof waxes;
