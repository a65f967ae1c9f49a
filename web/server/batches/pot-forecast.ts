import { type ForecastTarget, type ForecastView, forecastView } from "@hearth/core";
import { ServerBusyError } from "@/server/http/respond";
import { inThread } from "@/server/operation/thread";

/** A page does not wait for a forecast longer than this, in ms: its device works it out as well. The first one after a start is late, since its thread starts. */
const LIMIT_MS = 400;

/** Returns what is forecast of a pot, worked out in a thread; null where nothing is ahead of it, or where that takes too long. */
export async function potForecast(target: ForecastTarget | null): Promise<ForecastView | null> {
  if (!target) return null;
  try {
    return await inThread({
      file: "forecast.cjs",
      data: target,
      limitMs: LIMIT_MS,
      what: "this forecast",
      here: () => forecastView(target),
    });
  } catch (error) {
    if (error instanceof ServerBusyError) return null;
    throw error;
  }
}
