import type { Description } from "@hearth/core";

type Tone = NonNullable<Description["tone"]>;
/** Few colors with fixed meanings, and a sign for each: never color alone. */
export const SIGN: Record<Tone, string> = { ink: "", inside: "✓ ", hot: "▲ ", cool: "▼ ", safety: "⚠ " };
export const TONE: Record<Tone, string> = { ink: "text-ink", inside: "text-inside", hot: "text-hot", cool: "text-cool", safety: "text-safety" };
