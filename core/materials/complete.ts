import { DEFAULT_WAX_DENSITY } from "../product/parts";
import { estimateVessel, FILL_MG_PER_NOMINAL_ML, type VesselMeasure } from "../product/quick-vessel";
import { innerOf, volumeTo } from "../product/section";
import { weightOf } from "../units/density";
import type { ShelfKind } from "./kinds";

type Values = Readonly<Record<string, unknown>>;
const numberOf = (values: Values, key: string): number | null => (typeof values[key] === "number" ? (values[key] as number) : null);

/** What follows from a measure is no finer than a tenth of a gram. */
const FINEST_MG = 100;

/** Returns the fill of a vessel by its measures, below the headspace: straight or tapered, or a bowl. */
function fillByMeasures(values: Values, topUm: number, bottomUm: number, heightUm: number): number {
  const inner = innerOf({ innerTopUm: topUm, innerBottomUm: bottomUm, heightUm, shape: values.shape === "bowl" ? "bowl" : "straight" });
  return Math.round(weightOf(volumeTo(inner, Math.max(0, inner.height - (numberOf(values, "headspaceUm") ?? 0) / 1_000)), DEFAULT_WAX_DENSITY));
}

/**
 * Returns the values of a thing of the shelf with what follows from others filled in. A vessel needs one of the weight of water, the volume it is sold as,
 * a fill weight, or its measures: fill and size follow from that, and a size that nobody measured is marked. What cannot follow stays null.
 */
export function completeValues(kind: ShelfKind, values: Values): Record<string, unknown> {
  if (kind !== "vessel") return { ...values };
  const [top, bottom, height] = [numberOf(values, "innerTopUm"), numberOf(values, "innerBottomUm"), numberOf(values, "heightUm")];
  const topUm = top ?? bottom;
  const bottomUm = bottom ?? top;
  const isMeasured = topUm !== null && bottomUm !== null && height !== null;
  const water = numberOf(values, "waterMg");
  const nominal = numberOf(values, "nominalUl");
  const given = numberOf(values, "workingFillMg") ?? numberOf(values, "statedFillMg");
  const measure: VesselMeasure | null =
    water !== null
      ? { is: "water", waterMg: water }
      : nominal !== null
        ? { is: "nominal", ml: nominal / 1_000 }
        : given !== null
          ? { is: "nominal", ml: given / FILL_MG_PER_NOMINAL_ML }
          : null;
  const estimated = measure && estimateVessel(measure);
  const worked = estimated?.fillMg ?? (isMeasured ? fillByMeasures(values, topUm, bottomUm, height) : null);
  const fillMg = given ?? (worked === null ? null : Math.round(worked / FINEST_MG) * FINEST_MG);
  const size = isMeasured
    ? { innerTopUm: topUm, innerBottomUm: bottomUm, heightUm: height }
    : estimated
      ? {
          innerTopUm: estimated.diameterUm,
          innerBottomUm: estimated.diameterUm,
          heightUm: estimated.heightUm,
          headspaceUm: estimated.headspaceUm,
          sizeEstimated: true,
        }
      : {};
  return {
    ...values,
    ...size,
    workingFillMg: numberOf(values, "workingFillMg") ?? fillMg,
    statedFillMg: numberOf(values, "statedFillMg") ?? fillMg,
  };
}

/** Returns what is missing of a vessel from which nothing follows, by its field; empty if nothing is. */
export const missingValues = (kind: ShelfKind, completed: Values): Record<string, string> =>
  kind === "vessel" && (completed.workingFillMg == null || completed.innerTopUm == null)
    ? { waterMg: "Enter the weight of water to the line, the volume it is sold as, its fill weight, or its measures." }
    : {};
