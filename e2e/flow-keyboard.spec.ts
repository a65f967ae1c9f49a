import { ALONE, expect, open, passHours, tabTo, test } from "./support";

test("one batch from formula to closed record, by keyboard alone", ALONE, async ({ page }) => {
  const { keyboard } = page;
  const button = (name: string | RegExp) => page.getByRole("button", { name });
  /** Types into the field that has the focus, in place of what is there. */
  const type = async (text: string) => {
    await keyboard.press("ControlOrMeta+a");
    await keyboard.type(text);
  };
  /** Types into a field reached with Tab. */
  const put = async (label: string, text: string) => {
    await tabTo(page, page.getByLabel(label, { exact: true }));
    await type(text);
  };

  await open(page, "/");
  await keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toContainText("go to formulas");
  await keyboard.press("Escape");
  await keyboard.press("f");
  await expect(page.getByRole("heading", { name: "Formulas", exact: true })).toBeVisible();
  await keyboard.press("n");
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "New formula" })).toBeVisible();
  await put("Name", "Keyboard flow");
  await tabTo(page, page.getByLabel("Wax", { exact: true }));
  await keyboard.type("cont");
  await keyboard.press("Enter");
  await tabTo(page, page.getByLabel("Fragrance", { exact: true }));
  await keyboard.type("rain");
  await keyboard.press("Enter");
  await put("Load · %", "8");
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Keyboard flow" })).toBeVisible();

  await tabTo(page, page.getByRole("link", { name: "Plan a batch from it" }));
  await keyboard.press("Enter");
  await expect(page.getByText("Type how many of each to see the weights")).toBeVisible();
  await tabTo(page, page.getByRole("listitem").filter({ hasText: "squat tumbler" }).getByLabel("Count"));
  await type("4");
  await tabTo(page, page.getByRole("listitem").filter({ hasText: "tealight cup" }).getByLabel("Count"));
  await type("12");
  await tabTo(page, button("container soy: show the calculation"));
  await keyboard.press("Enter");
  await expect(page.getByRole("dialog")).toContainText("÷ 1.08");
  await keyboard.press("Escape");
  await tabTo(page, button("Start the batch"));
  await keyboard.press("Enter");

  // Digits go straight into the reading that waits.
  await expect(page.getByRole("heading", { name: "Weigh container soy" })).toBeVisible();
  const [wax, oil] = [847, 67.8];
  await keyboard.type(`${wax}`);
  await expect(page.getByLabel("Scale shows")).toHaveValue(`${wax}`);
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Weigh rain on slate" })).toBeVisible();
  await keyboard.type(`${oil}`);
  await keyboard.press("Enter");
  for (const [heading, reading] of [
    ["Heat the wax", "85.5"],
    ["Add the fragrance", "85"],
  ] as const) {
    await expect(page.getByRole("heading", { name: heading })).toBeVisible();
    await keyboard.type(reading);
    await keyboard.press("Enter");
  }
  await expect(page.getByRole("heading", { name: "Stir", exact: true })).toBeVisible();
  await tabTo(page, button("Record stirring"));
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Bring it to the pour range" })).toBeVisible();
  await keyboard.type("59");
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /Pour slowly/ })).toBeVisible();

  // Undo by key, and put in again.
  await tabTo(page, button("Undo"));
  await keyboard.press("u");
  await expect(page.getByRole("heading", { name: "Bring it to the pour range" })).toBeVisible();
  await keyboard.type("59");
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /Pour slowly/ })).toBeVisible();
  await tabTo(page, button("Mark as poured"));
  await keyboard.press("Enter");
  await expect(page.getByText(/Do not move it until/)).toBeVisible();

  passHours(24 * 15);
  await open(page, "/");
  await keyboard.press("l");
  await expect(page.getByRole("heading", { name: "Inspect", exact: true })).toBeVisible();
  await tabTo(page, page.getByRole("listitem").filter({ hasText: "Keyboard flow" }).getByRole("link", { name: "Inspect batch" }));
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /Inspect batch .* Keyboard flow/ })).toBeVisible();
  await tabTo(page, page.getByRole("radio", { name: "top" }));
  await keyboard.press("Space");
  await tabTo(page, page.getByRole("radio", { name: "frosting" }));
  await keyboard.press("Space");
  await tabTo(page, button("a speck"));
  await keyboard.press("Enter");
  await tabTo(page, button("Save, next jar"));
  await keyboard.press("Enter");
  await expect(page.getByText("frosting a speck, top")).toBeVisible();
  await tabTo(page, button("The other 15 are fine: finish"));
  await keyboard.press("Enter");
  await expect(page.getByText("Every step was recorded")).toBeVisible();
  await tabTo(page, button("Close the record"));
  await keyboard.press("Enter");
  await expect(page.getByText("Nothing was missing.")).toBeVisible();
  // Found again by its name, from anywhere.
  await keyboard.press("/");
  await keyboard.type("keyboard fl");
  await expect(page.getByRole("option", { name: /Keyboard flow batch/ })).toBeVisible();
  await keyboard.press("Enter");
  await expect(page.getByText("Nothing was missing.")).toBeVisible();
  await keyboard.press("c");
  await expect(page.getByRole("heading", { name: "Records" })).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: "Keyboard flow" })).toBeVisible();
});
