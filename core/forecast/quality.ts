import { randomFrom } from "../random";
import { median } from "../statistics/mean";
import { fitCooling, reachedAt } from "./cooling";
import { aCoolingPot, type PotModel } from "./pot-models";

/** How good forecasts are over many pots that were read 6 to 16 times. */
export interface ForecastQuality {
  pots: number;
  /** Share of pots whose true minute lies in the 80 % interval. */
  coverage: number;
  /** Median width of the interval, as a share of the time that was left. */
  width: number;
  /** Median error, as a share of the time that was left. */
  error: number;
}

/** Forecasts for generated pots of some models, compared with when they really got there. */
export function forecastQuality(models: readonly PotModel[], many: number, seed: number): ForecastQuality {
  let inside = 0;
  const errors: number[] = [];
  const widths: number[] = [];
  for (const model of models) {
    const random = randomFrom(seed);
    for (let n = 0; n < many; n++) {
      const { massG, room, readings, now, target, truth } = aCoolingPot(random, 6 + Math.floor(random() * 11), model);
      // One that is to cool below its room, which goes up and down, waits for the room.
      if (truth < 0 || target <= room) continue;
      const reached = reachedAt(fitCooling(readings, room, massG), room, target, now);
      if (!reached) throw new Error(`A pot of the model "${model}" is never to come to ${target} °C, and it did.`);
      if (truth >= reached.low && truth <= reached.high) inside += 1;
      const left = Math.max(1, truth - now);
      errors.push(Math.abs(reached.minute - truth) / left);
      widths.push((reached.high - reached.low) / left);
    }
  }
  return { pots: errors.length, coverage: inside / errors.length, width: median(widths), error: median(errors) };
}
