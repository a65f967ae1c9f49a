import { readFileSync } from "node:fs";
import { choose, emptyWorkshop, expect, open, putOnShelf, test } from "./support";

test("a shelf goes to a file and comes back the same, also as spreadsheets write files", async ({ page }) => {
  await emptyWorkshop(page, "File shed");
  await open(page, "/shelf/file");
  const read = (name: string, buffer: Buffer) => page.getByLabel("Read a file").setInputFiles({ name, mimeType: "text/csv", buffer });
  const row = (name: string) => page.getByRole("row").filter({ hasText: name });

  // What is no CSV file is told so.
  await read("shelf.xlsx", Buffer.from("PK\u0003\u0004rest"));
  await expect(page.getByRole("alert").filter({ hasText: "save as CSV" })).toBeVisible();
  await read("torn.csv", Buffer.from('name,family\n"never closed,soy\n'));
  await expect(page.getByRole("alert").filter({ hasText: "not closed" })).toBeVisible();

  // Windows-1252, semicolons, decimal commas, a quoted line break, stray blank rows, heads of the maker's own.
  const text =
    'Wachs;Art;largest_load_percent;melts_at_c;remarks\r\n\r\ncr\u00e8me soy;soy;9,5;48,5;"first line\r\nsecond; line"\r\n;;;;\r\n=2+5;palm;7;;"-5 \u00b0C shed"\r\nbutter wax;butter;8;;\r\n';
  await read("ansi.csv", Buffer.from(text, "latin1"));
  await expect(page.getByText("Choose the name column above.")).toBeVisible();
  await page.getByLabel("Name", { exact: true }).selectOption({ label: "Wachs" });
  await page.getByLabel("Family", { exact: true }).selectOption({ label: "Art" });
  await expect(page.getByRole("heading", { name: "2 new, 0 changed, 0 unchanged, 1 with errors" })).toBeVisible();
  await expect(row("butter wax")).toContainText("“butter” is none of soy");
  await expect(row("butter wax")).toContainText("6");
  await expect(page.getByRole("button", { name: "Import all rows" })).toBeDisabled();
  await read("ansi.csv", Buffer.from(text.replace(";butter;", ";beeswax;"), "latin1"));
  await page.getByLabel("Name", { exact: true }).selectOption({ label: "Wachs" });
  await page.getByLabel("Family", { exact: true }).selectOption({ label: "Art" });
  await page.getByRole("button", { name: "Import all rows" }).click();
  await expect(page.getByText("Imported from ansi.csv: 3 new, 0 changed, 0 unchanged.")).toBeVisible();

  // Out again: defused, with a mark; and back in: nothing changes.
  const [out] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Write 3 waxes to a file" }).click()]);
  const written = readFileSync(await out.path(), "utf8");
  expect(written.startsWith("\ufeffname,family,")).toBe(true);
  expect(written).toContain("'=2+5");
  expect(written).toContain("crème soy,soy,,9.5,48.5");
  await read("again.csv", Buffer.from(written));
  await expect(page.getByRole("heading", { name: "0 new, 0 changed, 3 unchanged" })).toBeVisible();
  // One figure changed in the spreadsheet is one row changed.
  await read("changed.csv", Buffer.from(written.replace("soy,,9.5", "soy,,10")));
  await expect(row("crème soy")).toContainText("Maximum fragrance load · % of the wax: 9.5 → 10");
  await page.getByRole("button", { name: "Import all rows" }).click();
  await expect(page.getByText("Imported from changed.csv: 0 new, 1 changed, 2 unchanged.")).toBeVisible();
  await open(page, "/shelf");
  await expect(page.getByRole("region", { name: "Waxes" })).toContainText("takes up to 10 % of the wax");
  await expect(page.getByRole("region", { name: "Waxes" })).toContainText("=2+5");
});

