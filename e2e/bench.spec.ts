import { demoId } from "../demo/workshop";
import { addressOf, choose, expect, moreOptions, open, test } from "./support";

test("a slip at the scale is asked about, what was too much sets the rest, the ceiling is an alarm, and pouring asks", async ({ page }) => {
  const next = page.getByRole("region", { name: "Next" });
  // Counts the tones that are sounded: a headless browser plays them to nobody.
  await page.addInitScript(() => {
    const start = OscillatorNode.prototype.start;
    OscillatorNode.prototype.start = function (...at) {
      document.documentElement.dataset.tones = String(Number(document.documentElement.dataset.tones ?? 0) + 1);
      start.apply(this, at);
    };
  });
  const start = async () => {
    await open(page, `/plan?formula=${demoId(6, 1)}`);
    await page.getByRole("listitem").filter({ hasText: "tealight cup" }).getByLabel("Count").fill("10");
    await page.getByLabel("Extra").fill("0");
    // Enter in a count starts nothing.
    await page.getByLabel("Extra").press("Enter");
    await expect(page.getByRole("button", { name: "container soy: show the calculation" })).toContainText("130");
    await page.getByRole("button", { name: "Start the batch" }).click();
    await expect(page.getByRole("heading", { name: "Weigh container soy" })).toBeVisible();
  };
  const record = async (label: string, text: string, button: string) => {
    await page.getByLabel(label).fill(text);
    await page.getByRole("button", { name: button }).click();
  };
  // Before its first entry a start is undone, as if it had never been.
  await start();
  const first = new URL(page.url()).pathname;
  await page.getByRole("button", { name: "Undo the start" }).click();
  await expect(page.getByRole("heading", { name: "Plan a batch" })).toBeVisible();
  expect((await page.goto(first))?.status()).toBe(404);

  // 140 g at 8 % of the wax: 130 + 10.4. Ten times as much is asked about; a little too much is told, and the oil can follow it.
  await start();
  await record("Scale shows", "1300", "Record the weight");
  await page.getByRole("alertdialog", { name: "Check this value" }).getByRole("button", { name: "Change it" }).click();
  await record("Scale shows", "150", "Record the weight");
  const tooMuch = page.getByRole("alert", { name: "Too much" });
  await expect(tooMuch).toContainText("150 g container soy weighed, where 130 g is asked: 15.4 % more");
  await tooMuch.getByRole("button", { name: /Rescale the rest to match: rain on slate 12.0 g/ }).click();
  await expect(tooMuch).toBeHidden();
  await expect(page.getByRole("heading", { name: "Weigh rain on slate" })).toBeVisible();
  await expect(next).toContainText("12.0");
  await record("Scale shows", "12", "Record the weight");

  // Below the range while it is heated for the first time: nothing to be put back.
  await record("Thermometer shows", "60", "Record temperature");
  await expect(next).toContainText("below");
  await expect(page.getByRole("button", { name: "Back on the heat" })).toHaveCount(0);
  await record("Thermometer shows", "95", "Record temperature");
  await expect(page.getByRole("alert").filter({ hasText: "Above the maximum temperature of 93.3 °C" })).toBeVisible();
  await expect(page.locator("html")).toHaveAttribute("data-tones", "3");
  await record("Thermometer shows", "85.5", "Record temperature");
  await expect(page.getByText(/It exceeded the maximum temperature of 93.3 °C once/)).toBeVisible();

  // Out of order and without a reading: asked, not forbidden. Fewer were filled than planned.
  await page.getByRole("button", { name: /^pour/ }).click();
  await page.getByLabel("Jars filled").fill("9");
  await page.getByLabel("Leftover wax").fill("14");
  await page.getByLabel("Room").fill("19");
  await page.getByRole("button", { name: "Mark as poured" }).click();
  const sure = page.getByRole("alertdialog", { name: "Record the pour anyway?" });
  await expect(sure).toContainText("No reading is recorded for the pour range (57–63 °C)");
  await sure.getByRole("button", { name: "Record pour anyway" }).click();
  await expect(page.getByText(/Do not move it until/)).toBeVisible();
  await page.getByRole("link", { name: "Record", exact: true }).click();
  await expect(page.getByText("9 filled")).toBeVisible();
  await page.getByRole("link", { name: "Go to the pot" }).click();
  await expect(page).toHaveURL(/\/bench\//);
});

test("a batch is abandoned with what became of its wax, and resumed", async ({ page }) => {
  await open(page, `/bench/${demoId(8, 6)}`);
  await page.getByRole("button", { name: "Abandon this batch" }).click();
  await page.getByLabel("The wax was").selectOption("thrown away");
  await page.getByLabel("How much").fill("8 fl oz");
  await page.getByRole("button", { name: "Abandon batch" }).click();
  await expect(page.getByText(/“8 fl oz” is a volume. Weigh it/)).toBeVisible();
  await page.getByLabel("How much").fill("700");
  await page.getByLabel("Why").fill("dropped a wick tin into it");
  await page.getByRole("button", { name: "Abandon batch" }).click();
  await expect(page.getByText("Abandoned; the wax was thrown away.")).toBeVisible();
  await page.getByRole("link", { name: "Back to the bench" }).click();
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Quince and smoke, tin" })).toHaveCount(0);
  await open(page, `/bench/${demoId(8, 6)}`);
  await page.getByRole("button", { name: "Restore draft again" }).click();
  await expect(page.getByLabel("Thermometer shows")).toBeVisible();
});

test("what happened earlier is put down with its own time: a batch, and an entry", async ({ page }) => {
  await open(page, `/plan?formula=${demoId(6, 1)}`);
  await page.getByRole("listitem").filter({ hasText: "tealight cup" }).getByLabel("Count").fill("10");
  await moreOptions(page);
  await page.getByLabel("Started").fill("2026-03-13 09:00");
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByRole("heading", { name: "Weigh container soy" })).toBeVisible();
  await page.getByLabel("Scale shows").fill("136");
  await page.getByLabel("When").fill("2026-03-13 09:20");
  await page.getByRole("button", { name: "Record the weight" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "weighed container soy" })).toContainText("09:20");
  await page.getByRole("link", { name: "Record", exact: true }).click();
  await expect(page.getByText("Fri 13 Mar 09:00").first()).toBeVisible();
});

