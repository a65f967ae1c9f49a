/** What a pot is made of. Dyes dosed by drops or pieces are counted, not weighed. */
export const COMPONENT_KINDS = ["wax", "additive", "fragrance", "dye"] as const;
export type ComponentKind = (typeof COMPONENT_KINDS)[number];
