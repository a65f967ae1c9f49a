import type { Page } from "@playwright/test";
import { VIEWS } from "../demo/views";
import { demoId } from "../demo/workshop";
import { ALL, axe, finds } from "./axe";
import { addressOf, emptyWorkshop, expect, open, putOnShelf, test, testOnNewDevice, workshopOf } from "./support";

/** Words within one drawing that lie on one another, as their boxes on the screen do. */
const collisions = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll("svg[role=img]")].flatMap((drawing) => {
      const words = [...drawing.querySelectorAll("text")]
        .map((textElement) => ({ says: textElement.textContent ?? "", box: textElement.getBoundingClientRect() }))
        .filter((item) => item.box.width > 0);
      return words.flatMap((word, index) =>
        words.slice(index + 1).flatMap((other) => {
          const across = Math.min(word.box.right, other.box.right) - Math.max(word.box.left, other.box.left);
          const down = Math.min(word.box.bottom, other.box.bottom) - Math.max(word.box.top, other.box.top);
          // The boxes of letters reach a little above and below the letters themselves.
          return across > 1 && down > 4 ? [`“${word.says}” on “${other.says}” in ${drawing.getAttribute("aria-label")?.slice(0, 60)}`] : [];
        }),
      );
    }),
  );
/** What is worked at with a phone is looked at in full there. */
const AT_HAND = new Set(["today", "bench", "pot", "rack", "on the rack", "inspect", "inspect one", "burn", "trial", "sell", "order", "record"]);
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

const views = Object.entries(VIEWS);
for (const [part, some] of [views.filter((_, index) => index % 2 === 0), views.filter((_, index) => index % 2 === 1)].entries()) {
  test(`every view meets WCAG 2.2 AA and the best practice that axe-core knows, by day and evening light, and runs off no phone, part ${part + 1}`, async ({
    page,
  }) => {
    for (const [name, path] of some) {
      await page.setViewportSize(DESK);
      await open(page, path);
      await page.evaluate(axe);
      expect.soft(await finds(page, ALL), `${name} at the desk`).toEqual([]);
      expect.soft(await collisions(page), `${name} at the desk`).toEqual([]);
      // Another light changes colors and nothing else.
      await page.evaluate(() => document.documentElement.setAttribute("data-light", "evening"));
      expect.soft(await finds(page, ["cat.color"]), `${name} by evening light`).toEqual([]);
      await page.evaluate(() => document.documentElement.removeAttribute("data-light"));
      // The same page, made narrow: it must follow the window anyway. Names and roles are the same; what is seen, how large, and in which order is not.
      await page.setViewportSize(PHONE);
      expect.soft(await finds(page, AT_HAND.has(name) ? ALL : ["cat.sensory-and-visual-cues", "wcag22aa"]), `${name} on a phone`).toEqual([]);
      expect.soft(await collisions(page), `${name} on a phone`).toEqual([]);
      expect.soft(await page.evaluate(() => document.documentElement.scrollWidth), `${name} on a phone`).toBeLessThanOrEqual(PHONE.width);
    }
  });
}

test.describe("as it comes from the server", () => {
  testOnNewDevice.use({ javaScriptEnabled: false, viewport: PHONE });

  testOnNewDevice("no view runs off a phone before its script has run", async ({ page }) => {
    for (const [name, path] of views) {
      await page.goto(await addressOf(page, path));
      expect.soft(await page.evaluate(() => document.documentElement.scrollWidth), name).toBeLessThanOrEqual(PHONE.width);
    }
  });
});

/** Views that write neither money nor days of long ago. */
const WITHOUT_LOCALE_DATA = ["today", "bench", "pot", "rack", "on the rack", "inspect", "inspect one", "burn", "trial", "plan", "formulas"];
testOnNewDevice("the views at hand do not wait for the browser's locale data, which takes a phone a fifth of a second", async ({ page }) => {
  await page.addInitScript(() => {
    const used: string[] = [];
    Object.assign(window, { used });
    for (const name of ["DateTimeFormat", "NumberFormat", "Collator"] as const) {
      const construct = <T extends object>(target: new (...given: unknown[]) => T, given: unknown[]): T => {
        used.push(name);
        return new target(...given);
      };
      Object.assign(Intl, { [name]: new Proxy(Intl[name] as never, { construct, apply: (target, _this, given) => construct(target, given) }) });
    }
    const compare = String.prototype.localeCompare;
    String.prototype.localeCompare = function (...given: [string]) {
      used.push("localeCompare");
      return compare.apply(this, given);
    };
  });
  for (const name of WITHOUT_LOCALE_DATA) {
    await open(page, VIEWS[name as keyof typeof VIEWS]);
    expect.soft(await page.evaluate("used"), name).toEqual([]);
  }
});

test("bench and rack can be hit with a glove", async ({ page }) => {
  await page.setViewportSize(PHONE);
  await open(page, `/bench/${demoId(8, 5)}`);
  await page.getByRole("button", { name: /^bring to the pour range/ }).click();
  for (const control of await page.locator("main :is(button, input, select)").all()) {
    expect((await control.boundingBox())?.height, await control.evaluate((item) => item.outerHTML.slice(0, 120))).toBeGreaterThanOrEqual(56);
  }
});

