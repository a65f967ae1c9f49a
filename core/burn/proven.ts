import { partsOfBlendWords } from "../batch/contents";

/** What is burned together and so passes or fails together: a wax in a vessel with its wicks, a scent and its load. */
export interface Combination {
  vessel: string;
  /** As findings name it: a blend with its shares in whole percents. */
  wax: string;
  family: string;
  wick: string;
  wicks: number;
  scent: string;
  /** Millionths of the wax. */
  loadPpm: number;
}
/** A combination that was burned in full jars, and what was decided. */
export interface BurnedCombination extends Combination {
  decided: "passed" | "failed";
  trialId: string;
}

/** Loads so close are the same, and so close they are near enough to infer from, in millionths of the wax: one point. Common practice, no source. */
const SAME_LOAD_PPM = 5_000;
const NEAR_LOAD_PPM = 10_000;
/** Shares of a blend so close are the same, in percents of its waxes: a small pot is weighed no nearer than this on a 1 g scale. Common practice, no source. */
const SAME_SHARE_PERCENT = 2;

const inSameVessel = (a: Combination, b: Combination) => a.vessel === b.vessel && a.wick === b.wick && a.wicks === b.wicks;

/** Returns whether waxes are the same: a blend has the same waxes in nearly the same shares, as it was weighed and as its formula has it. */
function isSameWax(a: string, b: string): boolean {
  if (a === b) return true;
  const [parts, others] = [partsOfBlendWords(a), partsOfBlendWords(b)];
  const isNear = (part: { name: string; share: number }) => {
    const other = others.find((item) => item.name === part.name);
    return other !== undefined && Math.round(Math.abs(part.share - other.share) * 100) <= SAME_SHARE_PERCENT;
  };
  return parts.length === others.length && parts.every(isNear);
}

/** Returns whether a burn of one combination is a burn of the other. */
export const isSameCombination = (a: Combination, b: Combination): boolean =>
  inSameVessel(a, b) && isSameWax(a.wax, b.wax) && a.scent === b.scent && Math.abs(a.loadPpm - b.loadPpm) < SAME_LOAD_PPM;

/** Returns whether a pass of one lets the other be inferred: the same vessel and wicks, a wax of the same family, and a load within one point; the scent may be another. */
export const isInferred = (from: Combination, to: Combination): boolean =>
  inSameVessel(from, to) && from.family === to.family && Math.abs(from.loadPpm - to.loadPpm) <= NEAR_LOAD_PPM;

export type ProofStatus = "proven" | "inferred" | "unproven" | "failed";
export interface Proof {
  status: ProofStatus;
  /** The burn that it rests on. */
  by: BurnedCombination | null;
}

/** Returns how well a combination is proven: by a burn of its own, the newest first where they disagree, else by one that it can be inferred from. @param burns the newest first */
export function proofOf(combination: Combination, burns: readonly BurnedCombination[]): Proof {
  const own = burns.find((burn) => isSameCombination(burn, combination));
  if (own) return { status: own.decided === "passed" ? "proven" : "failed", by: own };
  const near = burns.find((burn) => burn.decided === "passed" && isInferred(burn, combination));
  return near ? { status: "inferred", by: near } : { status: "unproven", by: null };
}

/** Tests that would prove most, with the places of the combinations that a pass of them would prove or let be inferred. */
export interface BestTests {
  tests: number[];
  covered: number[];
}

/**
 * Returns which of some unproven combinations to test, at most `many`, so that passes would cover most of them: the maximum coverage problem, by trying every
 * choice. Of choices that cover as many the first is given. @throws RangeError above three tests, where trying every choice takes long
 */
export function bestTests(open: readonly Combination[], many = 2): BestTests {
  if (many < 1 || many > 3) throw new RangeError("One, two or three tests are chosen.");
  const covers = open.map((test) => open.flatMap((other, index) => (test === other || isInferred(test, other) ? [index] : [])));
  let best: BestTests = { tests: [], covered: [] };
  const choose = (from: number, tests: readonly number[], covered: ReadonlySet<number>) => {
    if (covered.size > best.covered.length) best = { tests: [...tests], covered: [...covered].sort((a, b) => a - b) };
    if (tests.length === many) return;
    for (let next = from; next < open.length; next++) choose(next + 1, [...tests, next], new Set([...covered, ...(covers[next] ?? [])]));
  };
  choose(0, [], new Set());
  return best;
}
