import { LARGEST_MASS_MG, type Milligrams } from "../quantity/mass";
import { writeNumber } from "../quantity/number";
import { type Ppm, WHOLE } from "../quantity/percent";
import type { Step } from "../working";
import { type LoadBasis, loadOnBasis } from "./load";

export interface VesselFill {
  name: string;
  fillMg: Milligrams;
  count: number;
}

export interface ScaleInput {
  basis: LoadBasis;
  /** The load asked for, in millionths, on `basis`. */
  loadPpm: Ppm;
  /** The largest load the wax takes, in millionths of the wax; null where the supplier's sheet is not known. */
  maxLoadPpm: Ppm | null;
  vessels: VesselFill[];
  /** Extra for what stays in the pitcher and for the top-up, in millionths of the fill. */
  sparePpm: Ppm;
  /** One step of the scale, in micrograms: 1 g is 1 000 000. */
  resolutionUg: number;
}

export type WarningCode = "load-above-limit" | "scale-too-coarse" | "rounding-moves-load" | "between-marks" | "no-spare";

export interface ScaleWarning {
  code: WarningCode;
  /** A sentence with the number and what to do, free of mass units so that it reads the same to everybody. */
  message: string;
}

export interface Scaled {
  totalMg: Milligrams;
  waxMg: Milligrams;
  fragranceMg: Milligrams;
  /** The load really weighed after rounding, in percent. */
  loadPercentOfWax: number;
  loadPercentOfTotal: number;
  warnings: ScaleWarning[];
  working: Step[];
}

/** Thrown where the amounts asked for cannot make a batch; the message names the number. */
export class ScaleError extends Error {
  constructor(
    readonly field: "vessels" | "load_percent",
    message: string,
  ) {
    super(message);
  }
}

const grams = (mg: number) => mg / 1_000;
const percent = (value: number) => `${writeNumber(value, 2)} %`;

/** The nearest mass the scale can show; `up` takes the next one above instead. */
export function onScale(mg: number, resolutionUg: number, up = false): Milligrams {
  const steps = (mg * 1_000) / resolutionUg;
  const whole = up ? Math.ceil(steps - 1e-9) : Math.floor(steps + 0.5);
  return Math.round((whole * resolutionUg) / 1_000);
}

/**
 * Wax and fragrance for a number of vessels.
 *
 * The total (fills × counts, plus spare) is kept exact to the milligram. The wax is rounded to the scale's resolution
 * and the fragrance is the rest of the total, so that the fill stays exact; the real load after that is given. Rounding
 * never carries the load (on the wax's basis) over `maxLoadPpm` where the asked load is within it: the wax then goes up
 * to the next mark instead. Method: common practice, no source.
 *
 * @throws ScaleError where nothing is to be filled, or more than 1000 kg.
 */
