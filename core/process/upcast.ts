import type { TemperatureRange } from "../heat/range";
import { renameKeys, upcastList } from "../log/stored";
import type { Step } from "./process";
import type { Process } from "./schema";

/** How a formula said its process before processes were lists of steps: three ranges and four times. */
export interface Profile {
  name: string;
  heat: TemperatureRange;
  add: TemperatureRange;
  pour: TemperatureRange;
  ceiling: number;
  stirSeconds: number;
  setSeconds: number;
  leastCureSeconds: number;
  recommendedCureSeconds: number;
  reason?: string;
}

/** Returns a stored process in this format: steps were called acts, and unmolding was spelled the British way. Anything else is returned as it is. */
export function upcastProcess(raw: unknown): unknown {
  if (!raw || typeof raw !== "object") return raw;
  const { acts, ...rest } = raw as { acts?: unknown; steps?: unknown };
  const steps = acts ?? rest.steps;
  if (!Array.isArray(steps)) return raw;
  return { ...rest, steps: upcastList(steps, (step) => (step.kind === "unmould" ? { ...step, kind: "unmold" } : step)) };
}

/** Returns the payload of an entry in this format: the step that it is about was called its act. */
export const upcastStepId = renameKeys({ act: "step" });

/** The ids under which older entries name the steps. */
export const STEP_OF_OLD_RANGE: Record<string, string | null> = { heat: "heat", add: "add", pour: "cool", watch: null };

/** Returns the list of steps that an older profile meant. */
export function processOfProfile(profile: Profile): Process {
  const steps: Step[] = [
    { id: "weigh", kind: "weigh" },
    { id: "heat", kind: "heat", range: profile.heat },
    { id: "add", kind: "add", range: profile.add },
    { id: "stir", kind: "stir", seconds: profile.stirSeconds },
    { id: "cool", kind: "cool", range: profile.pour },
    { id: "pour", kind: "pour", share: 1_000_000, by: "weight" },
    { id: "set", kind: "set", seconds: profile.setSeconds },
    { id: "cure", kind: "cure", least: profile.leastCureSeconds, recommended: profile.recommendedCureSeconds },
  ];
  return { name: profile.name, reason: profile.reason ?? "", ceiling: profile.ceiling, steps };
}
