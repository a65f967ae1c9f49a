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
  /** Extra by weight beside it: what stays in each pitcher. */
  spareMg?: Milligrams | undefined;
  /** One step of the scale, in micrograms: 1 g is 1 000 000. */
  resolutionUg: number;
  /** Begins from a weight of wax, or from a total, in place of vessels; spare is not added to it. */
  start?: { waxMg: Milligrams } | { totalMg: Milligrams } | undefined;
  /** Additives, each in millionths of the wax. */
  additives?: { name: string; ppmOfWax: Ppm }[] | undefined;
}

export type WarningCode = "load-above-limit" | "scale-too-coarse" | "rounding-moves-load" | "between-marks" | "no-spare" | "much-dye";

export interface ScaleWarning {
  code: WarningCode;
  /** A sentence with the number and what to do, free of mass units so that it reads the same to everybody. */
  message: string;
}

export interface Scaled {
  totalMg: Milligrams;
  waxMg: Milligrams;
  fragranceMg: Milligrams;
  /** In the order of the input's additives. */
  additivesMg: Milligrams[];
  /** What the amounts would be on a scale without steps, in mg. */
  exact: { waxMg: number; fragranceMg: number; additivesMg: number[] };
  /** The load really weighed after rounding, in percent. */
  loadPercentOfWax: number;
  loadPercentOfTotal: number;
  warnings: ScaleWarning[];
  working: Step[];
}

