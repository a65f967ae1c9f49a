import { askedLoadOfWax } from "../recipe/load";
import type { Milligrams } from "../units/mass";
import { type Ppm, WHOLE } from "../units/percent";
import { WeighOutError, type WeighOutInput } from "./contract";
import { sum } from "./increments";

/** What is shared out over the marks of the scales, in one unit each: loads in parts of the wax, steps in micrograms. */
export interface Order {
  /** What the vessels hold, all of them, and that with the spare by share; null if nothing is filled but a weight is begun from. */
  fills: { fillsMg: Milligrams; withSpareMg: Milligrams } | null;
  /** What fills and spare come to, or the total begun from; with a weight of wax to begin from, what that leads to. */
  askedMg: number;
  /** The wax on a scale without steps, in mg. */
  exactWaxMg: number;
  /** The weight of wax that is kept, if there is one begun from. */
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

/** Returns what the vessels hold, all of them, and that with the spare by share. */
function fillsOf(input: WeighOutInput): { fillsMg: Milligrams; withSpareMg: Milligrams } {
  let fillsMg = 0;
  for (const vessel of input.vessels) fillsMg += vessel.fillMg * vessel.count;
  if (fillsMg <= 0) throw new WeighOutError("vessels", "There is nothing to fill: choose a vessel and a count of at least 1.");
  return { fillsMg, withSpareMg: input.sparePpm === 0 ? fillsMg : Math.ceil((fillsMg * (WHOLE + input.sparePpm)) / WHOLE - 1e-6) };
}

/** Returns what an input asks for, with what it leaves unsaid filled in. @throws WeighOutError if there is nothing to fill or to start from. */
export function prepare(input: WeighOutInput): Order {
  const { basis, loadPpm, maxLoadPpm, resolutionUg, start } = input;
  const ppms: number[] = [];
  if (input.additives) for (const additive of input.additives) ppms.push(additive.ppmOfWax);
  const added = sum(ppms) / WHOLE;
  const askedPpm = askedLoadOfWax({ basis, loadPpm }, sum(ppms));
  const within = maxLoadPpm !== null && askedPpm <= maxLoadPpm + 1e-6;
  const oilUg = input.fragranceResolutionUg ?? resolutionUg;
  const oils = input.oils && input.oils.length > 0 ? input.oils : [{ share: 1 }];
  const waxShares = input.waxShares && input.waxShares.length > 0 ? input.waxShares : [1];
  const load = askedPpm / WHOLE;
  let fills: Order["fills"] = null;
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
    fills = start ? null : fillsOf(input);
    askedMg = start ? start.totalMg : (fills?.withSpareMg ?? 0) + (input.spareMg ?? 0);
    exactWaxMg = basis === "wax" ? askedMg / (1 + loadPpm / WHOLE + added) : (askedMg * (1 - loadPpm / WHOLE)) / (1 + added);
  }
  return {
    fills,
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
