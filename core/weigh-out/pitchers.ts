import type { ComponentKind } from "../recipe/component";
import type { Milligrams } from "../units/mass";
import { incrementDown, incrementMg, incrementUp, isOnIncrement, nearestIncrement, shareMg, shareSteps, sum } from "./increments";

export interface PotComponent {
  name: string;
  kind: ComponentKind;
  mg: Milligrams;
  /** Drops or pieces of a dye that is counted. */
  count?: { n: number; of: "drops" | "pieces" } | undefined;
  /** One step of the scale it is weighed on, in micrograms; what is given to the split if nothing is given. */
  resolutionUg?: number | undefined;
}

export interface Pitcher {
  totalMg: Milligrams;
  components: PotComponent[];
}

/** More pitchers than this nobody fills from one pot. */
export const MAX_PITCHERS = 60;

/** Returns the load of one pitcher, in percent of its wax. */
export const loadOfPitcher = (pitcher: Pitcher): number => {
  const sum = (kind: ComponentKind) => pitcher.components.reduce((all, part) => all + (part.kind === kind ? part.mg : 0), 0);
  return sum("wax") > 0 ? (sum("fragrance") / sum("wax")) * 100 : 0;
};

const sumMg = (parts: readonly PotComponent[]): Milligrams => parts.reduce((sum, part) => sum + part.mg, 0);

/** The parts of one kind, in steps: of their scale where all lie on its marks, else of a milligram. */
interface Kind {
  parts: PotComponent[];
  ug: number;
  steps: number;
}
function kindOf(components: readonly PotComponent[], kind: ComponentKind, resolutionUg: number): Kind {
  const parts = components.filter((part) => part.kind === kind && part.mg > 0);
  const [first] = parts;
  const scaleUg = first?.resolutionUg ?? resolutionUg;
  const ug = parts.every((part) => (part.resolutionUg ?? resolutionUg) === scaleUg && isOnIncrement(part.mg, scaleUg)) ? scaleUg : 1_000;
  return { parts, ug, steps: sum(parts.map((part) => nearestIncrement(part.mg, ug))) };
}

/** Returns steps shared by weight, no pitcher above its most; null if these do not hold them all. */
function shareWithin(steps: number, weights: readonly number[], most: readonly number[]): number[] | null {
  const out = shareSteps(steps, weights).map((n, index) => Math.min(n, most[index] as number));
  for (let left = steps - sum(out); left > 0; left--) {
    // To the one that has least of its share, of those with room.
    const to = out
      .map((n, index) => ({ at: index, lacks: (steps * (weights[index] as number)) / sum(weights) - n }))
      .filter(({ at }) => (out[at] as number) < (most[at] as number));
    const next = to.sort((a, b) => b.lacks - a.lacks)[0];
    if (!next) return null;
    out[next.at] = (out[next.at] as number) + 1;
  }
  return out;
}

/**
 * Returns how many steps of wax and of oil each of so many pitchers gets, none above the limit. The wax is shared evenly and the oil follows it; where
 * the oil's marks are too coarse for that the oil is shared evenly, and the wax follows. Null if no sharing of whole marks keeps the limit.
 */
function shareBoth(wax: Kind, oil: Kind, count: number, maxLoadPpm: number | null): { wax: number[]; oil: number[] } | null {
  const even = new Array<number>(count).fill(1);
  const waxes = shareSteps(wax.steps, even);
  if (oil.steps === 0 || maxLoadPpm === null) return { wax: waxes, oil: shareSteps(oil.steps, waxes) };
  const most = waxes.map((n) => incrementDown((incrementMg(n, wax.ug) * maxLoadPpm) / 1e6, oil.ug));
  const follows = shareWithin(oil.steps, waxes, most);
  if (follows) return { wax: waxes, oil: follows };
  const oils = shareSteps(oil.steps, even);
  const least = oils.map((n) => incrementUp((incrementMg(n, oil.ug) * 1e6) / maxLoadPpm, wax.ug));
  const rest = wax.steps - sum(least);
  if (rest < 0) return null;
  const more = shareSteps(rest, even);
  return { wax: least.map((n, index) => n + (more[index] as number)), oil: oils };
}

