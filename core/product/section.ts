/** Inner measures of a vessel in any one unit of length: straight or tapered, or a bowl (a segment of a sphere, `top` its rim). */
export interface Inner {
  top: number;
  bottom: number;
  height: number;
  shape?: "straight" | "bowl";
}

/** Returns the inner measures of a container in millimeters. */
export const innerOf = (container: { innerTopUm: number; innerBottomUm: number; heightUm: number; shape?: "straight" | "bowl" | undefined }): Inner => ({
  top: container.innerTopUm / 1_000,
  bottom: container.innerBottomUm / 1_000,
  height: container.heightUm / 1_000,
  shape: container.shape ?? ("straight" as const),
});

/** Volume of a segment of a sphere up to a level above its lowest point: π h² (3 R − h) / 3. Any geometry handbook. */
export function bowlVolume(diameter: number, depth: number, level: number): number {
  const radius = ((diameter / 2) ** 2 + depth * depth) / (2 * depth);
  return (Math.PI * level * level * (3 * radius - level)) / 3;
}

/** Inner diameter at a level above the bottom. */
export function diameterAt(inner: Inner, level: number): number {
  if (inner.shape !== "bowl") return inner.bottom + (inner.top - inner.bottom) * (level / inner.height);
  const radius = ((inner.top / 2) ** 2 + inner.height * inner.height) / (2 * inner.height);
  return 2 * Math.sqrt(Math.max(0, 2 * radius * level - level * level));
}

/** Volume up to a level. A frustum of a cone: π h (r₁² + r₁ r₂ + r₂²) / 3, closed form, any geometry handbook. */
export function volumeTo(inner: Inner, level: number): number {
  if (inner.shape === "bowl") return bowlVolume(inner.top, inner.height, level);
  const bottom = inner.bottom / 2;
  const at = bottom + ((inner.top - inner.bottom) / 2) * (level / inner.height);
  return (Math.PI * level * (bottom * bottom + bottom * at + at * at)) / 3;
}

/** Returns the level that a volume reaches, found by halving; never above the rim. Units as the measures. */
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
