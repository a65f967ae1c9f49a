import { DEFAULT_WAX_DENSITY } from "../product/parts";
import { diameterAt, innerOf, levelFor, volumeTo } from "../product/section";
import { seriesOf } from "../product/wicks";
import { cubicMmOf } from "../units/density";
import { writeNumber } from "../units/number";
import type { TestCandle, TrialPlan } from "./schema";
import { VARIED, type Varied } from "./varied";

export type { TestCandle, TrialPlan } from "./schema";
export { isLadder, LADDERS, type Ladder, VARIED, type Varied } from "./varied";

/** Returns the inner diameter of the container at the wax line, in mm, with this share of its wax left. */
export function widthOf(item: Pick<TestCandle, "innerTopUm" | "innerBottomUm" | "heightUm" | "shape" | "fillMg">, left = 1): number {
  const inner = innerOf(item);
  return diameterAt(inner, levelFor(inner, Math.min(volumeTo(inner, inner.height), cubicMmOf(item.fillMg, DEFAULT_WAX_DENSITY) * left)));
}

export const loadWords = (ppm: number): string => `${Math.round(ppm / 100) / 100} %`;
const wickWords = (wick: TestCandle["wick"]): string => (wick ? `${wick.count > 1 ? `${wick.count} × ` : ""}${wick.name}` : "no wick");

/** Returns what one variant is called: by what is varied. */
export function variantWords(plan: Pick<TrialPlan, "varies" | "testCandles">, variant: string): string {
  const item = plan.testCandles.find((each) => each.variant === variant);
  if (!item) return variant;
  switch (plan.varies) {
    case "load":
      return `load ${loadWords(item.loadPpm)}`;
    case "wax":
      return item.wax;
    case "scent":
      return item.scent || "unscented";
    case "vessel":
      return item.vessel;
    case "blend":
    case "additive":
      return item.dose ? `${writeNumber(item.dose.amount, 2)} % ${item.dose.name}` : item.wax;
    case "dye":
      return item.dose ? `${writeNumber(item.dose.amount, 0)} drops of ${item.dose.name}` : "undyed";
    default:
      return wickWords(item.wick);
  }
}
export const variantsOf = (plan: Pick<TrialPlan, "testCandles">): string[] => [...new Set(plan.testCandles.map((testCandle) => testCandle.variant))];
export const testCandlesOf = (plan: Pick<TrialPlan, "testCandles">, variant: string): TestCandle[] =>
  plan.testCandles.filter((testCandle) => testCandle.variant === variant);

/** Returns what makers forget to write on a test candle: wax, wick, fragrance, load. */
export const tagOf = (item: TestCandle): { what: string; says: string }[] => [
  { what: "wax", says: item.wax },
  { what: "wick", says: wickWords(item.wick) },
  { what: "fragrance", says: item.scent || "none" },
  { what: "load", says: `${loadWords(item.loadPpm)} of the wax` },
];

/** Returns what really differs between the variants, whatever was meant to. */
export function reallyVaried(plan: Pick<TrialPlan, "varies" | "testCandles">): Varied[] {
  const many = (of: (item: TestCandle) => unknown) => new Set(plan.testCandles.map((testCandle) => JSON.stringify(of(testCandle)))).size > 1;
  return VARIED.filter((what) =>
    what === "wick kind"
      ? many((item) => item.wick && seriesOf(item.wick))
      : what === "wick size"
        ? many((item) => [item.wick?.size ?? null, item.wick?.count ?? 0]) && !many((item) => item.wick && seriesOf(item.wick))
        : what === "load"
          ? many((item) => Math.round(item.loadPpm / 100))
          : what === "wax"
            ? plan.varies !== "blend" && many((item) => item.wax)
            : what === "blend" || what === "additive" || what === "dye"
              ? plan.varies === what && many((item) => item.dose?.amount ?? 0)
              : what === "scent"
                ? many((item) => item.scent)
                : many((item) => item.containerId),
  );
}

export interface PlanWarning {
  id: "several" | "nothing" | "dye" | "halves" | "single" | "unequal";
  says: string;
}
/** Returns what is wrong with a trial as it is designed; it may be begun all the same. Common practice, no source. */
export function planWarnings(plan: Pick<TrialPlan, "varies" | "testCandles">): PlanWarning[] {
  const varied = reallyVaried(plan);
  const variants = variantsOf(plan);
  const dyed = plan.testCandles.some((testCandle) => testCandle.dyed || testCandle.added.length > 0);
  const half = plan.testCandles.filter((testCandle) => testCandle.fill === "half").length;
  return [
    ...(varied.length > 1
      ? [{ id: "several" as const, says: `More than one thing varies: ${varied.join(", ")}. You cannot tell which of them caused the result.` }]
      : []),
    ...(variants.length > 1 && varied.length === 0 ? [{ id: "nothing" as const, says: "Nothing varies between the variants, so they only show chance." }] : []),
    ...(plan.varies === "load" && dyed
      ? [{ id: "dye" as const, says: "No dye, mica, additives or embeds while testing the load: they clog wicks as oil does." }]
      : []),
    ...(half > 0 && half < plan.testCandles.length
      ? [{ id: "unequal" as const, says: "Half-filled and full test candles are in one trial. They burn differently, so they are judged separately." }]
      : half > 0
        ? [
            {
              id: "halves" as const,
              says: "Half-filled jars give an early look at the lower half. A half-fill result never counts as a full pass: full jars follow.",
            },
          ]
        : []),
    ...(variants.length > 1 && variants.some((variant) => testCandlesOf(plan, variant).length < 2)
      ? [{ id: "single" as const, says: "Burn two of each: with one alone, the result may be chance." }]
      : []),
  ];
}

/** Codes for scorers that must not know: letters that cannot be mistaken for one another, mixed by a seed. */
export function blindCodes(n: number, random: () => number): string[] {
  const letters = "CFHKMNPRTVWX";
  const all = [...letters].flatMap((a) => [2, 3, 4, 6, 7, 9].map((b) => `${a}${b}`));
  for (let at = all.length - 1; at > 0; at--) {
    const other = Math.floor(random() * (at + 1));
    [all[at], all[other]] = [all[other] as string, all[at] as string];
  }
  return all.slice(0, n);
}
