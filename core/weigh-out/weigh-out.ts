import { type LoadBasis, loadOnBasis } from "../recipe/load";
import { LARGEST_MASS_MG, type Milligrams } from "../units/mass";
import { writeNumber } from "../units/number";
import { type Ppm, WHOLE } from "../units/percent";
import { choose, shareOils } from "./choose";
import { isOnMark, markDown, markMg, nearestMark, shareSteps, sum } from "./marks";
import type { Step } from "./working";

export interface VesselFill {
  name: string;
  fillMg: Milligrams;
  count: number;
}

export interface WeighOutInput {
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
  /** One step of the scale that wax is weighed on, in micrograms: 1 g is 1 000 000. */
  resolutionUg: number;
  /** One step of the scale for fragrance; that of the wax where nothing is said. */
  fragranceResolutionUg?: number | undefined;
  /** One step of the scale for additives; that of the wax where nothing is said. */
  additiveResolutionUg?: number | undefined;
  /** Begins from a weight of wax, or from a total, in place of vessels; spare is not added to it. */
  start?: { waxMg: Milligrams } | { totalMg: Milligrams } | undefined;
  /** Additives, each in millionths of the wax. */
  additives?: { name: string; ppmOfWax: Ppm }[] | undefined;
  /** Waxes by share; one where nothing is said. */
  waxShares?: readonly number[] | undefined;
  /** Fragrances by share, each with the most of it in millionths of the wax. */
  oils?: readonly { share: number; maxPpm?: Ppm | null }[] | undefined;
}

export type WarningCode = "load-above-limit" | "scale-too-coarse" | "rounding-moves-load" | "finer-scale" | "no-spare" | "much-dye" | "pitcher-load";

export interface WeighOutWarning {
  code: WarningCode;
  /** A sentence with the number and what to do, free of mass units so that it reads the same to everybody. */
  message: string;
  /** For "finer-scale": what a scale of that step for the oil would give. */
  finer?: { resolutionUg: number; waxMg: Milligrams; fragranceMg: Milligrams; loadPercentOfWax: number };
}

export interface WeighedOut {
  totalMg: Milligrams;
  waxMg: Milligrams;
  fragranceMg: Milligrams;
  /** In the order of the shares. */
  waxesMg: Milligrams[];
  oilsMg: Milligrams[];
  /** In the order of the input's additives. */
  additivesMg: Milligrams[];
  /** What fills and spare come to; the total is the next weight above it that lies on the marks. */
  askedMg: Milligrams;
  /** What the amounts would be on a scale without steps, in mg. */
  exact: { waxMg: number; fragranceMg: number; additivesMg: number[] };
  /** The load asked for, in percent of the wax. */
  askedPercentOfWax: number;
  /** The load really weighed after rounding, in percent. */
  loadPercentOfWax: number;
  loadPercentOfTotal: number;
  warnings: WeighOutWarning[];
  working: Step[];
}

/** Thrown where the amounts asked for cannot make a batch; the message names the number. */
export class WeighOutError extends Error {
  constructor(
    readonly field: "vessels" | "load_percent" | "start" | "pitcher_capacity_g",
    message: string,
  ) {
    super(message);
  }
}

const percent = (value: number) => `${writeNumber(value, 2)} %`;
const figure = (name: string, mg: number) => ({ name, value: mg / 1_000, unit: "g" as const });

const stepOf = (ug: number) => ({ name: "scale step", value: ug / 1e6, unit: "g" as const });

/** What is shared out over the marks of the scales. */
interface Order {
  askedMg: number;
  exactWaxMg: number;
  load: number;
  limit: Ppm | null;
  resolutionUg: number;
  oilUg: number;
  additiveUg: number;
  ppms: number[];
  slack: number;
  waxShares: readonly number[];
  oils: NonNullable<WeighOutInput["oils"]>;
}

