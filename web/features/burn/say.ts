import type { Span } from "@hearth/core";
import type { Formats } from "@/ui/units";

/** "4.1 g (3.7 to 4.5)". */
export const sayRate = (units: Formats, rate: Span | null): string => {
  if (!rate) return "–";
  const g = (value: number) => units.about(Math.round(value * 1_000));
  return `${g(rate.value)} (${g(rate.low).replace(/ .*$/, "")} to ${g(rate.high)})`;
};

/** "about 75 h (69 to 83)". */
export const saySpan = (units: Formats, hours: Span | null): string =>
  hours ? `${units.n(hours.value, 0)} h (${units.n(hours.low, 0)} to ${units.n(hours.high, 0)})` : "–";
