/** Inner measures of a vessel that is round and straight-sided or tapered, in any one unit of length. */
export interface Inner {
  top: number;
  bottom: number;
  height: number;
}

/** Volume of a frustum of a cone up to a level: π h (r₁² + r₁ r₂ + r₂²) / 3. Closed form, any geometry handbook. */
export function volumeTo(inner: Inner, level: number): number {
  const bottom = inner.bottom / 2;
  const at = bottom + ((inner.top - inner.bottom) / 2) * (level / inner.height);
  return (Math.PI * level * (bottom * bottom + bottom * at + at * at)) / 3;
}

/** The level that a volume reaches, found by halving; never above the rim. Units as the measures. */
export function levelFor(inner: Inner, volume: number): number {
  let low = 0;
  let high = inner.height;
  if (volume >= volumeTo(inner, high)) return high;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (volumeTo(inner, middle) < volume) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
