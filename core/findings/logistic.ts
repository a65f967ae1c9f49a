import { fTail, tQuantile } from "../statistics/tails";
import { type BatchSums, effectiveBatches, squaredResiduals } from "./batch-sums";
import { Z95 } from "./proportion";

/** Pieces at one value of what was varied: how many, and how many of them with the flaw; of batches, with their sums. */
export interface Dose extends Partial<BatchSums> {
  x: number;
  n: number;
  k: number;
}

export interface Logistic {
  intercept: number;
  slope: number;
  /** Of intercept and slope. */
  covariance: [[number, number], [number, number]];
  /** How often the odds are multiplied by one more of the unit, with 95 %. */
  odds: { value: number; low: number; high: number };
  /** How likely such a slope is by chance. */
  p: number;
  at: (x: number) => { share: number; low: number; high: number };
}

const sigmoid = (z: number) => 1 / (1 + Math.exp(-z));
/** A slope is drawn towards none by a normal prior of this width, in standard deviations of x (Gelman et al. 2008 use 2.5 too): separated data keep a finite slope. */
const MILD = 2.5;

/** Fewer batches cannot say how they scatter round a curve. */
const MIN_CLUSTERS = 4;

/**
 * Logistic regression of a yes-or-no outcome on one number, by iteratively reweighted least squares with a mild penalty on the slope.
 * `penalty: 0` is maximum likelihood. Where doses give the sums of their batches, the errors are cluster-robust: the sandwich by batch
 * (Liang & Zeger 1986, from memory). The intervals then use t with two less than the effective batches, of which there are no more than
 * pieces with the flaw, or without.
 * Null where x or the outcome never varied. @throws RangeError for counts that cannot be
 */
export function logistic(doses: readonly Dose[], options: { penalty?: number } = {}): Logistic | null {
  const rows = doses.filter((dose) => dose.n > 0);
  if (rows.some((row) => row.k < 0 || row.k > row.n || !Number.isFinite(row.x))) throw new RangeError("A dose has 0 ≤ k ≤ n.");
  const n = rows.reduce((sum, dose) => sum + dose.n, 0);
  const k = rows.reduce((sum, dose) => sum + dose.k, 0);
  if (k === 0 || k === n || new Set(rows.map((row) => row.x)).size < 2) return null;
  const mean = rows.reduce((sum, dose) => sum + dose.n * dose.x, 0) / n;
  const sd = Math.sqrt(rows.reduce((sum, dose) => sum + dose.n * (dose.x - mean) ** 2, 0) / n) || 1;
  const penalty = (options.penalty ?? 1) / MILD ** 2;
  // In standard deviations from the mean, so that the penalty means the same whatever the unit.
  let [a, b] = [Math.log(k / (n - k)), 0];
  let [aa, ab, bb] = [0, 0, 0];
  for (let round = 0; round < 100; round++) {
    let [ga, gb] = [0, -penalty * b];
    [aa, ab, bb] = [0, 0, penalty];
    for (const row of rows) {
      const u = (row.x - mean) / sd;
      const share = sigmoid(a + b * u);
      const weight = row.n * share * (1 - share);
      const rest = row.k - row.n * share;
      ga += rest;
      gb += rest * u;
      aa += weight;
      ab += weight * u;
      bb += weight * u * u;
    }
    const det = aa * bb - ab * ab;
    if (!(det > 1e-12)) return null;
    const [da, db] = [(bb * ga - ab * gb) / det, (aa * gb - ab * ga) / det];
    const damp = Math.min(1, 4 / Math.max(Math.abs(da), Math.abs(db), 1e-12));
    a += da * damp;
    b += db * damp;
    if (Math.abs(da) + Math.abs(db) < 1e-12) break;
  }
  const batches = rows.reduce((sum, dose) => sum + (dose.batches ?? 0), 0);
  const det = aa * bb - ab * ab;
  let [vaa, vab, vbb] = [bb / det, -ab / det, aa / det];
  const clustered = batches >= MIN_CLUSTERS;
  if (clustered) {
    let [m00, m01, m11] = [0, 0, 0];
    for (const { x, kk = 0, kn = 0, nn = 0 } of rows) {
      const u = (x - mean) / sd;
      const apart = squaredResiduals({ kk, kn, nn }, sigmoid(a + b * u));
      m00 += apart;
      m01 += apart * u;
      m11 += apart * u * u;
    }
    const correction = batches / (batches - 1);
    [vaa, vab, vbb] = [
      correction * (vaa * vaa * m00 + 2 * vaa * vab * m01 + vab * vab * m11),
      correction * (vaa * vab * m00 + (vaa * vbb + vab * vab) * m01 + vab * vbb * m11),
      correction * (vab * vab * m00 + 2 * vab * vbb * m01 + vbb * vbb * m11),
    ];
  }
  const slope = b / sd;
  const intercept = a - slope * mean;
  const v11 = vbb / sd ** 2;
  const v01 = vab / sd - mean * v11;
  const v00 = vaa - (2 * mean * vab) / sd + mean ** 2 * v11;
  const se = Math.sqrt(v11);
  const effective = Math.min(effectiveBatches({ n, nn: rows.reduce((sum, dose) => sum + (dose.nn ?? 0), 0) }), k, n - k);
  const df = clustered ? Math.max(1, effective - 2) : n - 2;
  const few = clustered ? Math.sqrt(Math.max(effective, 1) / df) : 1;
  const wide = clustered ? tQuantile(0.975, df) * few : Z95;
  return {
    intercept,
    slope,
    covariance: [
      [v00, v01],
      [v01, v11],
    ],
    odds: { value: Math.exp(slope), low: Math.exp(slope - wide * se), high: Math.exp(slope + wide * se) },
    p: fTail((slope / (se * few)) ** 2, 1, Math.max(1, df)),
    at: (x) => {
      const z = intercept + slope * x;
      const half = wide * Math.sqrt(Math.max(0, v00 + 2 * x * v01 + x * x * v11));
      return { share: sigmoid(z), low: sigmoid(z - half), high: sigmoid(z + half) };
    },
  };
}
