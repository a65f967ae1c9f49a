import type { Page } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { expect, open, test } from "./support";

/** A keyboard that counts what is pressed, letters too. */
function countingKeyboard(page: Page) {
  let presses = 0;
  return {
    press: async (...keys: string[]) => {
      for (const key of keys) {
        presses += 1;
        await page.keyboard.press(key);
      }
    },
    type: async (text: string) => {
      presses += text.length;
      await page.keyboard.type(text);
    },
    /** Moves on with Tab until the element has the focus. */
    tabTo: async (label: string) => {
      const field = page.getByLabel(label, { exact: true });
      while (!(await field.evaluate((element) => element === document.activeElement))) {
        presses += 1;
        expect(presses, `Tab never comes to ${label}`).toBeLessThan(100);
        await page.keyboard.press("Tab");
      }
    },
    taken: () => presses,
  };
}

test("by keyboard alone a formula takes at most 30 keys, and a planned batch at most 25", async ({ page }) => {
  await open(page, "/formulas");
  const formula = countingKeyboard(page);
  await formula.press("n", "Enter");
  await expect(page.getByLabel("Name", { exact: true })).toBeFocused();
  await formula.type("Fern");
  await formula.tabTo("Fragrance");
  await formula.type("rain");
  await expect(page.getByRole("listbox").getByRole("option").first()).toContainText("rain on slate");
  await formula.press("Enter");
  await formula.tabTo("Load · %");
  await formula.type("8");
  await formula.press("Enter");
  await expect(page.getByRole("heading", { name: "Fern" })).toBeVisible();
  expect(formula.taken()).toBeLessThanOrEqual(30);

  await open(page, `/plan?formula=${demoId(6, 1)}`);
  const batch = countingKeyboard(page);
  // The first thing missing is a count; Enter goes on to the start, and the first weight waits at the pot.
  await batch.press("n");
  await expect(page.getByLabel("Count").first()).toBeFocused();
  await batch.type("4");
  await batch.press("Enter");
  const start = page.getByRole("button", { name: "Start the batch" });
  await expect(start).toBeFocused();
  // That Enter started nothing: the amounts are looked at first.
  await expect(page.getByRole("button", { name: /, the total: show the calculation$/ })).toBeVisible();
  await expect(start).toBeEnabled();
  await batch.press("Enter");
  await expect(page.getByRole("heading", { name: "Weigh container soy" })).toBeVisible();
  await expect(page.getByLabel("Scale shows")).toBeFocused();
  expect(batch.taken()).toBeLessThanOrEqual(25);
});

test("from a count, Tab comes to the start in at most five presses for each line below it", async ({ page }) => {
  await open(page, `/plan?formula=${demoId(6, 1)}`);
  const counts = page.getByLabel("Count");
  const last = counts.nth((await counts.count()) - 1);
  await last.fill("4");
  await last.focus();
  const start = page.getByRole("button", { name: "Start the batch" });
  let presses = 0;
  while (!(await start.evaluate((element) => element === document.activeElement))) {
    presses += 1;
    expect(presses).toBeLessThanOrEqual(5);
    await page.keyboard.press("Tab");
  }
});

test("a vessel that is not on the shelf is planned with by its name and what it holds, and its size is said to be estimated", async ({ page }) => {
  await open(page, `/plan?formula=${demoId(6, 1)}`);
  const other = page.getByRole("combobox", { name: "Another vessel or mold" });
  await other.fill("Pickle jar");
  // Nothing is found, so that Enter opens the sheet to add it.
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Add a vessel" })).toBeVisible();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Pickle jar");
  const holds = page.getByLabel(/^Weight of water to the fill line/);
  await expect(holds).toBeFocused();
  await page.keyboard.type("some");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/“some” is not a weight/)).toBeVisible();
  // A nominal milliliter takes about 0.74 g of wax and oil (a rule of thumb, common practice, no source).
  await holds.fill("20 cl");
  await expect(page.getByRole("status").filter({ hasText: "of wax and oil" })).toContainText("148 g");
  // Water to the line: 200 g × 0.9 ÷ 0.9982.
  await holds.fill("200 g");
  await expect(page.getByRole("status").filter({ hasText: "of wax and oil" })).toContainText("180.3 g");
  await page.keyboard.press("Enter");
  const line = page.getByRole("listitem").filter({ hasText: "Pickle jar" });
  await expect(line).toContainText("size estimated");
  await line.getByLabel("Count").fill("3");
  await expect(page.getByRole("button", { name: /, the total: show the calculation$/ })).toBeVisible();

  // The same where it is asked what the stock allows.
  await open(page, "/plan/fill");
  await page.getByRole("button", { name: "+ a formula in a vessel" }).click();
  const container = page.getByRole("combobox", { name: "in", exact: true }).last();
  await container.fill("Soup tin");
  await page.keyboard.press("Enter");
  await page.getByLabel(/^Weight of water to the fill line/).fill("300 g");
  await page.keyboard.press("Enter");
  await expect(container).toHaveValue("Soup tin");
  await open(page, "/shelf");
  await expect(page.getByRole("region", { name: "Vessels" }).getByRole("listitem").filter({ hasText: "Soup tin" })).toContainText("size estimated: measure it");
});
