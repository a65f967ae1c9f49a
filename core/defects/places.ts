export const PLACES = ["top", "side", "bottom", "wick"] as const;
export type Place = (typeof PLACES)[number];
export const PLACE_WORDS: Record<Place, string> = { top: "top", side: "wall", bottom: "bottom", wick: "wick" };
export const SEVERITIES = ["slight", "clear", "severe"] as const;
export type Severity = (typeof SEVERITIES)[number];

/** The extents of a flaw, as shares of the area of its place. */
export const EXTENTS = ["speck", "patch", "third", "most"] as const;
export type Extent = (typeof EXTENTS)[number];
export const EXTENT_WORDS: Record<Extent, string> = { speck: "a speck", patch: "under 10\u00a0%", third: "10 to 33\u00a0%", most: "over 33\u00a0%" };

export const WALL_SIDES = ["left", "right"] as const;
export const WALL_HEIGHTS = ["high", "middle", "low"] as const;
