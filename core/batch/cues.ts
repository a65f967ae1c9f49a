/** What tells how warm wax is where there is no thermometer. Common practice, no source. */
export const CUES = {
  melted: "all of it melted and clear",
  touch: "no longer too hot to touch",
  cloudy: "turning cloudy",
  film: "a film at the edge",
  thick: "thickening as it is stirred",
} as const;
export type Cue = keyof typeof CUES;
export const CUE_NAMES = Object.keys(CUES) as [Cue, ...Cue[]];
