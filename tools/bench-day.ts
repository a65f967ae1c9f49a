import { answering, answerSchedule } from "@hearth/core";
import loadHighs from "highs";
import { dayOf, ft06, programmeOf } from "../web/testing/shops";

/** Seconds that a well-known mixed-integer solver may take over a day. */
const PATIENCE = 100;

/** How soon a timetable is as good as a mixed-integer model in a well-known solver finds, and how near the bound it comes. */
export async function benchDay(): Promise<void> {
  const began = performance.now();
  const shop = answerSchedule(ft06(), () => performance.now());
  console.log(
    `job shop FT06: ends after ${shop.makespan}, bound ${shop.lower_bound}, ${shop.proved_optimal ? "proved" : "not proved"} in ${(performance.now() - began).toFixed(0)} ms (55)`,
  );
  const request = dayOf(12);
  const ways: { at: number; value: number }[] = [];
  const from = performance.now();
  let [bound, value] = [0, 0];
  for (const { found } of answering(request, () => performance.now())) {
    if (found.value < (ways.at(-1)?.value ?? Number.POSITIVE_INFINITY)) ways.push({ at: performance.now() - from, value: found.value });
    [bound, value] = [found.bound, found.value];
  }
  console.log(
    `12 pots, ${request.seconds} s: first ${ways[0]?.value} after ${ways[0]?.at.toFixed(0)} ms, then ${value}, bound ${bound} (${((value / bound - 1) * 100).toFixed(1)} % above it)`,
  );
  const highs = await loadHighs();
  const first = ways[0]?.value ?? 1_000;
  const there = highs.withModel(programmeOf(request, first, highs), (symbolDisposable) => {
    symbolDisposable.options.set({ output_flag: false, time_limit: PATIENCE });
    const start = performance.now();
    symbolDisposable.run();
    return { value: Math.round(symbolDisposable.getObjectiveValue()), ms: performance.now() - start };
  });
  const found = Number.isFinite(there.value) && there.value > 0;
  const reached = found ? ways.find((way) => way.value <= there.value) : ways[0];
  const ratio = reached ? (reached.at / there.ms).toFixed(3) : "–";
  console.log(
    `a mixed-integer model in a well-known solver, ${PATIENCE} s: ${found ? there.value : "no timetable"}; as good here after ${((reached?.at ?? 0) / 1_000).toFixed(2)} s, ratio ${ratio} (at most 0.1)`,
  );
}