/** The parts on their marks, with so much kept in hand for what sums of rounded parts may lack; null where they cannot hold it. */
function onMarks(order: Order, inHand: number): { waxes: Milligrams[]; added: Milligrams[]; parts: Milligrams[] } | null {
  const { askedMg, load, limit, resolutionUg, oilUg, additiveUg, ppms, slack } = order;
  const at = { oil: oilUg, additive: additiveUg, ppms, slack: inHand, noise: slack > 0 ? slack + 2 : 0 };
  const marks = choose(askedMg, order.exactWaxMg, load, limit, { resolutionUg }, at);
  if (!marks) return null;
  const waxes = shareSteps(marks.wax, order.waxShares).map((n) => markMg(n, resolutionUg));
  const added = marks.additives.map((n) => markMg(n, additiveUg));
  const waxMg = sum(waxes);
  const parts = load === 0 ? order.oils.map(() => 0) : shareOils(marks.oil, order.oils, waxMg, oilUg).map((n) => markMg(n, oilUg));
  const oilMg = sum(parts);
  return waxMg + sum(added) + oilMg >= askedMg && (limit === null || oilMg * WHOLE <= limit * waxMg) ? { waxes, added, parts } : null;
}

/** What the vessels and the spare ask for, with its steps. */
function askedBy(input: WeighOutInput, working: Step[]): Milligrams {
  let fillsMg = 0;
  const parts = input.vessels.map((vessel, index) => {
    const label = vessel.name || `vessel ${index + 1}`;
    const mg = vessel.fillMg * vessel.count;
    fillsMg += mg;
    const gives = figure(`${label}, all`, mg);
    working.push({ gives, by: "multiply", from: [figure(`${label}, fill`, vessel.fillMg), { name: `${label}, count`, value: vessel.count, unit: "jars" }] });
    return gives;
  });
  if (fillsMg <= 0) throw new WeighOutError("vessels", "There is nothing to fill: choose a vessel and a count of at least 1.");
  working.push({ gives: figure("fills", fillsMg), by: "add", from: parts });
  const spareMg = input.spareMg ?? 0;
  if (input.sparePpm === 0 && spareMg === 0) return fillsMg;
  const withSpareMg = Math.ceil((fillsMg * (WHOLE + input.sparePpm)) / WHOLE - 1e-6);
  if (input.sparePpm > 0)
    working.push({
      gives: figure(spareMg > 0 ? "fills with spare" : "fills and spare", withSpareMg),
      by: "multiply",
      from: [figure("fills", fillsMg), { name: "1 + spare", value: 1 + input.sparePpm / WHOLE, unit: "×" }],
    });
  if (spareMg > 0)
    working.push({
      gives: figure("fills and spare", withSpareMg + spareMg),
      by: "add",
      from: [figure(input.sparePpm > 0 ? "fills with spare" : "fills", withSpareMg), figure("left in pitchers", spareMg)],
    });
  return withSpareMg + spareMg;
}

/**
 * Wax, fragrance and additives for a number of vessels, for a weight of wax, or for a total.
 *
 * Every amount lies on a mark of the scale it is weighed on, and the amounts sum to the total exactly. The total is at
 * least what fills and spare ask for; where that ends between marks it goes up, by at most one mark of the coarsest scale
 * with the oil that belongs to it. Rounding never carries the load (on the wax's basis) over `maxLoadPpm` where the asked
 * load is within it. From a weight of wax, the wax is kept. Method: common practice, no source.
 *
 * @throws WeighOutError where nothing is to be filled, or more than 1000 kg.
 */
export const weighOut = (input: WeighOutInput): WeighedOut => amountsOf(input, true);

