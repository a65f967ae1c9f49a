import { answerSchedule } from "@hearth/core";
import { chromium } from "@playwright/test";
import { chuffed, constraintsOf } from "../e2e/solver";
import { dayOf, ft06 } from "../web/testing/shops";
import { CHROMIUM } from "./shots";

/** So long a constraint solver may take over a day. */
const PATIENCE = 100;
/** So long the search here takes over the same. */
const SECONDS = 10;

/** How timetables found here compare with those of a constraint solver that had ten times as long. */
export async function benchSolver(): Promise<void> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage();
    const shop = await chuffed(page, constraintsOf(ft06(), 200), 60);
    console.log(
      `Chuffed, job shop FT06: ${shop.ways.at(-1)?.value} in ${((shop.ways.at(-1)?.ms ?? 0) / 1_000).toFixed(1)} s, ${shop.proved ? "proved" : "not proved"}`,
    );
    for (const seed of [7, 21, 99]) {
      const request = { ...dayOf(12, seed), seconds: SECONDS };
      const answer = answerSchedule(request, () => performance.now());
      const first = answer.makespan * 2;
      const there = await chuffed(page, constraintsOf(request, first), PATIENCE);
      const best = there.ways.at(-1)?.value ?? Number.NaN;
      console.log(
        `12 pots, day ${seed}: here ${answer.makespan} in ${SECONDS} s (bound ${answer.lower_bound}${answer.proved_optimal ? ", proved" : ""}); Chuffed ${best} in ${PATIENCE} s${there.proved ? ", proved" : ""}; ratio ${(answer.makespan / best).toFixed(3)} (at most 1)`,
      );
    }
  } finally {
    await browser.close();
  }
}
