import { processFaults, type SpecFault } from "../process/faults";
import { LARGEST_LOAD_PERCENT, type LoadBasis } from "./load";
import { namedIn } from "./spec";

/** Returns what is wrong between the parts of a recipe, each of which is valid by itself; empty where they fit together. */
export function recipeFaults(recipe: { basis: LoadBasis; loadPpm: number; fragrances: readonly unknown[] } & Parameters<typeof namedIn>[0]): SpecFault[] {
  const faults: SpecFault[] = [];
  if (recipe.basis === "total" && recipe.loadPpm > LARGEST_LOAD_PERCENT.total * 10_000)
    faults.push({ path: ["loadPpm"], message: `A load of the total cannot be above ${LARGEST_LOAD_PERCENT.total} %.` });
  if (recipe.fragrances.length === 0 && recipe.loadPpm > 0)
    faults.push({ path: ["fragrances"], message: "Choose the fragrance, or set the load to 0 % for an unscented candle." });
  const ids = namedIn(recipe);
  if (new Set(ids).size !== ids.length) faults.push({ path: ["parts"], message: "The same material stands here twice: put its shares together." });
  return faults;
}

/** Returns what is wrong between the parts of a formula, its process included; empty where they fit together. */
export const formulaFaults = (spec: Parameters<typeof recipeFaults>[0] & { process: { steps: Parameters<typeof processFaults>[0] } }): SpecFault[] => [
  ...recipeFaults(spec),
  ...processFaults(spec.process.steps),
];
