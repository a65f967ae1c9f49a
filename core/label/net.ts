import type { Language } from "../hazard/sentences";
import { MG_PER, type Milligrams } from "../units/mass";

/**
 * The stated weight in both systems, each rounded down, so that neither says more than is in it: "200 g", "7.0 oz", "1 lb 1.6 oz".
 * Grams are whole from 10 g on, ounces have one decimal, below one ounce two.
 */
export function netWeight(mg: Milligrams): { metric: string; us: string } {
  const grams = mg / MG_PER.g;
  const down = (value: number, places: number) => (Math.floor(value * 10 ** places + 1e-9) / 10 ** places).toFixed(places);
  const ounces = mg / MG_PER.oz;
  const metric = grams >= 1_000 ? `${down(grams / 1_000, 2)} kg` : grams >= 10 ? `${down(grams, 0)} g` : `${down(grams, 1)} g`;
  if (ounces < 16) return { metric, us: `${down(ounces, ounces < 1 ? 2 : 1)} oz` };
  const pounds = Math.floor(ounces / 16 + 1e-9);
  const rest = down(ounces - pounds * 16, 1);
  return { metric, us: rest === "0.0" ? `${pounds} lb` : `${pounds} lb ${rest} oz` };
}

/** Returns the stated weight as a label says it: the system of the workshop's country first, the other in parentheses, with the decimal mark of its language. */
export function netWeightText(mg: Milligrams, isUs: boolean, language: Language = "en"): string {
  const { metric, us } = netWeight(mg);
  const text = isUs ? `${us} (${metric})` : `${metric} (${us})`;
  return language === "en" ? text : text.replace(/\./g, ",");
}

/** Returns how tall the figures of a stated weight must be, in mm: by the weight (directive 76/211/EEC, annex I, from memory). */
export const figureHeightMm = (mg: Milligrams): number => (mg <= 50 * MG_PER.g ? 2 : mg <= 200 * MG_PER.g ? 3 : mg <= 1_000 * MG_PER.g ? 4 : 6);

/** Returns the principal display panel of a round package: 40 % of its height times its circumference, in mm² (16 CFR 500.2, from memory). */
export const displayPanelMm2 = (diameterMm: number, heightMm: number): number => 0.4 * Math.PI * diameterMm * heightMm;

/** Returns the height of the figures by the area of the principal display panel, in square inches (16 CFR 500.21, from memory): 1/16 in up to 5, 1/8 in up to 25, 3/16 in up to 100, 1/4 in up to 400, else 1/2 in. */
export function figureHeightByAreaMm(areaMm2: number): number {
  const area = areaMm2 / 25.4 ** 2;
  return 25.4 * (area <= 5 ? 1 / 16 : area <= 25 ? 1 / 8 : area <= 100 ? 3 / 16 : area <= 400 ? 1 / 4 : 1 / 2);
}

/** What the regulation asks of a package up to three liters, if possible: the label's sides and the pictogram's, in mm (CLP, annex I, table 1.3, from memory). */
export const HAZARD_SIZES = { width: 52, height: 74, pictogram: 16 } as const;

/** Returns the side of a hazard pictogram on a label, in mm: a fifteenth of the label's area, never below 1 cm² (CLP, annex I, 1.2.1.4, from memory). */
export const pictogramMm = (areaMm2: number): number => Math.sqrt(Math.max(100, areaMm2 / 15));
