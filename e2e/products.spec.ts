import { demoId } from "../demo/workshop";
import { choose, expect, open, test } from "./support";

test("a product is made, costs what its parts cost, and is planned by its name", async ({ page }) => {
  await open(page, "/products/new");
  await page.getByLabel("Name", { exact: true }).fill("Slate for the shelf");
  await choose(page, "Formula", "Rain on slate, tumbler");
  await choose(page, "Vessel or mold", "squat tumbler");
  // A wick that suits the diameter is proposed, and can be chosen otherwise.
  await expect(page.getByRole("combobox", { name: "Wick" })).not.toHaveValue("");
  await choose(page, "Wick", "flat-braid cotton 6");
  await page.getByLabel("Price per pack").fill("€ 18,50");
  await expect(page.getByText("= €18.50")).toBeVisible();
  const costs = page.getByRole("region", { name: "Unit cost" });
  await expect(costs).toContainText("wax, oil and what is in the pot");
  await expect(costs).toContainText("left of €18.50");
  await page.getByRole("button", { name: "Save the product" }).click();
  await expect(page.getByRole("heading", { name: "Slate for the shelf" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "burn test due" })).toBeVisible();
  await page.getByRole("link", { name: "Plan a batch" }).click();
  const line = page.getByRole("listitem").filter({ hasText: "Slate for the shelf" });
  await expect(line.getByLabel("Count")).toBeFocused();
  await page.keyboard.type("4");
  await expect(page.getByRole("button", { name: "container soy: show the calculation" })).toBeVisible();
  await expect(page.getByText(/of the price left/)).toBeVisible();
});

test("a change of scent, or of load by more than a point, makes the wick test of its products due again", async ({ page }) => {
  await open(page, `/products/${demoId(0x26, 1)}`);
  await expect(page.getByRole("heading", { name: "wick tested" })).toBeVisible();
  await open(page, `/formulas/${demoId(6, 1)}`);
  const save = page.getByRole("button", { name: "Save the formula" });
  await page.getByLabel("Load").fill("8.8");
  await save.click();
  await expect(page.getByRole("status").filter({ hasText: /Saved/ })).not.toContainText("Test the wick again");
  await page.getByLabel("Load").fill("9.5");
  await save.click();
  await expect(page.getByText("Test the wick again of Rain on slate, sample cup, Rain on slate, squat tumbler.")).toBeVisible();
  await open(page, "/products?test=test+due");
  await expect(page.getByRole("link", { name: "Rain on slate, squat tumbler", exact: true })).toBeVisible();
  await open(page, `/products/${demoId(0x26, 1)}`);
  await page.getByRole("button", { name: "Passed" }).click();
  await expect(page.getByRole("heading", { name: "wick tested" })).toBeVisible();
});

test("a wick is added beside the form that needs it, and what is half typed is offered back", async ({ page }) => {
  await open(page, "/products/new");
  await page.getByLabel("Name", { exact: true }).fill("Half a thought");
  await choose(page, "Vessel or mold", "wide bowl");
  const wick = page.getByRole("combobox", { name: "Wick" });
  await wick.fill("braid nine");
  await page.getByRole("option", { name: /a new wick/ }).click();
  const beside = page.getByRole("dialog", { name: "Add a wick" });
  await expect(beside.getByLabel("Name")).toHaveValue("braid nine");
  await beside.getByRole("button", { name: "Add to the shelf" }).click();
  await expect(wick).toHaveValue("braid nine");
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Half a thought");
  // What is typed last is kept too, however soon one leaves: by a link, or by another address.
  await page.getByLabel("Remarks").fill("left at once");
  await page.getByRole("link", { name: "products", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Products", level: 1 })).toBeVisible();
  await open(page, "/products/new");
  await page.getByRole("button", { name: "Restore draft" }).click();
  await expect(page.getByLabel("Remarks")).toHaveValue("left at once");
  await page.getByLabel("Remarks").fill("left again");
  await open(page, "/products");
  await open(page, "/products/new");
  await page.getByRole("button", { name: "Restore draft" }).click();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Half a thought");
  await expect(page.getByRole("combobox", { name: "Vessel or mold" })).toHaveValue("wide bowl");
  await expect(page.getByLabel("Remarks")).toHaveValue("left again");
});
