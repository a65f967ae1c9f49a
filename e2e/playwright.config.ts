import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "../tools/shots";

export default defineConfig({
  testDir: ".",
  workers: 1,
  // One clock and one database serve all tests, so they run one after another; a test that fails is not run again.
  fullyParallel: false,
  retries: 0,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [["line"], ["json"]],
  outputDir: "../.hearth/browser",
  use: {
    baseURL: process.env.HEARTH_URL,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    contextOptions: { reducedMotion: "reduce" },
    trace: "off",
    actionTimeout: 8_000,
  },
});
