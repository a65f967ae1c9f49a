import { z as library } from "zod";

/**
 * What kinds of entries and steps build their schemas with. They are handed it where something is checked, so that what
 * only shows them loads nothing that checks; and it is named piece by piece, so that what does check loads no more than this.
 */
export const z = {
  array: library.array,
  boolean: library.boolean,
  enum: library.enum,
  number: library.number,
  object: library.object,
  record: library.record,
  string: library.string,
  union: library.union,
  uuid: library.uuid,
};
export type Z = typeof z;
