import { type ForecastTarget, type ForecastView, forecastViews } from "@hearth/core";

/** The thread in which is worked out what is forecast of pots, for the page that shows them. */
export const work = (targets: Readonly<Record<string, ForecastTarget | null>>): Record<string, ForecastView | null> => forecastViews(targets);