test("lots are received by weight or volume, counted, and taken back", async ({ page }) => {
  await open(page, "/shelf");
  await page.getByRole("link", { name: "hay loft", exact: true }).click();
  const lot = page.getByRole("form", { name: "Receive stock" });
  // A volume asks for the density, and shows the mistake that was near.
  await lot.getByLabel("Amount").fill("8 fl oz");
  await lot.getByLabel("Cost of the lot").fill("free");
  await lot.getByRole("button", { name: "Add to stock" }).click();
  await expect(lot.getByText("is not an amount of money")).toBeVisible();
  await expect(lot.getByText("the density of hay loft is not known")).toBeVisible();
  await lot.getByLabel("Density of hay loft").fill("1.05");
  await expect(lot.getByRole("status")).toContainText("236.6 ml × 1.05 g/ml = 248.4 g");
  await expect(lot.getByRole("status")).toContainText("21.6 g too little");
  await lot.getByLabel("Cost of the lot").fill("21,60");
  await lot.getByLabel("Supplier's lot code").fill("HL-8");
  await lot.getByRole("button", { name: "Add to stock" }).click();
  const lots = page.getByRole("region", { name: "Lots" });
  await expect(lots.getByRole("listitem").filter({ hasText: "HL-8" })).toContainText("€21.60");
  await expect(page.getByText("275 g").first()).toBeVisible();

  const counting = page.getByRole("form", { name: "Count the stock" });
  await counting.getByLabel("Found").fill("250");
  await expect(counting.getByRole("status")).toContainText(/less than the/);
  await counting.getByRole("button", { name: "Save count" }).click();
  await expect(page.getByRole("region", { name: "Counts" })).toContainText("250 g");
  await expect(page.getByText("250 g on hand")).toBeVisible();
  await page.getByRole("button", { name: "Delete the count of 250 g" }).click();
  await expect(page.getByText("275 g on hand")).toBeVisible();
  await page.getByRole("button", { name: "Delete the lot HL-8" }).click();
  await expect(page.getByText("26.9 g on hand")).toBeVisible();
  await page.getByRole("button", { name: "Restore the lot HL-8" }).click();
  await expect(page.getByText("275 g on hand")).toBeVisible();
});

test("a vessel shows its fills, wick places and a template at its true size", async ({ page }) => {
  await emptyWorkshop(page, "Tin shed");
  const measures = "inner_rim_mm,inner_bottom_mm,inner_height_mm,headspace_mm";
  await putOnShelf(page, "vessel", `name,material,stated_fill_g,working_fill_g,sold_by_weight,${measures}\nplain tin,metal,110,110,no,58,58,58,10\n`);
  await putOnShelf(page, "wick", "name,kind,from_diameter_mm,to_diameter_mm\nthin one,hemp,40,50\nright one,hemp,50,62\n");
  await open(page, "/shelf");
  await page.getByRole("link", { name: "plain tin", exact: true }).click();
  await expect(page.getByText("On the shelf for this diameter: right one")).toBeVisible();
  await page.getByRole("radio", { name: "2" }).click();
  // 0.424 × 29 mm: the centroid of half a disc, 4 R ÷ 3 π.
  await expect(page.getByRole("region", { name: "Wick placement" })).toContainText("12.3 mm from the center, 24.6 mm apart");
  await page.getByLabel("Density").fill("0,88");
  // A straight tin: π × 29² × 48 mm × 0.88 g/ml = 111.6 g.
  await expect(page.getByRole("button", { name: "the fill by its measures: show the calculation" })).toContainText("111.6 g");
  // A larger headspace leaves less: 111.6 × 43 ÷ 48. Water to the rim counts by that share; what is found can be poured.
  await page.getByLabel("Headspace").fill("15");
  await expect(page.getByRole("button", { name: /, the fill by its measures: show the calculation$/ })).toContainText("100 g");
  await page.getByLabel("Weight of water").fill("153");
  await page.getByLabel("weighed").selectOption({ label: "to the rim" });
  // 153 g × 43 ÷ 58 ÷ 0.9982 × 0.88 = 100.0 g.
  await expect(page.getByRole("button", { name: /, the fill by water: show the calculation$/ })).toContainText("100 g");
  await page.getByRole("button", { name: "Use this fill" }).first().click();
  await expect(page.getByRole("region", { name: "Fill weight, four methods" })).toContainText("working100 g");
  await expect(page.getByLabel("Headspace")).toHaveValue("15 mm");
  await page.getByRole("radio", { name: "2" }).click();
  await page.getByRole("link", { name: "Centring template" }).click();
  const template = page.getByRole("img", { name: "Template for 2 wicks, true size" });
  const box = await template.locator("circle").first().boundingBox();
  // CSS: 96 pixels to the inch of 25.4 mm.
  expect((box?.width ?? 0) / (96 / 25.4)).toBeCloseTo(58, 0);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("button", { name: "Print at full size" })).toBeHidden();
});

