import { askedLoadOfWax } from "../recipe/load";
import type { Milligrams } from "../units/mass";
import { type Ppm, WHOLE } from "../units/percent";
import { choose, shareOils } from "./choose";
import { WeighOutError, type WeighOutInput } from "./contract";
import { markDown, markMg, nearestMark, shareMg, shareSteps, sum } from "./marks";

/** What is shared out over the marks of the scales, in one unit each: loads in parts of the wax, steps in micrograms. */
export interface Order {
  /** What fills and spare come to, or the total begun from; with a weight of wax to begin from, what that leads to. */
  askedMg: number;
  /** The wax on a scale without steps, in mg. */
  exactWaxMg: number;
  /** The weight of wax that is kept, where one is begun from. */
  keptWaxMg: Milligrams | null;
  load: number;
  /** The load asked for, in millionths of the wax. */
  askedPpm: number;
  /** Whether the asked load is within the wax's limit, which rounding may then not pass. */
  within: boolean;
  limit: Ppm | null;
  resolutionUg: number;
  oilUg: number;
  additiveUg: number;
  /** Each additive in millionths of the wax, and all of them in parts of it. */
  ppms: readonly number[];
  added: number;
  /** How much the parts of a blend can sum to less than their whole: a step in ounces is no whole number of milligrams. */
  slack: number;
  waxShares: readonly number[];
  oils: NonNullable<WeighOutInput["oils"]>;
}

/** The amounts by part. */
export interface Parts {
  waxes: Milligrams[];
  additives: Milligrams[];
  oils: Milligrams[];
}

/** What the vessels hold, all of them, and that with the spare by share. */
export function fillsOf(input: WeighOutInput): { fillsMg: Milligrams; withSpareMg: Milligrams } {
  let fillsMg = 0;
  for (const vessel of input.vessels) fillsMg += vessel.fillMg * vessel.count;
  if (fillsMg <= 0) throw new WeighOutError("vessels", "There is nothing to fill: choose a vessel and a count of at least 1.");
  return { fillsMg, withSpareMg: input.sparePpm === 0 ? fillsMg : Math.ceil((fillsMg * (WHOLE + input.sparePpm)) / WHOLE - 1e-6) };
}

/** The order behind an input. @throws WeighOutError where there is nothing to fill or to start from. */
export function orderOf(input: WeighOutInput): Order {
  const { basis, loadPpm, maxLoadPpm, resolutionUg, start } = input;
  const ppms: number[] = [];
  if (input.additives) for (const one of input.additives) ppms.push(one.ppmOfWax);
  const added = sum(ppms) / WHOLE;
  const askedPpm = askedLoadOfWax({ basis, loadPpm }, sum(ppms));
  const within = maxLoadPpm !== null && askedPpm <= maxLoadPpm + 1e-6;
  const oilUg = input.fragranceResolutionUg ?? resolutionUg;
  const oils = input.oils && input.oils.length > 0 ? input.oils : [{ share: 1 }];
  const waxShares = input.waxShares && input.waxShares.length > 0 ? input.waxShares : [1];
  const load = askedPpm / WHOLE;
  let keptWaxMg: number | null = null;
  let askedMg: number;
  let exactWaxMg: number;
  if (start && "waxMg" in start) {
    if (start.waxMg <= 0) throw new WeighOutError("start", "There is no wax to start from.");
    keptWaxMg = start.waxMg;
    exactWaxMg = start.waxMg;
    askedMg = start.waxMg * (1 + load + added);
  } else {
    if (start && start.totalMg <= 0) throw new WeighOutError("start", "There is no total to start from.");
    askedMg = start ? start.totalMg : fillsOf(input).withSpareMg + (input.spareMg ?? 0);
    exactWaxMg = basis === "wax" ? askedMg / (1 + loadPpm / WHOLE + added) : (askedMg * (1 - loadPpm / WHOLE)) / (1 + added);
  }
  return {
    askedMg,
    exactWaxMg,
    keptWaxMg,
    load,
    askedPpm,
    within,
    // A limit that the asked load is above already is warned of, and not rounded for.
    limit: within ? maxLoadPpm : null,
    resolutionUg,
    oilUg,
    additiveUg: input.additiveResolutionUg ?? resolutionUg,
    ppms,
    added,
    slack: (resolutionUg % 1_000 === 0 ? 0 : waxShares.length) + (oilUg % 1_000 === 0 ? 0 : oils.length),
    waxShares,
    oils,
  };
}