/** The amounts; the sentences beside them only where they are wanted. */
function amountsOf(input: WeighOutInput, worded: boolean): WeighedOut {
  const { basis, loadPpm, maxLoadPpm, resolutionUg, start } = input;
  const oilUg = input.fragranceResolutionUg ?? resolutionUg;
  const additiveUg = input.additiveResolutionUg ?? resolutionUg;
  const working: Step[] = [];
  const additives = input.additives ?? [];
  const ppms = additives.map((one) => one.ppmOfWax);
  /** All additives, in parts of the wax. */
  const added = sum(ppms) / WHOLE;
  const asked = loadOnBasis(loadPpm, basis, "wax") * (basis === "total" ? 1 + added : 1);
  const load = asked / WHOLE;
  const within = maxLoadPpm !== null && asked <= maxLoadPpm + 1e-6;
  // A limit that the asked load is above already is warned of, and not rounded for.
  const limit = within ? maxLoadPpm : null;
  const oils = input.oils && input.oils.length > 0 ? input.oils : [{ share: 1 }];
  const waxShares = input.waxShares && input.waxShares.length > 0 ? input.waxShares : [1];
  // A step in ounces is no whole number of milligrams, so that the parts of a blend can sum to a milligram or two less.
  const slack = (resolutionUg % 1_000 === 0 ? 0 : waxShares.length) + (oilUg % 1_000 === 0 ? 0 : oils.length);

  let askedMg: Milligrams;
  let exactWaxMg: number;
  let waxesMg: Milligrams[];
  let oilsMg: Milligrams[];
  let additivesMg: Milligrams[];
  let coarse = false;
  let order: Order | null = null;

  if (start && "waxMg" in start) {
    if (start.waxMg <= 0) throw new WeighOutError("start", "There is no wax to start from.");
    exactWaxMg = start.waxMg;
    working.push({ gives: figure("wax", start.waxMg), by: "given", from: [] });
    const whole = isOnMark(start.waxMg, resolutionUg) ? nearestMark(start.waxMg, resolutionUg) : null;
    waxesMg =
      whole === null || waxShares.length === 1
        ? shareMg(start.waxMg, waxShares, resolutionUg)
        : shareSteps(whole, waxShares).map((n) => markMg(n, resolutionUg));
    const waxMg = sum(waxesMg);
    additivesMg = ppms.map((ppm) => markMg(nearestMark((waxMg * ppm) / WHOLE, additiveUg), additiveUg));
    const exact = waxMg * load;
    let steps = loadPpm === 0 ? 0 : nearestMark(exact, oilUg);
    if (limit !== null && markMg(steps, oilUg) * WHOLE > limit * waxMg) steps = markDown(exact, oilUg);
    coarse = loadPpm > 0 && steps <= 0;
    oilsMg = coarse ? shareOils(Math.floor(exact + 1e-6), oils, waxMg, 1_000) : shareOils(steps, oils, waxMg, oilUg).map((n) => markMg(n, oilUg));
    askedMg = waxMg + sum(oilsMg) + sum(additivesMg);
    working.push(
      { gives: figure("fragrance, exact", exact), by: "multiply", from: [figure("wax", waxMg), { name: "load", value: load, unit: "×" }] },
      { gives: figure("fragrance", sum(oilsMg)), by: "round", from: [figure("fragrance, exact", exact), stepOf(oilUg)] },
    );
  } else {
    let base = "fills and spare";
    if (start) {
      askedMg = start.totalMg;
      if (askedMg <= 0) throw new WeighOutError("start", "There is no total to start from.");
      base = "total asked";
      working.push({ gives: figure(base, askedMg), by: "given", from: [] });
    } else {
      askedMg = askedBy(input, working);
      if (input.sparePpm === 0 && !input.spareMg) base = "fills";
    }
    exactWaxMg = basis === "wax" ? askedMg / (1 + loadPpm / WHOLE + added) : (askedMg * (1 - loadPpm / WHOLE)) / (1 + added);
    working.push({
      gives: figure("wax, exact", exactWaxMg),
      by: basis === "wax" ? "divide" : "multiply",
      from: [
        figure(base, askedMg),
        basis === "wax"
          ? { name: added > 0 ? "1 + load + additives" : "1 + load", value: 1 + loadPpm / WHOLE + added, unit: "×" }
          : { name: added > 0 ? "(1 − load) ÷ (1 + additives)" : "1 − load", value: (1 - loadPpm / WHOLE) / (1 + added), unit: "×" },
      ],
    });
    order = { askedMg, exactWaxMg, load: loadPpm === 0 ? 0 : load, limit, resolutionUg, oilUg, additiveUg, ppms, slack, waxShares, oils };
    const marked = onMarks(order, 0) ?? (slack > 0 ? onMarks(order, slack) : null);
    if (marked) ({ waxes: waxesMg, added: additivesMg, parts: oilsMg } = marked);
    else {
      // Too coarse for so small a batch: exact amounts, so that the working can be seen; the limit holds to the milligram.
      coarse = true;
      additivesMg = ppms.map((ppm) => Math.round((exactWaxMg * ppm) / WHOLE));
      const both = askedMg - sum(additivesMg);
      let wax = Math.min(both, Math.ceil(exactWaxMg - 1e-6));
      while (limit !== null && wax < both && (both - wax) * WHOLE > limit * wax) wax += 1;
      if (loadPpm === 0) wax = both;
      waxesMg = shareMg(wax, waxShares, 1_000);
      oilsMg = shareOils(both - wax, oils, wax, 1_000);
    }
    const waxMg = sum(waxesMg);
    const oilMg = sum(oilsMg);
    working.push({
      gives: figure("wax", waxMg),
      by: waxMg > exactWaxMg ? "round up" : "round",
      from: [figure("wax, exact", exactWaxMg), stepOf(resolutionUg)],
    });
    const taken = additives.map((one, index) => figure(one.name, additivesMg[index] ?? 0));
    if (loadPpm > 0 && waxMg + oilMg + sum(additivesMg) === askedMg)
      working.push({ gives: figure("fragrance", oilMg), by: "subtract", from: [figure(base, askedMg), figure("wax", waxMg), ...taken] });
    else if (loadPpm > 0)
      working.push(
        { gives: figure("fragrance, exact", waxMg * load), by: "multiply", from: [figure("wax", waxMg), { name: "load", value: load, unit: "×" }] },
        { gives: figure("fragrance", oilMg), by: oilMg > waxMg * load ? "round up" : "round", from: [figure("fragrance, exact", waxMg * load), stepOf(oilUg)] },
      );
  }
  const waxMg = sum(waxesMg);
  const fragranceMg = sum(oilsMg);
  const totalMg = waxMg + fragranceMg + sum(additivesMg);
  if (totalMg > LARGEST_MASS_MG) {
    throw new WeighOutError(
      start ? "start" : "vessels",
      `${writeNumber(totalMg / 1e6, 1)} kg is more than one batch can hold here (at most 1000 kg). Make several batches.`,
    );
  }
  additives.forEach((additive, index) => {
    const share = { name: `${additive.name}, share`, value: additive.ppmOfWax / WHOLE, unit: "×" as const };
    working.push({ gives: figure(additive.name, additivesMg[index] ?? 0), by: "multiply", from: [figure("wax", waxMg), share] });
  });
  const loadPercentOfWax = (fragranceMg / waxMg) * 100;
  const loadPercentOfTotal = (fragranceMg / totalMg) * 100;
  working.push(
    {
      gives: figure("total", totalMg),
      by: "add",
      from: [
        figure("wax", waxMg),
        ...(loadPpm > 0 ? [figure("fragrance", fragranceMg)] : []),
        ...additives.map((one, index) => figure(one.name, additivesMg[index] ?? 0)),
      ],
    },
    { gives: { name: "load of the wax", value: loadPercentOfWax, unit: "%" }, by: "divide", from: [figure("fragrance", fragranceMg), figure("wax", waxMg)] },
    {
      gives: { name: "load of the total", value: loadPercentOfTotal, unit: "%" },
      by: "divide",
      from: [figure("fragrance", fragranceMg), figure("total", totalMg)],
    },
  );
  const exact = { waxMg: exactWaxMg, fragranceMg: exactWaxMg * load, additivesMg: ppms.map((ppm) => (exactWaxMg * ppm) / WHOLE) };
  const out: WeighedOut = {
    totalMg,
    waxMg,
    fragranceMg,
    waxesMg,
    oilsMg,
    additivesMg,
    askedMg,
    exact,
    askedPercentOfWax: asked / 10_000,
    loadPercentOfWax,
    loadPercentOfTotal,
    warnings: [],
    working,
  };
  if (worded) out.warnings = warningsFor(input, out, { asked, within, coarse, oilUg, order });
  return out;
}

