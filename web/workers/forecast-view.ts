import { type ForecastTarget, type ForecastView, forecastView } from "@hearth/core";

export interface Asked {
  id: number;
  watch: ForecastTarget;
}
export interface Foretold {
  id: number;
  forecastView: ForecastView;
}

/** Works out what is forecast of a pot, each time it is asked. */
self.onmessage = ({ data }: MessageEvent<Asked>) => self.postMessage({ id: data.id, forecastView: forecastView(data.watch) } satisfies Foretold);
