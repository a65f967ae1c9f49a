import { tQuantile } from "../statistics/tails";
import type { Milligrams } from "../units/mass";

/** How sure a burn time on a card is: a candle burns so long in eight of ten cases. */
const SURE = 0.8;
/** Where a single test candle was burned, a tenth to either side: common practice, no source. */
const ALONE = 0.1;
/** Wax that stays in a container when it is put out for good: common practice, no source. */
const LEFT = 0.05;

/**
 * Returns how long one candle burns, in hours, by the wax that its test candles burned in an hour: an interval for one more candle (t, n − 1), so that it
 * widens with few test candles. Null if none was burned. @param rates grams an hour, a test candle each
 */
export function burnHours(fillMg: Milligrams, rates: readonly number[]): { low: number; high: number; testCandles: number } | null {
  const n = rates.length;
  if (n === 0) return null;
  const grams = (fillMg / 1_000) * (1 - LEFT);
  const mean = rates.reduce((a, b) => a + b, 0) / n;
  const sd = n > 1 ? Math.sqrt(rates.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (n - 1)) : 0;
  const off = n > 1 ? tQuantile((1 + SURE) / 2, n - 1) * sd * Math.sqrt(1 + 1 / n) : mean * ALONE;
  // A rate cannot be nothing: the longest is said no longer than twice the middle.
  return { low: grams / (mean + off), high: grams / Math.max(mean - off, mean / 2), testCandles: n };
}