/** Shares a weight that lies on no mark: by largest remainder in steps, what is less than a step goes to the largest share. */
export function shareMg(mg: Milligrams, shares: readonly number[], resolutionUg: number): Milligrams[] {
  if (shares.length === 1) return [mg];
  const parts = shareSteps(markDown(mg, resolutionUg), shares).map((n) => markMg(n, resolutionUg));
  let largest = 0;
  for (let i = 1; i < shares.length; i++) if ((shares[i] as number) > (shares[largest] as number)) largest = i;
  parts[largest] = (parts[largest] as number) + mg - sum(parts);
  return parts;
}

/** What a scale ten times as fine for the oil would give, where it holds the load better. */
function finerFor(input: WeighOutInput, oilUg: number, order: Order | null): NonNullable<WeighOutWarning["finer"]> | null {
  if (oilUg <= 1_000) return null;
  const resolutionUg = Math.max(1_000, Math.round(oilUg / 10));
  const marked = order ? onMarks({ ...order, oilUg: resolutionUg }, 0) : null;
  if (marked) {
    const [waxMg, fragranceMg] = [sum(marked.waxes), sum(marked.parts)];
    return { resolutionUg, waxMg, fragranceMg, loadPercentOfWax: (fragranceMg / waxMg) * 100 };
  }
  const { waxMg, fragranceMg, loadPercentOfWax } = amountsOf(
    { ...input, fragranceResolutionUg: resolutionUg, additiveResolutionUg: input.additiveResolutionUg ?? input.resolutionUg },
    false,
  );
  return { resolutionUg, waxMg, fragranceMg, loadPercentOfWax };
}

