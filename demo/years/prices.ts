/** Prices of long ago are at least this share of those of today. */
const MIN_SHARE = 0.4;

/** Returns what something cost so many days ago as a share of today's, where it rose by this share of today's a year. */
export const shareOfToday = (daysBefore: number, yearlyRise: number): number => Math.max(MIN_SHARE, 1 - (daysBefore / 365) * yearlyRise);
