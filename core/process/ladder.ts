import type { Step } from "./process";
import type { Process } from "./schema";
import { stepTypeOf } from "./steps";

/**
 * Returns a process by which one melt serves several steps of a ladder: each part is poured in turn, and what is left is dosed further, brought to its
 * ranges again and poured as the next. The steps after the last pour are the same for all.
 * @param many how many parts
 */
export function ladderProcess(process: Process, many: number): Process {
  const isAfter = (step: Step) => stepTypeOf(step.kind).afterPour !== undefined;
  const work = process.steps.filter((step) => !isAfter(step) && (step.pot ?? 0) === 0);
  const parts = Array.from({ length: many }, (_, pot): Step[] =>
    pot === 0
      ? work
      : [{ id: `split-${pot + 1}`, kind: "split", pot, from: pot - 1 }, ...work.map((step) => ({ ...step, id: `${step.id}-p${pot + 1}`.slice(0, 40), pot }))],
  );
  return { ...process, name: `${process.name}, in ${many} steps`.slice(0, 120), steps: [...parts.flat(), ...process.steps.filter(isAfter)] };
}