/** The sentences a maker should read beside the amounts. */
function warningsFor(
  input: WeighOutInput,
  out: WeighedOut,
  at: { asked: number; within: boolean; coarse: boolean; oilUg: number; order: Order | null },
): WeighOutWarning[] {
  const { maxLoadPpm, loadPpm } = input;
  const warnings: WeighOutWarning[] = [];
  if (maxLoadPpm !== null && !at.within) {
    warnings.push({
      code: "load-above-limit",
      message: `${percent(at.asked / 10_000)} of the wax is above the largest load of ${percent(maxLoadPpm / 10_000)}: it can sweat oil, clog the wick and soot. Lower the load, or check the suppliers' sheets.`,
    });
  }
  if (at.coarse)
    warnings.push({
      code: "scale-too-coarse",
      message: "The scale's step is too coarse for so small a batch: these amounts lie between its marks. Use a finer scale, or make more at once.",
    });
  const off = out.loadPercentOfWax - at.asked / 10_000;
  const mark = (at.oilUg / 1_000 / out.waxMg) * 100;
  if (loadPpm > 0 && !at.coarse && Math.abs(off) >= 0.25) {
    warnings.push({
      code: "rounding-moves-load",
      message: `On ${at.oilUg === input.resolutionUg ? "this scale" : "these scales"} the load becomes ${percent(out.loadPercentOfWax)} of the wax instead of ${percent(at.asked / 10_000)}. One mark of the oil's scale is worth ${percent(mark)}.`,
    });
  }
  // Before under-dosing to keep the limit, or being well off, say what a finer scale for the oil would give.
  if (loadPpm > 0 && !at.coarse && (off < -mark / 2 - 1e-9 || Math.abs(off) >= 0.25)) {
    const finer = finerFor(input, at.oilUg, at.order);
    if (finer && Math.abs(finer.loadPercentOfWax - at.asked / 10_000) < Math.abs(off) - 1e-9)
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
