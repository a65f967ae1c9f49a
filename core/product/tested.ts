import { loadOnBasis } from "../recipe/load";
import type { FormulaSpec } from "../recipe/schema";

/** What the wick of a product was tested with: a change of it can make another wick right. Load in millionths of the wax. */
export interface TestedState {
  waxes: { id: string; share: number }[];
  fragrances: { id: string; share: number }[];
  loadPpm: number;
  containerId: string;
  wickId: string | null;
  wicks: number;
}

export const WICK_TESTS = ["tested", "test due", "failed"] as const;
export type WickTest = (typeof WICK_TESTS)[number];

/** A product as far as its wick depends on it. */
interface Wicked {
  containerId: string;
  wickId: string | null;
  wicks: number;
}

/** Returns what a test of this product, made by this recipe, is a test of. */
export const testedOf = (spec: Pick<FormulaSpec, "waxes" | "fragrances" | "basis" | "loadPpm">, product: Wicked): TestedState => ({
  waxes: spec.waxes,
  fragrances: spec.fragrances,
  loadPpm: loadOnBasis(spec.loadPpm, spec.basis, "wax"),
  containerId: product.containerId,
  wickId: product.wickId,
  wicks: product.wickId === null ? 0 : product.wicks,
});

/** A change of load up to one point leaves a wick as it is. Common practice, no source. */
const POINT = 10_000;

export type DueReason = "scent" | "load" | "wax" | "vessel" | "wick";

/** Returns each part as its share of all, so that 1 : 1 and 50 : 50 are the same. */
const shares = (all: TestedState["waxes"]) => {
  const sum = all.reduce((total, item) => total + item.share, 0) || 1;
  return all
    .map((item) => `${item.id} ${(item.share / sum).toFixed(4)}`)
    .sort()
    .join();
};

/** Returns what has changed since a wick was tested, as far as it asks for another test; nothing where the test still holds. */
export function dueReasons(tested: TestedState, now: TestedState): DueReason[] {
  return [
    ...(shares(tested.fragrances) === shares(now.fragrances) ? [] : ["scent" as const]),
    ...(Math.abs(tested.loadPpm - now.loadPpm) > POINT + 1e-6 ? ["load" as const] : []),
    ...(shares(tested.waxes) === shares(now.waxes) ? [] : ["wax" as const]),
    ...(tested.containerId === now.containerId ? [] : ["vessel" as const]),
    ...(tested.wickId === now.wickId && tested.wicks === now.wicks ? [] : ["wick" as const]),
  ];
}
