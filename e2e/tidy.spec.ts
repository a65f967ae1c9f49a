import { choose, emptyWorkshop, expect, open, putOnShelf, test, testOnNewDevice } from "./support";

/** 65 oils, 31 vessels, 17 waxes: a shelf as a maker of some years has it. */
const OILS = Array.from({ length: 65 }, (_, index) => `oil ${index + 1} of ${["moss", "fern", "resin", "plum", "salt"][index % 5]}`);
const VESSELS = Array.from({ length: 31 }, (_, index) => `${index + 2} oz jar`);
const WAXES = Array.from({ length: 17 }, (_, index) => `wax ${index + 1}`);

test("hundreds of things are found as one types, in natural order, and the place is kept in the address", async ({ page }) => {
  await emptyWorkshop(page, "Full shed");
  await putOnShelf(page, "wax", `name,family,largest_load_percent\n${WAXES.map((name) => `${name},soy,10`).join("\n")}`);
  await putOnShelf(page, "fragrance", `name,kind\n${OILS.map((name) => `${name},fragrance`).join("\n")}`);
  await putOnShelf(
    page,
    "vessel",
    `name,material,stated_fill_g,working_fill_g,inner_rim_mm,inner_bottom_mm,inner_height_mm\n${VESSELS.map((name, index) => `${name},heat-safe glass,${60 + index},${60 + index},70,70,80`).join("\n")}`,
  );
  await open(page, "/shelf");
  const vessels = page.getByRole("region", { name: "Vessels" });
  await expect(vessels.getByRole("heading")).toContainText("31");
  await expect(vessels.getByRole("listitem").first()).toContainText("2 oz jar");
  await expect(vessels.getByRole("listitem").nth(8)).toContainText("10 oz jar");
  await expect(page.getByRole("region", { name: "Fragrances" }).getByRole("link", { name: "All 65 fragrances" })).toBeVisible();

  // Eight letters find two oils of 65.
  await page.getByRole("searchbox", { name: "Find in the shelf" }).fill("12 of");
  await expect(page.getByRole("link", { name: "oil 12 of fern" })).toBeVisible();
  await expect(page).toHaveURL(/q=12\+of/);
  await expect(page.getByText("1 found")).toBeVisible();
  await page.reload();
  await expect(page.getByRole("searchbox")).toHaveValue("12 of");
  await page.getByRole("searchbox").fill("nothing like it");
  await expect(page.getByText("No thing on the shelf like that.")).toBeVisible();

  // A formula is made by typing parts of names, though the page began with few of them.
  await open(page, "/formulas/new");
  await page.getByLabel("Name", { exact: true }).fill("Plum of the wall");
  await choose(page, /^Wax$/, "wax 17");
  await choose(page, /^Fragrance$/, "oil 64 of plum");
  await page.getByRole("button", { name: "Save the formula" }).click();
  await page.getByRole("link", { name: "Plan a batch from it" }).click();
  await choose_(page, "Another vessel or mold", "31 oz jar");
  await expect(page.getByRole("listitem").filter({ hasText: "31 oz jar" }).getByLabel("Count")).toBeFocused();

  // One key finds anything, and anything to do.
  await page.locator("h1").click();
  await page.keyboard.press("/");
  await page.keyboard.type("plum of the");
  await page.getByRole("option", { name: /Plum of the wall/ }).click();
  await expect(page.getByRole("heading", { name: "Plum of the wall" })).toBeVisible();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("make a prod");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "New product" })).toBeVisible();
});

/** Chooses in a field that goes back to empty once something is taken. */
async function choose_(page: Parameters<typeof open>[0], label: string, name: string) {
  const field = page.getByRole("combobox", { name: label });
  await field.fill(name);
  await page
    .getByRole("option", { name: new RegExp(`^${name}`) })
    .first()
    .click();
}

