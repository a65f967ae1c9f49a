import { notebookGrid } from "../demo/notebook";
import { demoId } from "../demo/workshop";
import { emptyWorkshop, expect, open, test } from "./support";

/** The tests' clock stands at the demo's day; notes are older than that. */
const TODAY = "2026-03-14";
const csvOf = (grid: readonly (readonly string[])[]) =>
  grid.map((row) => row.map((cell) => (/[",\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join(",")).join("\r\n");
/** Two hundred batches as somebody kept them, two of them with a cell that cannot be read. */
function messySheet() {
  const grid = notebookGrid(200, TODAY).map((row) => [...row]);
  const rows = grid.filter((row) => row.length > 3 && row[4] !== "Jar");
  (rows[20] as string[])[8] = "hot";
  (rows[80] as string[])[5] = "some";
  return { name: "pours.csv", mimeType: "text/csv", buffer: Buffer.from(csvOf(grid)) };
}

test("a messy sheet of 200 past batches comes in, tells a finding, and makes a card of two waxes; then it is undone", async ({ page }) => {
  await emptyWorkshop(page, "Three years of notes");
  await open(page, "/records/notebook");
  const began = Date.now();
  await page.getByLabel("A spreadsheet: XLSX or CSV").setInputFiles(messySheet());
  const preview = page.getByRole("region", { name: "Preview" });
  await expect(preview.getByRole("heading", { name: "198 batches, 2 rows with errors" })).toBeVisible();
  // Each bad row says which cell, and why.
  await expect(preview.getByText(/I\d+: Poured at: “hot” is not a temperature/)).toBeVisible();
  await expect(preview.getByText(/F\d+: Number made: “some” is not a number/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Import 198 batches" })).toBeDisabled();
  await page.getByRole("button", { name: "Leave out 2 rows with errors" }).click();
  await page.getByRole("button", { name: "Import 198 batches" }).click();
  await expect(page.getByText("Imported: 198 batches", { exact: false })).toBeVisible({ timeout: 60_000 });
  expect(Date.now() - began).toBeLessThan(300_000);

  await page.getByRole("link", { name: "Compare your waxes" }).click();
  await expect(page.getByRole("heading", { name: "Wax scoreboard" })).toBeVisible();
  await page.getByRole("checkbox", { name: "barn soy" }).check();
  await page.getByRole("checkbox", { name: "prairie coconut" }).check();
  await page.getByRole("link", { name: "Compare barn soy and prairie coconut" }).click();
  const card = page.getByRole("region", { name: "barn soy against prairie coconut" });
  await expect(card.getByRole("img", { name: /smooth tops .*prairie coconut, by \d+ points/ })).toBeVisible();
  await expect(card.getByRole("button", { name: "Print card" })).toBeVisible();
  const picture = page.waitForEvent("download");
  await card.getByRole("button", { name: "Download PNG" }).click();
  expect((await picture).suggestedFilename()).toBe("barn soy against prairie coconut.png");
  // A figure opens to its batches.
  await page.getByRole("link", { name: /barn soy, smooth tops: .* show its batches/ }).click();
  await expect(page.getByRole("region", { name: "Batches of barn soy" }).getByRole("link").first()).toBeVisible();

  await open(page, "/findings?flaw=rough_top");
  // Read in words: hotter pours of one formula came out rough more often, and the waxes differ.
  await expect(page.getByRole("region", { name: "Curve" }).getByText("The higher the value, the more often it occurs", { exact: false })).toBeVisible();
  await expect(page.getByRole("region", { name: "What flaws go with" }).getByText("prairie coconut").first()).toBeVisible();

  await open(page, "/records/notebook");
  await page.getByRole("button", { name: "Undo import" }).click();
  await expect(page.getByText("undone", { exact: false }).first()).toBeVisible();
  await open(page, "/records");
  await expect(page.getByText("No record closed yet")).toBeVisible();
});

test("pasted rows of another kind are read, a column is mapped by hand, and a name is matched to the shelf", async ({ page }) => {
  await open(page, "/records/notebook");
  await page.getByLabel("Recipes, one row a recipe").check();
  await page.getByLabel("Or paste rows from one, headings first").fill("Recipe\tWhat it is made of\tScent\tLoad\nLoft jar\tContainer Soy\tstrange oil\t8 %");
  const columns = page.getByRole("region", { name: "Columns" });
  await expect(page.getByText("Wax or blend is missing.")).toBeVisible();
  await columns.getByLabel("Column of Wax or blend").selectOption({ label: "What it is made of" });
  await expect(page.getByRole("heading", { name: "1 recipe" })).toBeVisible();
  // The wax is on the shelf whatever its capitals; the oil is new.
  const names = page.getByRole("region", { name: "Names" });
  await expect(names.getByText("1 on the shelf, 1 to look at")).toBeVisible();
  await expect(names.getByLabel("What strange oil is")).toHaveValue("");
  await page.getByRole("button", { name: "Import 1 recipe" }).click();
  await expect(page.getByText("Imported: 1 formula")).toBeVisible();
  await page.getByRole("link", { name: "See the formulas" }).click();
  await expect(page.getByRole("link", { name: "Loft jar" })).toBeVisible();
});

test("the next rung of a candle's throw is poured as a trial with one press", async ({ page }) => {
  await open(page, `/products/${demoId(0x26, 1)}`);
  await page.getByRole("link", { name: "Stronger throw" }).click();
  await expect(page.getByRole("region", { name: "What was tried" }).getByText(/brought \+/)).toBeVisible();
  await page.getByRole("button", { name: "Pour this rung as a trial" }).click();
  await expect(page).toHaveURL(/\/burn\/[0-9a-f-]{36}/);
  await expect(page.getByRole("heading", { name: /stronger/ })).toBeVisible();
  // Which rooms it fills is kept, and told to buyers.
  await open(page, `/products/${demoId(0x26, 1)}/throw`);
  await page.getByRole("checkbox", { name: "Show it on the buyer's page" }).check();
  await page.getByRole("button", { name: "Save rooms" }).click();
  await expect(page.getByRole("button", { name: "Rooms saved" })).toBeVisible();
});

test("what is on sale unproven stands first, with two tests to design; the year goes out as CSV", async ({ page, workshop }) => {
  await open(page, "/burn/proven");
  const best = page.getByRole("region", { name: "Tests that would prove most" });
  await expect(page.getByRole("region", { name: "On sale, not proven" }).getByText("not burned").first()).toBeVisible();
  await best.getByRole("link").first().click();
  await expect(page.getByRole("heading", { name: "Design a trial" })).toBeVisible();
  await open(page, "/records/year");
  await expect(page.getByRole("rowheader", { name: "Mar" })).toBeVisible();
  const csv = await (await page.request.get(`/api/workshops/${workshop}/year?year=2026`)).text();
  const lines = csv.trim().split("\r\n");
  expect(lines).toHaveLength(13);
  expect(lines[0]).toContain("labor_hours");
});
