import type { Milligrams } from "../units/mass";
import { WHOLE } from "../units/percent";
import type { WeighedOut, WeighOutInput } from "./contract";
import { incrementMg, incrementUp, nearestIncrement } from "./increments";
import type { Order } from "./prepare";
import type { Figure, Step } from "./working";

const figure = (name: string, mg: number): Figure => ({ name, value: mg / 1_000, unit: "g" });
const times = (name: string, value: number): Figure => ({ name, value, unit: "×" });
const stepOf = (ug: number): Figure => ({ name: "scale step", value: ug / 1e6, unit: "g" });

/** Returns what the vessels and the spare ask for. Gives the name of the figure that the wax is worked out from. */
function putFills(input: WeighOutInput, { fillsMg, withSpareMg }: NonNullable<Order["fills"]>, steps: Step[]): string {
  const spareMg = input.spareMg ?? 0;
  const parts: Figure[] = [];
  let number = 0;
  for (const vessel of input.vessels) {
    number += 1;
    const label = vessel.name || `vessel ${number}`;
    const gives = figure(`${label}, all`, vessel.fillMg * vessel.count);
    parts.push(gives);
    steps.push({ gives, by: "multiply", from: [figure(`${label}, fill`, vessel.fillMg), { name: `${label}, count`, value: vessel.count, unit: "jars" }] });
  }
  steps.push({ gives: figure("fills", fillsMg), by: "add", from: parts });
  if (input.sparePpm > 0)
    steps.push({
      gives: figure(spareMg > 0 ? "fills with extra" : "fills and extra", withSpareMg),
      by: "multiply",
      from: [figure("fills", fillsMg), times("1 + extra", 1 + input.sparePpm / WHOLE)],
    });
  if (spareMg > 0)
    steps.push({
      gives: figure("fills and extra", withSpareMg + spareMg),
      by: "add",
      from: [figure(input.sparePpm > 0 ? "fills with extra" : "fills", withSpareMg), figure("left in pitchers", spareMg)],
    });
  return input.sparePpm > 0 || spareMg > 0 ? "fills and extra" : "fills";
}

/** The marks on which the amounts lie: those of the scales, or whole milligrams where these are too coarse. */
interface Marks {
  waxUg: number;
  oilUg: number;
  additiveUg: number;
}

/** Returns how an amount came from its exact one: to the nearest mark, up to the next, or chosen for a reason that is said. */
function onMark(gives: Figure, exact: Figure, mg: Milligrams, exactMg: number, ug: number, why: string): Step {
  if (mg === incrementMg(nearestIncrement(exactMg, ug), ug)) return { gives, by: "round", from: [exact, stepOf(ug)] };
  if (mg === incrementMg(incrementUp(exactMg, ug), ug)) return { gives, by: "round up", from: [exact, stepOf(ug)] };
  return { gives, by: "formula", from: [exact, stepOf(ug)], expression: why };
}

/** Returns why the oil is neither on the nearest nor on the next mark above its dose. */
function whyOil(order: Order, fragranceMg: Milligrams, dose: number): string {
  if (order.oils.some((oil) => oil.maxPpm != null) || (order.limit !== null && fragranceMg < dose)) return "the last mark that keeps the limit";
  return fragranceMg > dose ? "chosen so that the total holds what is asked" : "chosen so that the total goes no further above what is asked";
}

