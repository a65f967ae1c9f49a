import { answerScale, type Choice, leftoversProgramme, type Supply, scaleRequest } from "@hearth/core";
import loadHighs from "highs";
import { Bench } from "tinybench";
import { modelOf, OPTIONS, solveProgramme } from "../web/workers/solve";
import { benchBurn } from "./bench-burn";
import { benchDay } from "./bench-day";
import { benchDemand } from "./bench-demand";

import { benchForecast } from "./bench-forecast";
import { benchFrames } from "./bench-frames";
import { benchLists } from "./bench-lists";
import { benchLog } from "./bench-log";
import { benchNotebook } from "./bench-notebook";
import { benchPages } from "./bench-pages";
import { benchRun } from "./bench-run";
import { benchSell } from "./bench-sell";
import { benchSolver } from "./bench-solver";
import { benchYears } from "./bench-years";

const REQUEST = scaleRequest.parse({
  basis: "wax",
  load_percent: 8,
  max_load_percent: 10,
  vessels: Array.from({ length: 8 }, (_, index) => ({ name: `vessel ${index + 1}`, fill_g: 12.5 * (index + 1), count: 3 + index })),
  spare_percent: 5,
  scale_resolution_g: 1,
  waxes: [
    { name: "soft", share: 75 },
    { name: "hard", share: 25 },
  ],
  fragrances: [
    { name: "x", share: 12 },
    { name: "y", share: 10 },
  ],
  additives: [{ name: "s", percent_of_wax: 2 }],
  dye: { drops_per_lb: 6 },
});

/** Returns the same sums in bare floating point: the six amounts, rounded by largest remainder, and the loads; no working, no warnings, no limit. */
function bare(request: typeof REQUEST): Record<string, number> {
  let total = 0;
  for (const vessel of request.vessels ?? []) total += vessel.fill_g * vessel.count;
  total *= 1 + request.spare_percent / 100;
  let added = 0;
  for (const additive of request.additives ?? []) added += additive.percent_of_wax / 100;
  const exact = total / (1 + request.load_percent / 100 + added);
  const wax = Math.round(exact / request.scale_resolution_g) * request.scale_resolution_g;
  const amounts: Record<string, number> = {};
  let rest = total - wax;
  for (const additive of request.additives ?? []) {
    const amount = Math.round((exact * additive.percent_of_wax) / 100);
    amounts[additive.name] = amount;
    rest -= amount;
  }
  for (const [group, weight] of [
    [request.waxes ?? [], wax],
    [request.fragrances ?? [], rest],
  ] as const) {
    let shares = 0;
    for (const part of group) shares += part.share;
    let given = 0;
    let last = "";
    for (const part of group) {
      const amount = Math.floor((weight * part.share) / shares);
      amounts[part.name] = amount;
      given += amount;
      last = part.name;
    }
    amounts[last] = (amounts[last] ?? 0) + weight - given;
  }
  amounts.dye = Math.round(((request.dye?.drops_per_lb ?? 0) * wax) / 453.59237);
  amounts.ofWax = (rest / wax) * 100;
  amounts.ofTotal = (rest / total) * 100;
  return amounts;
}

/** Twelve products that draw on ten materials: invented, and spread so that the solver has something to do. */
const MATERIALS: Supply[] = Array.from({ length: 10 }, (_, row) => ({ name: `material ${row}`, have: 2_400_000 + row * 310_007, leftover: row % 3 !== 2 }));
const PRODUCTS: Choice[] = Array.from({ length: 12 }, (_, column) => ({
  name: `product ${column}`,
  uses: MATERIALS.map((_one, row) => ((column * 7 + row * 3) % 5 < 3 ? 9_001 + ((column * 7_919 + row * 10_473) % 180_001) : 0)),
  worth: 300 + ((column * 613) % 1_500),
  least: column % 4 === 0 ? 1 : 0,
  most: column % 5 === 0 ? 12 : null,
}));

/** Runs two tasks against each other and gives the mean time of each in milliseconds. */
async function against(task: () => void, reference: () => void, time: number): Promise<[number, number]> {
  const runs = new Bench({ time, warmupTime: time / 3 });
  runs.add("task", task);
  runs.add("reference", reference);
  await runs.run();
  const mean = (name: string) => {
    const { result } = runs.getTask(name) ?? {};
    if (!result || !("latency" in result)) throw new Error(`The run of ${name} gave no result.`);
    return result.latency.mean;
  };
  return [mean("task"), mean("reference")];
}

/** Measures speed as a ratio to a reference in the same run: all of it, or only the `log`, the `lists` or the `day`. */
export async function bench(only?: string, part?: string): Promise<number> {
  if (only === "pages") return benchPages(part).then(() => 0);
  if (only === "lists") return benchLists().then(() => 0);
  if (only === "log") return benchLog().then(() => 0);
  if (only === "day") return benchDay().then(() => 0);
  if (only === "solver") return benchSolver().then(() => 0);
  if (only === "frames") return benchFrames().then(() => 0);
  if (only === "run") return benchRun().then(() => 0);
  if (only === "notebook") return benchNotebook().then(() => 0);
  if (only === "years") return benchYears().then(() => 0);
  if (only === "burn") return benchBurn().then(() => 0);
  if (only === "sell") return benchSell().then(() => 0);
  if (only === "forecast") {
    benchForecast();
    return 0;
  }
  if (only === "demand") {
    benchDemand();
    return 0;
  }
  let kept = 0;
  const micro = (ms: number) => `${(ms * 1_000).toFixed(3)} µs`;
  const [scale, plain] = await against(
    () => {
      kept += answerScale(REQUEST).wax_g;
    },
    () => {
      kept += bare(REQUEST).soft ?? 0;
    },
    700,
  );
  console.log(`6 components over 8 vessel kinds, with the working: ${micro(scale)} a call`);
  console.log(`bare floating point, the same sums:                ${micro(plain)} a call`);
  console.log(`ratio ${(scale / plain).toFixed(1)} (at most 25)`);

  const highs = await loadHighs();
  const model = modelOf(highs, leftoversProgramme(PRODUCTS, MATERIALS, "earn"));
  const [whole, direct] = await against(
    () => {
      kept += solveProgramme(highs, leftoversProgramme(PRODUCTS, MATERIALS, "earn"), 20).value;
    },
    () => {
      kept += highs.withModel(model, (symbolDisposable) => {
        symbolDisposable.options.set({ ...OPTIONS, time_limit: 20 });
        symbolDisposable.run();
        return symbolDisposable.getObjectiveValue();
      });
    },
    4_000,
  );
  const mixture = solveProgramme(highs, leftoversProgramme(PRODUCTS, MATERIALS, "earn"), 20);
  console.log(`leftovers, 12 products and 10 materials:           ${micro(whole)} a call, ${mixture.proved ? "proved" : "not proved"}`);
  console.log(`the solver called directly on the same matrix:     ${micro(direct)} a call`);
  console.log(`ratio ${(whole / direct).toFixed(2)} (at most 1.5)  (checksum ${kept})`);
  await benchLog();
  await benchRun();
  await benchLists();
  await benchPages();
  benchDemand();
  await benchDay();
  await benchSolver();
  await benchFrames();
  await benchNotebook();
  await benchYears();
  return 0;
}
