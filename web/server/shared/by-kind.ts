import type { Shelf } from "@/server/inventory/shelf";

/** The rows of the shelf by the kind of thing they are. */
export const byKind = (shelf: Shelf) => ({
  wax: shelf.waxes,
  fragrance: shelf.fragrances,
  dye: shelf.dyes,
  additive: shelf.additives,
  wick: shelf.wicks,
  vessel: shelf.vessels,
  mold: shelf.molds,
  embed: shelf.embeds,
  pack: shelf.packs,
  instrument: shelf.instruments,
});
