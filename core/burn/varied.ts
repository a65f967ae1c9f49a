/** What a trial varies: one of these, the rest held. */
export const VARIED = ["wick kind", "wick size", "load", "blend", "additive", "dye", "wax", "scent", "vessel"] as const;
export type Varied = (typeof VARIED)[number];

/** What is varied in steps of an amount: a load, the share of a second wax, the dose of an additive or of a dye. */
export const LADDERS = ["load", "blend", "additive", "dye"] as const;
export type Ladder = (typeof LADDERS)[number];
export const isLadder = (varies: Varied | null): varies is Ladder => (LADDERS as readonly (Varied | null)[]).includes(varies);
