import { readFileSync } from "node:fs";
import { ALONE, choose, emptyWorkshop, expect, moreOptions, open, passHours, test } from "./support";

test("one batch from formula to closed record, by mouse, and its record into an empty workshop", ALONE, async ({ page }) => {
  await open(page, "/");
  await page.getByRole("link", { name: "formulas" }).click();
  await page.getByRole("link", { name: "Make a formula" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Mouse flow");
  await choose(page, "Wax", "container soy");
  await choose(page, "Fragrance", "rain on slate");
  await page.getByLabel("Load").fill("10");
  await expect(page.getByText("10 % of the wax = 9.09 % of the total")).toBeVisible();
  await page.getByLabel("Start from process").selectOption({ label: "soy, late and cool" });
  await expect(page.getByLabel("Pour at")).toHaveValue("53–60");
  await page.getByLabel("Pour at").fill("57-63 C");
  await page.getByRole("button", { name: "Save the formula" }).click();
  await expect(page.getByRole("heading", { name: "Mouse flow" })).toBeVisible();

  // Two kinds of vessel from one pot: 10 × 14 g + 6 × 12.5 g = 215 g.
  await page.getByRole("link", { name: "Plan a batch from it" }).click();
  const count = (vessel: string) => page.getByRole("listitem").filter({ hasText: vessel }).getByLabel("Count");
  await count("tealight cup").fill("10");
  await count("sample cup").fill("6");
  await page.getByLabel("Extra").fill("0");
  await moreOptions(page);
  await page.getByLabel("Oil on").selectOption({ label: "bench scale (1 g)" });
  const figures = page.getByRole("region", { name: "Weigh out" });
  await expect(page.getByText("215 g", { exact: true })).toBeVisible();
  await expect(figures.or(page.getByText("actual fragrance load"))).toBeVisible();
  // 215 ÷ 1.10 = 195.45, and 195 + 20 would pass the wax's 10 %, so the wax goes up to 196.
  await page.getByRole("button", { name: "container soy: show the calculation" }).click();
  const working = page.getByRole("dialog");
  await expect(working).toContainText("12.5 g × 6 = 75 g");
  await expect(working).toContainText("215 g ÷ 1.1 = 195.45 g");
  await expect(working).toContainText("195.45 g → 196 g");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Start the batch" }).click();

  // Weigh: a slip, corrected by a further entry; both stay.
  await expect(page.getByRole("heading", { name: "Weigh container soy" })).toBeVisible();
  await page.getByLabel("Scale shows").fill("169");
  await page.getByRole("button", { name: "Record the weight" }).click();
  await expect(page.getByText("remaining; weighed")).toBeVisible();
  await page.getByRole("button", { name: "Correct: weighed container soy 169 g" }).click();
  await page.getByLabel("What it weighed").fill("196 g");
  await page.getByRole("button", { name: "Save correction" }).click();
  // The form has closed at once, and goes for good when the server has answered.
  await expect(page.getByRole("button", { name: "Save correction", includeHidden: true })).toHaveCount(0);
  await expect(page.getByRole("heading", { name: "Weigh rain on slate" })).toBeVisible();
  await expect(page.locator(".line-through", { hasText: "169 g" })).toBeVisible();
  await page.getByLabel("Scale shows").fill("19");
  await page.getByRole("button", { name: "Record the weight" }).click();

  // Heat: 850 is refused where it was typed; 66 is below the range by 4.5 with the probe's correction; then inside.
  await expect(page.getByRole("heading", { name: "Heat the wax" })).toBeVisible();
  await page.getByLabel("Thermometer shows").fill("850");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(page.getByText(/850 °C is hotter than any wax is heated/)).toBeVisible();
  await expect(page.getByLabel("Thermometer shows")).toHaveValue("850");
  await page.getByLabel("Thermometer shows").fill("66");
  await page.getByLabel("When").fill("14:50");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(page.getByText(/14:50 is 30 min ahead of now/)).toBeVisible();
  await page.getByLabel("When").fill("");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(page.getByText("▼ 4.5 °C below the heat range (70–78 °C)").first()).toBeVisible();
  await page.getByLabel("Thermometer shows").fill("167F");
  await page.getByRole("button", { name: "Record temperature" }).click();

  await expect(page.getByRole("heading", { name: "Add the fragrance" })).toBeVisible();
  await page.getByLabel("Thermometer shows").fill("58");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(page.getByRole("heading", { name: "Stir", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Record stirring" }).click();
  await expect(page.getByRole("heading", { name: "Bring it to the pour range" })).toBeVisible();
  await page.getByLabel("Thermometer shows").fill("72");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(page.getByText("▲ 8.5 °C above the pour range (57–63 °C)").first()).toBeVisible();
  await page.getByLabel("Thermometer shows").fill("60,5");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(page.getByRole("heading", { name: /Pour slowly/ })).toBeVisible();
  await page.getByLabel("Vessels warmed").selectOption("heat gun");
  await page.getByRole("button", { name: "Mark as poured" }).click();
  await expect(page.getByText("Do not move it until Sun 15 Mar 14:20")).toBeVisible();
  const batchId = new URL(page.url()).pathname.split("/").at(-1) ?? "";

  // The rack says when it may be tested and sold; two days on it can be inspected.
  await page.getByRole("link", { name: "Go to the rack" }).click();
  const row = page.getByRole("listitem").filter({ hasText: "Mouse flow" });
  await expect(row).toContainText("ready to burn-testWed 18 Mar 14:20in 4 days");
  await expect(row).toContainText("Sat 28 Mar 14:20");
  passHours(48);
  await open(page, "/inspect");
  await page.getByRole("listitem").filter({ hasText: "Mouse flow" }).getByRole("link", { name: "Inspect batch" }).click();
  await page.locator('[data-place="side"]').first().click();
  await expect(page.getByRole("radio", { name: "wall" })).toBeChecked();
  await page.getByRole("radio", { name: "wet spot" }).click();
  await page.getByRole("button", { name: "10 to 33 %" }).click();
  for (const _ of [1, 2]) await page.getByRole("button", { name: "One more alike" }).click();
  await page.getByRole("button", { name: "Save, next jar" }).click();
  await expect(page.getByText("3 ×")).toBeVisible();
  await page.getByRole("button", { name: "The other 13 are fine: finish" }).click();

  // Closing before the minimum cure is allowed, and the record says so.
  await expect(page.getByText("Missing: minimum cure.")).toBeVisible();
  await page.getByRole("button", { name: "Close anyway" }).click();
  await expect(page.getByText("Without: minimum cure.")).toBeVisible();
  await expect(page.getByText("wet spot", { exact: true })).toBeVisible();
  await expect(page.getByRole("img", { name: /Heat line of batch/ })).toBeVisible();

  const [json] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Download JSON" }).click()]);
  const file = await json.path();
  const record = JSON.parse(readFileSync(file, "utf8"));
  expect(record.batch.id).toBe(batchId);
  const [csv] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "CSV" }).click()]);
  expect(readFileSync(await csv.path(), "utf8").split("\r\n")).toHaveLength(record.events.length + 2);
  const entries = await page.getByRole("region", { name: "Entries" }).innerText();

  await emptyWorkshop(page, "Second shed");
  await open(page, "/");
  await page.getByRole("link", { name: "records" }).click();
  await page.getByRole("link", { name: "Import a record" }).click();
  await page.getByLabel("A record, as JSON").setInputFiles(file);
  await page.getByRole("button", { name: "Import record" }).click();
  await page.getByRole("link", { name: "View record" }).click();
  await expect(page.getByRole("heading", { name: /Mouse flow/ })).toBeVisible();
  await expect.poll(() => page.getByRole("region", { name: "Entries" }).innerText()).toBe(entries);
});