/** Returns each pitcher's steps of a kind shared over its parts, so that these come to what there is of each. In milligrams, by part and pitcher. */
function overParts({ parts, ug }: Kind, byPitcher: readonly number[]): Map<PotComponent, Milligrams[]> {
  const left = parts.map((part) => nearestIncrement(part.mg, ug));
  const out = new Map(parts.map((part) => [part, [] as Milligrams[]]));
  for (const steps of byPitcher) {
    const mine = steps === 0 || sum(left) === 0 ? left.map(() => 0) : shareSteps(steps, left);
    parts.forEach((part, index) => {
      out.get(part)?.push(incrementMg(mine[index] as number, ug));
      left[index] = (left[index] as number) - (mine[index] as number);
    });
  }
  // Steps of an ounce are no whole milligrams: what rounding them leaves goes to the first.
  for (const [part, list] of out) list[0] = (list[0] ?? 0) + part.mg - sum(list);
  return out;
}

/**
 * Splits a pot over as few pitchers as their capacity allows, each weighed and scented on its own. Every amount lies on a mark of its scale
 * where the whole does, the loads agree to within a mark, and where the whole keeps the wax's limit each pitcher keeps it, unless no
 * sharing of whole marks can. The pitchers' sums are the components'. Method: common practice, no source.
 * @throws RangeError if a pitcher would hold less than a gram, or more than `MAX_PITCHERS` are needed.
 */
export function splitIntoPitchers(components: readonly PotComponent[], capacityMg: Milligrams, resolutionUg: number, maxLoadPpm: number | null): Pitcher[] {
  if (capacityMg < 1_000) throw new RangeError("A pitcher holds at least {1 g|0.04 oz}.");
  const least = Math.max(1, Math.ceil(sumMg(components) / capacityMg));
  if (least > MAX_PITCHERS)
    throw new RangeError(
      `${least} pitchers would be needed, and nobody fills more than ${MAX_PITCHERS} from one pot: use a larger pitcher, or make several batches.`,
    );
  const [wax, oil] = [kindOf(components, "wax", resolutionUg), kindOf(components, "fragrance", resolutionUg)];
  const limit = maxLoadPpm !== null && sumMg(oil.parts) * 1e6 <= maxLoadPpm * sumMg(wax.parts) ? maxLoadPpm : null;
  const stepOf = (part: PotComponent) => part.resolutionUg ?? resolutionUg;
  const share = (part: PotComponent, shares: readonly number[]): Milligrams[] =>
    isOnIncrement(part.mg, stepOf(part))
      ? shareSteps(nearestIncrement(part.mg, stepOf(part)), shares).map((n) => incrementMg(n, stepOf(part)))
      : shareMg(part.mg, shares, stepOf(part));
  for (let count = least; count <= MAX_PITCHERS; count++) {
    const both = shareBoth(wax, oil, count, limit) ?? shareBoth(wax, oil, count, null);
    if (!both || both.wax.some((value) => value <= 0)) break;
    const masses = new Map([...overParts(wax, both.wax), ...overParts(oil, both.oil)]);
    const pitchers: Pitcher[] = both.wax.map(() => ({ totalMg: 0, components: [] }));
    for (const part of components) {
      const mine = masses.get(part) ?? share(part, both.wax);
      pitchers.forEach((pitcher, index) => {
        const mg = mine[index] as number;
        pitcher.components.push({ ...part, mg });
        pitcher.totalMg += mg;
      });
    }
    if (pitchers.some((pitcher) => pitcher.totalMg > capacityMg)) continue;
    // Drops and pieces follow the weight of each pitcher, and none is lost.
    components.forEach((part, at) => {
      if (!part.count) return;
      const { n, of } = part.count;
      const counts = shareSteps(
        n,
        pitchers.map((pitcher) => pitcher.totalMg),
      );
      pitchers.forEach((pitcher, index) => {
        (pitcher.components[at] as PotComponent).count = { n: counts[index] as number, of };
      });
    });
    return pitchers;
  }
  throw new RangeError(`These amounts cannot be shared over at most ${MAX_PITCHERS} pitchers of this size: use a larger one.`);
}
