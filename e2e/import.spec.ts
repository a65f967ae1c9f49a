import { readFileSync, writeFileSync } from "node:fs";
import { demoId } from "../demo/workshop";
import { emptyWorkshop, expect, open, test } from "./support";

const POT = demoId(8, 5);
const RECORD = "../web/testing/fixtures/record-format-1.json";

test("what an imported batch draws from the stock is decided once, when it is imported, and said", async ({ page, workshop }, info) => {
  const sent = await page.request.get(`/api/workshops/${workshop}/batches/${POT}/record`);
  const file = info.outputPath("record.json");
  writeFileSync(file, await sent.body());
  const takeIn = async (draws: boolean) => {
    await open(page, "/records/import");
    await page.getByLabel("A record, as JSON").setInputFiles(file);
    const draw = page.getByLabel("Deduct what it used from the stock here");
    await expect(draw).not.toBeChecked();
    if (draws) await draw.check();
    await page.getByRole("button", { name: "Import record" }).click();
  };
  const stock = async () => {
    await open(page, "/shelf");
    return page.getByRole("region", { name: "Waxes" }).innerText();
  };

  await emptyWorkshop(page, "Takes nothing");
  await takeIn(false);
  await expect(page.getByText("It is not deducted from stock here.")).toBeVisible();
  await page.getByRole("link", { name: "View record" }).click();
  await expect(page.getByText("Imported: not deducted from stock here.")).toBeVisible();
  // Again it changes nothing, and says so.
  await takeIn(true);
  await expect(
    page
      .getByRole("alert")
      .or(page.getByRole("status"))
      .filter({ hasText: /already|changed nothing/ }),
  ).toBeVisible();
  expect(await stock()).not.toMatch(/−|missing/);

  await emptyWorkshop(page, "Draws it");
  await takeIn(true);
  await expect(page.getByText("What it used was deducted from the stock here.").last()).toBeVisible();
  await page.getByRole("link", { name: "View record" }).click();
  await expect(page.getByRole("heading", { name: /Rain on slate/ })).toBeVisible();
  await expect(page.getByText("Imported: not deducted from stock here.")).toBeHidden();
});

test("a record that the first program wrote still comes in whole", async ({ page }) => {
  await emptyWorkshop(page, "Old papers");
  await open(page, "/records/import");
  // It is of a later day than these tests, on which nothing can have happened yet: put back by a year.
  const text = readFileSync(new URL(RECORD, import.meta.url), "utf8").replaceAll(/2026-(\d\d)-/g, "2025-$1-");
  await page.getByLabel("A record, as JSON").setInputFiles({ name: "record.json", mimeType: "application/json", buffer: Buffer.from(text) });
  await page.getByRole("button", { name: "Import record" }).click();
  await page.getByRole("link", { name: "View record" }).click();
  await expect(page.getByRole("img", { name: /Heat line of batch/ })).toBeVisible();
  await expect(
    page
      .getByRole("listitem")
      .filter({ hasText: /poured/ })
      .first(),
  ).toBeVisible();
});
