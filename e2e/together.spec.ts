import { demoId } from "../demo/workshop";
import { expect, open, test, workIn } from "./support";

const POT = `/bench/${demoId(8, 6)}`;

test("what one window enters, the other shows without reading the page again", async ({ page, browser, workshop }) => {
  const context = await browser.newContext();
  await workIn(context, workshop);
  const other = await context.newPage();
  await open(page, POT);
  await open(other, POT);
  const marker = await other.evaluate(() => {
    (window as unknown as { kept: string }).kept = "same page";
    return (window as unknown as { kept: string }).kept;
  });
  await page.getByPlaceholder("Anything out of the ordinary").fill("seen by both");
  await page.getByRole("button", { name: "Add the note" }).click();
  await expect(other.getByText("“seen by both”")).toBeVisible();
  expect(await other.evaluate(() => (window as unknown as { kept?: string }).kept)).toBe(marker);
  // Undone here, struck through there.
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(other.locator(".line-through", { hasText: "seen by both" })).toBeVisible();
  await context.close();
});

test("a list shows what another window entered", async ({ page, browser, workshop }) => {
  const drawn: string[] = [];
  page.on("request", (request) => request.url().includes("_rsc=") && drawn.push(request.url()));
  await open(page, "/bench");
  const row = page.getByRole("listitem").filter({ hasText: "16" }).first();
  await expect(row).toContainText("next:");
  const before = await row.innerText();
  const context = await browser.newContext();
  await workIn(context, workshop);
  const other = await context.newPage();
  await open(other, POT);
  // Nothing happened since it was opened: it was asked for once, and nothing that stands behind its links.
  expect(drawn).toEqual([]);
  await other.getByLabel("Thermometer shows").fill("85");
  await other.getByRole("button", { name: "Record temperature" }).click();
  // Inside its range it is the pot that needs hands soonest, and stands above the list.
  const soonest = page.getByRole("region", { name: "Next up" });
  await expect(soonest).toContainText("Quince and smoke, tin");
  await expect(soonest).toContainText("next: add fragrance");
  await other.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => row.innerText()).toBe(before);
  await context.close();
});

test("a page goes on sending to the workshop that it shows, whatever another tab has switched to", async ({ page, context }) => {
  await open(page, POT);
  const other = await context.newPage();
  await open(other, "/workshops");
  const form = other.locator("section", { hasText: "A new, empty workshop" }).last();
  await form.getByLabel("Name of the workshop").fill("Elsewhere");
  await form.getByLabel("Your first name").fill("Ilvo");
  await form.getByLabel("Time zone").fill("UTC");
  await form.getByRole("button", { name: "Create workshop" }).click();
  await expect(other.getByRole("heading", { name: "Start here" })).toBeVisible();
  await page.getByPlaceholder("Anything out of the ordinary").fill("still the first shed");
  await page.getByRole("button", { name: "Add the note" }).click();
  await expect(page.getByText("✓ Recorded")).toBeVisible();
  await expect(page.getByText("“still the first shed”")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
});

test("a link leads on within the page, and to a tab of its own where that is ordered", async ({ page, workshop }) => {
  await open(page, "/formulas");
  await page.evaluate(() => Object.assign(window, { kept: "same page" }));
  const records = page.getByRole("navigation").getByRole("link", { name: "Records" });
  const [tab] = await Promise.all([page.context().waitForEvent("page"), records.click({ modifiers: ["ControlOrMeta"] })]);
  await expect(tab).toHaveURL(`/w/${workshop}/records`);
  await expect(page).toHaveURL(`/w/${workshop}/formulas`);
  await records.click();
  await expect(page).toHaveURL(`/w/${workshop}/records`);
  expect(await page.evaluate(() => (window as unknown as { kept?: string }).kept)).toBe("same page");
  await page.goBack();
  await expect(page.getByRole("heading", { level: 1, name: "Formulas" })).toBeVisible();
});
