import { bisectRight } from "d3-array";

/** A place in px for each value, in straight stretches from one corner to the next. */
export interface Across {
  (value: number | Date): number;
  /** The values at its two ends. */
  ends: [number, number];
}

/** Values (rising) onto places, as many of each; two or more. What lies outside goes on as the stretch at that end. */
export function across(values: readonly number[], places: readonly number[]): Across {
  const place = (value: number | Date): number => {
    const at = Number(value);
    const part = Math.max(0, Math.min(values.length - 2, bisectRight(values, at) - 1));
    const [from, to] = [values[part] as number, values[part + 1] as number];
    const [low, high] = [places[part] as number, places[part + 1] as number];
    return from === to ? low : low + ((at - from) / (to - from)) * (high - low);
  };
  return Object.assign(place, { ends: [values[0] as number, values.at(-1) as number] as [number, number] });
}
