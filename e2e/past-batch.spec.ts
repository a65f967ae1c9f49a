import { expect, open, test } from "./support";

test("a past batch is entered on one screen, with one date, and undone in one act", async ({ page }) => {
  await open(page, "/records");
  await page.getByRole("link", { name: "Enter a past batch" }).click();
  await expect(page.getByRole("heading", { name: "Enter a past batch" })).toBeVisible();
  await page.getByLabel("Count").first().fill("8");
  await expect(page.getByText("calculated", { exact: false }).first()).toBeVisible();
  // Enter goes on to the day.
  await page.getByLabel("Count").first().press("Enter");
  await expect(page.getByLabel("Day", { exact: true })).toBeFocused();
  await page.getByRole("button", { name: "Fill in as calculated" }).click();
  await page.getByLabel("Read heat").fill("86");
  await page.getByLabel("Time heat").fill("9:40");
  await page.getByLabel("Time stir").fill("8:10");
  await page.getByRole("button", { name: "Add a flaw" }).click();

  // Everything that is missing or wrong is said at its field, one after the other, and nothing typed is lost.
  const save = page.getByRole("button", { name: "Save the batch" });
  await save.click();
  await expect(page.getByText("Write a day, like")).toBeVisible();
  await page.getByLabel("Day", { exact: true }).fill("03/11/2025");
  await page.getByLabel("Begun at").fill("9:05");
  await expect(page.getByText("8:10 is before the step before it.")).toBeVisible();
  await page.getByLabel("Time stir").fill("3 min");
  await expect(page.getByText("8:10 is before the step before it.")).toBeHidden();
  await save.click();
  await expect(page.getByText("Choose the flaw.")).toBeVisible();
  await page.getByLabel("Flaw", { exact: true }).selectOption({ label: "wet spot" });
  await page.getByLabel("Where").selectOption({ label: "wall" });
  await page.getByLabel("Jars", { exact: true }).fill("80");
  await page.getByLabel("Inspected after").fill("1 day");
  await page.getByLabel("Time pour").fill("50 min");
  await page.getByLabel("Read bring to the pour range").fill("74");
  await page.getByLabel("Remark").fill("first of the season");
  await save.click();
  await expect(page.getByText(/so 80 cannot be flawed/).first()).toBeVisible();
  await expect(page.getByLabel("Read heat")).toHaveValue("86");
  await page.getByLabel("Jars", { exact: true }).fill("2");
  await save.click();

  // What was noted stands in the record, and what was not is missing there.
  await expect(page.getByText(/^Batch \d+ is recorded, with \d+ entries\.$/)).toBeVisible();
  await expect(page.getByRole("heading", { name: /^Batch \d+:/ })).toBeVisible();
  const log = page.getByRole("region", { name: "Entries" });
  await expect(log.getByText(/pour reading.*time not noted/)).toBeVisible();
  await expect(log.getByText("“first of the season”")).toBeVisible();
  await expect(page.getByText("2 of 8").first()).toBeVisible();
  await expect(page.getByText(/Missing: add /)).toBeVisible();

  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("The past batch is removed.")).toBeVisible();
  await expect(page.getByRole("heading", { name: "Enter a past batch" })).toBeVisible();
});

test("what was typed of a past batch is offered again when the page is left", async ({ page }) => {
  await open(page, "/plan/past");
  await page.getByLabel("Count").first().fill("6");
  await page.getByLabel("Day", { exact: true }).fill("3 Nov 2025");
  await page.getByLabel("Read heat").fill("85");
  await open(page, "/records");
  await open(page, "/plan/past");
  await page.getByRole("button", { name: "Restore draft" }).click();
  await expect(page.getByLabel("Count").first()).toHaveValue("6");
  await page.getByRole("button", { name: "Restore draft" }).click();
  await expect(page.getByLabel("Read heat")).toHaveValue("85");
  await expect(page.getByLabel("Day", { exact: true })).toHaveValue("3 Nov 2025");
});
