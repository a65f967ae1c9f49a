import { exactResolution, type Milligrams } from "../units/mass";
import { type Ppm, WHOLE } from "../units/percent";
import { incrementDown, incrementMg, incrementUp, nearestIncrement, shareMg, shareSteps, sum } from "./increments";
import type { Order } from "./prepare";

/** The amounts by part. */
export interface Parts {
  waxes: Milligrams[];
  additives: Milligrams[];
  oils: Milligrams[];
}

/** Returns the most steps of the oils together, and their parts, that keep each oil under its own limit; the asked steps where they do. */
function shareOils(steps: number, oils: readonly { share: number; maxPpm?: Ppm | null }[], waxMg: Milligrams, resolutionUg: number): number[] {
  const parts = shareSteps(
    steps,
    oils.map((oil) => oil.share),
  );
  for (let i = 0; i < parts.length; i++) {
    const most = oils[i]?.maxPpm;
    if (most == null) continue;
    const cap = Math.max(0, incrementDown((most * waxMg) / WHOLE, resolutionUg));
    let over = (parts[i] as number) - cap;
    for (let k = 0; k < parts.length && over > 0; k++) {
      if (k === i) continue;
      const room =
        oils[k]?.maxPpm == null ? over : Math.max(0, incrementDown(((oils[k]?.maxPpm as number) * waxMg) / WHOLE, resolutionUg) - (parts[k] as number));
      const moved = Math.min(over, room);
      parts[k] = (parts[k] as number) + moved;
      parts[i] = (parts[i] as number) - moved;
      over -= moved;
    }
  }
  return parts;
}

interface Marks {
  wax: number;
  oil: number;
  additives: number[];
}

/**
 * The steps to weigh: of all that hold at least what is asked and keep the limit, those nearest to the asked load. Where
 * the oil is weighed on the finer scale, the wax goes up to its next mark and the oil follows it; on one scale the total
 * stays as near to what is asked as its marks allow, and the oil is the rest; with additives it is off its dose by a mark at most. Null if the scale is too coarse for it.
 */
function choose(order: Order, oilUg: number, inHand: number): Marks | null {
  const { askedMg, exactWaxMg, load, limit, resolutionUg, additiveUg, ppms } = order;
  const rated = 1 + order.added;
  const coarsest = Math.max(resolutionUg, oilUg, ppms.length > 0 ? additiveUg : 0) / 1_000;
  // From one wax to the next each additive can go up by a mark at once.
  const most = askedMg + coarsest * (rated + load) + inHand + (ppms.length * additiveUg) / 1_000;
  const noise = order.slack > 0 ? order.slack + 2 : 0;
  const first = Math.floor((exactWaxMg * 1_000) / resolutionUg) - 1;
  const candidates: number[] = [];
  const rounded = Math.ceil((ppms.length * additiveUg) / (2 * resolutionUg));
  for (let wax = Math.max(1, first - rounded); wax <= first + 5 + rounded; wax++) candidates.push(wax);
  // Where the oil's marks are the coarser, the wax that belongs to each of those near the dose.
  if (oilUg > resolutionUg && load > 0) {
    const near = incrementDown(exactWaxMg * load, oilUg);
    for (let oil = Math.max(1, near - 1); oil <= near + 2; oil++) {
      const rest = incrementUp(Math.max(1, (askedMg + inHand - incrementMg(oil, oilUg)) / rated), resolutionUg);
      candidates.push(rest, rest + 1);
    }
  }
  let best: Marks | null = null;
  let [beyondBest, totalBest, offBest] = [0, 0, 0];
  for (const wax of candidates) {
    const waxMg = incrementMg(wax, resolutionUg);
    let rest = askedMg - waxMg;
    for (const ppm of ppms) rest -= incrementMg(nearestIncrement((waxMg * ppm) / WHOLE, additiveUg), additiveUg);
    const least = load === 0 ? 0 : Math.max(1, incrementUp(rest + inHand, oilUg));
    const dose = waxMg * load;
    for (let value = 0; value < (load === 0 ? 1 : 3); value++) {
      const oil = value === 0 ? least : Math.max(least, value === 1 ? incrementDown(dose, oilUg) : incrementUp(dose, oilUg));
      const oilMg = incrementMg(oil, oilUg);
      const total = oilMg + askedMg - rest;
      if (total + 1e-9 < askedMg + (load === 0 ? inHand : 0) || total > most) continue;
      if (limit !== null && (oilMg + inHand) * WHOLE > limit * (waxMg - inHand)) continue;
      if (load > 0 && oilMg >= waxMg * (load * 4 + 1)) continue;
      const off = Math.abs(oilMg / waxMg - load);
      // The oil does not take up what additives lose to their marks: on one scale with them it is off by a mark at most.
      const room = oilUg < resolutionUg ? oilUg / 2_000 : ppms.length > 0 ? oilUg / 1_000 : Number.POSITIVE_INFINITY;
      const beyond = Math.max(0, Math.abs(oilMg - dose) - room - 1e-6);
      if (best) {
        // Figure by figure; within its tolerance a figure counts as the same.
        const further = Math.abs(beyond - beyondBest) > 1e-9 ? beyond - beyondBest : Math.abs(total - totalBest) > noise ? total - totalBest : off - offBest;
        if (further > -1e-12) continue;
        best.wax = wax;
        best.oil = oil;
      } else best = { wax, oil, additives: [] };
      beyondBest = beyond;
      totalBest = total;
      offBest = off;
    }
  }
  if (best) for (const ppm of ppms) best.additives.push(nearestIncrement((incrementMg(best.wax, resolutionUg) * ppm) / WHOLE, additiveUg));
  return best;
}