/** Thrown where the amounts asked for cannot make a batch; the message names the number. */
export class ScaleError extends Error {
  constructor(
    readonly field: "vessels" | "load_percent" | "start" | "pitcher_capacity_g",
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

const figure = (name: string, mg: number) => ({ name, value: grams(mg), unit: "g" as const });

function passes(limit: Ppm | null, wax: Milligrams, fragrance: Milligrams): boolean {
  return limit !== null && fragrance * WHOLE > limit * wax;
}

function weighAdditives(additives: readonly { ppmOfWax: Ppm }[], wax: number, resolutionUg: number): Milligrams[] {
  const masses: Milligrams[] = [];
  for (const additive of additives) masses.push(onScale((wax * additive.ppmOfWax) / WHOLE, resolutionUg));
  return masses;
}

function sum(masses: readonly Milligrams[]): Milligrams {
  let all = 0;
  for (const mg of masses) all += mg;
  return all;
}

/** The total that the vessels and the spare ask for, with its steps. */
function totalOfVessels(input: ScaleInput, working: Step[]): { fillsMg: Milligrams; totalMg: Milligrams } {
  let fillsMg = 0;
  const parts = input.vessels.map((vessel, index) => {
    const label = vessel.name || `vessel ${index + 1}`;
    const mg = vessel.fillMg * vessel.count;
    fillsMg += mg;
    const gives = figure(`${label}, all`, mg);
    working.push({ gives, by: "multiply", from: [figure(`${label}, fill`, vessel.fillMg), { name: `${label}, count`, value: vessel.count, unit: "jars" }] });
    return gives;
  });
  if (fillsMg <= 0) throw new ScaleError("vessels", "There is nothing to fill: choose a vessel and a count of at least 1.");
  working.push({ gives: figure("fills", fillsMg), by: "add", from: parts });
  const spareMg = input.spareMg ?? 0;
  const withSpareMg = Math.ceil((fillsMg * (WHOLE + input.sparePpm)) / WHOLE - 1e-6);
  const totalMg = withSpareMg + spareMg;
  working.push({
    gives: figure(spareMg > 0 ? "fills and spare" : "total", withSpareMg),
    by: "multiply",
    from: [figure("fills", fillsMg), { name: "1 + spare", value: 1 + input.sparePpm / WHOLE, unit: "×" }],
  });
  if (spareMg > 0)
    working.push({ gives: figure("total", totalMg), by: "add", from: [figure("fills and spare", withSpareMg), figure("left in pitchers", spareMg)] });
  return { fillsMg, totalMg };
}

/** The sentences a maker should read beside the amounts. */
function warningsFor(
  input: ScaleInput,
  at: { fillsMg: number; totalMg: number; waxMg: number; fragranceMg: number; asked: number; within: boolean; coarse: boolean },
): ScaleWarning[] {
  const { maxLoadPpm, resolutionUg, loadPpm } = input;
  const warnings: ScaleWarning[] = [];
  if (maxLoadPpm !== null && !at.within) {
    warnings.push({
      code: "load-above-limit",
      message: `${percent(at.asked / 10_000)} of the wax is above the largest load of ${percent(maxLoadPpm / 10_000)}: it can sweat oil, clog the wick and soot. Lower the load, or check the suppliers' sheets.`,
    });
  }
  if (at.coarse)
    warnings.push({ code: "scale-too-coarse", message: "The scale's step is too coarse for so small a batch: these amounts are exact. Use a finer scale." });
  const real = (at.fragranceMg / at.waxMg) * 100;
  if (loadPpm > 0 && Math.abs(real - at.asked / 10_000) >= 0.25) {
    warnings.push({
      code: "rounding-moves-load",
      message: `On this scale the load becomes ${percent(real)} of the wax instead of ${percent(at.asked / 10_000)}. One step of the scale is worth ${percent((resolutionUg / 1_000 / at.waxMg) * 100)}.`,
    });
  }
  // Ounce steps are no whole milligrams, so a milligram or two is no distance from a mark.
  if (!at.coarse && at.fragranceMg > 0 && Math.abs(onScale(at.fragranceMg, resolutionUg) - at.fragranceMg) > Math.min(2, resolutionUg / 10_000)) {
    const remedy =
      input.start || input.spareMg
        ? ""
        : `, or plan a spare of ${percent((onScale(at.totalMg, resolutionUg, true) / at.fillsMg - 1) * 100)}, which lands on the marks`;
    warnings.push({
      code: "between-marks",
      message: `The fragrance falls between two marks of the scale, since the total is kept exact. Use a finer scale for it${remedy}.`,
    });
  }
  if (!input.start && input.sparePpm === 0 && !input.spareMg) {
    warnings.push({ code: "no-spare", message: "No spare is planned: some wax stays in the pitcher, so the last jar can come up short." });
  }
  return warnings;
}

/**
 * Wax, fragrance and additives for a number of vessels, for a weight of wax, or for a total.
 *
 * The total (fills × counts, plus spare) is kept exact to the milligram. Wax and additives are rounded to the scale's
 * resolution and the fragrance is the rest of the total, so that the fill stays exact; the real load after that is given.
 * From a weight of wax, the wax is kept and the fragrance rounded. Rounding never carries the load (on the wax's basis) over `maxLoadPpm` where the asked load is within it: the wax then goes up
 * to the next mark instead. Method: common practice, no source.
 *
 * @throws ScaleError where nothing is to be filled, or more than 1000 kg.
 */
export function scaleFormula(input: ScaleInput): Scaled {
  const { basis, loadPpm, maxLoadPpm, resolutionUg, start } = input;
  const working: Step[] = [];
  const additives = input.additives ?? [];
  let additivePpm = 0;
  for (const additive of additives) additivePpm += additive.ppmOfWax;
  /** All additives, in parts of the wax. */
  const added = additivePpm / WHOLE;
  const asked = loadOnBasis(loadPpm, basis, "wax") * (basis === "total" ? 1 + added : 1);
  const within = maxLoadPpm !== null && asked <= maxLoadPpm + 1e-6;
  // A limit that the asked load is above already is warned of, and not rounded for.
  const limit = within ? maxLoadPpm : null;

  let fillsMg = 0;
  let totalMg = 0;
  let waxMg: Milligrams;
  let exactWaxMg: number;
  let fragranceMg: Milligrams;
  let additivesMg: Milligrams[];
  let coarse = false;

  if (start && "waxMg" in start) {
    waxMg = start.waxMg;
    exactWaxMg = waxMg;
    if (waxMg <= 0) throw new ScaleError("start", "There is no wax to start from.");
    working.push({ gives: figure("wax", waxMg), by: "given", from: [] });
    additivesMg = weighAdditives(additives, waxMg, resolutionUg);
    const exact = (waxMg * asked) / WHOLE;
    fragranceMg = loadPpm === 0 ? 0 : onScale(exact, resolutionUg);
    if (passes(limit, waxMg, fragranceMg)) fragranceMg = Math.round((Math.floor((exact * 1_000) / resolutionUg + 1e-9) * resolutionUg) / 1_000);
    if (loadPpm > 0 && fragranceMg === 0) {
      fragranceMg = Math.floor(exact + 1e-6);
      coarse = true;
    }
    working.push(
      { gives: figure("fragrance, exact", exact), by: "multiply", from: [figure("wax", waxMg), { name: "load", value: asked / WHOLE, unit: "×" }] },
      {
        gives: figure("fragrance", fragranceMg),
        by: "round",
        from: [figure("fragrance, exact", exact), { name: "scale step", value: resolutionUg / 1e6, unit: "g" }],
      },
    );
    totalMg = waxMg + fragranceMg + sum(additivesMg);
  } else {
    if (start) {
      totalMg = start.totalMg;
      fillsMg = totalMg;
      if (totalMg <= 0) throw new ScaleError("start", "There is no total to start from.");
      working.push({ gives: figure("total", totalMg), by: "given", from: [] });
    } else ({ fillsMg, totalMg } = totalOfVessels(input, working));
    const exactWax = basis === "wax" ? totalMg / (1 + loadPpm / WHOLE + added) : (totalMg * (1 - loadPpm / WHOLE)) / (1 + added);
    exactWaxMg = exactWax;
    working.push({
      gives: figure("wax, exact", exactWax),
      by: basis === "wax" ? "divide" : "multiply",
      from: [
        figure("total", totalMg),
        basis === "wax"
          ? { name: added > 0 ? "1 + load + additives" : "1 + load", value: 1 + loadPpm / WHOLE + added, unit: "×" }
          : { name: added > 0 ? "(1 − load) ÷ (1 + additives)" : "1 − load", value: (1 - loadPpm / WHOLE) / (1 + added), unit: "×" },
      ],
    });
    additivesMg = weighAdditives(additives, exactWax, resolutionUg);
    // What wax and fragrance share once the additives are in.
    let both = totalMg - sum(additivesMg);
    let up = false;
    waxMg = loadPpm === 0 ? both : onScale(exactWax, resolutionUg);
    if (loadPpm > 0 && (passes(limit, waxMg, both - waxMg) || waxMg <= 0)) {
      waxMg = onScale(exactWax, resolutionUg, true);
      // The additives' own rounding can ask for a step more.
      while (waxMg < both && passes(limit, waxMg, both - waxMg)) waxMg = onScale(waxMg + resolutionUg / 1_000, resolutionUg);
      up = true;
    }
    if (waxMg <= 0 || waxMg > both || (loadPpm > 0 && waxMg === both)) {
      additivesMg = additives.map((additive) => Math.round((exactWax * additive.ppmOfWax) / WHOLE));
      both = totalMg - sum(additivesMg);
      waxMg = Math.min(both, Math.ceil(exactWax - 1e-6));
      while (waxMg < both && passes(limit, waxMg, both - waxMg)) waxMg += 1;
      up = true;
      coarse = true;
    }
    fragranceMg = both - waxMg;
    working.push({
      gives: figure("wax", waxMg),
      by: up ? "round up" : "round",
      from: [figure("wax, exact", exactWax), { name: "scale step", value: resolutionUg / 1e6, unit: "g" }],
    });
  }
  if (totalMg > LARGEST_MASS_MG) {
    throw new ScaleError(
      start ? "start" : "vessels",
      `${writeNumber(totalMg / 1e6, 1)} kg is more than one batch can hold here (at most 1000 kg). Make several batches.`,
    );
  }
  additives.forEach((additive, index) => {
    const share = { name: `${additive.name}, share`, value: additive.ppmOfWax / WHOLE, unit: "×" as const };
    working.push({ gives: figure(additive.name, additivesMg[index] ?? 0), by: "multiply", from: [figure("wax", waxMg), share] });
  });
  if (start && "waxMg" in start) {
    const parts = [figure("wax", waxMg), figure("fragrance", fragranceMg), ...additives.map((one, index) => figure(one.name, additivesMg[index] ?? 0))];
    working.push({ gives: figure("total", totalMg), by: "add", from: parts });
  } else {
    const taken = additives.map((one, index) => figure(one.name, additivesMg[index] ?? 0));
    working.push({ gives: figure("fragrance", fragranceMg), by: "subtract", from: [figure("total", totalMg), figure("wax", waxMg), ...taken] });
  }
  const loadPercentOfWax = (fragranceMg / waxMg) * 100;
  const loadPercentOfTotal = (fragranceMg / totalMg) * 100;
  working.push(
    { gives: { name: "load of the wax", value: loadPercentOfWax, unit: "%" }, by: "divide", from: [figure("fragrance", fragranceMg), figure("wax", waxMg)] },
    {
      gives: { name: "load of the total", value: loadPercentOfTotal, unit: "%" },
      by: "divide",
      from: [figure("fragrance", fragranceMg), figure("total", totalMg)],
    },
  );
  const warnings = warningsFor(input, { fillsMg, totalMg, waxMg, fragranceMg, asked, within, coarse });
  const exactAdded = additives.map((additive) => (exactWaxMg * additive.ppmOfWax) / WHOLE);
  const exact = { waxMg: exactWaxMg, fragranceMg: (exactWaxMg * asked) / WHOLE, additivesMg: exactAdded };
  return { totalMg, waxMg, fragranceMg, additivesMg, exact, loadPercentOfWax, loadPercentOfTotal, warnings, working };
}
