/** Two-sided 95 % of the normal distribution. */
export const Z95 = 1.959963984540054;

/** A share with its likely range. */
export interface Share {
  share: number;
  low: number;
  high: number;
}

/**
 * Returns a proportion with its Wilson score interval (Wilson 1927; as method 3 of Newcombe 1998). `spread` is by how much batches differ from
 * one another more than single jars would (1: not at all): jars of one batch tell less than as many of different ones. @throws RangeError
 */
export function wilson(k: number, n: number, spread = 1, z = Z95): Share {
  if (!(n > 0) || k < 0 || k > n || !(spread >= 1)) throw new RangeError("A proportion has 0 ≤ k ≤ n, n > 0.");
  const share = k / n;
  const size = n / spread;
  const z2 = z * z;
  const middle = (share + z2 / (2 * size)) / (1 + z2 / size);
  const half = (z / (1 + z2 / size)) * Math.sqrt((share * (1 - share)) / size + z2 / (4 * size * size));
  return { share, low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}

/** Holm's step-down adjustment of several p-values (Holm 1979): the chance that even one of the differences claimed is due to chance stays below the level. */
export function holm(ps: readonly number[]): number[] {
  const order = ps.map((p, index) => ({ p, at: index })).sort((a, b) => a.p - b.p);
  const out = ps.map(() => 1);
  let most = 0;
  for (const [rank, { p, at }] of order.entries()) {
    most = Math.max(most, Math.min(1, p * (ps.length - rank)));
    out[at] = most;
  }
  return out;
}