test("what was used is put away and taken back out, what never was is deleted, and each can be undone", async ({ page }) => {
  await open(page, "/shelf?kind=fragrance");
  const more = async (name: string, what: string) => {
    await page.getByRole("button", { name: `More for ${name}` }).click();
    await page.getByRole("menuitem", { name: what }).click();
  };
  const undone = (of: string) => page.getByRole("listitem").filter({ hasText: of }).getByRole("button", { name: "Undo" });
  await more("rain on slate", "Delete");
  await expect(page.getByText("It is used in formulas, so it cannot be deleted. Archive it instead")).toBeVisible();
  await more("rain on slate", "Archive");
  await expect(page.getByRole("link", { name: "rain on slate", exact: true })).toBeHidden();
  await open(page, "/formulas/new");
  await page.getByRole("combobox", { name: /^Fragrance$/ }).fill("rain");
  await expect(
    page
      .getByText("Nothing here has “rain” in its name.")
      .or(page.getByRole("option", { name: /a new fragrance/ }))
      .first(),
  ).toBeVisible();
  await expect(page.getByRole("option", { name: "rain on slate" })).toHaveCount(0);
  await open(page, "/shelf?kind=fragrance&away=1");
  await more("rain on slate", "Restore");
  await expect(page.getByText("rain on slate is restored.")).toBeVisible();

  await open(page, "/shelf?kind=fragrance");
  await more("hay loft", "Duplicate");
  await expect(page.getByRole("link", { name: "hay loft, copy" })).toBeVisible();
  await more("hay loft, copy", "Delete");
  await expect(page.getByRole("link", { name: "hay loft, copy" })).toBeHidden();
  await undone("hay loft, copy is deleted.").click();
  await expect(page.getByRole("link", { name: "hay loft, copy" })).toBeVisible();

  // Two entries of one thing become one; its stock goes along, and comes back when that is undone.
  await more("hay loft, copy", "Merge into another…");
  const dialog = page.getByRole("dialog", { name: /Merge hay loft, copy/ });
  await dialog.getByRole("combobox").fill("garden");
  await page.getByRole("option", { name: "garden mint" }).click();
  await dialog.getByRole("button", { name: "Merge" }).click();
  await expect(page.getByText("hay loft, copy is now part of garden mint.")).toBeVisible();
  await expect(page.getByRole("link", { name: "hay loft, copy" })).toBeHidden();
  await undone("is now part of").click();
  await expect(page.getByRole("link", { name: "hay loft, copy" })).toBeVisible();
});

test("lots and products come in from rows pasted out of a spreadsheet, and go out again the same", async ({ page, request, workshop }) => {
  await open(page, "/shelf/file");
  await page.getByLabel("Which part of the shelf").selectOption("lot");
  await page
    .getByLabel("Or paste rows from a spreadsheet")
    .fill("of what\tamount\tcost of the lot\treceived on\ncontainer soy\t10 lb\t40\t2026-03-01\nnarrow tin\t24\t\t2026-03-02");
  await expect(page.getByRole("heading", { name: /2 new/ })).toBeVisible();
  await page.getByRole("button", { name: "Import all rows" }).click();
  await expect(page.getByText("Imported from what was pasted: 2 new")).toBeVisible();
  await page.getByLabel("Which part of the shelf").selectOption("product");
  await page
    .getByLabel("Or paste rows from a spreadsheet")
    .fill("name\tformula\tvessel or mold\twick\tprice\nTin of rain\tRain on slate, tumbler\tnarrow tin\t\t9.50");
  await page.getByRole("button", { name: "Import all rows" }).click();
  await expect(page.getByText("Imported from what was pasted: 1 new")).toBeVisible();
  const csv = await (await request.get(`/api/workshops/${workshop}/shelf/product`)).text();
  expect(csv).toContain("Tin of rain");
  await page.getByLabel("Read a file").setInputFiles({ name: "p.csv", mimeType: "text/csv", buffer: Buffer.from(csv) });
  await expect(page.getByRole("heading", { name: /0 new, 0 changed, 9 unchanged/ })).toBeVisible();
});

test.describe("on a slow line", () => {
  testOnNewDevice("what is typed before a part of the program is there is not lost", async ({ page }) => {
    // The line is watched from the start, and slow once the page is there.
    let arrival = Promise.resolve();
    await page.route("**/_next/static/chunks/**", async (route) => {
      await arrival;
      await route.continue();
    });
    await open(page, "/shelf");
    let release = () => {};
    arrival = new Promise<void>((go) => {
      release = go;
    });
    await page.keyboard.press("/");
    await page.keyboard.type("make a ");
    await expect(page.getByRole("textbox", { name: "Find" })).toHaveValue("make a ");
    release();
    await expect(page.getByRole("option", { name: /Make a product/ })).toBeVisible();
    await page.keyboard.type("prod");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { name: "New product" })).toBeVisible();
  });

  testOnNewDevice("a part of the program that cannot be loaded says so, and is there once it can", async ({ page }) => {
    let isDown = false;
    await page.route("**/_next/static/chunks/**", (route) => (isDown ? route.abort() : route.continue()));
    await open(page, "/shelf");
    isDown = true;
    await page.keyboard.press("/");
    await expect(page.getByRole("alert").filter({ hasText: "could not be loaded" })).toBeVisible();
    // Its notice can be closed, and it is tried again by itself.
    await page.getByRole("alert").filter({ hasText: "could not be loaded" }).getByRole("button", { name: "Close" }).click();
    await expect(page.getByRole("alert").filter({ hasText: "could not be loaded" })).toBeHidden();
    isDown = false;
    await expect(page.getByRole("textbox", { name: "Find" })).toBeVisible();
  });
});