const onMarksOf = (steps: number[], resolutionUg: number): Milligrams[] => {
  for (let at = 0; at < steps.length; at++) steps[at] = markMg(steps[at] as number, resolutionUg);
  return steps;
};

/** With the wax kept as it is, a blend to the nearest mark, so that each of its waxes lies on one: the oil on the mark nearest to its dose, never above the limit. Null where it has no mark. */
function beside(order: Order, keptMg: Milligrams, oilUg: number): Parts | null {
  const { load, limit, resolutionUg, additiveUg } = order;
  const waxSteps = nearestMark(keptMg, resolutionUg);
  const waxes =
    order.waxShares.length > 1 && waxSteps > 0
      ? onMarksOf(shareSteps(waxSteps, order.waxShares), resolutionUg)
      : shareMg(keptMg, order.waxShares, resolutionUg);
  const waxMg = sum(waxes);
  const dose = waxMg * load;
  let steps = load === 0 ? 0 : nearestMark(dose, oilUg);
  if (limit !== null && markMg(steps, oilUg) * WHOLE > limit * waxMg) steps = markDown(dose, oilUg);
  if (load > 0 && steps <= 0) return null;
  return {
    waxes,
    additives: order.ppms.map((ppm) => markMg(nearestMark((waxMg * ppm) / WHOLE, additiveUg), additiveUg)),
    oils: onMarksOf(shareOils(steps, order.oils, waxMg, oilUg), oilUg),
  };
}

/** The parts that hold what is asked, with so much kept in hand for what sums of rounded parts may lack. */
function holding(order: Order, oilUg: number, inHand: number): Parts | null {
  const marks = choose(order, oilUg, inHand);
  if (!marks) return null;
  const waxes = onMarksOf(shareSteps(marks.wax, order.waxShares), order.resolutionUg);
  const waxMg = sum(waxes);
  const additives = onMarksOf(marks.additives, order.additiveUg);
  const oils = order.load === 0 ? order.oils.map(() => 0) : onMarksOf(shareOils(marks.oil, order.oils, waxMg, oilUg), oilUg);
  const oilMg = sum(oils);
  const holds = waxMg + sum(additives) + oilMg >= order.askedMg;
  return holds && (order.limit === null || oilMg * WHOLE <= order.limit * waxMg) ? { waxes, additives, oils } : null;
}

/** The parts on the marks of their scales, the oil on one of such a step; null where that is too coarse for so little. */
export function onMarks(order: Order, oilUg = order.oilUg): Parts | null {
  if (order.keptWaxMg !== null) return beside(order, order.keptWaxMg, oilUg);
  return holding(order, oilUg, 0) ?? (order.slack > 0 ? holding(order, oilUg, order.slack) : null);
}

/** The parts between the marks, where those are too coarse: exact amounts, so that the working can be seen; the limit holds to the milligram. */
export function betweenMarks(order: Order): Parts {
  const { load, limit, waxShares, oils, keptWaxMg, resolutionUg } = order;
  const additives = order.ppms.map((ppm) => Math.round((order.exactWaxMg * ppm) / WHOLE));
  if (keptWaxMg !== null)
    return { waxes: shareMg(keptWaxMg, waxShares, resolutionUg), additives, oils: shareOils(Math.floor(keptWaxMg * load + 1e-6), oils, keptWaxMg, 1_000) };
  const both = order.askedMg - sum(additives);
  let wax = load === 0 ? both : Math.min(both, Math.ceil(order.exactWaxMg - 1e-6));
  while (limit !== null && wax < both && (both - wax) * WHOLE > limit * wax) wax += 1;
  return { waxes: shareMg(wax, waxShares, 1_000), additives, oils: shareOils(both - wax, oils, wax, 1_000) };
}
