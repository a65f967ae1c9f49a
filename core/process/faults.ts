import { isDivided, potsOf, poursOf, type Step } from "./process";
import { stepTypeOf } from "./steps";

/** What is wrong, in a sentence, and where: the path to it from the top of what was checked. */
export interface SpecFault {
  path: (string | number)[];
  message: string;
}

const isFirstPour = (step: Step): boolean => stepTypeOf(step.kind).pours === "first";

/** Returns what is wrong between the steps of a process, each of which is valid by itself; empty where they fit together. */
export function processFaults(steps: readonly Step[]): SpecFault[] {
  const faults: SpecFault[] = [];
  const say = (message: string, path: (string | number)[] = ["steps"]) => faults.push({ path, message });
  const ids = new Set<string>();
  for (const [index, step] of steps.entries()) {
    if (ids.has(step.id)) say(`Two steps are called “${step.id}”.`, ["steps", index, "id"]);
    ids.add(step.id);
    const fault = stepTypeOf(step.kind).fault?.(step);
    if (fault) say(fault.says, ["steps", index, fault.at]);
    if (step.only && stepTypeOf(step.kind).pours) say("A pour is limited to a product by its name, not to vessels or molds.", ["steps", index, "only"]);
  }
  if (!steps.some(isFirstPour)) say("A process pours at least once.");
  for (let pot = 0; pot < potsOf(steps); pot++) {
    if (!steps.some((step) => stepTypeOf(step.kind).weighs && (step.pot ?? 0) === pot)) say(`Pot ${pot + 1} is never weighed.`);
  }
  for (const [index, step] of steps.entries())
    if (stepTypeOf(step.kind).restOf && steps.slice(0, index).some((other) => (other.pot ?? 0) === (step.pot ?? 0)))
      say("What is taken from another pot comes before every other step of its pot.", ["steps", index]);
  const shares = poursOf(steps).reduce((sum, pouring) => sum + pouring.share, 0);
  const perProduct = isDivided(steps) || poursOf(steps).some((pour) => isFirstPour(pour) && pour.product !== undefined);
  if (!perProduct && steps.some(isFirstPour) && Math.abs(shares - 1_000_000) > 1_000)
    say(`The pours come to ${Math.round(shares / 1_000) / 10} % of the fill: together they must be 100 %.`);
  return faults;
}
