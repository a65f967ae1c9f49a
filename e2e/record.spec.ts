import { readFileSync } from "node:fs";
import { demoId } from "../demo/workshop";
import { expect, open, test } from "./support";

const entries = "Log";

test("a deleted entry stays in the record, struck through, with who and when", async ({ page }) => {
  await open(page, `/records/${demoId(8, 4)}`);
  await page.getByRole("button", { name: /^Who is working/ }).click();
  await page.getByRole("menuitemradio", { name: "Brill" }).click();
  await expect(page.getByRole("button", { name: "Who is working: Brill" })).toBeVisible();
  await page.getByRole("button", { name: /^Correct: stirred/ }).click();
  await page.getByRole("button", { name: "Delete entry" }).click();
  const row = page.getByRole("listitem").filter({ hasText: "stirred 2 min" });
  await expect(row.locator(".line-through")).toBeVisible();
  await expect(row).toContainText("taken back at 14:20 by Brill");
  await expect(page.getByText(/Missing: stir, minimum cure, inspection/)).toBeVisible();
});

test("the time of pouring can be corrected, and setting and curing follow", async ({ page }) => {
  await open(page, `/records/${demoId(8, 4)}`);
  await expect(page.getByText("Sun 15 Mar 11:47")).toBeVisible();
  await page.getByRole("button", { name: /^Correct: poured/ }).click();
  await page.getByLabel("When").fill("16:00");
  await page.getByRole("button", { name: "Save correction" }).click();
  await expect(page.getByText(/16:00 is 1 h 40 min ahead of now/)).toBeVisible();
  await page.getByLabel("When").fill("12:30");
  await page.getByRole("button", { name: "Save correction" }).click();
  await expect(page.getByText("Sun 15 Mar 12:30")).toBeVisible();
  await expect(page.getByText("Sun 15 Mar 11:47")).toBeHidden();
});

test("a reading can be corrected twice; only the newest counts, all three stay", async ({ page }) => {
  await open(page, `/bench/${demoId(8, 5)}`);
  const fix = async (from: string, to: string) => {
    await page.getByRole("button", { name: new RegExp(`^Correct: pour reading.*${from} °C$`) }).click();
    await page.getByLabel("What the instrument showed").fill(to);
    await page.getByRole("button", { name: "Save correction" }).click();
  };
  await fix("66.5", "950");
  await expect(page.getByText(/950 °C is hotter than any wax is heated/)).toBeVisible();
  await page.getByRole("button", { name: "Cancel" }).click();
  await fix("66.5", "65");
  await expect(page.getByText("▲ 1.5 °C above the pour range (57–63 °C)").first()).toBeVisible();
  await fix("64.5", "62 C");
  await expect(page.getByRole("heading", { name: /Pour slowly/ })).toBeVisible();
  await expect(page.locator(".line-through", { hasText: "pour reading" })).toHaveCount(2);
});

test("a closed record can be reopened, and closed again", async ({ page }) => {
  await open(page, `/records/${demoId(8, 1)}`);
  await expect(page.getByText("Nothing was missing.")).toBeVisible();
  await page.getByRole("button", { name: "Reopen record" }).click();
  await expect(page.getByRole("button", { name: "Close the record" })).toBeVisible();
  await page.getByRole("button", { name: "Close the record" }).click();
  await expect(page.getByText("Nothing was missing.")).toBeVisible();
  await open(page, "/records");
  await expect(page.getByRole("listitem").filter({ hasText: "Rain on slate, tumbler" })).toBeVisible();
});

test("two people at one pot see each other's entries, and only one of two corrections takes", async ({ page, context }) => {
  await open(page, `/bench/${demoId(8, 6)}`);
  const other = await context.newPage();
  await open(other, `/bench/${demoId(8, 6)}`);
  const weighed = (where: typeof page) => where.getByRole("button", { name: /^Correct: weighed jar paraffin/ });
  await weighed(page).click();
  await weighed(other).click();
  await page.getByLabel("What it weighed").fill("640");
  await page.getByRole("button", { name: "Save correction" }).click();
  await expect(page.locator(".line-through", { hasText: "weighed jar paraffin" })).toHaveCount(1);
  await other.getByLabel("What it weighed").fill("650");
  await other.getByRole("button", { name: "Save correction" }).click();
  await expect(other.getByRole("alert").filter({ hasText: "That entry has been corrected already. Correct the newer one." })).toBeVisible();
  await expect(other.getByLabel("What it weighed")).toHaveValue("650");
  await other.reload();
  await expect(other.getByText("weighed jar paraffin–soy 640 g")).toBeVisible();
});

test("steps can be put in out of order, and what was skipped can be put in later", async ({ page }) => {
  await open(page, `/bench/${demoId(8, 6)}`);
  await page.getByRole("button", { name: /^stir/ }).click();
  await page.getByLabel("Stirred for").fill("1:30");
  await page.getByRole("button", { name: "Record stirring" }).click();
  // The pot goes on from the last step done; the ones before stay open.
  await expect(page.getByRole("heading", { name: "Bring it to the pour range" })).toBeVisible();
  await expect(page.getByRole("button", { name: /^add fragrance/ })).toContainText("open");
  await page.getByRole("button", { name: /^add fragrance/ }).click();
  await page.getByLabel("Thermometer shows").fill("85,5");
  await page.getByLabel("When").fill("14:17");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(page.getByRole("button", { name: /^add fragrance/ })).toContainText("done");
  await expect(page.getByRole("listitem").filter({ hasText: "add reading, long probe" })).toContainText("14:17");
  await open(page, `/records/${demoId(8, 6)}`);
  await expect(page.getByText(/Missing: .*bring to the pour range, pour, inspection/)).toBeVisible();
});

test("what is typed in a note is shown as it was typed, and exported defused", async ({ page }) => {
  await open(page, `/bench/${demoId(8, 5)}`);
  const nasty = '=1+1 <img src=x onerror="alert(1)"> ünïcode';
  await page.getByLabel("Note").fill(nasty);
  await page.getByRole("button", { name: "Add the note" }).click();
  await expect(page.getByText(`“${nasty}”`)).toBeVisible();
  await open(page, `/records/${demoId(8, 5)}`);
  const [csv] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "CSV" }).click()]);
  expect(readFileSync(await csv.path(), "utf8")).toContain("'=1+1 <img");
});

test("the record prints without buttons and sections", async ({ page }) => {
  await open(page, `/records/${demoId(8, 2)}`);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("navigation", { name: "Sections" })).toBeHidden();
  await expect(page.getByRole("button", { name: "Print" })).toBeHidden();
  await expect(page.getByRole("heading", { name: entries })).toBeVisible();
  await expect(page.getByText("rough, pitted top", { exact: true })).toBeVisible();
});

test("stirring by the clock puts the time stirred into its field", async ({ page }) => {
  await page.clock.install({ time: new Date("2026-03-14T14:20:00Z") });
  await open(page, `/bench/${demoId(8, 5)}`);
  await page.getByRole("button", { name: /^stir/ }).click();
  await page.getByRole("button", { name: "Start stirring" }).click();
  await page.clock.runFor(125_000);
  await expect(page.getByRole("timer")).toHaveText("0:00");
  await expect(page.getByText(/✓ \d s over/)).toBeVisible();
  await page.getByRole("button", { name: "Stop and record" }).click();
  await expect(page.getByLabel("Stirred for")).toHaveValue(/^12[4-6] s$/);
});