test("vessels that must not be filled are cautioned on entry and are not offered", async ({ page }) => {
  await emptyWorkshop(page, "Careful shed");
  await open(page, "/shelf");
  await page.getByRole("button", { name: "Add a vessel" }).click();
  await page.getByLabel("Name").fill("old mug");
  await page.getByLabel("Material").selectOption("plastic");
  await expect(page.getByText("A vessel of plastic softens or burns")).toBeVisible();
  await page.getByLabel("Material").selectOption("ceramic");
  await page.getByLabel("Kept as").selectOption("may hold lead");
  await expect(page.getByText("Old glazed or painted vessels may hold lead, which heat can release")).toBeVisible();
  await page.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("button", { name: "Add a dye" }).click();
  await page.getByLabel("Name").fill("crayon ends");
  await expect(page.getByText("their pigment clogs the wick")).toBeVisible();
});

test("what there is says what can be filled, alone and as the best mix", async ({ page }) => {
  await open(page, "/plan/fill");
  const first = page.getByRole("region", { name: "Products" }).getByRole("listitem").first();
  await expect(first.locator("[data-alone]")).toHaveText(/^\d+$/);
  // The products stand there with their prices: nothing has to be typed anew.
  await expect(first.getByLabel("Profit on one")).not.toHaveValue("");
  await page.getByLabel("The mix that").selectOption("earn");
  await page.getByRole("button", { name: "Find best mix" }).click();
  await expect(page.getByText("✓ proved: no mix does better")).toBeVisible();
  // Two kinds that want the same oil.
  const lines = page.getByRole("region", { name: "Products" }).getByRole("listitem");
  while ((await lines.count()) > 0)
    await page
      .getByRole("button", { name: /^Leave out/ })
      .last()
      .click();
  for (let i = 0; i < 2; i++) await page.getByRole("button", { name: "+ a formula in a vessel" }).click();
  await page.getByRole("button", { name: "Find best mix" }).click();
  await expect(page.getByText("Type the profit on one of them")).toBeVisible();
  for (const [index, vessel] of ["narrow tin", "squat tumbler"].entries()) {
    await choose(page, /^Formula/, "Rain on slate, tumbler", index);
    await choose(page, /^in$/, vessel, index);
  }
  await page.getByLabel("Profit on one").nth(0).fill("6");
  await page.getByLabel("Profit on one").nth(1).fill("10");
  const oil = page.getByRole("region", { name: "Stock to use" }).getByRole("listitem").filter({ hasText: "rain on slate" });
  await oil.getByLabel("There").fill("100 g");
  await page.getByRole("button", { name: "Find best mix" }).click();
  await expect(page.getByText("✓ proved: no mix does better")).toBeVisible();
  // With 5 % spare and 8 % of the wax a tin takes 8.56 g of oil and a tumbler 13.69 g: of 100 g, 7 tumblers earn 70,
  // 5 and 3 earn 68, 4 and 5 earn 70, 2 and 8 earn 68; 6 tumblers and 2 tins take 99.2 g and earn 72.
  await expect(page.getByText("Profit €72.00")).toBeVisible();
  await page.getByLabel("Minimum").nth(0).fill("30");
  await page.getByRole("button", { name: "Find best mix" }).click();
  await expect(page.getByText(/least counts alone need \d+ % of the rain on slate/)).toBeVisible();
  await page.getByLabel("Minimum").nth(0).fill("");
  await page.getByRole("button", { name: "Find best mix" }).click();
  await expect(page.getByText("✓ proved")).toBeVisible();
  await page.getByRole("link", { name: /^Plan Rain on slate/ }).click();
  await expect
    .poll(() => page.locator('input[name^="count:"]').evaluateAll((all) => all.filter((item) => (item as HTMLInputElement).value !== "").length))
    .toBeGreaterThan(0);
});
