import { writeLine } from "@hearth/core";
import type { Page } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { FROZEN } from "../tools/shots";
import { expect, open, test, testOnNewDevice } from "./support";

/** The demo's pot that has been weighed and waits for heat. */
const POT = `/bench/${demoId(8, 6)}`;
const temperature = (celsius: number, settled = true) => writeLine({ is: "temperature", celsius, settled });

/** Puts an instrument on a cable at the page. It goes on saying the line it was given last, as instruments do; an empty one silences it. */
async function onCable(page: Page): Promise<(line: string) => Promise<void>> {
  await page.addInitScript(() => {
    let out: ReadableStreamDefaultController<Uint8Array>;
    const readable = new ReadableStream<Uint8Array>({
      start(controller) {
        out = controller;
      },
    });
    Object.defineProperty(navigator, "serial", {
      value: { requestPort: async () => ({ readable, writable: null, open: async () => undefined, close: async () => undefined }) },
    });
    let saying: ReturnType<typeof setInterval> | undefined;
    (window as unknown as { says: (text: string) => void }).says = (text) => {
      clearInterval(saying);
      if (!text.trim()) return;
      const say = () => {
        try {
          out.enqueue(new TextEncoder().encode(text));
        } catch {
          // It was disconnected.
          clearInterval(saying);
        }
      };
      say();
      // Its name is said once.
      if (/^[TW]/.test(text)) saying = setInterval(say, 1_000);
    };
  });
  return (line) => page.evaluate((text) => (window as unknown as { says: (text: string) => void }).says(text), `${line}\r\n`);
}

test.describe("with pages kept", () => {
  testOnNewDevice.use({ serviceWorkers: "allow" });

  testOnNewDevice(
    "a thermometer on a cable is heard, taken with one tap and put down by itself, while the network is gone too; nothing is taken twice",
    async ({ page, context, workshop }) => {
      const says = await onCable(page);
      await open(page, POT);
      await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
      await page.getByRole("button", { name: "Connect an instrument" }).click();
      await page.getByRole("button", { name: "Connect by cable" }).click();
      const panel = page.getByRole("region", { name: "Instruments" });
      await says(writeLine({ is: "name", name: "kitchen probe" }));
      await expect(panel).toContainText("kitchen probe");
      await says(temperature(6_120, false));
      await expect(panel).toContainText("… not stable");
      await expect(panel.getByRole("button", { name: /^Take/ })).toBeDisabled();
      // A line that was spoilt on its way is no reading, and a loose cable is said.
      await says(temperature(8_888).replace("88.88", "88.89"));
      await says("\u0000\u0000garbage");
      await says(temperature(6_150));
      await expect(panel).toContainText("61.5");
      await says(writeLine({ is: "fault", of: "thermometer" }));
      await expect(panel).toContainText("sensor disconnected");
      await expect(panel).not.toContainText("61.5");

      // In the middle of it the network goes. The reading is corrected as the workshop's probe is: it shows half a degree too much.
      await context.setOffline(true);
      for (const celsius of [6_250, 6_350, 6_450]) {
        await says(temperature(celsius));
        await panel.getByRole("button", { name: `Take ${celsius / 100} °C` }).click();
        await expect(page.getByRole("region", { name: "Entries" })).toContainText(`${celsius / 100 - 0.5} °C`);
      }
      await expect(page.getByText("3 entries are kept on this device")).toBeVisible();
      await panel.getByRole("combobox", { name: "Auto-record" }).selectOption("10");
      await says(temperature(6_550));
      await expect(page.getByText("4 entries are kept on this device")).toBeVisible();
      // Its battery is empty: what it said last is no reading any more, however long that is left to itself.
      await says("");
      await expect(panel).toContainText(/nothing heard for \d+ s/);
      await expect(panel.getByRole("button", { name: /^Take/ })).toBeHidden();
      await expect(panel).toContainText(/nothing heard for 1[2-9] s/);
      await expect(page.getByText("4 entries are kept on this device")).toBeVisible();
      await says(temperature(6_560));
      await expect(panel).toContainText("65.6");
      await panel.getByRole("combobox", { name: "Auto-record" }).selectOption("0");
      // It is forecast without the network as well.
      await expect(page.getByRole("region", { name: "Forecast" })).toContainText("to the heat range");
      await context.setOffline(false);
      await expect(page.getByText(/kept on this device/)).toBeHidden();
      const rows = (await (await context.request.get(`/api/workshops/${workshop}/batches/${demoId(8, 6)}/record?as=csv`)).text()).split("\n");
      expect(rows.filter((row) => row.includes("read")).map((row) => /,(6\d\.\d),/.exec(row)?.[1])).toEqual(["62.5", "63.5", "64.5", "65.5"]);
      await panel.getByRole("button", { name: "Disconnect" }).click();
      await expect(panel.getByRole("heading", { name: "Connect an instrument" })).toBeVisible();
    },
  );
});

