import type { Milligrams } from "../units/mass";
import { type Ppm, WHOLE } from "../units/percent";
import { markDown, markMg, markUp, nearestMark, shareSteps } from "./marks";
import type { Order } from "./order";

/** The most steps of the oils together, and their parts, that keep each oil under its own limit; the asked steps where they do. */
export function shareOils(steps: number, oils: readonly { share: number; maxPpm?: Ppm | null }[], waxMg: Milligrams, resolutionUg: number): number[] {
  const parts = shareSteps(
    steps,
    oils.map((one) => one.share),
  );
  for (let i = 0; i < parts.length; i++) {
    const most = oils[i]?.maxPpm;
    if (most == null) continue;
    const cap = Math.max(0, markDown((most * waxMg) / WHOLE, resolutionUg));
    let over = (parts[i] as number) - cap;
    for (let k = 0; k < parts.length && over > 0; k++) {
      if (k === i) continue;
      const room = oils[k]?.maxPpm == null ? over : Math.max(0, markDown(((oils[k]?.maxPpm as number) * waxMg) / WHOLE, resolutionUg) - (parts[k] as number));
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
 * stays as near to what is asked as its marks allow, and the oil is the rest; with additives it is off its dose by a mark at most. Null where the scale is too coarse for it.
 */
export function choose(order: Order, oilUg: number, inHand: number): Marks | null {
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
    const near = markDown(exactWaxMg * load, oilUg);
    for (let oil = Math.max(1, near - 1); oil <= near + 2; oil++) {
      const rest = markUp(Math.max(1, (askedMg + inHand - markMg(oil, oilUg)) / rated), resolutionUg);
      candidates.push(rest, rest + 1);
    }
  }
  let best: Marks | null = null;
  let [beyondBest, totalBest, offBest] = [0, 0, 0];
  for (const wax of candidates) {
    const waxMg = markMg(wax, resolutionUg);
    let rest = askedMg - waxMg;
    for (const ppm of ppms) rest -= markMg(nearestMark((waxMg * ppm) / WHOLE, additiveUg), additiveUg);
    const least = load === 0 ? 0 : Math.max(1, markUp(rest + inHand, oilUg));
    const dose = waxMg * load;
    for (let one = 0; one < (load === 0 ? 1 : 3); one++) {
      const oil = one === 0 ? least : Math.max(least, one === 1 ? markDown(dose, oilUg) : markUp(dose, oilUg));
      const oilMg = markMg(oil, oilUg);
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
  if (best) for (const ppm of ppms) best.additives.push(nearestMark((markMg(best.wax, resolutionUg) * ppm) / WHOLE, additiveUg));
  return best;
}
