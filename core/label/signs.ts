/** A part of a sign, in a square of 100 by 100: an outline that is filled with black, or a line of so much. */
export interface SignPath {
  d: string;
  fill?: "black" | "white";
  stroke?: number;
}
interface Sign {
  name: string;
  paths: readonly SignPath[];
}
const fill = (d: string): SignPath => ({ d, fill: "black" });
const line = (d: string, stroke: number): SignPath => ({ d, stroke });

/**
 * The signs of hazards, drawn by us as annex V of Regulation (EC) 1272/2008 describes them (from memory): each stands in a square on its
 * tip with a red frame.
 */
export const SIGN_PATHS = {
  GHS05: {
    name: "corrosion",
    paths: [
      // Two tubes that drip, onto a hand and onto a bar.
      line("M26 36 44 29M56 29 74 36", 5),
      fill("M35 40h3v8h-3zM62 40h3v8h-3zM36.5 52l2 5h-4zM63.5 52l2 5h-4z"),
      line("M24 66h24", 5),
      line("M54 68c6-6 14-6 22-3", 5),
      fill("M31 60h3v4h-3zM39 60h3v4h-3zM62 58h3v4h-3zM70 58h3v4h-3z"),
    ],
  },
  GHS06: {
    name: "skull and crossbones",
    paths: [
      fill("M50 24c-12 0-19 8-19 18 0 7 4 11 8 13v7h22v-7c4-2 8-6 8-13 0-10-7-18-19-18z"),
      { d: "M42 38a5 5 0 1 1 0 10 5 5 0 0 1 0-10zM58 38a5 5 0 1 1 0 10 5 5 0 0 1 0-10zM50 49l3 6h-6z", fill: "white" },
      line("M30 66 70 79M70 66 30 79", 5),
    ],
  },
  GHS07: { name: "exclamation mark", paths: [fill("M44 22h12l-3 36h-6z"), fill("M50 64a6 6 0 1 1 0 12 6 6 0 0 1 0-12z")] },
  GHS08: {
    name: "health hazard",
    paths: [
      fill("M50 20a8 8 0 1 1 0 16 8 8 0 0 1 0-16z"),
      fill("M33 76c0-22 4-37 17-37s17 15 17 37z"),
      // A star bursts in the chest.
      { d: "M50 46l3 8 8-3-5 7 8 4-9 1 1 9-6-7-6 7 1-9-9-1 8-4-5-7 8 3z", fill: "white" },
    ],
  },
  GHS09: {
    name: "environment",
    paths: [
      // A bare tree, and a fish on its back.
      line("M24 72h54", 4),
      line("M38 71V38M38 54l-9-9M38 48l9-10M38 60l8-7", 4),
      fill("M50 62c6-8 15-9 22-2l6-4v12l-6-4c-7 6-16 5-22-2z"),
    ],
  },
} satisfies Record<string, Sign>;
export type SignCode = keyof typeof SIGN_PATHS;

/** Paths of the four fire safety signs, drawn for this program in plain shapes: some in a ring, some struck through. */
export const SAFETY_PATHS = {
  unattended: {
    name: "never leave it unattended",
    struck: false,
    paths: [line("M22 50c14-22 42-22 56 0-14 22-42 22-56 0z", 6), fill("M50 41a9 9 0 1 1 0 18 9 9 0 0 1 0-18z")],
  },
  children: {
    name: "keep it from children and pets",
    struck: true,
    paths: [
      fill("M36 26a7 7 0 1 1 0 14 7 7 0 0 1 0-14z"),
      line("M36 42v18M36 60l-7 15M36 60l7 15M24 52h24", 5),
      line("M56 66h18M58 66v9M72 66v9M74 66l5-9M56 66l-4-7", 5),
    ],
  },
  fuel: {
    name: "keep it from what can burn",
    struck: true,
    paths: [
      line("M28 24c6 10-6 16 0 26s-6 16 0 26", 5),
      line("M40 24c6 10-6 16 0 26s-6 16 0 26", 5),
      fill("M58 54h16v22h-16zM66 34c5 6 4 12 0 16-4-4-5-10 0-16z"),
    ],
  },
  distance: {
    name: "leave a distance between candles",
    struck: false,
    paths: [
      fill("M22 48h14v26h-14zM64 48h14v26h-14zM29 28c4 5 3 10 0 14-3-4-4-9 0-14zM71 28c4 5 3 10 0 14-3-4-4-9 0-14z"),
      line("M42 62h16M46 57l-5 5 5 5M54 57l5 5-5 5", 4),
    ],
  },
} satisfies Record<string, Sign & { struck: boolean }>;
