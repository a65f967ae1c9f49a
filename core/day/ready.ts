import { cureTimes } from "../batch/phase";
import { timesOf } from "../process/process";
import type { Process } from "../process/schema";
import { secondsLater } from "../units/duration";

export interface Readiness {
  testFrom: string;
  sellFrom: string;
  /** Nothing wanted; ready with the recommended cure, only with the minimum, or not at all. */
  is: "unasked" | "ready" | "minimum" | "late";
  /** By how many seconds the recommended cure ends after the wanted moment, or, where it is late, the minimum does. */
  short: number;
  /** When it has to be poured at the latest, for the recommended and for the minimum cure. */
  latest: { recommended: string; minimum: string } | null;
}

/** Returns whether what is poured at a moment is ready when it is wanted, by set and cure of its process. Times as ISO text. */
export function readinessOf(poured: string, process: Pick<Process, "steps">, requested: string | null): Readiness {
  const { testFrom, sellFrom } = cureTimes(poured, process);
  if (requested === null) return { testFrom, sellFrom, is: "unasked", short: 0, latest: null };
  const { set, leastCure, recommendedCure } = timesOf(process);
  const before = (seconds: number) => secondsLater(requested, -seconds);
  const latest = { recommended: before(Math.max(recommendedCure, set)), minimum: before(Math.max(leastCure, set)) };
  const over = (at: string) => Math.round((Date.parse(at) - Date.parse(requested)) / 1_000);
  if (over(sellFrom) <= 0) return { testFrom, sellFrom, is: "ready", short: 0, latest };
  if (over(testFrom) <= 0) return { testFrom, sellFrom, is: "minimum", short: over(sellFrom), latest };
  return { testFrom, sellFrom, is: "late", short: over(testFrom), latest };
}
