import type { ComponentKind } from "../recipe/component";
import type { Milligrams } from "../units/mass";
import { isOnMark, markMg, nearestMark, shareMg, shareSteps } from "./marks";

export interface PotComponent {
  name: string;
  kind: ComponentKind;
  mg: Milligrams;
  /** Drops or pieces of a dye that is counted. */
  count?: { n: number; of: "drops" | "pieces" } | undefined;
  /** One step of the scale it is weighed on, in micrograms; what is given to the split where nothing is said. */
  resolutionUg?: number | undefined;
}

export interface Pitcher {
  totalMg: Milligrams;
  components: PotComponent[];
}

/** More pitchers than this nobody fills from one pot. */
export const MOST_PITCHERS = 60;

/** The load of one pitcher, in percent of its wax. */
export const loadOfPitcher = (pitcher: Pitcher): number => {
  const sum = (kind: ComponentKind) => pitcher.components.reduce((all, part) => all + (part.kind === kind ? part.mg : 0), 0);
  return sum("wax") > 0 ? (sum("fragrance") / sum("wax")) * 100 : 0;
};

/**
 * Splits a pot over as few pitchers as their capacity allows, each weighed and scented on its own. Every amount lies on a
 * mark of its scale where the whole does, and the loads agree to within a mark: the component with the fewest marks is
 * shared evenly, and the others follow it, so that none is carried over the wax's limit by rounding alone. The pitchers'
 * sums are the components'. Method: common practice, no source.
 * @throws RangeError where a pitcher would hold less than a gram, or more than `MOST_PITCHERS` are needed.
 */
export function splitIntoPitchers(components: readonly PotComponent[], capacityMg: Milligrams, resolutionUg: number, maxLoadPpm: number | null): Pitcher[] {
  if (capacityMg < 1_000) throw new RangeError("A pitcher holds at least 1 g.");
  const total = components.reduce((sum, part) => sum + part.mg, 0);
  const wax = components.reduce((sum, part) => sum + (part.kind === "wax" ? part.mg : 0), 0);
  const oil = components.reduce((sum, part) => sum + (part.kind === "fragrance" ? part.mg : 0), 0);
  const least = Math.max(1, Math.ceil(total / capacityMg));
  if (least > MOST_PITCHERS)
    throw new RangeError(
      `${least} pitchers would be needed, and nobody fills more than ${MOST_PITCHERS} from one pot: use a larger pitcher, or make several batches.`,
    );
  const stepOf = (part: PotComponent) => part.resolutionUg ?? resolutionUg;
  const stepsOf = (part: PotComponent) => nearestMark(part.mg, stepOf(part));
  const oils = components.filter((part) => part.kind === "fragrance" && part.mg > 0);
  const atLimit = maxLoadPpm !== null && oil > 0 && oil * 1e6 <= maxLoadPpm * wax && oil * 1e6 > maxLoadPpm * wax * 0.97;
  const share = (part: PotComponent, shares: readonly number[]): Milligrams[] =>
    isOnMark(part.mg, stepOf(part)) ? shareSteps(stepsOf(part), shares).map((n) => markMg(n, stepOf(part))) : shareMg(part.mg, shares, stepOf(part));
  for (let count = least; count <= MOST_PITCHERS; count++) {
    const even = new Array<number>(count).fill(1);
    // Near the limit the oil leads, since its marks are coarse against the wax; elsewhere the wax does.
    const leads = atLimit ? oils : components.filter((part) => part.kind === "wax");
    const leading = new Map(leads.map((part) => [part, share(part, even).sort((a, b) => b - a)]));
    const weights = even.map((_one, at) => leads.reduce((sum, part) => sum + (leading.get(part)?.[at] ?? 0), 0));
    if (weights.some((one) => one <= 0)) break;
    const pitchers: Pitcher[] = even.map(() => ({ totalMg: 0, components: [] }));
    for (const part of components) {
      const masses = leading.get(part) ?? share(part, weights);
      pitchers.forEach((one, at) => {
        const mg = masses[at] as number;
        one.components.push({ ...part, mg });
        one.totalMg += mg;
      });
    }
    if (pitchers.some((one) => one.totalMg > capacityMg)) continue;
    // Drops and pieces follow the weight of each pitcher, and none is lost.
    components.forEach((part, at) => {
      if (!part.count) return;
      const { n, of } = part.count;
      const counts = shareSteps(
        n,
        pitchers.map((one) => one.totalMg),
      );
      pitchers.forEach((one, index) => {
        (one.components[at] as PotComponent).count = { n: counts[index] as number, of };
      });
    });
    return pitchers;
  }
  throw new RangeError(`These amounts cannot be shared over at most ${MOST_PITCHERS} pitchers of this size: use a larger one.`);
}