test("the simulated probe and scale: a pot is brought to its heat on a phone, and a weight is tared, settled and taken", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, POT);
  await page.getByRole("button", { name: "Connect an instrument" }).click();
  const panel = page.getByRole("region", { name: "Instruments" });
  await panel.getByRole("button", { name: "Simulated probe" }).click();
  await expect(panel).toContainText("simulated probe");
  await panel.getByRole("button", { name: "Heat on" }).click();
  const shown = async () => Number(/(\d+(\.\d)?) °C (✓|…)/.exec((await panel.textContent()) ?? "")?.[1] ?? 0);
  await expect.poll(shown, { timeout: 120_000 }).toBeGreaterThan(70);
  await panel.getByRole("button", { name: "Heat off" }).click();
  await panel.getByRole("button", { name: "Stir" }).click();
  const take = panel.getByRole("button", { name: /^Take/ });
  await expect(take).toBeEnabled();
  await take.click();
  await expect(page.getByText("✓ Recorded")).toBeVisible();
  await expect(page.getByRole("region", { name: "Next" })).toContainText("last reading");

  await panel.getByRole("button", { name: "Disconnect" }).click();
  await page.getByRole("button", { name: /^weigh jar/ }).click();
  await panel.getByRole("button", { name: "Simulated scale" }).click();
  await panel.getByRole("button", { name: "Add 100 g" }).click();
  await expect(panel).toContainText("100 g ✓ stable");
  await panel.getByRole("button", { name: "Tare" }).click();
  await expect(panel).toContainText("scale0 g ✓ stable");
  await panel.getByRole("button", { name: "Add 10 g" }).click();
  await expect(panel).toContainText("scale10 g ✓ stable");
  await take.click();
  await expect(page.getByRole("region", { name: "Entries" })).toContainText("10 g");
});

test("a logger's file is shown against the pot before it is kept, and one of another day is told from it", async ({ page }) => {
  await open(page, POT);
  await page.getByRole("button", { name: "Connect an instrument" }).click();
  const panel = page.getByRole("region", { name: "Instruments" });
  const give = (rows: string[]) =>
    panel
      .getByLabel("Readings from a logger file")
      .setInputFiles({ name: "pot.csv", mimeType: "text/csv", buffer: Buffer.from(["serial;7", "time;temp °C", ...rows].join("\r\n")) });
  await give(["2019-03-14 14:00;80,5"]);
  await expect(panel).toContainText("Choose the right pot");
  // Minutes before the frozen clock, while this pot stood weighed.
  const at = (minute: number) => `${FROZEN.slice(0, 10)} ${FROZEN.slice(11, 13)}:${String(minute).padStart(2, "0")}`;
  // Of several columns the maker chooses; a row of units may stand beneath the heads.
  await panel.getByLabel("Readings from a logger file").setInputFiles({
    name: "two.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(`time,ambient temp,probe temp\n,°F,°F\n${at(17)},70.1,183.2\n${at(18)},70,182.3\n`),
  });
  await expect(panel).toContainText("2 readings from 14:17 to 14:18, 21.1 °C to 21.2 °C");
  await panel.getByLabel("Column").selectOption({ label: "probe temp" });
  await expect(panel).toContainText("2 readings from 14:17 to 14:18, 83.5 °C to 84 °C");
  await give([`${at(17)};40,5`, `${at(18)};44,25`, "broken;row", `${at(19)};48`, "2019-03-14 14:00;80,5"]);
  await expect(panel).toContainText("3 readings from 14:17 to 14:19, 40.5 °C to 48 °C; 1 outside");
  await expect(panel).toContainText("1 rows could not be read");
  await panel.getByRole("button", { name: "Log 3 readings" }).click();
  await expect(panel).toContainText("✓ 3 readings are logged");
  await expect(page.getByRole("region", { name: "Entries" }).getByText("47.5 °C")).toBeVisible();
});

