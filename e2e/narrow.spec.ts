import { demoId } from "../demo/workshop";
import { expect, open, test } from "./support";

test("records are found by time and person; a time that cannot be read is kept and told", async ({ page }) => {
  await open(page, "/records?when=this+year");
  const rows = page.getByRole("link", { name: "View record" });
  await expect(rows).toHaveCount(1);
  await expect(page.getByText("01/01/2026 to 31/12/2026.")).toBeVisible();

  // The demo's now is 14 March 2026; its closed batch was poured on 9 February.
  const when = page.getByLabel("When", { exact: true });
  await when.fill("last month");
  await when.press("Enter");
  await expect(page.getByText("01/02/2026 to 28/02/2026.")).toBeVisible();
  await expect(page.getByText("1 found")).toBeVisible();
  await page.getByLabel("Month").selectOption("Jan");
  await expect(when).toHaveValue("2026-01");
  await expect(page.getByText("No record like that.")).toBeVisible();
  await page.getByLabel("Month").selectOption("Feb");
  await expect(rows).toHaveCount(1);

  // The whole list goes on from the end of these days.
  await page.getByRole("link", { name: "The whole list from there" }).click();
  // A list that is seen at a glance asks for no days.
  await expect(when).toHaveCount(0);
  await expect(page).toHaveURL(/after=2026-03-01/);
  await expect(rows).toHaveCount(1);

  await page.goBack();
  await when.fill("once upon a time");
  await when.press("Enter");
  await expect(page.getByText("“once upon a time” is no time that can be read.")).toBeVisible();
  await expect(when).toHaveValue("once upon a time");
  await expect(rows).toHaveCount(1);

  await page.getByText("More filters").click();
  await page.getByLabel("Poured by").selectOption({ label: "Brill" });
  await expect(page.getByText("No record like that.")).toBeVisible();
  await page.getByLabel("Poured by").selectOption({ label: "Ansa" });
  await expect(rows).toHaveCount(1);
  await page.getByLabel("Vessel", { exact: true }).selectOption({ label: "narrow tin" });
  await expect(page.getByText("No record like that.")).toBeVisible();
  // What is asked for is kept in the address.
  await page.reload();
  await expect(page.getByLabel("Vessel", { exact: true })).toHaveValue(demoId(4, 2));
  await page.getByRole("link", { name: "Show all" }).click();
  await expect(rows).toHaveCount(1);
});

test("notes of everything are on one page, by words, what they are about, and time", async ({ page }) => {
  await open(page, "/records/notes");
  await page.getByLabel("About").selectOption("formula");
  await expect(page.getByRole("link", { name: "Rain on slate, tumbler" })).toBeVisible();
  await expect(page.getByRole("link", { name: /^batch \d+$/ })).toHaveCount(0);
  await page.getByRole("searchbox").fill("no such words");
  await expect(page.getByText("No note like that.")).toBeVisible();
  await page.getByRole("link", { name: "Show all" }).click();
  await page
    .getByRole("link", { name: /^batch \d+$/ })
    .first()
    .click();
  await expect(page).toHaveURL(/records\/[0-9a-f-]{36}/);
});