test("a safety flaw stops the sale of its jars and takes them out of the count; flaws of burning are not offered", async ({ page }) => {
  await open(page, `/inspect/${demoId(8, 3)}`);
  await page.getByRole("radio", { name: "wall" }).click();
  expect(await page.getByRole("radiogroup", { name: "Which flaw" }).innerText()).not.toMatch(/mushroom|soot|tunnel/i);
  expect(await page.getByLabel("Other flaw").innerText()).not.toMatch(/mushroom|soot|tunnel/i);
  await page.getByRole("radio", { name: "⚠ cracked glass" }).click();
  await page.getByRole("button", { name: "under 10 %" }).click();
  await expect(page.getByText("⚠ never sell")).toBeVisible();
  await expect(page.getByRole("heading", { name: "⚠ Safety" })).toBeVisible();
  await page.getByRole("button", { name: "One more alike" }).click();
  await page.getByRole("button", { name: "Save, next jar" }).click();
  await expect(page.getByText("2 jars have a safety flaw: never sold, and not in stock.")).toBeVisible();
  await open(page, `/records/${demoId(8, 3)}`);
  await expect(page.getByText(/2 must not be sold; \d+ remain/)).toBeVisible();
  await open(page, "/rack");
  await expect(page.getByText("2 must not be sold")).toBeVisible();
  // Taken back, they may be sold again.
  await open(page, `/records/${demoId(8, 3)}`);
  await page.getByRole("button", { name: /^Correct: 2 × .*cracked glass/ }).click();
  await page.getByRole("button", { name: "Delete entry" }).click();
  await expect(page.getByText(/must not be sold; \d+ remain/)).toBeHidden();
});

test("a process of the workshop's own: made from a ready one, kept in versions, and planned with", async ({ page }) => {
  await open(page, "/formulas/processes/new");
  await page.getByLabel("Begin from").selectOption({ label: "soy, bind hot" });
  await page.getByLabel("Name", { exact: true }).fill("Our slow soy");
  await page.getByLabel("Add a step").selectOption({ label: "finish" });
  await page.getByRole("button", { name: "Add step" }).click();
  await page.getByRole("button", { name: "Save the process" }).click();
  await expect(page.getByRole("heading", { name: "Our slow soy" })).toBeVisible();
  await page.getByLabel("Maximum temperature").fill("abc");
  await page.getByRole("button", { name: "Save the process" }).click();
  await expect(page.getByLabel("Maximum temperature")).toHaveValue("abc");
  await expect(page.getByLabel("Maximum temperature")).toHaveAttribute("aria-invalid", "true");
  await page.getByLabel("Maximum temperature").fill("90");
  await page.getByRole("button", { name: "Save the process" }).click();
  await expect(page.getByText("Saved, version 2.")).toBeVisible();
  await expect(page.getByRole("region", { name: "Formulas with this process" })).toContainText("None yet");
  const process = page.url();
  // A formula takes it, and says when it has fallen behind; it is brought on by hand, and back.
  await open(page, `/formulas/${demoId(6, 1)}`);
  await page.getByLabel("Start from process").selectOption({ label: "Our slow soy" });
  await page.getByRole("button", { name: "Save the formula" }).click();
  await expect(page.getByText(/^✓ Saved/)).toBeVisible();
  await open(page, process);
  const follows = page.getByRole("region", { name: "Formulas with this process" });
  await expect(follows).toContainText("✓ on version 2");
  await page.getByLabel("Maximum temperature").fill("91");
  await page.getByRole("button", { name: "Save the process" }).click();
  await expect(page.getByText("Saved, version 3. One formula is still on an older one: see below.")).toBeVisible();
  await expect(follows).toContainText("▲ still on version 2");
  await follows.getByRole("button", { name: /^Update .* to version 3$/ }).click();
  await expect(follows).toContainText("✓ on version 3");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(follows).toContainText("▲ still on version 2");
  // The same name in other letters is taken.
  await open(page, "/formulas/processes/new");
  await page.getByLabel("Name", { exact: true }).fill("OUR SLOW SOY");
  await page.getByRole("button", { name: "Save the process" }).click();
  await expect(page.getByText("There is one of this name already").first()).toBeVisible();
  await open(page, `/plan?formula=${demoId(6, 1)}`);
  await choose(page, "Process", "Our slow soy");
  await page.getByRole("listitem").filter({ hasText: "tealight cup" }).getByLabel("Count").fill("4");
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByRole("button", { name: /^finish/ })).toBeVisible();
});

