/** What a trial varies: one of these, the rest held. */
export const VARIED = ["wick kind", "wick size", "load", "wax", "scent", "vessel"] as const;
export type Varied = (typeof VARIED)[number];