/** The steps from what was asked to wax and fragrance. */
function putAmounts(input: WeighOutInput, order: Order, out: WeighedOut, steps: Step[], marks: Marks): void {
  const { waxMg, fragranceMg } = out;
  const load = times("load", order.load);
  const dose = waxMg * order.load;
  const exact = figure("fragrance, exact", dose);
  const wax = figure("wax", waxMg);
  const oil = () => {
    steps.push(
      { gives: exact, by: "multiply", from: [wax, load] },
      onMark(figure("fragrance", fragranceMg), exact, fragranceMg, dose, marks.oilUg, whyOil(order, fragranceMg, dose)),
    );
  };
  if (order.keptWaxMg !== null) {
    const asked = figure("wax, asked", order.keptWaxMg);
    if (waxMg === order.keptWaxMg) steps.push({ gives: wax, by: "given", from: [] });
    else
      steps.push({ gives: asked, by: "given", from: [] }, onMark(wax, asked, waxMg, order.keptWaxMg, marks.waxUg, "the nearest marks of its waxes together"));
    if (order.load > 0) oil();
    return;
  }
  let base = "total asked";
  if (order.fills) base = putFills(input, order.fills, steps);
  else steps.push({ gives: figure(base, order.askedMg), by: "given", from: [] });
  const share = input.loadPpm / WHOLE;
  const parts = order.added > 0;
  steps.push({
    gives: figure("wax, exact", order.exactWaxMg),
    by: input.basis === "wax" ? "divide" : "multiply",
    from: [
      figure(base, order.askedMg),
      input.basis === "wax"
        ? times(parts ? "1 + load + additives" : "1 + load", 1 + share + order.added)
        : times(parts ? "(1 − load) ÷ (1 + additives)" : "1 − load", (1 - share) / (1 + order.added)),
    ],
  });
  const chosen =
    order.limit !== null && waxMg > order.exactWaxMg
      ? "chosen so that the oil keeps the limit on the marks of its scale"
      : "chosen so that the total fits the marks of the oil’s scale";
  steps.push(onMark(wax, figure("wax, exact", order.exactWaxMg), waxMg, order.exactWaxMg, marks.waxUg, chosen));
  if (order.load === 0) return;
  if (out.totalMg !== order.askedMg) {
    oil();
    return;
  }
  const from = [figure(base, order.askedMg), wax];
  putAdditives(input, out, from);
  steps.push({ gives: figure("fragrance", fragranceMg), by: "subtract", from });
}

function putAdditives(input: WeighOutInput, out: WeighedOut, to: Figure[]): void {
  if (!input.additives) return;
  for (let at = 0; at < input.additives.length; at++) to.push(figure((input.additives[at] as { name: string }).name, out.additivesMg[at] as number));
}

/** Returns the steps that led to the amounts, in order. @param isBetween whether the amounts lie between the marks, since these are too coarse */
export function stepsOf(input: WeighOutInput, order: Order, out: WeighedOut, isBetween: boolean): Step[] {
  const steps: Step[] = [];
  const { waxMg, fragranceMg, totalMg } = out;
  const marks = isBetween ? { waxUg: 1_000, oilUg: 1_000, additiveUg: 1_000 } : { waxUg: order.resolutionUg, oilUg: order.oilUg, additiveUg: order.additiveUg };
  putAmounts(input, order, out, steps, marks);
  const all = [figure("wax", waxMg)];
  if (order.load > 0) all.push(figure("fragrance", fragranceMg));
  putAdditives(input, out, all);
  const first = all.length - order.ppms.length;
  for (let at = first; at < all.length; at++) {
    const gives = all[at] as Figure;
    const ofWax = (order.ppms[at - first] as number) / WHOLE;
    // Between the marks an additive follows the exact wax.
    const wax = isBetween && order.keptWaxMg === null ? figure("wax, exact", order.exactWaxMg) : figure("wax", waxMg);
    const exactMg = wax.value * 1_000 * ofWax;
    const exact = figure(`${gives.name}, exact`, exactMg);
    steps.push(
      { gives: exact, by: "multiply", from: [wax, times(`${gives.name}, share`, ofWax)] },
      onMark(gives, exact, out.additivesMg[at - first] as number, exactMg, marks.additiveUg, "to the nearest milligram"),
    );
  }
  steps.push(
    { gives: figure("total", totalMg), by: "add", from: all },
    {
      gives: { name: "load of the wax", value: out.loadPercentOfWax, unit: "%" },
      by: "divide",
      from: [figure("fragrance", fragranceMg), figure("wax", waxMg)],
    },
    {
      gives: { name: "load of the total", value: out.loadPercentOfTotal, unit: "%" },
      by: "divide",
      from: [figure("fragrance", fragranceMg), figure("total", totalMg)],
    },
  );
  return steps;
}
