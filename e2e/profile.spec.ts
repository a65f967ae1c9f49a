import type { Page } from "@playwright/test";
import { expect, test } from "./support";

/** What the browser keeps of the server that the program uses, beside the cookie that the tests themselves set. */
const keptBy = (page: Page): Promise<unknown> =>
  page.evaluate(async () => ({
    local: Object.keys(localStorage),
    databases: (await indexedDB.databases()).map((database) => database.name),
    caches: await caches.keys(),
    cookies: document.cookie.split("; ").filter((cookie) => cookie !== "" && !cookie.startsWith("hearth_workshop=")),
  }));

// In one worker and in this order, so that the second has the profile of the first.
test.describe.configure({ mode: "serial" });

test("a test leaves things in its browser profile", async ({ page }) => {
  await page.goto("/api/clock");
  await page.evaluate(async () => {
    localStorage.setItem("left", "1");
    // biome-ignore lint/suspicious/noDocumentCookie: the store of cookies is what this is about.
    document.cookie = "left=1; path=/; max-age=3600";
    await caches.open("left");
    await new Promise<void>((done) => {
      const asked = indexedDB.open("left");
      asked.onsuccess = () => {
        asked.result.close();
        done();
      };
    });
  });
  expect(await keptBy(page)).toEqual({ local: ["left"], databases: ["left"], caches: ["left"], cookies: ["left=1"] });
});

test("the next test finds none of them", async ({ page }) => {
  await page.goto("/api/clock");
  expect(await keptBy(page)).toEqual({ local: [], databases: [], caches: [], cookies: [] });
});
