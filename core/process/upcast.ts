import type { TemperatureRange } from "../heat/range";
import type { Act, Process } from "./process";

/** How a formula said its process before processes were lists of acts: three ranges and four times. */
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

/** The ids under which older entries name the acts. */
export const ACT_OF_OLD_RANGE: Record<string, string | null> = { heat: "heat", add: "add", pour: "cool", watch: null };

/** The list of acts that an older profile meant. */
export function processOfProfile(profile: Profile): Process {
  const acts: Act[] = [
    { id: "weigh", kind: "weigh" },
    { id: "heat", kind: "heat", range: profile.heat },
    { id: "add", kind: "add", range: profile.add },
    { id: "stir", kind: "stir", seconds: profile.stirSeconds },
    { id: "cool", kind: "cool", range: profile.pour },
    { id: "pour", kind: "pour", share: 1_000_000, by: "weight" },
    { id: "set", kind: "set", seconds: profile.setSeconds },
    { id: "cure", kind: "cure", least: profile.leastCureSeconds, recommended: profile.recommendedCureSeconds },
  ];
  return { name: profile.name, reason: profile.reason ?? "", ceiling: profile.ceiling, acts };
}
