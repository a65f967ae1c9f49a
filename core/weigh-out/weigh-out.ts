import { LARGEST_MASS_MG, MG_PER } from "../units/mass";
import { writeNumber } from "../units/number";
import { WHOLE } from "../units/percent";
import { type WeighedOut, WeighOutError, type WeighOutInput } from "./contract";
import { sum } from "./increments";
import { prepare } from "./prepare";
import { roundToIncrements } from "./round";
import { stepsOf } from "./steps";
import { warningsFor } from "./warnings";

/**
 * Wax, fragrance and additives for a number of vessels, for a weight of wax, or for a total: what is asked is prepared, rounded to
 * the marks of the scales, checked against limits, and explained.
 *
 * Every amount lies on a mark of the scale it is weighed on, and the amounts sum to the total exactly. The total is at
 * least what fills and spare ask for; where that ends between marks it goes up, by at most one mark of the coarsest scale (and one of each additive's)
 * with the oil that belongs to it. Rounding never carries the load (on the wax's basis) over `maxLoadPpm` where the asked
 * load is within it. From a weight of wax, the wax is kept; that of a blend goes to the nearest mark. Method: common practice, no source.
 *
 * @throws WeighOutError if nothing is to be filled, or more than 1000 kg.
 */
export function weighOut(input: WeighOutInput): WeighedOut {
  const order = prepare(input);
  const rounded = roundToIncrements(order);
  const { waxes, additives, oils } = rounded;
  const waxMg = sum(waxes);
  const fragranceMg = sum(oils);
  const totalMg = waxMg + fragranceMg + sum(additives);
  if (totalMg > LARGEST_MASS_MG) {
    throw new WeighOutError(
      input.start ? "start" : "vessels",
      `{${writeNumber(totalMg / MG_PER.kg, 1)} kg|${writeNumber(totalMg / MG_PER.lb, 1)} lb} is more than one batch can hold here (at most {1000 kg|2204 lb}). Make several batches.`,
    );
  }
  const out: WeighedOut = {
    totalMg,
    waxMg,
    fragranceMg,
    waxesMg: waxes,
    oilsMg: oils,
    additivesMg: additives,
    askedMg: order.keptWaxMg === null ? order.askedMg : totalMg,
    exact: { waxMg: order.exactWaxMg, fragranceMg: order.exactWaxMg * order.load, additivesMg: order.ppms.map((ppm) => (order.exactWaxMg * ppm) / WHOLE) },
    askedPercentOfWax: order.askedPpm / 10_000,
    loadPercentOfWax: (fragranceMg / waxMg) * 100,
    loadPercentOfTotal: (fragranceMg / totalMg) * 100,
    warnings: [],
    working: [],
  };
  out.warnings = warningsFor(input, order, out, rounded);
  out.working = stepsOf(input, order, out, rounded.isBetween);
  return out;
}
