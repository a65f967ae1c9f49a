import { forecastQuality, POT_MODELS, type PotModel } from "@hearth/core";

const MODELS = Object.keys(POT_MODELS) as PotModel[];
const percent = (share: number) => `${(share * 100).toFixed(1)} %`.padStart(8);

/**
 * Prints how good forecasts of cooling are over generated pots of three models, none of which is the law that is fitted: how many true
 * times lie in the 80 % interval, how wide it is and how far off the forecast is, both as a share of the time left.
 */
export function benchForecast(): void {
  console.log("Forecasts of cooling, 500 pots of each model, read 6 to 16 times");
  console.log(`${"".padEnd(14)}${"coverage".padStart(10)}${"width".padStart(10)}${"error".padStart(10)}`);
  for (const [name, models] of [...MODELS.map((model) => [model, [model]] as const), ["all", MODELS] as const]) {
    const { coverage, width, error } = forecastQuality(models, 500, 7);
    console.log(`${name.padEnd(14)}  ${percent(coverage)}  ${percent(width)}  ${percent(error)}`);
  }
}
