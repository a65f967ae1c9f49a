import { type ForecastTarget, type ForecastView, forecastView } from "@hearth/core";

/** The thread in which is worked out what is forecast of a pot, for the page that opens it. */
export const work = (target: ForecastTarget): ForecastView => forecastView(target);
