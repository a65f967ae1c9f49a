import type { Page } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { expect, open, test } from "./support";

/** Parts that are loaded when they are first opened and take typing: how each is opened, and the field that then holds what was typed. */
const PARTS: Record<string, { at: string; opens: (page: Page) => Promise<void>; typed: string; field: (page: Page) => ReturnType<Page["getByRole"]> }> = {
  "the palette, by its key": {
    at: "/shelf",
    opens: (page) => page.keyboard.press("/"),
    typed: "make a prod",
    field: (page) => page.getByRole("combobox", { name: "Find" }),
  },
  "the palette, by its button": {
    at: "/shelf",
    opens: (page) => page.getByRole("button", { name: "Find", exact: true }).click(),
    typed: "squat",
    field: (page) => page.getByRole("combobox", { name: "Find" }),
  },
  "a form of the shelf": {
    at: "/shelf",
    opens: (page) =>
      page
        .getByRole("button", { name: /^Add a wax/ })
        .first()
        .click(),
    typed: "meadow soy",
    field: (page) => page.getByRole("textbox", { name: "Name" }),
  },
  "a correction": {
    at: `/records/${demoId(8, 1)}`,
    opens: (page) =>
      page
        .getByRole("button", { name: /^Correct: “/ })
        .first()
        .click(),
    typed: "also ",
    field: (page) => page.getByRole("textbox", { name: "Note", exact: true }),
  },
};

for (const [name, { at, opens, typed, field }] of Object.entries(PARTS))
  test(`what is typed before ${name} has loaded is kept`, async ({ page }) => {
    // Nothing is loaded ahead of its time.
    await page.addInitScript(() => {
      window.requestIdleCallback = () => 0;
    });
    await open(page, at);
    let release = () => {};
    const gate = new Promise<void>((go) => {
      release = go;
    });
    await page.route("**/_next/static/chunks/**", async (route) => {
      await gate;
      await route.continue();
    });
    await opens(page);
    // Half of it while nothing is there, the rest while it comes, at the pace of a quick hand.
    await page.keyboard.type(typed.slice(0, 4));
    release();
    await page.keyboard.type(typed.slice(4), { delay: 15 });
    await expect(field(page)).toHaveValue(new RegExp(typed.trim()));
  });

test("a count that is typed in the moment before a batch is started is the batch's", async ({ page }) => {
  await open(page, `/plan?formula=${demoId(6, 1)}`);
  const count = page.getByRole("listitem").filter({ hasText: "tealight cup" }).getByLabel("Count");
  await count.fill("1");
  await expect(page.getByRole("button", { name: "Start the batch" })).toHaveAttribute("data-next-step");
  // In one task, so that nothing is drawn between the two.
  await count.evaluate((field: HTMLInputElement) => {
    field.setSelectionRange(1, 1);
    field.focus();
    document.execCommand("insertText", false, "0");
    document.getElementById("start-batch")?.click();
  });
  await expect(page.getByRole("heading", { name: "Weigh container soy" })).toBeVisible();
  await expect(page.getByText(/^10 × tealight cup/)).toBeVisible();
});
