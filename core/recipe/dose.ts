import { type MassUnit, MG_PER } from "../units/mass";
import { writeNumber } from "../units/number";
import type { DyePart } from "./schema";

/** Pounds in a kilogram. */
export const LB_PER_KG = MG_PER.kg / MG_PER.lb;
const toThousandth = (value: number): number => Math.round(value * 1_000) / 1_000;

/** Returns a dose of dye as the workshop counts it: drops or pieces, kept per pound of wax, are per kilogram where grams are weighed. */
export const doseShown = ({ by, amount }: Pick<DyePart, "by" | "amount">, unit: MassUnit): number =>
  by === "percent" || unit === "oz" ? amount : toThousandth(amount * LB_PER_KG);

/** Returns a dose as it is kept, from how the workshop counts it, so that it is shown as it was typed. */
export function doseFromShown(by: DyePart["by"], amount: number, unit: MassUnit): number {
  if (by === "percent" || unit === "oz") return amount;
  const short = toThousandth(amount / LB_PER_KG);
  return doseShown({ by, amount: short }, unit) === amount ? short : Math.round((amount / LB_PER_KG) * 1e6) / 1e6;
}

/** Returns a dose before the dye's name: "6 drops per lb of", "1 piece per kg of", "0.2 %". */
export function writeDose(part: Pick<DyePart, "by" | "amount">, unit: MassUnit): string {
  const shown = writeNumber(doseShown(part, unit), 3);
  return part.by === "percent" ? `${shown} %` : `${shown} ${shown === "1" ? part.by.replace(/s$/, "") : part.by} per ${unit === "g" ? "kg" : "lb"} of`;
}
