import type { Page } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { choose, expect, open, test } from "./support";

const TUMBLER = demoId(0x26, 1);

/** Releases a cured batch of eight tumblers and four cups, and waits until the server has it. */
async function release(page: Page, workshop: string): Promise<void> {
  await open(page, `/rack/${demoId(8, 2)}`);
  await page.getByRole("region", { name: "Release" }).getByRole("button", { name: "Release it for sale" }).click();
  await expect(page.getByRole("region", { name: "Release" })).toContainText("✓ Released for sale");
  const log = `/api/workshops/${workshop}/batches/${demoId(8, 2)}/log?after=0`;
  await expect.poll(async () => (await (await page.request.get(log)).json()).state.released).not.toBeNull();
}

test("a batch is released, packed in sixes, labelled on A4 and Letter, sold at a market day without the network, and recalled by a lot of its oil", async ({
  page,
  context,
  workshop,
}) => {
  await release(page, workshop);

  // Six go into a pack; the box that one goes into does not take them, and says so.
  await open(page, `/products/${TUMBLER}`);
  await page.getByLabel("Candles per pack").fill("6");
  await expect(page.getByText("✕ does not fit")).toBeVisible();
  await choose(page, "Box", "no box");
  await page.getByRole("button", { name: "Save the product" }).click();
  await expect(page.getByText("Saved.", { exact: true })).toBeVisible();

  await open(page, `/sell/pack?of=${TUMBLER}`);
  await expect(page.getByText("One pack: 6 × Rain on slate, squat tumbler")).toBeVisible();
  await page.getByLabel("Packs", { exact: true }).fill("9");
  await page.getByRole("button", { name: "Pack" }).click();
  await expect(page.getByText(/9 packs is more than is possible here/)).toBeVisible();
  await page.getByLabel("Packs", { exact: true }).fill("1");
  await page.getByRole("button", { name: "Pack" }).click();
  const recentlyPacked = page.getByRole("region", { name: "Recently packed" });
  await expect(recentlyPacked).toContainText("1 × Rain on slate, squat tumbler");

  await recentlyPacked.getByRole("link", { name: /^Labels for/ }).click();
  await expect(page.getByText(/^Rain on slate, squat tumbler, batch \d+$/).first()).toBeVisible();
  const pdf = page.getByRole("link", { name: "Open the PDF" });
  for (const sheet of ["A4, 2 × 4", "Letter, 2 × 5"]) {
    await page.getByLabel("Sheet of labels").selectOption({ label: sheet });
    await page.getByRole("button", { name: "German" }).click();
    const picture = page.getByRole("img", { name: "Fire safety label of Rain on slate, squat tumbler" });
    await expect.poll(() => picture.evaluate((imageElement: HTMLImageElement) => imageElement.complete && imageElement.naturalWidth > 0)).toBe(true);
    const answer = await page.request.get((await pdf.getAttribute("href")) ?? "");
    expect((await answer.body()).subarray(0, 5).toString()).toBe("%PDF-");
  }
  // What does not fit is said before it is printed.
  await page.getByRole("button", { name: "Hazard", exact: true }).click();
  await page.getByLabel("Sheet of labels").selectOption({ label: "Letter, round, 4 × 6" });
  await expect(page.getByRole("alert").filter({ hasText: "does not fit" })).toBeVisible();

  await open(page, "/sell/new?what=market");
  await page.getByLabel("Market").fill("Quay market");
  await choose(page, /^To take/, "Rain on slate, squat tumbler");
  await page.getByRole("button", { name: "Save market day" }).click();
  await expect(page.getByRole("heading", { name: /Market day \d+: Quay market/ })).toBeVisible();
  await page.getByRole("button", { name: "Take to the market" }).click();
  await expect(page.getByRole("button", { name: "Sold: Rain on slate, squat tumbler" })).toBeVisible();
  const address = page.url();
  await context.setOffline(true);
  await page.getByRole("button", { name: "Sold: Rain on slate, squat tumbler" }).click();
  await expect(page.getByText(/1 sold/)).toBeVisible();
  await context.setOffline(false);
  // Another device sees it once it was sent.
  await expect.poll(async () => (await (await page.request.get(address)).text()).includes("1 sold")).toBe(true);
  await page.getByRole("button", { name: "Close market day" }).first().click();
  await expect(page.getByRole("button", { name: "Reopen record" })).toBeVisible();

  await open(page, "/sell/recall?q=RS-11");
  await page.getByRole("link", { name: /^Recall lot: rain on slate, lot RS-11/ }).click();
  await expect(page.getByRole("heading", { name: "Recall: rain on slate, lot RS-11" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Notify" })).toContainText("Quay market");
  await expect(page.getByRole("region", { name: "Every batch" })).toContainText(/9 on the rack, 3 packed.*3 packed, 3 sold/);
  // What took of it and is not poured yet is stopped at the pot.
  await expect(page.getByRole("region", { name: "Set aside here" })).toContainText(/the pot of batch \d+/);
});

test("a blend's label is worked out from its suppliers' sheets, with the load that would be free of it", async ({ page }) => {
  await open(page, `/sell/hazard?formula=${demoId(6, 4)}`);
  const label = page.getByRole("region", { name: "Draft of the label" });
  await expect(label).toContainText("Draft: to be checked by a competent person.");
  // Mint has no sheet, and the label says so on its face.
  await expect(label).toContainText("no supplier's sheet of garden mint");
  await page
    .getByRole("row", { name: /garden mint/ })
    .getByRole("link", { name: /none: add it/ })
    .click();
  await page.getByRole("button", { name: "Add its safety data sheet" }).click();
  await page.getByLabel("Day of the sheet").fill("2026-01-20");
  await page.getByLabel("Ingredients").fill("mintal;40 - 60 %;Skin Irrit. 2, H315; Acute Tox. 4, H312\nmenthane;much;");
  await expect(page.getByText(/Row 2: “much” is not a percentage/).first()).toBeVisible();
  await page.getByRole("button", { name: "Save safety data sheet" }).click();
  await expect(page.getByRole("textbox", { name: "Ingredients" })).toHaveValue(/menthane;much/);
  await page.getByRole("textbox", { name: "Ingredients" }).fill("mintal\t40 - 60 %\tSkin Sens. 1, H317\nmenthane\t10\tAquatic Chronic 2, H411");
  await page.getByRole("button", { name: "Save safety data sheet" }).click();
  await expect(page.getByText("Of 20/01/2026")).toBeVisible();
  await open(page, `/sell/hazard?formula=${demoId(6, 4)}`);
  await expect(label).toContainText("Contains: mintal, slate accord");
  await expect(label).toContainText("May cause an allergic skin reaction.");
  await expect(page.getByRole("row", { name: /applies skin sensitizer mintal/ })).toBeVisible();
  await page.getByRole("button", { name: "French" }).click();
  await expect(label).toContainText("Peut provoquer une allergie cutanée.");
  const loads = page.getByRole("region", { name: "Maximum load without each class" });
  const said = await loads.getByText("without Skin Sens. 1").locator("..").innerText();
  // 1 % of the candle, of 60 % of 10 parts in 22 of the scent: 3.667 % of the candle, a little below 3.9 % of the wax.
  expect(Number(/([\d.]+) %/.exec(said)?.[1])).toBeGreaterThan(3.7);
  expect(Number(/([\d.]+) %/.exec(said)?.[1])).toBeLessThan(4);
});

test("an order says what lacks and puts it on the plan; orders come out of a shop's file", async ({ page }) => {
  await open(page, `/sell/${demoId(0x30, 5)}`);
  await page.getByRole("button", { name: "Put on the plan: Hay loft, squat tumbler" }).click();
  await expect(page.getByText("8 × Hay loft, squat tumbler put on the plan.")).toBeVisible();
  await open(page, "/plan/wanted");
  await expect(page.getByText(/order 5: Shop on the quay|order 2: Shop on the quay/).first()).toBeVisible();
  await open(page, "/sell/import");
  await page.getByLabel("Or paste rows").fill("Customer,Qty,Item\nMill café,2,Rain on snow\n");
  await expect(page.getByText(/Row 2: “Rain on snow” is not sold here/)).toBeVisible();
  await page
    .getByLabel("Or paste rows")
    .fill("Customer,Qty,Item\nMill café,2,rain on slate, squat tumbler\n".replace("rain on slate, squat tumbler", '"rain on slate, squat tumbler"'));
  await page.getByRole("button", { name: "Take 1 order" }).click();
  await expect(page.getByRole("link", { name: "Mill café", exact: true })).toBeVisible();
});

test("a set goes into its box, a sample of what is sold by weight is weighed, and packs are taken apart again", async ({ page, workshop }) => {
  await release(page, workshop);

  await open(page, "/sell/sets/new");
  await page.getByLabel("Name", { exact: true }).fill("Two and two");
  await choose(page, /^What/, "Rain on slate, squat tumbler");
  await page.getByLabel("Candles of Rain on slate, squat tumbler").fill("2");
  await page.getByRole("button", { name: "Add a line" }).click();
  await choose(page, /^What/, "Rain on slate, sample cup", 1);
  await page.getByLabel("Candles of Rain on slate, sample cup").fill("2");
  await choose(page, "Box", "evening box");
  // Two tumblers do not go into the box of one.
  await expect(page.getByText("✕ does not fit")).toBeVisible();
  await page.getByLabel("Candles of Rain on slate, squat tumbler").fill("1");
  await expect(page.getByText("✓ fits")).toBeVisible();
  await page.getByLabel("Price per pack").fill("24,50");
  await page.getByRole("button", { name: "Save the set" }).click();
  await expect(page.getByRole("heading", { name: "Two and two" })).toBeVisible();
  await page.getByRole("link", { name: "Pack some" }).click();
  await expect(page.getByText("One pack: 1 × Rain on slate, squat tumbler, 2 × Rain on slate, sample cup")).toBeVisible();
  await expect(page.getByText("2 can be packed now")).toBeVisible();
  await page.getByRole("button", { name: "Pack" }).click();
  const recentlyPacked = page.getByRole("region", { name: "Recently packed" });
  await expect(recentlyPacked).toContainText("2 × Two and two");
  await recentlyPacked.getByRole("button", { name: "Unpack 2 × Two and two" }).click();
  await expect(page.getByText("the jars are on the rack again")).toBeVisible();
  await expect(page.getByText("2 can be packed now")).toBeVisible();

  // Sold by weight, what is packed can be weighed; the rules say whether it holds what is stated, and what fill would.
  await open(page, `/products/${TUMBLER}`);
  await page.getByLabel("Sold by").selectOption({ label: "weight: never below the net weight" });
  await page.getByRole("button", { name: "Save the product" }).click();
  await expect(page.getByText(/raise the fill weight, or sell it by the piece/).first()).toBeVisible();
  await open(page, "/products/new");
  await page.getByLabel("Name", { exact: true }).fill("Cup by weight");
  await choose(page, "Formula", "Rain on slate, tumbler");
  await choose(page, "Vessel or mold", "tealight cup");
  await choose(page, "Wick", "flat-braid cotton 1, tabbed");
  await page.getByLabel("Sold by").selectOption({ label: "weight: never below the net weight" });
  await page.getByRole("button", { name: "Save the product" }).click();
  await expect(page.getByRole("heading", { name: "Cup by weight" })).toBeVisible();
  await open(page, `/sell/pack?of=${page.url().split("/").at(-1)}`);
  const weights = page.getByLabel("Net weights, one a line");
  await weights.fill("heavy");
  await page.getByRole("button", { name: "Pack" }).click();
  await expect(page.getByText(/“heavy”/).first()).toBeVisible();
  await weights.fill(Array.from({ length: 20 }, (_, n) => (n % 2 ? "13.4" : "13.2")).join("\n"));
  const verdict = page.getByRole("status").filter({ hasText: "20 weighed" });
  await expect(verdict).toContainText("They are below the net weight");
  await expect(verdict).toContainText(/Fill [\d.]+ g more \([\d.]+ g\), or weigh each/);
});

test("a sheet of labels is described by its measures, with the workshop's own words and a page for who buys the candle", async ({ page }) => {
  await open(page, `/sell/labels?product=${TUMBLER}`);
  await page.getByLabel("Maker").fill("Fern shed, Mill lane 3");
  await page.getByLabel("More warnings, one on each line").fill("Not for lanterns.");
  await page.getByLabel("Where your pages for buyers are hosted").fill("my page");
  await page.getByRole("button", { name: "Save words" }).click();
  await expect(page.getByText("Give the whole address, like https://example.org/candles.").first()).toBeVisible();
  await page.getByLabel("Where your pages for buyers are hosted").fill("https://example.org/candles");
  await page.getByRole("button", { name: "Save words" }).click();
  await expect(page.getByText("Saved. The labels use these words.")).toBeVisible();

  await page.getByRole("button", { name: "Custom sheet" }).click();
  const form = page.getByRole("form", { name: "Custom sheet" });
  await form.getByLabel("Name").fill("Lids");
  await form.getByLabel("Columns").fill("9");
  await form.getByRole("button", { name: "Save sheet" }).click();
  await expect(form.getByText(/columns are [\d.]+ mm too wide for the paper/).first()).toBeVisible();
  await form.getByLabel("Columns").fill("2");
  await form.getByLabel("Label's width").fill("3 1/2 in");
  await form.getByRole("button", { name: "Save sheet" }).click();
  await expect(form).toBeHidden();
  await expect(page.getByLabel("Sheet of labels").locator("option:checked")).toHaveText("Lids");
  await expect(page.getByText(/^88\.9 mm × /)).toBeVisible();

  await page.getByRole("button", { name: "Care card" }).click();
  await expect(page.getByText(/From \d test candles? of this product|No test candle of this product/)).toBeVisible();
  await page.getByRole("button", { name: "Code", exact: true }).click();
  const [buyer] = await Promise.all([page.waitForEvent("popup"), page.getByRole("link", { name: "See the page" }).click()]);
  await expect(buyer.getByRole("heading", { name: "Rain on slate, squat tumbler" })).toBeVisible();
  await expect(buyer.getByText("Never leave a burning candle unattended.")).toBeVisible();
  await expect(buyer.getByText("Fern shed, Mill lane 3")).toBeVisible();
  await buyer.close();
  // Anything is found by its name.
  await page.keyboard.press("/");
  await page.getByRole("combobox", { name: /Find/ }).fill("quay");
  await page.getByRole("option", { name: /Shop on the quay/ }).click();
  await expect(page.getByRole("heading", { name: /Order \d+: Shop on the quay/ })).toBeVisible();
});

test("at a stall with a phone each tap is large enough for a glove, counts, and is taken back by one key", async ({ page, workshop }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await release(page, workshop);
  await open(page, `/sell/${demoId(0x30, 6)}`);
  await page.getByRole("button", { name: "Take to the market" }).click();
  const out = page.getByRole("region", { name: "Out" });
  const tumblers = out.getByRole("listitem").filter({ hasText: "Rain on slate, squat tumbler" });
  await expect(tumblers.getByRole("button", { name: /^Sold:/ })).toBeVisible();
  for (const control of await tumblers.locator("button, input").all())
    expect((await control.boundingBox())?.height, await control.evaluate((item) => item.outerHTML.slice(0, 100))).toBeGreaterThanOrEqual(56);
  await tumblers.getByLabel("How many of Rain on slate, squat tumbler").fill("3");
  await tumblers.getByRole("button", { name: /^Sold:/ }).click();
  await expect(tumblers).toContainText("3 sold");
  await expect(tumblers).toContainText("€49.50");
  await tumblers.getByRole("button", { name: /^Given away/ }).click();
  await expect(tumblers).toContainText("1 given away");
  await page.getByRole("heading", { name: /^Market day/ }).click();
  await page.keyboard.press("u");
  await expect(tumblers).not.toContainText("given away");
  // More than is out is told, and nothing is lost.
  await tumblers.getByLabel("How many of Rain on slate, squat tumbler").fill("99");
  await tumblers.getByRole("button", { name: /^Back/ }).click();
  await expect(page.getByText(/are out: no more can be counted/)).toBeVisible();
  await page.getByRole("button", { name: "Return the rest to stock" }).click();
  for (const back of ["4 × Rain on slate, sample cup came back", "8 × Rain on slate, squat tumbler came back"])
    await expect(page.getByText(back).first()).toBeVisible();
  await page.getByRole("button", { name: "Close market day" }).first().click();
  await expect(page.getByRole("heading", { name: "Result" })).toBeVisible();
});
