import { pathRound } from "d3-path";

/** The path of a straight line through points, in px to a thousandth; empty where there is none. */
export function through(points: readonly (readonly [x: number, y: number])[]): string {
  const path = pathRound(3);
  points.forEach(([x, y], at) => {
    if (at === 0) path.moveTo(x, y);
    else path.lineTo(x, y);
  });
  return path.toString();
}
