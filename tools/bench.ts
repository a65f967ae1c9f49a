import { answerScale, scaleRequest } from "@hearth/core";
import { Bench } from "tinybench";

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

/** The same sums in bare floating point: the six amounts, rounded by largest remainder, and the loads; no working, no warnings, no limit. */
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

/** Measures speed as a ratio to a reference in the same run. */
export async function bench(): Promise<number> {
  const runs = new Bench({ time: 700, warmupTime: 200 });
  let kept = 0;
  runs.add("scale", () => {
    kept += answerScale(REQUEST).wax_g;
  });
  runs.add("bare", () => {
    kept += bare(REQUEST).soft ?? 0;
  });
  await runs.run();
  const median = (name: string) => {
    const { result } = runs.getTask(name) ?? {};
    if (!result || !("latency" in result)) throw new Error(`The run of ${name} gave no result.`);
    return result.latency;
  };
  const [scale, reference] = [median("scale"), median("bare")];
  const micro = (ms: number) => `${(ms * 1_000).toFixed(3)} µs`;
  console.log(`6 components over 8 vessel kinds, with the working: ${micro(scale.mean)} a call`);
  console.log(`bare floating point, the same sums:                ${micro(reference.mean)} a call`);
  console.log(`ratio ${(scale.mean / reference.mean).toFixed(1)}  (checksum ${kept})`);
  return 0;
}
