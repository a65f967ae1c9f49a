import { rmSync } from "node:fs";
import { chromium } from "@playwright/test";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { CHROMIUM } from "./shots";

const WATCH_MS = 9_000;

/** The longest time between two frames while a week's pots are put into a timetable and shown. */
export async function benchFrames(): Promise<void> {
  const home = passingHome("bench");
  const served = await serve({ home, port: 4_861, demo: true, ownDatabase: true });
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ baseURL: served.url });
    await page.goto("/plan/day?on=2030-01-05");
    await page.locator("html[data-hydrated]").waitFor({ state: "attached" });
    // What is fetched once, for days without a network, is here before anything is measured.
    await page.evaluate("navigator.serviceWorker.ready.then(() => true)");
    await page.waitForLoadState("networkidle");
    await page.getByLabel("Pitchers").fill("8");
    await page.getByLabel("Burners").fill("4");
    for (const [name, count] of [
      ["Rain on slate, squat tumbler", "240"],
      ["Hay loft, squat tumbler", "120"],
      ["Quince and smoke, narrow tin", "80"],
    ] as const)
      await page.getByRole("textbox", { name }).fill(count);
    await page.getByRole("heading", { name: /^\d+ pots$/ }).waitFor();
    // Three turns of a screen are 50 ms and a little, as they are measured.
    // As text: what the runner of these sources adds to functions is not there in the page.
    const longest = (await page.evaluate(`new Promise((done) => {
      const frames = [];
      const until = performance.now() + ${WATCH_MS};
      let last = performance.now();
      (function frame(now) {
        frames.push(now - last);
        last = now;
        if (now > until) done({ longest: Math.max(...frames.slice(2)), many: frames.slice(2).filter((one) => one > 50.5).length, all: frames.length });
        else requestAnimationFrame(frame);
      })(last);
    })`)) as { longest: number; many: number; all: number };
    const pots = await page.getByRole("heading", { name: /^\d+ pots$/ }).innerText();
    console.log(
      `${pots} searched and shown for ${WATCH_MS / 1_000} s: longest frame ${longest.longest.toFixed(0)} ms of ${longest.all}, ${longest.many} above 50 ms (none)`,
    );
  } finally {
    await browser.close();
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
}
