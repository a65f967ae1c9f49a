import type { Milligrams } from "../units/mass";
import { type Ppm, WHOLE } from "../units/percent";
import { markDown, markMg, markUp, nearestMark, shareSteps, sum } from "./marks";

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
 * stays as near to what is asked as its marks allow, and the oil is the rest. Null where the scale is too coarse for it.
 */
export function choose(
  askedMg: number,
  exactWax: number,
  load: number,
  limit: Ppm | null,
  input: { resolutionUg: number },
  at: { oil: number; additive: number; ppms: number[]; slack: number; noise: number },
): Marks | null {
  const { resolutionUg } = input;
  const added = sum(at.ppms) / WHOLE;
  const finer = at.oil < resolutionUg;
  const coarsest = Math.max(resolutionUg, at.oil, at.ppms.length > 0 ? at.additive : 0) / 1_000;
  const most = askedMg + coarsest * (1 + load + added) + at.slack;
  const first = Math.floor((exactWax * 1_000) / resolutionUg) - 1;
  const candidates: number[] = [];
  for (let wax = Math.max(1, first); wax <= first + 5; wax++) candidates.push(wax);
  // Where the oil's marks are the coarser, the wax that belongs to each of those near the dose.
  if (at.oil > resolutionUg && load > 0) {
    const near = markDown(exactWax * load, at.oil);
    for (let oil = Math.max(1, near - 1); oil <= near + 2; oil++) {
      const rest = markUp(Math.max(1, (askedMg + at.slack - markMg(oil, at.oil)) / (1 + added)), resolutionUg);
      candidates.push(rest, rest + 1);
    }
  }
  let best: { wax: number; oil: number; beyond: number; total: number; off: number } | null = null;
  for (const wax of candidates) {
    const waxMg = markMg(wax, resolutionUg);
    let rest = askedMg - waxMg;
    for (const ppm of at.ppms) rest -= markMg(nearestMark((waxMg * ppm) / WHOLE, at.additive), at.additive);
    const least = load === 0 ? 0 : Math.max(1, markUp(rest + at.slack, at.oil));
    const dose = waxMg * load;
    for (let one = 0; one < (load === 0 ? 1 : 3); one++) {
      const oil = one === 0 ? least : Math.max(least, one === 1 ? markDown(dose, at.oil) : markUp(dose, at.oil));
      const oilMg = markMg(oil, at.oil);
      const total = oilMg + askedMg - rest;
      if (total + 1e-9 < askedMg + (load === 0 ? at.slack : 0) || total > most) continue;
      if (limit !== null && (oilMg + at.slack) * WHOLE > limit * (waxMg - at.slack)) continue;
      if (load > 0 && oilMg >= waxMg * (load * 4 + 1)) continue;
      const off = Math.abs(oilMg / waxMg - load);
      const beyond = finer ? Math.max(0, Math.abs(oilMg - dose) - at.oil / 2_000 - 1e-6) : 0;
      if (best) {
        // Figure by figure; within its tolerance a figure counts as the same.
        const further =
          Math.abs(beyond - best.beyond) > 1e-9 ? beyond - best.beyond : Math.abs(total - best.total) > at.noise ? total - best.total : off - best.off;
        if (further > -1e-12) continue;
      }
      best = { wax, oil, beyond, total, off };
    }
  }
  if (!best) return null;
  const waxMg = markMg(best.wax, resolutionUg);
  return { wax: best.wax, oil: best.oil, additives: at.ppms.map((ppm) => nearestMark((waxMg * ppm) / WHOLE, at.additive)) };
}
