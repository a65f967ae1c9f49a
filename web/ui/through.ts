const rounded = (px: number) => Math.round(px * 1_000) / 1_000;

/** The path of a straight line through points, in px to a thousandth; empty where there is none. */
export const through = (points: readonly (readonly [x: number, y: number])[]): string =>
  points.map(([x, y], at) => `${at === 0 ? "M" : "L"}${rounded(x)},${rounded(y)}`).join("");