test("an empty workshop teaches, and ounces and °F work from the shelf to the scale", async ({ page }) => {
  await emptyWorkshop(page, "Ounce shed", { massUnit: "oz", temperatureUnit: "F" });
  for (const path of ["/shelf", "/formulas", "/plan", "/bench", "/rack", "/inspect", "/records"]) {
    await open(page, path);
    await expect(page.locator("main")).toContainText(/yet|No pot|No formula|Nothing/);
  }
  await open(page, "/shelf");
  const add = async (kind: string, fields: Record<string, string>) => {
    await page.getByRole("button", { name: `Add ${kind}` }).click();
    for (const [label, text] of Object.entries(fields)) await page.getByLabel(label).fill(text);
    await page.getByRole("button", { name: "Add to the shelf" }).click();
    await expect(page.getByRole("button", { name: "Add to the shelf" })).toBeHidden();
  };
  await add("a wax", { Name: "plain soy", "Maximum fragrance load": "10" });
  await add("a fragrance", { Name: "wet fern", "Flash point": "200F" });
  await page.getByRole("button", { name: "Add a vessel" }).click();
  await page.getByLabel("Name").fill("pint jar");
  await page.getByLabel("Net weight").fill("8 fl oz");
  await page.getByLabel("Fill weight").fill("1 lb 4 oz");
  for (const label of ["Inner diameter at the rim", "Inner diameter at the bottom", "Inner height"]) await page.getByLabel(label).fill("4 in");
  await page.getByRole("button", { name: "Add to the shelf" }).click();
  await expect(page.getByText(/“8 fl oz” is a volume. Weigh it/)).toBeVisible();
  await expect(page.getByLabel("Fill weight")).toHaveValue("1 lb 4 oz");
  await page.getByLabel("Net weight").fill("20 oz");
  await page.getByRole("button", { name: "Add to the shelf" }).click();
  await expect(page.getByRole("button", { name: "Add to the shelf" })).toBeHidden();
  await expect(page.getByText("20 oz").first()).toBeVisible();
  await add("an instrument", { Name: "glass stick", Correction: "+0.9" });
  await expect(page.getByText("correction +0.9 °F")).toBeVisible();

  await open(page, "/formulas/new");
  await page.getByLabel("Name", { exact: true }).fill("Fern");
  await expect(page.getByLabel("Pour at")).toHaveValue("135–145");
  await page.getByLabel("Pour at").fill("136-145");
  await page.getByRole("button", { name: "Save the formula" }).click();
  await page.getByRole("link", { name: "Plan a batch from it" }).click();
  await page.getByLabel("Count").fill("2");
  await page.getByLabel("Extra").fill("0");
  // No scale is on the shelf yet: what it can show is asked for, never assumed.
  await expect(page.getByRole("button", { name: "Start the batch" })).toBeDisabled();
  await page.getByRole("link", { name: "Add yours" }).click();
  await page.getByRole("button", { name: "Add an instrument" }).click();
  await page.getByLabel("Name").fill("ounce scale");
  await page.getByRole("region", { name: "Instruments" }).getByLabel("Kind").selectOption("scale");
  await page.getByLabel("Step").fill("0.1 oz");
  await page.getByLabel("Takes up to").fill("11 lb");
  await page.getByRole("button", { name: "Add to the shelf" }).click();
  await expect(page.getByRole("button", { name: "Add to the shelf" })).toBeHidden();
  await open(page, "/formulas");
  await page.getByRole("link", { name: "Plan a batch" }).click();
  await page.getByLabel("Count").fill("2");
  await page.getByLabel("Extra").fill("0");
  // 40 oz at 8 % of the wax: 37.0 + 3.0.
  await expect(page.getByRole("button", { name: "plain soy: show the calculation" })).toContainText("37.0");
  await expect(page.getByRole("button", { name: "wet fern: show the calculation" })).toContainText("3.0");
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByRole("heading", { name: "Weigh plain soy" })).toBeVisible();
  const pot = page.url();
  // What is stored is kept to the milligram and the hundredth of a degree, though ounces and °F are shown rounded.
  await putOnShelf(
    page,
    "vessel",
    "name,material,stated_fill_g,working_fill_g,inner_rim_mm,inner_bottom_mm,inner_height_mm\ngram jar,metal,180,176,78,72,60\n",
  );
  await open(page, "/shelf");
  await page.getByRole("button", { name: "Change gram jar" }).click();
  await page.getByLabel("Name").fill("gram tumbler");
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(page.getByRole("button", { name: "Save changes" })).toBeHidden();
  const file = await page.request.get(`/api/workshops/${await workshopOf(page)}/shelf/vessel`);
  expect(await file.text()).toContain("gram tumbler,metal,candle,for sale,straight,,line,,6.349313,6.208217,no,78,72,60");
  await open(page, "/formulas");
  await page.getByRole("link", { name: "Fern" }).click();
  await page.getByRole("button", { name: "Save the formula" }).click();
  await expect(page.getByText("Saved, version 1.")).toBeVisible();
  await open(page, new URL(pot).pathname);
  await page.getByLabel("Scale shows").fill("37");
  await page.getByRole("button", { name: "Record the weight" }).click();
  await expect(page.getByRole("heading", { name: "Weigh wet fern" })).toBeVisible();
  await page.getByLabel("Scale shows").fill("85 g");
  await page.getByRole("button", { name: "Record the weight" }).click();
  await page.getByLabel("Thermometer shows").fill("184.1");
  await page.getByRole("button", { name: "Record temperature" }).click();
  await expect(page.getByText("✓ inside the heat range (181–189 °F)").first()).toBeVisible();
  await expect(page.getByText(/shown 184.1 °F, corrected/)).toBeVisible();
});
