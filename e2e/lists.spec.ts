import { demoId } from "../demo/workshop";
import { expect, open, test } from "./support";

test("rack, records, pots and formulas are narrowed by what suits them, and go on from where one was", async ({ page }) => {
  await open(page, "/rack");
  const rows = page.getByRole("main").getByRole("listitem");
  const all = await rows.count();
  await page.getByLabel("State").selectOption("setting");
  await expect(page).toHaveURL(/state=setting/);
  await expect.poll(() => rows.count()).toBeLessThan(all);
  await expect(rows.first()).toContainText("setting");
  await page.getByLabel("State").selectOption("");
  await expect(rows).toHaveCount(all);
  await page.getByRole("searchbox").fill("13");
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toContainText("Quince and smoke, tin");
  // A batch opened and left again finds the list as it was.
  await rows.first().getByRole("link").first().click();
  await expect(page).toHaveURL(/\/rack\/[0-9a-f-]{36}$/);
  await page.goBack();
  await expect(page.getByRole("searchbox")).toHaveValue("13");
  await expect(rows).toHaveCount(1);

  await open(page, "/records?state=abandoned");
  await expect(page.getByText("No record like that.")).toBeVisible();
  await page.getByRole("link", { name: "Show all" }).click();
  await expect(rows.first()).toContainText("Rain on slate");

  await open(page, "/formulas?family=coconut");
  await expect(rows).toHaveCount(1);
  await expect(page.getByText("1 found")).toBeVisible();
  await open(page, "/formulas?order=changed&q=rain");
  await expect(rows.first()).toContainText("Rain on slate");
  // What an address cannot mean is as if it were not there.
  await open(page, "/formulas?order=sideways&page=-3&family=");
  await expect(rows.first()).toBeVisible();
});

test("what an hour of hands costs goes into what a product costs, and a batch is planned again from its record", async ({ page, workshop }) => {
  await open(page, `/products/${demoId(0x26, 1)}`);
  const costs = page.getByRole("region", { name: "Unit cost" });
  await expect(costs).not.toContainText("hands");
  await open(page, "/workshops");
  await page
    .locator(`[data-workshop="${workshop}"]`)
    .getByRole("button", { name: /^Change/ })
    .click();
  const form = page.locator("form", { has: page.getByRole("button", { name: "Save", exact: true }) });
  await form.getByLabel("Labor cost per hour").fill("18");
  await form.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page).toHaveURL(/\/w\/[0-9a-f-]{36}$/);
  await open(page, `/products/${demoId(0x26, 1)}`);
  // Four minutes at €18 an hour.
  await expect(costs).toContainText("hands€1.20");
  await page.getByLabel("Labor per candle").fill("2");
  await expect(costs).toContainText("hands€0.6");

  await open(page, `/plan?again=${demoId(8, 2)}`);
  await expect(page.getByRole("combobox", { name: "Formula" })).toHaveValue("Rain on slate, tumbler");
  await expect(page.getByRole("button", { name: "container soy: show the calculation" })).toBeVisible();
});

test("a chooser works by keys alone, leaves what was chosen where it is left, and stays inside the window", async ({ page }) => {
  await open(page, `/formulas/${demoId(6, 1)}`);
  const wax = page.getByRole("combobox", { name: /^Wax$/ });
  await wax.focus();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible();
  await expect(wax).toHaveAttribute("aria-expanded", "true");
  await page.keyboard.type("coco");
  await page.keyboard.press("Escape");
  await expect(wax).toHaveValue("container soy");
  await wax.fill("coco");
  await page.keyboard.press("Tab");
  await expect(wax).toHaveValue("container soy");
  await wax.fill("coco");
  await page.keyboard.press("Enter");
  await expect(wax).toHaveValue("coconut blend");
  await wax.fill("zzz");
  await expect(
    page
      .getByText("Nothing here has “zzz” in its name.")
      .or(page.getByRole("option", { name: /a new wax/ }))
      .first(),
  ).toBeVisible();
  await page.keyboard.press("Escape");
  await page.setViewportSize({ width: 390, height: 600 });
  await wax.scrollIntoViewIfNeeded();
  await wax.click();
  const list = page.getByRole("listbox", { name: /Wax/ });
  const box = await list.boundingBox();
  expect(box && box.x >= 0 && box.x + box.width <= 390 && box.y >= 0 && box.y + box.height <= 600).toBe(true);
});

test("the phone's header can be hit with a thumb and shows whole section names; sheets print without losing anything", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, "/rack");
  for (const control of await page.locator("header :is(button, a)").all()) {
    const box = await control.boundingBox();
    expect(box?.height, await control.innerText()).toBeGreaterThanOrEqual(44);
  }
  const cut = await page
    .getByRole("navigation", { name: "Sections" })
    .getByRole("link")
    .evaluateAll(
      (links) =>
        links.filter((link) => [...link.querySelectorAll("span:not(.sr-only)")].some((span) => span.scrollWidth > span.clientWidth + 1 && span.clientWidth > 0))
          .length,
    );
  expect(cut).toBe(0);
  await page.setViewportSize({ width: 1280, height: 800 });
  await open(page, `/records/${demoId(8, 2)}`);
  await page.emulateMedia({ media: "print" });
  // A4 and Letter, less their margins, at 96 dots to the inch.
  for (const width of [718, 740]) {
    await page.setViewportSize({ width, height: 1_000 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth), String(width)).toBeLessThanOrEqual(width);
  }
});
