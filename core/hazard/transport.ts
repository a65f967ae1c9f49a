import type { CentiCelsius } from "../units/temperature";

/** Liquids with a flash point up to 60 °C are flammable liquids of class 3 where they are carried (UN Model Regulations, 2.3.1.2, from memory). */
export const FLAMMABLE_UP_TO: CentiCelsius = 6_000;
/** Wax begins to soften so far below its melting point: common practice, no source. */
const SOFTENS_BELOW: CentiCelsius = 1_000;
/** A parcel in the sun, or a closed car in summer, comes to about so much: common practice, no source. */
export const HOT_PARCEL: CentiCelsius = 5_000;

/** Returns whether a bottle of an oil may have to be declared as a flammable liquid when it is sent; null where its flash point is not known. */
export const isFlammableLiquid = (flashPoint: CentiCelsius | null): boolean | null => (flashPoint === null ? null : flashPoint <= FLAMMABLE_UP_TO);

/** Returns from which temperature on a wax softens; null where its melting point is not known. */
export const softensFrom = (melt: CentiCelsius | null): CentiCelsius | null => (melt === null ? null : melt - SOFTENS_BELOW);
