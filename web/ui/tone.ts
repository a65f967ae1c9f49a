import { type Description, rangeStatus, type TemperatureRange } from "@hearth/core";

type Tone = NonNullable<Description["tone"]>;
/** Few colors with fixed meanings, and a sign for each: never color alone. */
export const SIGN: Record<Tone, string> = { ink: "", inside: "✓ ", hot: "▲ ", cool: "▼ ", safety: "⚠ " };
export const TONE: Record<Tone, string> = { ink: "text-ink", inside: "text-inside", hot: "text-hot", cool: "text-cool", safety: "text-safety" };

/** Returns the tone of a temperature in hundredths of °C beside the range it was meant for; plain ink where it was meant for none. */
export const toneOf = (celsius: number, range: TemperatureRange | null): "ink" | "inside" | "hot" | "cool" => {
  if (!range) return "ink";
  const at = rangeStatus(celsius, range);
  return at.is === "inside" ? "inside" : at.is === "above" ? "hot" : "cool";
};
