import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { chromium, type Page } from "@playwright/test";
import { demoId, WORKSHOP } from "../demo/workshop";
import { passingHome } from "./processes";
import { ROOT } from "./root";
import { serve } from "./serve";

/** The moment at which every picture is taken: the demo hangs on it. */
export const FROZEN = "2026-03-14T14:20:00.000Z";

export const CHROMIUM = {
  executablePath: "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--no-first-run", "--disable-component-update", "--disable-sync"],
};

interface Shot {
  name: string;
  path: string;
  phone?: boolean;
  evening?: boolean;
  prepare?: (page: Page) => Promise<void>;
}

const foreseen = (page: Page) => page.getByRole("region", { name: "Forecast" }).waitFor();

/** The main views, each as its picture shows it. */
export const SHOTS: Shot[] = [
  { name: "today", path: "/" },
  { name: "shelf", path: "/shelf" },
  { name: "products", path: "/products" },
  { name: "formula", path: `/formulas/${demoId(6, 4)}` },
  {
    name: "plan",
    path: `/plan?formula=${demoId(6, 1)}`,
    prepare: async (page) => {
      await page.getByLabel("Count").nth(1).fill("12");
      await page.getByLabel("Count").nth(2).fill("4");
      await page.getByRole("button", { name: /container soy: show the calculation/ }).click();
      await page.getByText("How container soy is calculated").waitFor();
    },
  },
  {
    name: "fill",
    path: "/plan/fill",
    prepare: async (page) => {
      await page.getByRole("button", { name: "Find best mix" }).click();
      await page.getByText("✓ proved").waitFor();
    },
  },
  {
    name: "day",
    path: "/plan/day?on=2026-03-22",
    prepare: async (page) => {
      const count = (name: string) => page.getByRole("textbox", { name });
      await count("Rain on slate, squat tumbler").fill("12");
      await count("Hay loft, squat tumbler").fill("8");
      await count("Quince and smoke, narrow tin").fill("10");
      await page.getByText("Minute by minute").waitFor();
      await page.getByRole("button", { name: "Stop and keep this" }).waitFor({ state: "hidden" });
      await page.getByRole("region", { name: "Schedule" }).evaluate((item) => item.scrollIntoView({ block: "start" }));
      // It is painted by parts, a few with each frame.
      await page.waitForTimeout(500);
    },
  },
  {
    name: "bench",
    path: "/bench",
    prepare: async (page) =>
      page
        .getByText(/, likely \d\d:\d\d/)
        .first()
        .waitFor(),
  },
  { name: "pot", path: `/bench/${demoId(8, 5)}`, prepare: foreseen },
  { name: "pot-phone", path: `/bench/${demoId(8, 5)}`, phone: true, prepare: foreseen },
  { name: "rack", path: "/rack" },
  {
    name: "inspect",
    path: `/inspect/${demoId(8, 3)}`,
    prepare: async (page) => {
      await page.getByRole("radio", { name: "top" }).click();
      await page.getByRole("radio", { name: "rough, pitted top" }).click();
    },
  },
  { name: "record", path: `/records/${demoId(8, 2)}` },
  { name: "why", path: `/findings/why/${demoId(8, 2)}` },
  { name: "findings", path: "/findings?flaw=rough_top" },
  { name: "scoreboard", path: "/findings/scoreboard" },
  {
    name: "burn-phone",
    path: `/burn/${demoId(0x3f, 2)}`,
    phone: true,
    prepare: async (page) => {
      await page.getByRole("button", { name: "Check A1" }).click();
      await page.getByRole("slider", { name: "Width of the pool" }).fill("62000");
      await page.getByRole("slider", { name: "Depth of the pool" }).fill("7000");
      await page.getByRole("group", { name: "Flame" }).getByRole("button", { name: "steady" }).click();
    },
  },
  { name: "sell", path: "/sell" },
  {
    name: "labels",
    path: `/sell/labels?product=${demoId(0x26, 3)}`,
    prepare: async (page) => {
      await page.getByRole("button", { name: "Hazard", exact: true }).click();
      await page.getByLabel("Sheet of labels").selectOption({ label: "A4, 2 × 4" });
      await page.waitForFunction(() => [...document.images].every((image) => image.complete && image.naturalWidth > 0));
    },
  },
];

/** Takes the pictures again, from the demo data at a frozen moment. `SHOTS=a,b` takes only those; `SHOTS_TO` puts them elsewhere. */
export async function shots(): Promise<number> {
  const home = passingHome("shots");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, FROZEN);
  process.env.HEARTH_ZONE = "UTC";
  const to = process.env.SHOTS_TO ?? join(ROOT, "docs/screenshots");
  mkdirSync(to, { recursive: true });
  const wanted = process.env.SHOTS?.split(",");
  const served = await serve({ home, port: 4700, demo: true, ownDatabase: true, clockFile });
  const browser = await chromium.launch(CHROMIUM);
  try {
    for (const shot of SHOTS) {
      if (wanted && !wanted.includes(shot.name)) continue;
      const context = await browser.newContext({
        locale: "en-GB",
        viewport: shot.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
        reducedMotion: "reduce",
      });
      if (shot.evening) await context.addCookies([{ name: "hearth_light", value: "evening", url: served.url }]);
      const page = await context.newPage();
      await page.goto(`${served.url}/w/${WORKSHOP.id}${shot.path === "/" ? "" : shot.path}`, { waitUntil: "load" });
      await page.locator("html[data-hydrated]").waitFor({ state: "attached" });
      await page.waitForTimeout(400);
      await shot.prepare?.(page);
      await page.screenshot({ path: join(to, `${shot.name}.png`), fullPage: process.env.SHOTS_WHOLE === "1" });
      await context.close();
      console.log(`${shot.name}.png`);
    }
  } finally {
    await browser.close();
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
  return 0;
}
