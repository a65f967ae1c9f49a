import type { BrowserContext, Page } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { POT, read } from "./pot";
import { ALONE, addressOf, backup, expect, keptOn, open, test, testOnNewDevice, workIn } from "./support";

/** What the server has of the pot's readings, as they were shown. */
async function readings(context: BrowserContext, workshop: string): Promise<string[]> {
  const record = (await (await context.request.get(`/api/workshops/${workshop}/batches/${demoId(8, 6)}/record`)).json()) as {
    events: { kind: string; happenedAt: string; payload: { shown?: number } }[];
  };
  return record.events.flatMap((event) => (event.kind === "read" ? [String((event.payload.shown ?? 0) / 100)] : []));
}

test("an entry is kept where something else answers for the workshop, and sent once it answers itself", async ({ page, context, workshop }) => {
  await open(page, POT);
  const before = (await readings(context, workshop)).length;
  const lies = [
    { status: 200, contentType: "text/html", body: "<html>Please sign in to the wifi</html>" },
    { status: 200, contentType: "application/json", body: JSON.stringify({ ok: true }) },
    { status: 302, headers: { location: "/workshops" } },
    { status: 403, contentType: "text/html", body: "Forbidden" },
  ];
  let lie = lies[0];
  await page.route("**/events", (route) => route.fulfill(lie));
  for (const [index, ly] of lies.entries()) {
    lie = ly;
    await read(page, `50.${index + 1}`);
    await expect(page.getByText(`${index === 0 ? "1 entry is" : `${index + 1} entries are`} kept on this device`)).toBeVisible();
  }
  expect((await readings(context, workshop)).length).toBe(before);
  await page.unroute("**/events");
  await expect(page.getByText(/kept on this device/)).toBeHidden();
  expect((await readings(context, workshop)).slice(before).sort()).toEqual(["50.1", "50.2", "50.3", "50.4"]);
});

test("a correction that another device was quicker with takes the place of the newer one where the maker says so", async ({
  page,
  context,
  workshop,
  browser,
}) => {
  await open(page, POT);
  await read(page, "50");
  await expect(page.getByRole("button", { name: /^Correct: .*50 °C|^Correct: .*50/ }).first()).toBeVisible();
  const other = await browser.newContext({ locale: "en-GB", timezoneId: "UTC" });
  await workIn(other, workshop);
  const there = await other.newPage();
  await open(there, POT);
  await context.setOffline(true);
  const correct = async (on: Page, shown: string) => {
    await on
      .getByRole("button", { name: /^Correct: .*50/ })
      .first()
      .click();
    await on.getByLabel("What the instrument showed").fill(shown);
    await on.getByRole("button", { name: "Save correction" }).click();
    await expect(on.getByRole("button", { name: "Save correction" })).toBeHidden();
  };
  await correct(page, "52.4");
  await correct(there, "51.1");
  await expect.poll(async () => (await readings(other, workshop)).includes("51.1")).toBe(true);
  await context.setOffline(false);
  await expect(page.getByText(/of this device was refused/)).toBeVisible();
  await page.getByRole("button", { name: "Look at it" }).click();
  await page.getByRole("button", { name: "Replace the newer correction" }).click();
  await expect(page.getByText(/of this device was refused/)).toBeHidden();
  await expect(there.getByRole("button", { name: /^Correct: .*52\.4/ }).first()).toBeVisible();
  await other.close();
});

test.describe("with pages kept", () => {
  testOnNewDevice.use({ serviceWorkers: "allow" });

  testOnNewDevice("after an update of the program the pages of the pot in hand open without the network as before", async ({ page, context }) => {
    // An update is another worker, as the browser sees it.
    let build = 1;
    const worker = await (await context.request.get("/worker.js")).text();
    await context.route("**/worker.js", (route) => route.fulfill({ contentType: "text/javascript", body: `${worker}\n// build ${build}` }));
    await open(page, POT);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await keptOn(page, POT);
    await keptOn(page, "/bench");
    build = 2;
    const changed = page.evaluate(
      () => new Promise<void>((done) => navigator.serviceWorker.addEventListener("controllerchange", () => done(), { once: true })),
    );
    await page.evaluate(async () => void (await (await navigator.serviceWorker.getRegistration())?.update()));
    await changed;
    expect(await page.evaluate(async (asked) => Boolean(await caches.match(asked, { ignoreVary: true })), await addressOf(page, POT))).toBe(true);
    await context.setOffline(true);
    await page.reload();
    await expect(page.getByRole("heading", { level: 1 })).toContainText("Pot");
    await context.setOffline(false);
  });
});

test(
  "after a backup was restored devices show what it holds and nothing else, and offer to send again what it lacks",
  ALONE,
  async ({ page, context, workshop, browser }) => {
    const other = await browser.newContext({ locale: "en-GB", timezoneId: "UTC" });
    await workIn(other, workshop);
    const there = await other.newPage();
    await open(page, POT);
    await open(there, POT);
    const shown = (on: Page, text: string) => on.getByRole("region", { name: "Entries" }).getByText(text).first();
    await backup("take");
    await read(page, "46.1");
    await expect(shown(there, "45.6 °C")).toBeVisible();
    await backup("restore");
    const lost = page.getByRole("region", { name: "Entries missing after a restore" });
    await expect(lost).toContainText("without 1 entry of this device");
    for (const on of [page, there]) await expect(shown(on, "45.6 °C")).toBeHidden();
    // What is entered now is seen by both, though its place in the log is one that they knew before.
    await read(there, "47.7");
    for (const on of [page, there]) await expect(shown(on, "47.2 °C")).toBeVisible();
    await page.reload();
    await expect(shown(page, "47.2 °C")).toBeVisible();
    await expect(shown(page, "45.6 °C")).toBeHidden();
    await lost.getByRole("button", { name: "Send it again" }).click();
    await expect(lost).toBeHidden();
    for (const on of [page, there]) await expect(shown(on, "45.6 °C")).toBeVisible();
    expect((await readings(context, workshop)).filter((reading) => reading === "46.1" || reading === "47.7")).toHaveLength(2);
    await other.close();
  },
);
