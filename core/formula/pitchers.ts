import type { Milligrams } from "../quantity/mass";
import type { ComponentKind } from "./mix";
import { shareOut } from "./share-out";

export interface PotComponent {
  name: string;
  kind: ComponentKind;
  mg: Milligrams;
  /** Drops or pieces of a dye that is counted. */
  count?: { n: number; of: "drops" | "pieces" } | undefined;
}

export interface Pitcher {
  totalMg: Milligrams;
  components: PotComponent[];
}

const sumOf = (parts: readonly PotComponent[], kind?: PotComponent["kind"]) =>
  parts.reduce((sum, part) => sum + (!kind || part.kind === kind ? part.mg : 0), 0);

/** Even parts of a weight on the scale's marks, the larger ones first. */
const evenly = (mg: Milligrams, count: number, resolutionUg: number): Milligrams[] =>
  shareOut(mg, new Array<number>(count).fill(1), resolutionUg).sort((a, b) => b - a);

/**
 * Splits a batch over as few pitchers as its capacity allows, each weighed and scented on its own with the same load.
 * Wax is shared evenly on the scale's marks; everything else follows the wax of each pitcher. Where the marks would
 * carry one pitcher's load over the largest the wax takes, or a pitcher over its capacity, the other components are
 * split to the milligram instead. The pitchers' sums are the components'.
 * Method: common practice, no source. @throws RangeError where a pitcher would hold less than a gram, or more than 1000 are needed.
 */
export function splitIntoPitchers(components: readonly PotComponent[], capacityMg: Milligrams, resolutionUg: number, maxLoadPpm: number | null): Pitcher[] {
  const total = sumOf(components);
  if (capacityMg < 1_000) throw new RangeError("A pitcher holds at least 1 g.");
  const whole = { wax: sumOf(components, "wax"), fragrance: sumOf(components, "fragrance") };
  const within = maxLoadPpm !== null && whole.fragrance * 1e6 <= maxLoadPpm * whole.wax;
  const fits = (pitchers: Pitcher[]) =>
    pitchers.every((one) => {
      const over = within && sumOf(one.components, "fragrance") * 1e6 > maxLoadPpm * sumOf(one.components, "wax") + 1e6;
      return one.totalMg <= capacityMg && !over;
    });
  for (let count = Math.max(1, Math.ceil(total / capacityMg)); count <= 1_000; count++) {
    for (const step of [resolutionUg, 1_000]) {
      const pitchers: Pitcher[] = Array.from({ length: count }, () => ({ totalMg: 0, components: [] }));
      for (const part of components) {
        const wax = pitchers.map((one) => sumOf(one.components, "wax"));
        const shares = part.kind === "wax" ? evenly(part.mg, count, step) : shareOut(part.mg, wax, step);
        pitchers.forEach((one, index) => {
          const mg = shares[index] as number;
          one.components.push({ ...part, mg });
          one.totalMg += mg;
        });
      }
      if (!fits(pitchers)) continue;
      // Drops and pieces follow the weight of each pitcher, and none is lost.
      components.forEach((part, at) => {
        if (!part.count) return;
        const { n, of } = part.count;
        const counts = shareOut(
          n,
          pitchers.map((one) => one.totalMg),
          1_000,
        );
        pitchers.forEach((one, index) => {
          (one.components[at] as PotComponent).count = { n: counts[index] as number, of };
        });
      });
      return pitchers;
    }
  }
  throw new RangeError("More than 1000 pitchers would be needed: use a larger one.");
}
