import { type ScaleInput, scaleFormula } from "@hearth/core";
import { Bench } from "tinybench";

const INPUT: ScaleInput = {
  basis: "wax",
  loadPpm: 80_000,
  maxLoadPpm: 100_000,
  vessels: Array.from({ length: 8 }, (_, index) => ({ name: `vessel ${index + 1}`, fillMg: 12_500 * (index + 1), count: 3 + index })),
  sparePpm: 50_000,
  resolutionUg: 1_000_000,
};

/** The same sums in bare floating point: no working, no warnings, no limit. The reference of the ratio. */
function bare(input: ScaleInput): { wax: number; fragrance: number } {
  let total = 0;
  for (const vessel of input.vessels) total += (vessel.fillMg / 1_000) * vessel.count;
  total *= 1 + input.sparePpm / 1e6;
  const wax = Math.round(total / (1 + input.loadPpm / 1e6));
  return { wax, fragrance: total - wax };
}

/** Measures speed as a ratio to a reference in the same run. */
export async function bench(): Promise<number> {
  const runs = new Bench({ time: 700, warmupTime: 200 });
  let kept = 0;
  runs.add("scale", () => {
    kept += scaleFormula(INPUT).waxMg;
  });
  runs.add("bare", () => {
    kept += bare(INPUT).wax;
  });
  await runs.run();
  const median = (name: string) => {
    const { result } = runs.getTask(name) ?? {};
    if (!result || !("latency" in result)) throw new Error(`The run of ${name} gave no result.`);
    return result.latency;
  };
  const [scale, reference] = [median("scale"), median("bare")];
  const micro = (ms: number) => `${(ms * 1_000).toFixed(3)} µs`;
  console.log(`scaling over 8 vessel kinds with its working: ${micro(scale.mean)} a call`);
  console.log(`bare floating point, the same sums:           ${micro(reference.mean)} a call`);
  console.log(`ratio ${(scale.mean / reference.mean).toFixed(1)}  (checksum ${kept})`);
  return 0;
}
