/** ln Γ by Lanczos' series (Press et al., Numerical Recipes, 6.1; coefficients from memory, checked in the tests). */
const LANCZOS = [76.18009172947146, -86.50532032941678, 24.01409824083091, -1.231739572450155, 0.1208650973866179e-2, -0.5395239384953e-5];
function lnGamma(x: number): number {
  const base = x + 5.5 - (x + 0.5) * Math.log(x + 5.5);
  const series = LANCZOS.reduce((sum, value, at) => sum + value / (x + 1 + at), 1.000000000190015);
  return -base + Math.log((Math.sqrt(2 * Math.PI) * series) / x);
}

/** Returns the regularised incomplete beta function, by Lentz's continued fraction (Abramowitz & Stegun 26.5.8). */
function betaShare(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - betaShare(1 - x, b, a);
  const front = Math.exp(lnGamma(a + b) - lnGamma(a) - lnGamma(b) + a * Math.log(x) + b * Math.log1p(-x)) / a;
  let c = 1;
  let d = 1 / (1 - ((a + b) * x) / (a + 1) || 1e-300);
  let h = d;
  for (let m = 1; m < 2_000; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / (1 + even * d || 1e-300);
    c = 1 + even / c || 1e-300;
    h *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / (1 + odd * d || 1e-300);
    c = 1 + odd / c || 1e-300;
    h *= d * c;
    if (Math.abs(d * c - 1) < 1e-14) break;
  }
  return front * h;
}

/** Returns how likely an F of this size or more is by chance. @throws RangeError for degrees of freedom that are not above 0 */
export function fTail(f: number, df1: number, df2: number): number {
  if (!(df1 > 0) || !(df2 > 0)) throw new RangeError("Degrees of freedom are above 0.");
  return f > 0 ? betaShare(df2 / (df2 + df1 * f), df2 / 2, df1 / 2) : 1;
}

/** Returns the share of a standard normal distribution below z: its series near the middle, a continued fraction further out (Abramowitz & Stegun 26.2.11 and 26.2.14). */
export function normalBelow(z: number): number {
  const density = Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);
  if (Math.abs(z) < 3) {
    let [term, sum] = [z, z];
    for (let k = 3; Math.abs(term) > 1e-17 && k < 200; k += 2) {
      term *= (z * z) / k;
      sum += term;
    }
    return 0.5 + density * sum;
  }
  let fraction = 0;
  for (let k = 60; k > 0; k--) fraction = k / (Math.abs(z) + fraction);
  const tail = density / (Math.abs(z) + fraction);
  return z < 0 ? tail : 1 - tail;
}

/** The same few are asked for again and again. */
const quantiles = new Map<string, number>();
const MAX_KEPT = 1_000;

/** Returns the value that Student's t with so many degrees of freedom stays below in a share of cases. */
export function tQuantile(share: number, df: number): number {
  const key = `${share} ${df}`;
  const kept = quantiles.get(key);
  if (kept !== undefined) return kept;
  const tail = 2 * (1 - share);
  let [low, high] = [0, 1];
  while (fTail(high * high, 1, df) > tail) high *= 2;
  for (let n = 0; n < 200 && high - low > 1e-12 * high; n++) {
    const middle = (low + high) / 2;
    if (fTail(middle * middle, 1, df) > tail) low = middle;
    else high = middle;
  }
  const found = (low + high) / 2;
  if (quantiles.size < MAX_KEPT) quantiles.set(key, found);
  return found;
}
