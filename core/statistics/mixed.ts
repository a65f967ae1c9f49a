import { grouped } from "../grouped";
import { cholesky, inverted } from "./linear";

/** One value with what it stands for: its columns of what is compared, and the group whose own level is taken out. */
export interface Observed {
  x: readonly number[];
  y: number;
  group: string;
}

/** Several values with the same columns and group: how many, their sum and the sum of their squares. */
export interface ObservedCell {
  x: readonly number[];
  group: string;
  n: number;
  sum: number;
  squares: number;
}

export interface Mixed {
  /** Of each column of x. */
  coefficients: number[];
  covariance: number[][];
  /** Variance within groups, and between their levels. */
  residual: number;
  between: number;
  /** Degrees of freedom that the values leave once the columns and the groups' levels are taken. */
  df: number;
  levels: Map<string, number>;
}

interface Sums {
  n: number;
  xx: number[][];
  x: number[];
  xy: number[];
  y: number;
  yy: number;
}

function sumsOf(cells: readonly ObservedCell[], p: number): Sums {
  const out: Sums = {
    n: 0,
    xx: Array.from({ length: p }, () => new Array<number>(p).fill(0)),
    x: new Array<number>(p).fill(0),
    xy: new Array<number>(p).fill(0),
    y: 0,
    yy: 0,
  };
  for (const { x, n, sum, squares } of cells) {
    for (let i = 0; i < p; i++) {
      const xi = x[i] as number;
      out.x[i] = (out.x[i] as number) + n * xi;
      out.xy[i] = (out.xy[i] as number) + xi * sum;
      for (let j = 0; j < p; j++) (out.xx[i] as number[])[j] = (out.xx[i]?.[j] as number) + n * xi * (x[j] as number);
    }
    out.n += n;
    out.y += sum;
    out.yy += squares;
  }
  return out;
}

/**
 * Returns a linear model with a level of its own for each group (a random intercept), by restricted maximum likelihood: the share
 * of the variance that lies between groups is found along its one dimension. Laird & Ware 1982; the profile is that of any
 * handbook of mixed models. Checked against statsmodels' MixedLM. Null if the columns cannot be told apart, or nothing
 * is left to judge by.
 */
export function mixed(rows: readonly Observed[]): Mixed | null {
  return mixedOfCells(rows.map(({ x, y, group }) => ({ x, group, n: 1, sum: y, squares: y * y })));
}

/** Returns the model of `mixed` where values that share columns and group were summed up before. */
export function mixedOfCells(cells: readonly ObservedCell[]): Mixed | null {
  const p = cells[0]?.x.length ?? 0;
  const groups = [...grouped(cells, (cell) => cell.group)].map(([name, list]) => ({ name, ...sumsOf(list, p) }));
  const n = groups.reduce((sum, group) => sum + group.n, 0);
  const df = n - p - (groups.length - 1);
  if (p === 0 || df < 1) return null;
  /** The fit where the variance between is `ratio` times that within. */
  const at = (ratio: number) => {
    const xx = Array.from({ length: p }, () => new Array<number>(p).fill(0));
    const xy = new Array<number>(p).fill(0);
    let yy = 0;
    let logV = 0;
    for (const group of groups) {
      const pull = ratio / (1 + ratio * group.n);
      logV += Math.log1p(ratio * group.n);
      for (let i = 0; i < p; i++) {
        xy[i] = (xy[i] as number) + (group.xy[i] as number) - pull * (group.x[i] as number) * group.y;
        for (let j = 0; j < p; j++)
          (xx[i] as number[])[j] = (xx[i]?.[j] as number) + (group.xx[i]?.[j] as number) - pull * (group.x[i] as number) * (group.x[j] as number);
      }
      yy += group.yy - pull * group.y * group.y;
    }
    const l = cholesky(xx);
    if (!l) return null;
    const { inverse, logDet } = inverted(l);
    const b = inverse.map((row) => row.reduce((sum, value, j) => sum + value * (xy[j] as number), 0));
    const rest = Math.max(0, yy - b.reduce((sum, value, i) => sum + value * (xy[i] as number), 0));
    const variance = rest / (n - p);
    return { ratio, b, inverse, variance, minus: (n - p) * Math.log(Math.max(variance, 1e-12)) + logV + logDet };
  };
  // Golden section along the logarithm of the ratio, and none at all beside it.
  const golden = (Math.sqrt(5) - 1) / 2;
  let [low, high] = [-9, 9];
  const value = (log: number) => at(Math.exp(log))?.minus ?? Number.POSITIVE_INFINITY;
  let [c, d] = [high - golden * (high - low), low + golden * (high - low)];
  let [fc, fd] = [value(c), value(d)];
  for (let round = 0; round < 120 && high - low > 1e-9; round++) {
    if (fc <= fd) {
      [high, d, fd] = [d, c, fc];
      c = high - golden * (high - low);
      fc = value(c);
    } else {
      [low, c, fc] = [c, d, fd];
      d = low + golden * (high - low);
      fd = value(d);
    }
  }
  const [none, best] = [at(0), at(Math.exp((low + high) / 2))];
  if (!none || !best) return null;
  const found = groups.length < 2 || none.minus <= best.minus ? none : best;
  const levels = new Map(
    groups.map((group) => {
      const rest = group.y - found.b.reduce((sum, b, i) => sum + b * (group.x[i] as number), 0);
      return [group.name, (found.ratio / (1 + found.ratio * group.n)) * rest];
    }),
  );
  return {
    coefficients: found.b,
    covariance: found.inverse.map((row) => row.map((value) => value * found.variance)),
    residual: found.variance,
    between: found.variance * found.ratio,
    df,
    levels,
  };
}
