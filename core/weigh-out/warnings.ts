import type { Milligrams } from "../units/mass";
import { writeNumber } from "../units/number";
import type { PartBelowIncrement, WeighedOut, WeighOutInput, WeighOutWarning } from "./contract";
import { incrementMg, nearestIncrement, sum } from "./increments";
import type { Order } from "./prepare";
import { LOAD_IS_OFF, type Rounded } from "./round";

const percent = (value: number) => `${writeNumber(value, 2)} %`;

/** A premix is told apart from nothing by at least so many marks. */
const MIN_MARKS = 2;
const TENTH: [partMg: Milligrams, inMg: Milligrams] = [10_000, 90_000];
const HUNDREDTH: [partMg: Milligrams, inMg: Milligrams] = [10_000, 990_000];

/** Returns a premix of which as much can be weighed as the part needs: a tenth, or a hundredth, of it. Common practice, no source. */
function premixFor(exactMg: number, resolutionUg: number): PartBelowIncrement["premix"] {
  for (const [partMg, inMg] of [TENTH, HUNDREDTH]) {
    const take = nearestIncrement((exactMg * (partMg + inMg)) / partMg, resolutionUg);
    if (take >= MIN_MARKS) return { partMg, inMg, takeMg: incrementMg(take, resolutionUg) };
  }
  return null;
}

/** Parts that come to less than half a mark of their scale, so that nothing of them would be weighed. */
function partsBelowMark(input: WeighOutInput, order: Order, out: WeighedOut): PartBelowIncrement[] {
  const found: PartBelowIncrement[] = [];
  const look = (kind: PartBelowIncrement["kind"], name: string, mg: Milligrams | undefined, exactMg: number, resolutionUg: number) => {
    if (mg === 0 && exactMg > 1e-6) found.push({ kind, name, exactMg, premix: kind === "wax" ? null : premixFor(exactMg, resolutionUg) });
  };
  const shareOf = (list: readonly { share: number }[], at: number) => (list[at]?.share ?? 0) / sum(list.map((item) => item.share));
  order.waxShares.forEach((share, index) => {
    look("wax", input.waxNames?.[index] ?? `wax ${index + 1}`, out.waxesMg[index], (out.exact.waxMg * share) / sum(order.waxShares), order.resolutionUg);
  });
  (input.additives ?? []).forEach((additive, index) => {
    look("additive", additive.name, out.additivesMg[index], out.exact.additivesMg[index] ?? 0, order.additiveUg);
  });
  order.oils.forEach((oil, index) => {
    look("fragrance", oil.name ?? `fragrance ${index + 1}`, out.oilsMg[index], out.exact.fragranceMg * shareOf(order.oils, index), order.oilUg);
  });
  return found;
}

/** Returns what to do about a part that is not weighed, in grams. */
function sayBelow({ name, kind, exactMg, premix }: PartBelowIncrement): string {
  const text = `“${name}” comes to ${writeNumber(exactMg / 1_000, 3)} g, less than half of what its scale reads to, so it cannot be weighed.`;
  const into = kind === "fragrance" ? "the rest of the fragrance" : "wax";
  const mixed = premix
    ? `, or premix it: ${premix.partMg / 1_000} g in ${premix.inMg / 1_000} g of ${into}, and weigh ${writeNumber(premix.takeMg / 1_000, 3)} g of that`
    : "";
  return `${text} Use a finer scale${premix ? "," : " or"} make a larger batch${mixed}.`;
}

/** Returns the sentences a maker should read beside the amounts. */
export function warningsFor(input: WeighOutInput, order: Order, out: WeighedOut, { isBetween, off, finer }: Rounded): WeighOutWarning[] {
  const { maxLoadPpm, loadPpm } = input;
  const { oilUg } = order;
  const asked = out.askedPercentOfWax;
  const warnings: WeighOutWarning[] = [];
  if (maxLoadPpm !== null && !order.within) {
    warnings.push({
      code: "load-above-limit",
      message: `${percent(asked)} of the wax is above the largest load of ${percent(maxLoadPpm / 10_000)}: it can sweat oil, clog the wick and soot. Lower the load, or check the suppliers' sheets.`,
    });
  }
  if (isBetween)
    warnings.push({
      code: "scale-too-coarse",
      message: "The scale's step is too coarse for so small a batch: these amounts lie between its marks. Use a finer scale, or make more at once.",
    });
  const mark = (oilUg / 1_000 / out.waxMg) * 100;
  if (loadPpm > 0 && !isBetween && Math.abs(off) >= LOAD_IS_OFF) {
    warnings.push({
      code: "rounding-moves-load",
      message: `On ${oilUg === input.resolutionUg ? "this scale" : "these scales"} the load becomes ${percent(out.loadPercentOfWax)} of the wax instead of ${percent(asked)}. One mark of the oil's scale is worth ${percent(mark)}.`,
    });
  }
  // Where the load is off, or kept below what was asked to hold the limit, say what a finer scale for the oil would give.
  if (finer)
    warnings.push({
      code: "finer-scale",
      message: `With the oil on a scale ten times as fine the load would be ${percent(finer.loadPercentOfWax)} of the wax.`,
      finer,
    });
  for (const below of partsBelowMark(input, order, out)) warnings.push({ code: "part-below-mark", message: sayBelow(below), below });
  if (!input.start && input.sparePpm === 0 && !input.spareMg) {
    warnings.push({ code: "no-spare", message: "No extra is planned, and some wax stays in the pitcher: the last jar can come up short." });
  }
  return warnings;
}