test("a batch is rehearsed at sixty times the speed, is said to be a rehearsal wherever it stands, and counts nowhere", async ({ page, request, workshop }) => {
  const stock = async () => (await request.get(`/api/workshops/${workshop}/shelf/fragrance`)).text();
  const before = await stock();
  await page.clock.install();
  await open(page, `/plan?formula=${demoId(6, 1)}`);
  await page.getByRole("listitem").filter({ hasText: "tealight cup" }).getByLabel("Count").fill("10");
  await page.getByLabel("Extra").fill("0");
  await page.getByRole("button", { name: /^Practice first/ }).click();
  await expect(page.getByRole("heading", { name: /^Practice run \d+: Rain on slate/ })).toBeVisible();
  await expect(page.getByRole("note")).toContainText("nothing counts");
  // Each step waits for its heading: what is typed while the step before is still shown would be typed into that one.
  const record = async (step: string, label: string, text: string, button: string) => {
    await expect(page.getByRole("heading", { name: step })).toBeVisible();
    await page.getByLabel(label).fill(text);
    await page.getByRole("button", { name: button }).click();
  };
  await record("Weigh container soy", "Scale shows", "130", "Record the weight");
  await record("Weigh rain on slate", "Scale shows", "10.4", "Record the weight");
  const panel = page.getByRole("region", { name: "Instruments" });
  const shown = async () => Number(/(\d+(\.\d)?) °C ?(✓|…)/.exec((await panel.textContent()) ?? "")?.[1] ?? Number.NaN);
  // The page's clock stands still but for these steps, so that a slow machine heats and cools the pot no further while it looks.
  const until = async (reached: (celsius: number) => boolean) => {
    await panel.getByRole("combobox", { name: "speed" }).selectOption("60");
    await page.clock.pauseAt(await page.evaluate(() => Date.now() + 1_000));
    await expect(async () => {
      await page.clock.runFor(500);
      expect(reached(await shown())).toBe(true);
    }).toPass({ intervals: [0] });
    await panel.getByRole("combobox", { name: "speed" }).selectOption("1");
    await page.clock.resume();
  };
  // The heat is on by itself while the pot is to be heated.
  await until((celsius) => celsius > 60);
  await record("Heat the wax", "Thermometer shows", "85", "Record temperature");
  await record("Add the fragrance", "Thermometer shows", "85", "Record temperature");
  await page.getByRole("button", { name: "Start stirring" }).click();
  await page.getByRole("button", { name: "Stop and record" }).click();
  await page
    .getByRole("button", { name: /Record|Mark/ })
    .first()
    .click();
  await expect(page.getByRole("heading", { name: "Bring it to the pour range" })).toBeVisible();
  await until((celsius) => celsius < 62);
  await expect(panel.getByRole("button", { name: /^Take/ })).toBeEnabled();
  await panel.getByRole("button", { name: /^Take/ }).click();
  await expect(page.getByRole("heading", { name: /Pour slowly/ })).toBeVisible();
  await page.getByRole("button", { name: "Mark as poured" }).click();
  await expect(page.getByText("The practice run is over. Nothing of it counts.")).toBeVisible();

  // More time than the clock's has passed in it; and it stands on no rack, in no record, takes nothing, and is not found.
  for (const path of ["/rack", "/records", "/bench"]) {
    await open(page, path);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await expect(page.getByText(/Practice run/)).toHaveCount(0);
    await expect(page.getByRole("listitem").filter({ hasText: "10 × tealight cup" })).toHaveCount(0);
  }
  expect(await stock()).toBe(before);
});
