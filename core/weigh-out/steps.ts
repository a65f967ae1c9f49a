import { WHOLE } from "../units/percent";
import type { WeighedOut, WeighOutInput } from "./contract";
import { fillsOf, type Order } from "./order";
import type { Figure, Step } from "./working";

const figure = (name: string, mg: number): Figure => ({ name, value: mg / 1_000, unit: "g" });
const times = (name: string, value: number): Figure => ({ name, value, unit: "×" });
const stepOf = (ug: number): Figure => ({ name: "scale step", value: ug / 1e6, unit: "g" });

/** What the vessels and the spare ask for. Gives the name of the figure that the wax is worked out from. */
function putFills(input: WeighOutInput, steps: Step[]): string {
  const { fillsMg, withSpareMg } = fillsOf(input);
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
      gives: figure(spareMg > 0 ? "fills with spare" : "fills and spare", withSpareMg),
      by: "multiply",
      from: [figure("fills", fillsMg), times("1 + spare", 1 + input.sparePpm / WHOLE)],
    });
  if (spareMg > 0)
    steps.push({
      gives: figure("fills and spare", withSpareMg + spareMg),
      by: "add",
      from: [figure(input.sparePpm > 0 ? "fills with spare" : "fills", withSpareMg), figure("left in pitchers", spareMg)],
    });
  return input.sparePpm > 0 || spareMg > 0 ? "fills and spare" : "fills";
}

/** The steps from what was asked to wax and fragrance. */
function putAmounts(input: WeighOutInput, order: Order, out: WeighedOut, steps: Step[]): void {
  const { waxMg, fragranceMg } = out;
  const load = times("load", order.load);
  const exact = figure("fragrance, exact", waxMg * order.load);
  if (order.keptWaxMg !== null) {
    steps.push({ gives: figure("wax", waxMg), by: "given", from: [] });
    if (order.load > 0)
      steps.push(
        { gives: exact, by: "multiply", from: [figure("wax", waxMg), load] },
        { gives: figure("fragrance", fragranceMg), by: "round", from: [exact, stepOf(order.oilUg)] },
      );
    return;
  }
  let base = "total asked";
  if (input.start) steps.push({ gives: figure(base, order.askedMg), by: "given", from: [] });
  else base = putFills(input, steps);
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
  steps.push({
    gives: figure("wax", waxMg),
    by: waxMg > order.exactWaxMg ? "round up" : "round",
    from: [figure("wax, exact", order.exactWaxMg), stepOf(order.resolutionUg)],
  });
  if (order.load === 0) return;
  if (out.totalMg === order.askedMg) {
    const from = [figure(base, order.askedMg), figure("wax", waxMg)];
    putAdditives(input, out, from);
    steps.push({ gives: figure("fragrance", fragranceMg), by: "subtract", from });
    return;
  }
  steps.push(
    { gives: exact, by: "multiply", from: [figure("wax", waxMg), load] },
    { gives: figure("fragrance", fragranceMg), by: fragranceMg > waxMg * order.load ? "round up" : "round", from: [exact, stepOf(order.oilUg)] },
  );
}

function putAdditives(input: WeighOutInput, out: WeighedOut, to: Figure[]): void {
  if (!input.additives) return;
  for (let at = 0; at < input.additives.length; at++) to.push(figure((input.additives[at] as { name: string }).name, out.additivesMg[at] as number));
}

/** The steps that led to the amounts, in order. */
export function stepsOf(input: WeighOutInput, order: Order, out: WeighedOut): Step[] {
  const steps: Step[] = [];
  const { waxMg, fragranceMg, totalMg } = out;
  putAmounts(input, order, out, steps);
  const all = [figure("wax", waxMg)];
  if (order.load > 0) all.push(figure("fragrance", fragranceMg));
  putAdditives(input, out, all);
  const first = all.length - order.ppms.length;
  for (let at = first; at < all.length; at++) {
    const gives = all[at] as Figure;
    const share = times(`${gives.name}, share`, (order.ppms[at - first] as number) / WHOLE);
    steps.push({ gives, by: "multiply", from: [figure("wax", waxMg), share] });
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
