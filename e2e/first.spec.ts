import { plannedWeight } from "./pot";
import { choose, emptyWorkshop, expect, open, test } from "./support";

test("a newcomer in ounces, °F and inches is led from a blank workshop to three poured jars, with no number in another system", async ({ page }) => {
  await open(page, "/workshops");
  const form = page.locator("section", { hasText: "A new, empty workshop" }).last();
  await form.getByLabel("Name of the workshop").fill("Kitchen in Ohio");
  await form.getByLabel("Your first name").fill("Wren");
  await form.getByRole("button", { name: "Ounces, °F, inches" }).click();
  await form.getByLabel("Date and time format").selectOption("en-US");
  await choose(form, "Time zone", "America/New York");
  await choose(form, "Currency", "USD");
  await form.getByRole("button", { name: "Create workshop" }).click();

  await page.getByRole("link", { name: "Start the first batch" }).click();
  await page.getByLabel("Your scale reads to").selectOption("0.1 oz");
  await page.getByRole("button", { name: "Save scale and thermometer" }).click();
  await expect(page.getByRole("heading", { name: /One wax/ })).toBeVisible();
  await page.getByRole("radio", { name: "soy", exact: true }).check();
  await page.getByRole("button", { name: "Add to the shelf" }).click();
  // It can be left, and come back to.
  await expect(page.getByLabel("Name of the jar")).toBeVisible();
  await open(page, "/");
  await page.getByRole("link", { name: "Start the first batch" }).click();
  await page.getByLabel("Name of the jar").fill("tumbler");
  await page.getByLabel("Inside diameter").fill("3 1/8");
  await page.getByLabel("Inside height").fill("3 1/2");
  await page.getByLabel("Weight of water").fill("9 1/2");
  // 9.5 oz of water × 0.9 ÷ 0.9982 is 8.565 oz of wax.
  await expect(page.getByText("8.57 oz")).toBeVisible();
  await page.getByRole("button", { name: "Add the jar" }).click();
  await page.getByLabel("Name of the scent").fill("pine tar");
  await page.getByRole("button", { name: "Add to the shelf" }).click();
  await page.getByLabel("Name of the wick").fill("flat-braid cotton 7");
  await page.getByRole("button", { name: "Add to the shelf" }).click();
  // A finished step is opened again, and put right.
  await page.getByRole("button", { name: "Change: One wick" }).click();
  await page.getByLabel("Name", { exact: true }).fill("flat-braid cotton 8");
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(page.getByRole("heading", { name: "One wick flat-braid cotton 8" })).toBeVisible();
  await expect(page.getByLabel("Name of the formula")).toHaveValue("pine tar in container soy");
  await expect(page.getByLabel("Name of the product")).toHaveValue("pine tar, tumbler");
  await page.getByRole("button", { name: "Save formula and product" }).click();
  await page.getByRole("link", { name: "Work out three jars" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "tumbler" }).getByLabel("Count")).toHaveValue("3");
  await expect(page.locator("main")).not.toContainText(/\d\s?(g|mm|°C)\b/);
  const [wax, oil] = [await plannedWeight(page, "container soy"), await plannedWeight(page, "pine tar")];
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByRole("heading", { name: "Weigh container soy" })).toBeVisible();
  await expect(page.getByLabel("Scale shows")).toBeFocused();
  await expect(page.locator("main")).not.toContainText(/\d\s?(g|mm|°C)\b/);

  // The pot leads on, one number at a time.
  const enter = async (heading: string | RegExp, label: string, text: string) => {
    await expect(page.getByRole("heading", { name: heading })).toBeVisible();
    await page.getByLabel(label).fill(text);
    await page.keyboard.press("Enter");
  };
  await enter("Weigh container soy", "Scale shows", wax);
  await enter("Weigh pine tar", "Scale shows", oil);
  await enter("Heat the wax", "Thermometer shows", "185");
  await enter("Add the fragrance", "Thermometer shows", "184");
  await page.getByRole("button", { name: "Record stirring" }).click();
  await enter("Bring it to the pour range", "Thermometer shows", "140");
  await expect(page.getByRole("heading", { name: /Pour slowly/ })).toBeVisible();
  await page.getByRole("button", { name: "Mark as poured" }).click();
  await expect(page.getByText(/Do not move it until \w+, \w+ \d+ \d+:\d\d (am|pm)/)).toBeVisible();
  await expect(page.getByRole("list", { name: "What comes next" })).toContainText("burn-test one of them");
  // Today says what comes next, and when; the product of the guide is what was poured.
  await open(page, "/");
  await expect(page.getByRole("region", { name: "Coming" })).toContainText(/\w+, \w+ \d+ \d+:\d\d (am|pm) · do not move it until then, then inspect it/);
  await open(page, "/products");
  await expect(page.getByRole("link", { name: "pine tar, tumbler", exact: true })).toBeVisible();
});

test("single-letter keys can be turned off, the choosers of the frame wait for Enter, and what was read is folded away", async ({ page }) => {
  await open(page, "/plan");
  await page.keyboard.press("?");
  await page.getByLabel("Single-key shortcuts on this device").uncheck();
  await page.getByRole("button", { name: "Close" }).click();
  await page.keyboard.press("s");
  await expect(page.getByRole("heading", { name: "Plan a batch" })).toBeVisible();
  await page.evaluate(() => localStorage.removeItem("hearth.letters"));
  await page.keyboard.press("s");
  await expect(page.getByRole("heading", { name: "Shelf", exact: true })).toBeVisible();
  const who = page.getByRole("button", { name: /^Who is working/ });
  await who.focus();
  await page.keyboard.press("ArrowDown");
  // It is loaded when it is first opened.
  await expect(page.getByRole("menu", { name: /^Who is working/ })).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Who is working: Ansa" })).toBeVisible();

  await open(page, "/products");
  const main = page.locator("main > div").first();
  const before = (await main.boundingBox())?.width ?? 0;
  for (const title of ["Cost and price", "Testing the wick"]) await page.getByRole("button", { name: title }).click();
  await expect.poll(async () => (await main.boundingBox())?.width ?? 0).toBeGreaterThan(before + 100);
  await page.reload();
  await expect(page.getByRole("button", { name: "Cost and price" })).toHaveAttribute("aria-expanded", "false");
});

test("a demo of grams shows inches and a twelve-hour clock once the workshop asks for them", async ({ page }) => {
  await emptyWorkshop(page, "Twelve", { massUnit: "oz", pounds: true, temperatureUnit: "F", lengthUnit: "in" });
  await open(page, "/workshops");
  await page.getByRole("button", { name: "Change Twelve" }).click();
  const form = page.locator("form", { has: page.getByRole("button", { name: "Save", exact: true }) });
  await form.getByLabel("Date and time format").selectOption("en-US");
  await form.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText(/\d{1,2}:\d\d (am|pm)/).first()).toBeVisible();
  await open(page, "/shelf");
  await page.getByRole("button", { name: "Add a vessel" }).click();
  const vessel = page.getByRole("region", { name: "Vessels" });
  await vessel.getByLabel("Inner diameter at the rim").fill("3.0625");
  await expect(vessel.getByText("= 3 1/16 in")).toBeVisible();
  await vessel.getByLabel("Fill weight").fill("1 1/2 lb");
  await vessel.getByLabel("Net weight").fill("1,250");
  await vessel.getByLabel("Fill weight").focus();
  await expect(vessel.getByText(/“1,250” can be read as 1250 or as 1.250/)).toBeVisible();
});
