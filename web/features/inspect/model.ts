import { type BatchPlan, type BatchState, type Defect, defectsFor, filledOf, type Place, type SeenFlaw, seenInRound } from "@hearth/core";

/** The jar being inspected, with the flaws found on it so far. */
export interface InHand {
  flaws: SeenFlaw[];
  /** How many look like it. */
  alike: number;
}
export const EMPTY_HAND: InHand = { flaws: [], alike: 1 };

/** Returns the jar with one more flaw; the same flaw at the same place replaces the earlier one. */
export const withFlaw = (hand: InHand, flaw: SeenFlaw): InHand => ({
  ...hand,
  flaws: [
    ...hand.flaws.filter(
      (item) => item.defect !== flaw.defect || item.place !== flaw.place || item.wall?.side !== flaw.wall?.side || item.wall?.height !== flaw.wall?.height,
    ),
    flaw,
  ],
});

/** Returns the flaws of a set candle, those that are looked for at a place first. */
export const flawsAt = (place: Place, of: Parameters<typeof defectsFor>[0]): { here: Defect[]; elsewhere: Defect[] } => {
  const set = defectsFor(of).filter((defect) => defect.seen === "set");
  return { here: set.filter((defect) => defect.places.includes(place)), elsewhere: set.filter((defect) => !defect.places.includes(place)) };
};

/** Returns how far the inspection of a product has come: the number of the next jar, and of how many. */
export function progressOf(plan: BatchPlan, state: BatchState, key: string): { filled: number; seen: number; left: number } {
  const filled = filledOf(plan, state, key);
  const seen = seenInRound(state, key);
  return { filled, seen, left: Math.max(0, filled - seen) };
}

/** Returns what the jar before showed, of this product in this inspection; null if there was none. */
export const lastSeen = (state: BatchState, key: string) => state.seen.findLast((item) => item.product === key && item.round === state.rounds) ?? null;
