/** The lower triangle L of a symmetric positive definite matrix with L Lᵀ = a (Cholesky); null if it is none, or nearly singular. */
export function cholesky(a: readonly (readonly number[])[]): number[][] | null {
  const n = a.length;
  const l = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++) {
    const row = l[i] as number[];
    for (let j = 0; j <= i; j++) {
      const other = l[j] as number[];
      let sum = a[i]?.[j] ?? 0;
      for (let k = 0; k < j; k++) sum -= (row[k] as number) * (other[k] as number);
      if (i === j) {
        if (!(sum > 1e-10 * Math.max(1, a[i]?.[i] ?? 0))) return null;
        row[i] = Math.sqrt(sum);
      } else row[j] = sum / (other[j] as number);
    }
  }
  return l;
}

/** Returns the inverse of L Lᵀ, and the logarithm of its determinant. */
export function inverted(l: readonly (readonly number[])[]): { inverse: number[][]; logDet: number } {
  const n = l.length;
  const inverse = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let column = 0; column < n; column++) {
    const y = new Array<number>(n).fill(0);
    for (let i = 0; i < n; i++) {
      let sum = i === column ? 1 : 0;
      for (let k = 0; k < i; k++) sum -= (l[i]?.[k] as number) * (y[k] as number);
      y[i] = sum / (l[i]?.[i] as number);
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = y[i] as number;
      for (let k = i + 1; k < n; k++) sum -= (l[k]?.[i] as number) * (inverse[k]?.[column] as number);
      (inverse[i] as number[])[column] = sum / (l[i]?.[i] as number);
    }
  }
  return { inverse, logDet: 2 * l.reduce((sum, row, at) => sum + Math.log(row[at] as number), 0) };
}
