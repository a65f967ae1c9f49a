import type { Page } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { expect, keptOn, open, test, testOnNewDevice } from "./support";

/** Starts a batch of ten tealights and gives back the path of its pot. */
async function startPot(page: Page): Promise<string> {
  await open(page, `/plan?formula=${demoId(6, 1)}`);
  await page.getByRole("listitem").filter({ hasText: "tealight cup" }).getByLabel("Count").fill("10");
  await page.getByLabel("Extra").fill("0");
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByRole("heading", { name: "Weigh container soy" })).toBeVisible();
  return new URL(page.url()).pathname;
}

/** At the pot that is open: each is one number and one key. */
const enter = async (page: Page, label: "Scale shows" | "Thermometer shows", figure: string) => {
  await page.getByLabel(label).fill(figure);
  await page.getByLabel(label).press("Enter");
};
const at = (page: Page, heading: string | RegExp) => expect(page.getByRole("heading", { name: heading })).toBeVisible();

/** Two pots by turns, from the scale to the rack; `middle` goes round the part where both are hot. */
async function bothPots(page: Page, middle: { before(pots: string[]): Promise<void>; after(): Promise<void> }): Promise<void> {
  const pots = [await startPot(page), await startPot(page)];
  for (const pot of pots) {
    await open(page, pot);
    await enter(page, "Scale shows", "130");
    await at(page, "Weigh rain on slate");
    await enter(page, "Scale shows", "10");
    await at(page, "Heat the wax");
  }
  await middle.before(pots);
  for (const pot of pots) {
    await open(page, pot);
    await at(page, "Heat the wax");
    await enter(page, "Thermometer shows", "85.5");
    await at(page, "Add the fragrance");
    await enter(page, "Thermometer shows", "85.5");
    await at(page, /^Stir$/);
  }
  // The first stands by itself while the second is read on: what was entered for each stays with it.
  for (const [pot, shown] of [
    [pots[0], "72"],
    [pots[1], "73"],
  ] as const) {
    await open(page, pot ?? "");
    await at(page, /^Stir$/);
    await page.getByRole("button", { name: "Record stirring" }).click();
    await at(page, "Bring it to the pour range");
    await enter(page, "Thermometer shows", shown);
    await expect(page.getByText(new RegExp(`▲ ${shown === "72" ? "8.5" : "9.5"} °C above the pour range`)).first()).toBeVisible();
  }
  await open(page, "/bench");
  const soonest = page.getByRole("region", { name: "Next up" });
  await expect(soonest).toBeVisible();
  await expect(page.getByRole("link", { name: "Go to the pot" })).not.toHaveCount(0);
  for (const pot of pots) {
    await open(page, pot);
    // Without the server the page opens as it was kept, and goes on to where this device knows the pot to be.
    await at(page, "Bring it to the pour range");
    await enter(page, "Thermometer shows", "60.5");
    await at(page, /Pour slowly/);
  }
  await middle.after();
  for (const pot of pots) {
    await open(page, pot);
    await page.getByRole("button", { name: "Mark as poured" }).click();
    await expect(page.getByText(/Do not move it until/)).toBeVisible();
  }
  await open(page, "/rack");
  for (const pot of pots) await expect(page.locator(`a[href$="/rack/${pot.split("/").at(-1)}"]`).first()).toBeVisible();
}

test("two pots are run by turns from weighing to set, on the desk", async ({ page }) => {
  const nothing = async () => undefined;
  await bothPots(page, { before: nothing, after: nothing });
});

test.describe("on a phone", () => {
  testOnNewDevice.use({ viewport: { width: 390, height: 844 }, serviceWorkers: "allow" });

  testOnNewDevice("two pots are run by turns from weighing to set, with the network gone while both are hot", async ({ page, context, workshop }) => {
    let pots: string[] = [];
    await bothPots(page, {
      before: async (both) => {
        pots = both;
        await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
        for (const path of ["/bench", ...both]) {
          await open(page, path);
          await keptOn(page, path);
        }
        await context.setOffline(true);
      },
      after: async () => {
        await expect(page.getByText(/entries are kept on this device/).first()).toBeVisible();
        await context.setOffline(false);
        await expect(page.getByText(/kept on this device/)).toHaveCount(0);
      },
    });
    // Each pot has its own readings, once and in their order.
    for (const [n, pot] of pots.entries()) {
      const answer = await context.request.get(`/api/workshops/${workshop}/batches/${pot.split("/").at(-1)}/record`);
      const { events } = (await answer.json()) as { events: { kind: string; payload: { shown?: number } }[] };
      expect(events.filter((event) => event.kind === "read").map((event) => event.payload.shown)).toEqual([8_550, 8_550, n === 0 ? 7_200 : 7_300, 6_050]);
    }
  });
});
