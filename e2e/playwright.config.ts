import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "../tools/shots";

export default defineConfig({
  testDir: ".",
  // Each test works in a workshop of its own, so that they run side by side; a test that fails is not run again.
  fullyParallel: true,
  workers: 2,
  projects: [
    { name: "side by side", grepInvert: /@alone/ },
    // One clock and one database serve all tests of a run: those that move the one or stop the other run one after another, on a server of their own.
    { name: "alone", grep: /@alone/, workers: 1 },
  ],
  retries: 0,
  // Generous: a slow machine shows the same, only later.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  // A picture is compared with the one in the documents, and never written by a test.
  snapshotPathTemplate: "../docs/screenshots/{arg}{ext}",
  updateSnapshots: "none",
  reporter: [["line"], ["json"]],
  outputDir: `../.hearth/browser/${process.env.HEARTH_LANE ?? "all"}`,
  use: {
    baseURL: process.env.HEARTH_URL,
    // A new workshop takes its measures from the browser.
    locale: "en-GB",
    timezoneId: "UTC",
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    contextOptions: { reducedMotion: "reduce" },
    trace: "off",
    // Pages come from the server, unless a test is about those that do not.
    serviceWorkers: "block",
    actionTimeout: 60_000,
  },
});
