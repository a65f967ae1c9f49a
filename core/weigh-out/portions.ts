import type { Milligrams } from "../units/mass";
import { onScale } from "./increments";

/**
 * Returns a weight in parts that a small scale can take, each beside its container, as even as the scale's marks allow.
 * The parts sum to the weight. Common practice, no source.
 * @param capacityMg what the scale takes at most; @param tareMg the container that stands on it.
 * @throws RangeError if the container alone is nearly too much.
 */
export function portionsFor(mg: Milligrams, capacityMg: Milligrams, tareMg: Milligrams, resolutionUg: number): Milligrams[] {
  const room = capacityMg - tareMg;
  if (room < 1_000) throw new RangeError("The container alone is as heavy as the scale can take: use a lighter one.");
  if (mg <= room) return [mg];
  for (let count = Math.ceil(mg / room); count <= 10_000; count++) {
    const each = onScale(mg / count, resolutionUg, true);
    const rest = mg - each * (count - 1);
    if (each <= room && rest > 0) return [...new Array<number>(count - 1).fill(each), rest];
    const even = Math.ceil(mg / count);
    if (even <= room) return [...new Array<number>(count - 1).fill(even), mg - even * (count - 1)];
  }
  throw new RangeError("More than 10 000 parts: use a larger scale.");
}
