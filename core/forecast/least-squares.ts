/** A sum of squares as it was fitted. */
export interface Fitted {
  parameters: number[];
  /** Half the sum is not taken: the plain sum of squared residuals. */
  sumOfSquares: number;
  /** Of the parameters, where residuals are in units of their own spread: the inverse of the normal matrix. */
  covariance: number[][];
  steps: number;
}

/** Solves a symmetric system by Gauss–Jordan with pivots; null if it is singular. Gives the inverse too. */
function inverted(matrix: readonly (readonly number[])[]): number[][] | null {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...Array.from({ length: n }, (_, j) => Number(i === j))]);
  for (let at = 0; at < n; at++) {
    let pivot = at;
    for (let i = at + 1; i < n; i++) if (Math.abs(rows[i]?.[at] ?? 0) > Math.abs(rows[pivot]?.[at] ?? 0)) pivot = i;
    const top = rows[pivot] as number[];
    const by = top[at] as number;
    if (!(Math.abs(by) > 1e-300)) return null;
    [rows[at], rows[pivot]] = [top, rows[at] as number[]];
    for (let j = 0; j < 2 * n; j++) top[j] = (top[j] as number) / by;
    for (let i = 0; i < n; i++) {
      const row = rows[i] as number[];
      const factor = row[at] as number;
      if (i === at || factor === 0) continue;
      for (let j = 0; j < 2 * n; j++) row[j] = (row[j] as number) - factor * (top[j] as number);
    }
  }
  return rows.map((row) => row.slice(n));
}

const sumOf = (residuals: readonly number[]): number => residuals.reduce((sum, value) => sum + value * value, 0);

/** Slopes of the residuals by each parameter, by central differences. */
function slopes(residuals: (p: readonly number[]) => number[], p: readonly number[]): number[][] {
  return p.map((value, index) => {
    const h = Math.max(Math.abs(value), 1e-8) * 1e-6;
    const moved = (by: number) => residuals(p.map((value, n) => (n === index ? value + by : value)));
    const [above, below] = [moved(h), moved(-h)];
    return above.map((value, n) => (value - (below[n] as number)) / (2 * h));
  });
}

/**
 * Returns the parameters at which a sum of squared residuals is least, from a start: Levenberg's and Marquardt's damped Gauss–Newton steps
 * (Marquardt 1963), the damping scaled by the curvature of each parameter.
 * @throws RangeError if the residuals at the start are no numbers.
 */
export function leastSquares(residuals: (parameters: readonly number[]) => number[], start: readonly number[], most = 200): Fitted {
  let p = [...start];
  let at = residuals(p);
  let sum = sumOf(at);
  if (!Number.isFinite(sum)) throw new RangeError("The residuals at the start are no numbers.");
  let damping = 1e-3;
  let steps = 0;
  let jacobian = slopes(residuals, p);
  const normal = () => jacobian.map((a) => jacobian.map((b) => a.reduce((all, value, n) => all + value * (b[n] as number), 0)));
  for (; steps < most; steps++) {
    const matrix = normal();
    const gradient = jacobian.map((a) => a.reduce((all, value, n) => all + value * (at[n] as number), 0));
    let better = false;
    while (damping < 1e12) {
      const damped = matrix.map((row, i) => row.map((value, j) => (i === j ? value * (1 + damping) + 1e-300 : value)));
      const inverse = inverted(damped);
      const next = inverse && p.map((value, i) => value - (inverse[i] as number[]).reduce((all, w, j) => all + w * (gradient[j] as number), 0));
      const there = next ? residuals(next) : null;
      const its = there ? sumOf(there) : Number.NaN;
      if (next && there && its <= sum) {
        const gain = sum - its;
        p = next;
        at = there;
        better = gain > sum * 1e-15;
        sum = its;
        damping = Math.max(1e-12, damping / 10);
        break;
      }
      damping *= 10;
    }
    jacobian = slopes(residuals, p);
    if (!better) break;
  }
  return {
    parameters: p,
    sumOfSquares: sum,
    covariance: inverted(normal()) ?? p.map((_, i) => p.map((__, j) => (i === j ? Number.POSITIVE_INFINITY : 0))),
    steps,
  };
}
