import { SECONDS } from "../../units/duration";
import { isForContainer } from "../container-kind";
import type { Step } from "../process";
import type { Process } from "../schema";
import { stepTypeOf } from "../steps";

/**
 * Returns what is done with soft molds from the pour to the finished candle; `only` limits it to molds where vessels are poured beside them. Six to
 * eight hours, the wick hole at two: common practice, no source.
 */
export function moldSteps(isWicked: boolean, only?: "molds"): Step[] {
  const head = only ? { only } : {};
  const hole: Step[] = [
    { id: "wait-hole", kind: "wait", least: 2 * SECONDS.h, for: "until it is firm and still warm", ...head },
    { id: "wick-hole", kind: "wick-hole", ...head },
  ];
  const wick: Step[] = [
    { id: "insert-wick", kind: "insert-wick", ...head },
    { id: "finish-molded", kind: "finish", how: "trim base and wick", ...head },
  ];
  return [
    ...(isWicked ? hole : []),
    { id: "wait-firm", kind: "wait", least: (isWicked ? 4 : 6) * SECONDS.h, for: "until it is cold", ...head },
    { id: "unmold", kind: "unmold", ...head },
    ...(isWicked ? wick : []),
  ];
}

/** Returns a process with the steps of molds for a plan that fills some, where it has none itself: each goes on beside what is done with the vessels. */
export function withMoldSteps(process: Process, products: readonly { container?: "vessel" | "mold" | undefined; isWicked: boolean }[]): Process {
  const molds = products.filter((product) => product.container === "mold");
  const unmolds = process.steps.some((step) => stepTypeOf(step.kind).unmolds && isForContainer(step.only, "mold"));
  if (molds.length === 0 || unmolds) return process;
  const isWicked = molds.some((mold) => mold.isWicked);
  const isTaken = (id: string) => process.steps.some((step) => step.id === id);
  const added = moldSteps(isWicked, "molds").map((step) => (isTaken(step.id) ? { ...step, id: `${step.id}-molds` } : step));
  const lastPour = process.steps.findLastIndex((step) => stepTypeOf(step.kind).pours !== undefined);
  const prepare: Step[] = isWicked && !isTaken("prepare-mold") ? [{ id: "prepare-mold", kind: "prepare-mold", only: "molds" }] : [];
  return { ...process, steps: [...prepare, ...process.steps.slice(0, lastPour + 1), ...added, ...process.steps.slice(lastPour + 1)] };
}
