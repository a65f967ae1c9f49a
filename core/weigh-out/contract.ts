import type { LoadBasis } from "../recipe/load";
import type { Milligrams } from "../units/mass";
import type { Ppm } from "../units/percent";
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
  /** The largest load the wax takes, in millionths of the wax; null if the supplier's sheet is not known. */
  maxLoadPpm: Ppm | null;
  vessels: VesselFill[];
  /** Extra for what stays in the pitcher and for the top-up, in millionths of the fill. */
  sparePpm: Ppm;
  /** Extra by weight beside it: what stays in each pitcher. */
  spareMg?: Milligrams | undefined;
  /** One step of the scale that wax is weighed on, in micrograms: 1 g is 1 000 000. */
  resolutionUg: number;
  /** One step of the scale for fragrance; that of the wax if nothing is given. */
  fragranceResolutionUg?: number | undefined;
  /** One step of the scale for additives; that of the wax if nothing is given. */
  additiveResolutionUg?: number | undefined;
  /** Begins from a weight of wax, or from a total, in place of vessels; spare is not added to it. */
  start?: { waxMg: Milligrams } | { totalMg: Milligrams } | undefined;
  /** Additives, each in millionths of the wax. */
  additives?: { name: string; ppmOfWax: Ppm }[] | undefined;
  /** Waxes by share; one if nothing is given. */
  waxShares?: readonly number[] | undefined;
  /** Their names, for warnings. */
  waxNames?: readonly string[] | undefined;
  /** Fragrances by share, each with the most of it in millionths of the wax. */
  oils?: readonly { name?: string; share: number; maxPpm?: Ppm | null }[] | undefined;
}

export type WarningCode =
  | "load-above-limit"
  | "scale-too-coarse"
  | "rounding-moves-load"
  | "finer-scale"
  | "part-below-mark"
  | "no-spare"
  | "much-dye"
  | "pitcher-load";

export interface WeighOutWarning {
  code: WarningCode;
  /** A sentence with the number and what to do, free of mass units so that it reads the same to everybody. */
  message: string;
  /** For "finer-scale": what a scale of that step for the oil would give. */
  finer?: { resolutionUg: number; waxMg: Milligrams; fragranceMg: Milligrams; loadPercentOfWax: number };
  /** For "part-below-mark": what would not be weighed at all, and a premix that can be, if there is one fine enough. */
  below?: PartBelowIncrement;
}

/** A part of so little that its scale shows nothing of it. */
export interface PartBelowIncrement {
  name: string;
  kind: "wax" | "fragrance" | "additive";
  exactMg: number;
  /** One part of it in so many parts of wax (of an oil: of the rest of the fragrance), and how much of that is weighed. */
  premix: { partMg: Milligrams; inMg: Milligrams; takeMg: Milligrams } | null;
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
