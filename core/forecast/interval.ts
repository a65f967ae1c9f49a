/** Of a normal distribution, four fifths lie within so many standard deviations (tables; 1.2816). */
const FOUR_FIFTHS = 1.2816;

/**
 * Returns how far off something may be that follows from fitted parameters: what their covariance leaves open, carried on along its slopes by
 * each of them, and `off` beside it, by which no pot follows its law; a standard deviation in its own unit.
 */
export function standardDeviation(
  follows: (parameters: readonly number[]) => number | null,
  p: readonly number[],
  covariance: readonly number[][],
  off: number,
): number {
  const here = follows(p) ?? 0;
  const slopes = p.map((value, n) => {
    const h = Math.max(1e-6, Math.abs(value) * 1e-5);
    const moved = (by: number) => follows(p.map((value, m) => (m === n ? value + by : value))) ?? here;
    return (moved(h) - moved(-h)) / (2 * h);
  });
  const variance = slopes.reduce((sum, a, i) => sum + slopes.reduce((all, b, j) => all + a * b * (covariance[i]?.[j] ?? 0), 0), 0);
  return Math.sqrt(Math.max(0, variance) + off ** 2);
}

/** Half of the 80 % interval of a time; `off` is a standard deviation. */
export const halfInterval = (...[follows, p, covariance, off]: Parameters<typeof standardDeviation>): number =>
  FOUR_FIFTHS * standardDeviation(follows, p, covariance, off);