test("the bench foresees when a pot comes into its range, asks about a reading that does not fit, and puts first the pot that needs hands soonest", async ({
  page,
}) => {
  // The page comes with its forecasts, and with its pots in their order; the first one after a start may be late.
  await expect
    .poll(async () => (await (await page.request.get(await addressOf(page, "/bench"))).text()).replaceAll(/<[^>]*>/g, ""), { timeout: 60_000 })
    .toMatch(/Quince and smoke.*\d+ min to the pour range about/s);
  await open(page, "/bench");
  const soonest = page.getByRole("region", { name: "Next up" });
  await expect(soonest).toContainText("Quince and smoke");
  // What cools is forecast on the list too, below what is due.
  const cooling = page.getByRole("listitem").filter({ hasText: "Rain on slate, tumbler" });
  await expect(cooling).toContainText(/\d+ min to the pour range about \d\d:\d\d, likely \d\d:\d\d to \d\d:\d\d/);
  await cooling.getByRole("link", { name: "Go to the pot" }).click();
  const foreseen = page.getByRole("region", { name: "Forecast" });
  await expect(foreseen).toContainText(/to the pour range/);
  const before = await foreseen.textContent();

  // Another thermometer than before, and one that sees the surface only, is said where it is chosen.
  const tool = page.getByRole("combobox", { name: "Thermometer" });
  await tool.selectOption({ label: "infrared pistol" });
  await expect(page.getByText(/The last reading was taken with long probe: .* read the center/)).toBeVisible();
  await tool.selectOption({ label: "long probe" });
  await expect(page.getByText(/read the center/)).toBeHidden();

  // 46.5 for 64.5, on a probe that shows half a degree too much: it is asked about, and changes nothing of what is forecast until it is taken back or mended.
  await page.getByLabel("Thermometer shows").fill("46.5");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(foreseen).toContainText("46 °C");
  await expect(foreseen).toContainText("does not match the other readings");
  await expect(foreseen).toContainText(/to the pour range/);
  await foreseen.getByRole("button", { name: "Delete reading" }).click();
  await expect(foreseen).toHaveText(before ?? "");
  await page.getByLabel("Thermometer shows").fill("62");
  await page.getByRole("button", { name: "Record temperature" }).click();
  // Inside it is ready, and it is said how long it stays.
  await expect(page.getByRole("heading", { name: /Pour slowly/ })).toBeVisible();
  await expect(foreseen).toContainText("In the pour range for about");

  // What was looked at before, and what went elsewhere, stands among the entries.
  const entries = page.getByRole("region", { name: "Entries" });
  await page.getByRole("checkbox", { name: /no crack/ }).check();
  await page.getByRole("checkbox", { name: /wicks centered/ }).check();
  await page.getByRole("button", { name: "Save checked items" }).click();
  await expect(entries).toContainText("prepared: vessels inspected: no crack, no chip; wicks centered, straight and held");
  await entries.getByLabel("Wax lost or moved").selectOption("given");
  await entries.getByLabel("Weight").fill("40");
  await entries.getByRole("button", { name: "Log this wax" }).click();
  await expect(entries).toContainText("Enter the number of the pot.");
  await entries.getByLabel("Which pot").fill("57");
  await entries.getByRole("button", { name: "Log this wax" }).click();
  await expect(entries).toContainText("wax into another pot of the same formula (57)");
  await open(page, "/bench");
  await expect(soonest).toContainText("Rain on slate, tumbler");
});
