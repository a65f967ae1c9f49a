/** Of a normal distribution, four fifths lie within so many standard deviations (tables; 1.2816). */
const FOUR_FIFTHS = 1.2816;

/**
 * Half of the 80 % interval of a time that follows from fitted parameters: what their covariance leaves open, carried on along the
 * slopes of the time by each of them, and `off` beside it, by which no pot follows its law; in the unit of the time.
 */
export function halfInterval(
  timeOf: (parameters: readonly number[]) => number | null,
  p: readonly number[],
  covariance: readonly number[][],
  off: number,
): number {
  const here = timeOf(p) ?? 0;
  const slopes = p.map((value, n) => {
    const h = Math.max(1e-6, Math.abs(value) * 1e-5);
    const moved = (by: number) => timeOf(p.map((one, m) => (m === n ? one + by : one))) ?? here;
    return (moved(h) - moved(-h)) / (2 * h);
  });
  const variance = slopes.reduce((sum, a, i) => sum + slopes.reduce((all, b, j) => all + a * b * (covariance[i]?.[j] ?? 0), 0), 0);
  return FOUR_FIFTHS * Math.sqrt(Math.max(0, variance) + off ** 2);
}