const onMarksOf = (steps: number[], resolutionUg: number): Milligrams[] => {
  for (let at = 0; at < steps.length; at++) steps[at] = incrementMg(steps[at] as number, resolutionUg);
  return steps;
};

/** With the wax kept as it is, a blend to the nearest mark, so that each of its waxes lies on one: the oil on the mark nearest to its dose, never above the limit. Null if it has no mark. */
function beside(order: Order, keptMg: Milligrams, oilUg: number): Parts | null {
  const { load, limit, resolutionUg, additiveUg } = order;
  const waxSteps = nearestIncrement(keptMg, resolutionUg);
  const waxes =
    order.waxShares.length > 1 && waxSteps > 0
      ? onMarksOf(shareSteps(waxSteps, order.waxShares), resolutionUg)
      : shareMg(keptMg, order.waxShares, resolutionUg);
  const waxMg = sum(waxes);
  const dose = waxMg * load;
  let steps = load === 0 ? 0 : nearestIncrement(dose, oilUg);
  if (limit !== null && incrementMg(steps, oilUg) * WHOLE > limit * waxMg) steps = incrementDown(dose, oilUg);
  if (load > 0 && steps <= 0) return null;
  return {
    waxes,
    additives: order.ppms.map((ppm) => incrementMg(nearestIncrement((waxMg * ppm) / WHOLE, additiveUg), additiveUg)),
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

/** The parts on the marks of their scales, the oil on one of such a step; null if that is too coarse for so little. */
function onMarks(order: Order, oilUg = order.oilUg): Parts | null {
  if (order.keptWaxMg !== null) return beside(order, order.keptWaxMg, oilUg);
  return holding(order, oilUg, 0) ?? (order.slack > 0 ? holding(order, oilUg, order.slack) : null);
}

/** The parts between the marks, where those are too coarse: exact amounts, so that the working can be seen; the limit holds to the milligram. */
function betweenMarks(order: Order): Parts {
  const { load, limit, waxShares, oils, keptWaxMg, resolutionUg } = order;
  const additives = order.ppms.map((ppm) => Math.round((order.exactWaxMg * ppm) / WHOLE));
  if (keptWaxMg !== null)
    return { waxes: shareMg(keptWaxMg, waxShares, resolutionUg), additives, oils: shareOils(Math.floor(keptWaxMg * load + 1e-6), oils, keptWaxMg, 1_000) };
  const both = order.askedMg - sum(additives);
  let wax = load === 0 ? both : Math.min(both, Math.ceil(order.exactWaxMg - 1e-6));
  while (limit !== null && wax < both && (both - wax) * WHOLE > limit * wax) wax += 1;
  return { waxes: shareMg(wax, waxShares, 1_000), additives, oils: shareOils(both - wax, oils, wax, 1_000) };
}

/** The amounts as they are weighed. */
export interface Rounded extends Parts {
  /** They lie between the marks, since those are too coarse for so little. */
  isBetween: boolean;
  /** By how much rounding moved the load, in percent of the wax. */
  off: number;
  /** What a scale ten times as fine would give for the oil, where rounding moved the load and that brings it nearer; else null. */
  finer: { resolutionUg: number; waxMg: Milligrams; fragranceMg: Milligrams; loadPercentOfWax: number } | null;
}

/** A load that is off by so many percent of the wax is warned of. */
export const LOAD_IS_OFF = 0.25;

const loadOf = ({ waxes, oils }: Parts): number => (sum(oils) / sum(waxes)) * 100;

/** Returns what a scale ten times as fine for the oil would give; null if it is no better or there is none so fine. */
function finerFor(order: Order, off: number, waxMg: Milligrams): Rounded["finer"] {
  const { oilUg } = order;
  const halfMark = (oilUg / 1_000 / waxMg) * 50;
  if (order.load === 0 || oilUg <= 1_000 || (off >= -halfMark - 1e-9 && Math.abs(off) < LOAD_IS_OFF)) return null;
  const resolutionUg = Math.max(1_000, exactResolution(oilUg / 10));
  const parts = onMarks(order, resolutionUg);
  if (!parts || Math.abs(loadOf(parts) - order.load * 100) >= Math.abs(off) - 1e-9) return null;
  return { resolutionUg, waxMg: sum(parts.waxes), fragranceMg: sum(parts.oils), loadPercentOfWax: loadOf(parts) };
}

/** Returns the amounts on the marks of their scales, or between them where those are too coarse. */
export function roundToIncrements(order: Order): Rounded {
  const marked = onMarks(order);
  const parts = marked ?? betweenMarks(order);
  const off = loadOf(parts) - order.load * 100;
  return { ...parts, isBetween: marked === null, off, finer: marked ? finerFor(order, off, sum(parts.waxes)) : null };
}
