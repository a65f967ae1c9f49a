import { type ForecastTarget, type ForecastView, forecastViews } from "@hearth/core";
import { ServerBusyError } from "@/server/http/respond";
import { inThread } from "@/server/operation/thread";

/** A page does not wait for its forecasts longer than this, in ms: its device works them out as well. The first ones after a start are late, since their thread starts. */
const LIMIT_MS = 400;

/** Returns what is forecast of pots, by their keys, worked out in a thread; null where nothing is ahead of a pot, or of all of them where that takes too long. */
export async function potForecasts<K extends string>(targets: Readonly<Record<K, ForecastTarget | null>>): Promise<Record<K, ForecastView | null>> {
  const none = Object.fromEntries(Object.keys(targets).map((key) => [key, null])) as Record<K, ForecastView | null>;
  if (Object.values(targets).every((target) => target === null)) return none;
  try {
    return await inThread({
      file: "forecast.cjs",
      data: targets,
      limitMs: LIMIT_MS,
      what: "these forecasts",
      here: () => forecastViews(targets),
    });
  } catch (error) {
    if (error instanceof ServerBusyError) return none;
    throw error;
  }
}
