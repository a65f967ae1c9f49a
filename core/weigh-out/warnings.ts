import { exactResolution } from "../units/mass";
import { writeNumber } from "../units/number";
import type { WeighedOut, WeighOutInput, WeighOutWarning } from "./contract";
import { sum } from "./marks";
import { type Order, onMarks } from "./order";

const percent = (value: number) => `${writeNumber(value, 2)} %`;

/** What a scale ten times as fine for the oil would give; null where there is none so fine. */
function finerFor(order: Order): NonNullable<WeighOutWarning["finer"]> | null {
  if (order.oilUg <= 1_000) return null;
  const resolutionUg = Math.max(1_000, exactResolution(order.oilUg / 10));
  const parts = onMarks(order, resolutionUg);
  if (!parts) return null;
  const [waxMg, fragranceMg] = [sum(parts.waxes), sum(parts.oils)];
  return { resolutionUg, waxMg, fragranceMg, loadPercentOfWax: (fragranceMg / waxMg) * 100 };
}

/** The sentences a maker should read beside the amounts. */
export function warningsFor(input: WeighOutInput, order: Order, out: WeighedOut, coarse: boolean): WeighOutWarning[] {
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
  if (coarse)
    warnings.push({
      code: "scale-too-coarse",
      message: "The scale's step is too coarse for so small a batch: these amounts lie between its marks. Use a finer scale, or make more at once.",
    });
  const off = out.loadPercentOfWax - asked;
  const mark = (oilUg / 1_000 / out.waxMg) * 100;
  if (loadPpm > 0 && !coarse && Math.abs(off) >= 0.25) {
    warnings.push({
      code: "rounding-moves-load",
      message: `On ${oilUg === input.resolutionUg ? "this scale" : "these scales"} the load becomes ${percent(out.loadPercentOfWax)} of the wax instead of ${percent(asked)}. One mark of the oil's scale is worth ${percent(mark)}.`,
    });
  }
  // Before under-dosing to keep the limit, or being well off, say what a finer scale for the oil would give.
  if (loadPpm > 0 && !coarse && (off < -mark / 2 - 1e-9 || Math.abs(off) >= 0.25)) {
    const finer = finerFor(order);
    if (finer && Math.abs(finer.loadPercentOfWax - asked) < Math.abs(off) - 1e-9)
      warnings.push({
        code: "finer-scale",
        message: `With the oil on a scale ten times as fine the load would be ${percent(finer.loadPercentOfWax)} of the wax.`,
        finer,
      });
  }
  if (!input.start && input.sparePpm === 0 && !input.spareMg) {
    warnings.push({ code: "no-spare", message: "No spare is planned: some wax stays in the pitcher, so the last jar can come up short." });
  }
  return warnings;
}