export function scaleFormula(input: ScaleInput): Scaled {
  const { basis, loadPpm, maxLoadPpm, sparePpm, resolutionUg } = input;
  const working: Step[] = [];
  const warnings: ScaleWarning[] = [];

  let fillsMg = 0;
  const parts = input.vessels.map((vessel, index) => {
    const label = vessel.name || `vessel ${index + 1}`;
    const mg = vessel.fillMg * vessel.count;
    fillsMg += mg;
    const gives = { name: `${label}, all`, value: grams(mg), unit: "g" as const };
    working.push({
      gives,
      by: "multiply",
      from: [
        { name: `${label}, fill`, value: grams(vessel.fillMg), unit: "g" },
        { name: `${label}, count`, value: vessel.count, unit: "jars" },
      ],
    });
    return gives;
  });
  if (fillsMg <= 0) throw new ScaleError("vessels", "There is nothing to fill: choose a vessel and a count of at least 1.");
  working.push({ gives: { name: "fills", value: grams(fillsMg), unit: "g" }, by: "add", from: parts });

  const totalMg = Math.ceil((fillsMg * (WHOLE + sparePpm)) / WHOLE - 1e-6);
  if (totalMg > LARGEST_MASS_MG) {
    throw new ScaleError("vessels", `${writeNumber(totalMg / 1e6, 1)} kg is more than one batch can hold here (at most 1000 kg). Make several batches.`);
  }
  working.push({
    gives: { name: "total", value: grams(totalMg), unit: "g" },
    by: "multiply",
    from: [
      { name: "fills", value: grams(fillsMg), unit: "g" },
      { name: "1 + spare", value: 1 + sparePpm / WHOLE, unit: "×" },
    ],
  });

  const exactWax = basis === "wax" ? (totalMg * WHOLE) / (WHOLE + loadPpm) : (totalMg * (WHOLE - loadPpm)) / WHOLE;
  working.push({
    gives: { name: "wax, exact", value: grams(exactWax), unit: "g" },
    by: basis === "wax" ? "divide" : "multiply",
    from: [
      { name: "total", value: grams(totalMg), unit: "g" },
      basis === "wax" ? { name: "1 + load", value: 1 + loadPpm / WHOLE, unit: "×" } : { name: "1 − load", value: 1 - loadPpm / WHOLE, unit: "×" },
    ],
  });

  const askedOfWax = loadOnBasis(loadPpm, basis, "wax");
  const within = maxLoadPpm !== null && askedOfWax <= maxLoadPpm + 1e-6;
  const passesLimit = (wax: Milligrams) => within && (totalMg - wax) * WHOLE > maxLoadPpm * wax;
  const unusable = (wax: Milligrams) => wax <= 0 || wax > totalMg || (loadPpm > 0 && wax === totalMg);

  let waxMg = loadPpm === 0 ? totalMg : onScale(exactWax, resolutionUg);
  let roundedUp = false;
  if (loadPpm > 0 && (passesLimit(waxMg) || waxMg <= 0)) {
    waxMg = onScale(exactWax, resolutionUg, true);
    roundedUp = true;
  }
  if (unusable(waxMg)) {
    waxMg = Math.min(totalMg, Math.ceil(exactWax - 1e-6));
    roundedUp = true;
    warnings.push({
      code: "scale-too-coarse",
      message: "The scale's step is too coarse for so small a batch: these amounts are exact. Use a finer scale.",
    });
  }
  const fragranceMg = totalMg - waxMg;
  working.push(
    {
      gives: { name: "wax", value: grams(waxMg), unit: "g" },
      by: roundedUp ? "round up" : "round",
      from: [
        { name: "wax, exact", value: grams(exactWax), unit: "g" },
        { name: "scale step", value: resolutionUg / 1e6, unit: "g" },
      ],
    },
    {
      gives: { name: "fragrance", value: grams(fragranceMg), unit: "g" },
      by: "subtract",
      from: [
        { name: "total", value: grams(totalMg), unit: "g" },
        { name: "wax", value: grams(waxMg), unit: "g" },
      ],
    },
  );

  const loadPercentOfWax = (fragranceMg / waxMg) * 100;
  const loadPercentOfTotal = (fragranceMg / totalMg) * 100;
  for (const [name, value, below] of [
    ["load of the wax", loadPercentOfWax, { name: "wax", value: grams(waxMg), unit: "g" as const }],
    ["load of the total", loadPercentOfTotal, { name: "total", value: grams(totalMg), unit: "g" as const }],
  ] as const) {
    working.push({
      gives: { name, value, unit: "%" },
      by: "divide",
      from: [{ name: "fragrance", value: grams(fragranceMg), unit: "g" }, below],
    });
  }

  if (maxLoadPpm !== null && !within) {
    warnings.unshift({
      code: "load-above-limit",
      message: `${percent(askedOfWax / 10_000)} of the wax is above the ${percent(maxLoadPpm / 10_000)} this wax takes: it can sweat oil, clog the wick and soot. Lower the load, or check the supplier's sheet.`,
    });
  }
  const askedPercent = askedOfWax / 10_000;
  if (loadPpm > 0 && Math.abs(loadPercentOfWax - askedPercent) >= 0.25) {
    warnings.push({
      code: "rounding-moves-load",
      message: `On this scale the load becomes ${percent(loadPercentOfWax)} of the wax instead of ${percent(askedPercent)}. One step of the scale is worth ${percent((resolutionUg / 1_000 / waxMg) * 100)}.`,
    });
  }
  if (fragranceMg > 0 && Math.abs(onScale(fragranceMg, resolutionUg) - fragranceMg) > 0 && !warnings.some((w) => w.code === "scale-too-coarse")) {
    warnings.push({
      code: "between-marks",
      message: `The fragrance falls between two marks of the scale, since the total is kept exact. Use a finer scale for it, or plan a spare of ${percent((onScale(totalMg, resolutionUg, true) / fillsMg - 1) * 100)}, which lands on the marks.`,
    });
  }
  if (sparePpm === 0) {
    warnings.push({ code: "no-spare", message: "No spare is planned: some wax stays in the pitcher, so the last jar can come up short." });
  }
  return { totalMg, waxMg, fragranceMg, loadPercentOfWax, loadPercentOfTotal, warnings, working };
}
