import { weightOf } from "../units/density";
import { SIXTEENTH_UM, toSixteenth, writeLength } from "../units/length";
import { type Milligrams, writeRoundedMass } from "../units/mass";
import type { Figure, Step } from "../weigh-out/working";
import { fillByGeometry, fillByWater } from "./fill";
import { DEFAULT_WAX_DENSITY } from "./parts";
import { type Inner, volumeTo } from "./section";

export interface VesselMeasures {
  statedFillMg: Milligrams;
  workingFillMg: Milligrams;
  soldByWeight: boolean;
  /** Inner measures in millimeters. */
  inner: Inner;
  headspaceMm: number;
  /** Weight of the water it holds, and whether that was weighed to the fill line or to the rim. */
  waterMg: Milligrams | null;
  waterTo: "line" | "rim";
}

export interface FillWay {
  way: "stated" | "working" | "water" | "geometry";
  fillMg: Milligrams;
  /** Against the working fill, as a share of it: 0.1 is a tenth more. */
  off: number;
  /** What lies behind the figure or its difference. */
  because: string;
  working: Step[];
}

/** Returns what a little height weighs, in both systems; `perMm` in milligrams. */
const heightInBoth = (perMm: number): string =>
  `{1 mm of height is ${writeRoundedMass(perMm, "g")}|1/16 in of height is ${writeRoundedMass(perMm * (SIXTEENTH_UM / 1_000), "oz")}}`;

/**
 * The fill weight of a vessel four ways, as far as they are known, with what explains their differences.
 * Water weighed to the rim is lessened by the share of the volume that the headspace leaves, by the measures.
 */
export function fourWays(vessel: VesselMeasures, waxDensity = DEFAULT_WAX_DENSITY): FillWay[] {
  const { inner, headspaceMm, workingFillMg } = vessel;
  const off = (mg: number) => mg / workingFillMg - 1;
  const ways: FillWay[] = [
    {
      way: "stated",
      fillMg: vessel.statedFillMg,
      off: off(vessel.statedFillMg),
      because: vessel.soldByWeight ? "What it is sold with: a floor, since it is sold by weight." : "What the vessel is sold as.",
      working: [],
    },
    { way: "working", fillMg: workingFillMg, off: 0, because: "What you pour, and what every amount is worked out from.", working: [] },
  ];
  const level = inner.height - headspaceMm;
  if (vessel.waterMg !== null) {
    const share = vessel.waterTo === "rim" && level > 0 ? volumeTo(inner, level) / volumeTo(inner, inner.height) : 1;
    const water: Figure = { name: "water to the rim", value: vessel.waterMg / 1_000, unit: "g" };
    const toLine: Step[] =
      share === 1
        ? []
        : [
            {
              gives: { name: "water to the line", value: (vessel.waterMg * share) / 1_000, unit: "g" },
              by: "multiply",
              from: [water, { name: "share below the headspace", value: share, unit: "×" }],
            },
          ];
    const waterMg = Math.round(vessel.waterMg * share);
    const fill = fillByWater(waterMg, waxDensity);
    ways.push({
      way: "water",
      fillMg: fill.fillMg,
      off: off(fill.fillMg),
      because: `Without the density of the wax it would be the water's own weight, ${((waterMg / fill.fillMg - 1) * 100).toFixed(0)} % over.`,
      working: [...toLine, ...fill.working],
    });
  }
  if (level > 0) {
    const geometry =
      inner.shape === "bowl"
        ? ({ shape: "bowl", diameterMm: inner.top, depthMm: inner.height, headspaceMm } as const)
        : inner.top === inner.bottom
          ? ({ shape: "cylinder", diameterMm: inner.top, heightMm: inner.height, headspaceMm } as const)
          : ({ shape: "taper", topMm: inner.top, bottomMm: inner.bottom, heightMm: inner.height, headspaceMm } as const);
    const fill = fillByGeometry(geometry, waxDensity);
    const perMm = weightOf(volumeTo(inner, level) - volumeTo(inner, Math.max(0, level - 1)), waxDensity);
    const byUm = Math.abs((fill.fillMg - workingFillMg) / perMm) * 1_000;
    ways.push({
      way: "geometry",
      fillMg: fill.fillMg,
      off: off(fill.fillMg),
      because: `Near the line ${heightInBoth(perMm)}, so the fill weight stands {${writeLength(byUm, "mm", 0)}|${writeLength(toSixteenth(byUm), "in")}} ${fill.fillMg >= workingFillMg ? "below" : "above"} this line. A thick bottom or a rounded edge holds less than the measures say.`,
      working: fill.working,
    });
  }
  return ways;
}
