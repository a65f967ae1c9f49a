import type { Page } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { choose, expect, open, test } from "./support";

/** A photograph as a phone takes it: large, lying on its side, with the place it was taken at written into it (Exif 2.32, 4.5.4 and 4.6.6). */
async function photograph(page: Page): Promise<Buffer> {
  const plain = Buffer.from(
    await page.evaluate(async () => {
      const canvas = document.createElement("canvas");
      canvas.width = 2_400;
      canvas.height = 1_800;
      const context = canvas.getContext("2d") as CanvasRenderingContext2D;
      const fade = context.createLinearGradient(0, 0, 2_400, 1_800);
      fade.addColorStop(0, "#dfe8ea");
      fade.addColorStop(1, "#31525b");
      context.fillStyle = fade;
      context.fillRect(0, 0, 2_400, 1_800);
      return canvas.toDataURL("image/jpeg", 0.95).split(",")[1] as string;
    }),
    "base64",
  );
  const number = (value: number, bytes: number) => Array.from({ length: bytes }, (_, index) => (value >> (8 * (bytes - 1 - index))) & 255);
  const entry = (tag: number, type: number, count: number, value: number[]) => [...number(tag, 2), ...number(type, 2), ...number(count, 4), ...value];
  // Turned by a quarter (tag 0x0112), and a list with the latitude's side (tag 0x8825 to 0x0001).
  const tiff = [
    ..."MM".split("").map((sign) => sign.charCodeAt(0)),
    ...number(42, 2),
    ...number(8, 4),
    ...number(2, 2),
    ...entry(0x0112, 3, 1, [0, 6, 0, 0]),
    ...entry(0x8825, 4, 1, number(38, 4)),
    ...number(0, 4),
    ...number(1, 2),
    ...entry(0x0001, 2, 2, [0x4e, 0, 0, 0]),
    ...number(0, 4),
  ];
  const exif = [0x45, 0x78, 0x69, 0x66, 0, 0, ...tiff];
  return Buffer.concat([plain.subarray(0, 2), Buffer.from([0xff, 0xe1, ...number(exif.length + 2, 2), ...exif]), plain.subarray(2)]);
}

test("a photograph goes with a note: made small, without where it was taken, and taken away and put back", async ({ page, workshop }) => {
  await open(page, `/inspect/${demoId(8, 3)}`);
  const taken = await photograph(page);
  expect(taken.includes("Exif")).toBe(true);
  const section = page.getByRole("region", { name: "Notebook" });
  await section.getByRole("button", { name: "Save note" }).click();
  await expect(section.getByText("Write something, or choose a picture.")).toBeVisible();
  await section.getByRole("textbox", { name: "Write a note" }).fill("Frost round the rim,\nonly on the window side");
  await section.getByLabel("Add a photograph").setInputFiles([
    { name: "rim.jpg", mimeType: "image/jpeg", buffer: taken },
    { name: "notes.txt", mimeType: "text/plain", buffer: Buffer.from("no picture") },
  ]);
  await expect(section.getByText("notes.txt is not a supported format. Choose a JPEG or PNG file.")).toBeVisible();
  await expect(section.getByRole("img", { name: "Chosen: rim.jpg" })).toBeVisible();
  // Without the server it waits on this device with its photograph, also on other pages, and is sent once.
  await page.context().setOffline(true);
  await section.getByRole("button", { name: "Save note" }).click();
  await expect(section.getByRole("list", { name: "Notes that wait on this device" })).toContainText("note: Frost round the rim,");
  await expect(page.getByText("1 entry is kept on this device")).toBeVisible();
  await page.context().setOffline(false);
  await expect(page.getByText("1 entry is kept on this device")).toBeHidden();
  await expect(section.getByText("only on the window side", { exact: false }).first()).toBeVisible();
  await expect(section.getByRole("textbox", { name: "Write a note" })).toHaveValue("");
  const shown = section.getByRole("button", { name: /^Show photograph 1/ });
  const src = await shown.locator("img").getAttribute("src");
  const kept = await page.request.get(src ?? "");
  expect(kept.headers()["content-type"]).toBe("image/jpeg");
  const bytes = await kept.body();
  expect(bytes.includes("Exif")).toBe(false);
  expect(bytes.length).toBeLessThan(600_000);
  // It was turned upright when it was drawn anew.
  await expect(shown.locator("img")).toHaveAttribute("width", "1200");
  await expect(shown.locator("img")).toHaveAttribute("height", "1600");
  await shown.click();
  await expect(page.getByRole("dialog", { name: "Photograph" }).getByRole("img")).toBeVisible();
  await page.keyboard.press("Escape");
  // It stands in the record too; what was taken away comes back.
  await open(page, `/records/${demoId(8, 3)}`);
  await expect(section.getByText("Frost round the rim", { exact: false })).toBeVisible();
  await section.getByRole("button", { name: /^Delete/ }).click();
  await expect(section.getByText("No notes yet.")).toBeVisible();
  expect((await page.request.get(src ?? "")).status()).toBe(404);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(section.getByText("Frost round the rim", { exact: false })).toBeVisible();
  // A picture that still says where it was taken is not let in by any way.
  const raw = await page.request.post(`/api/workshops/${workshop}/notes`, {
    data: {
      id: crypto.randomUUID(),
      kind: "batch",
      of: demoId(8, 3),
      personId: null,
      text: "",
      pictures: [{ id: crypto.randomUUID(), jpeg: taken.subarray(0, 90_000).toString("base64") }],
    },
  });
  expect(raw.status()).toBe(400);
  expect(((await raw.json()) as { error: { message: string } }).error.message).toContain("where it was taken");
});

test("a color is kept for its wax and scent, offered where it suits, and told where its dye stands", async ({ page }) => {
  await open(page, `/formulas/${demoId(6, 1)}`);
  const colors = page.getByRole("region", { name: "Colors" });
  await page.getByRole("button", { name: "+ a dye" }).click();
  await page.getByLabel(/^Dose/).last().fill("3");
  const dye = await page.getByRole("combobox", { name: /^Dye/ }).last().inputValue();
  await colors.getByRole("button", { name: "Save color" }).click();
  await expect(colors.getByText("Give the color a name.")).toBeVisible();
  await colors.getByLabel("Save this color as").fill("Wet slate");
  await colors.getByRole("button", { name: "Save color" }).click();
  await expect(colors.getByRole("listitem").filter({ hasText: "Wet slate" })).toContainText("tried in this wax with this scent");
  // Another formula of the same wax and scent takes it in one press.
  await open(page, "/formulas/new");
  await choose(page, /^Wax$/, "container soy");
  await choose(page, /^Fragrance$/, "rain on slate");
  await colors.getByRole("button", { name: "Use the color Wet slate" }).click();
  await expect(page.getByRole("combobox", { name: /^Dye$/ })).toHaveValue(dye);
  await expect(page.getByLabel(/^Dose/)).toHaveValue("3");
  // For another scent it is no promise.
  await choose(page, /^Fragrance$/, "hay loft");
  await expect(colors.getByText(/colors for other waxes or scents\.$/)).toBeVisible();
  await expect(colors.getByRole("listitem").filter({ hasText: "Wet slate" })).toHaveCount(0);
  await choose(page, /^Fragrance$/, "rain on slate");
  await colors.getByRole("button", { name: "Delete the color Wet slate" }).click();
  await expect(colors.getByRole("listitem").filter({ hasText: "Wet slate" })).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(colors.getByRole("listitem").filter({ hasText: "Wet slate" })).toBeVisible();
});

test("a word of the trade is explained where it stands, from the field by a key, and found by its name", async ({ page }) => {
  await open(page, `/formulas/${demoId(6, 1)}`);
  const load = page.getByLabel("Load");
  await load.focus();
  await page.keyboard.press("F1");
  await expect(page.getByText("How much fragrance there is to the wax.", { exact: false })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByText("How much fragrance there is to the wax.", { exact: false })).toBeHidden();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Find" }).click();
  await page.keyboard.type("headsp");
  await page.getByRole("option", { name: /^headspace/ }).click();
  await expect(page).toHaveURL(/\/words#headspace$/);
  await expect(page.getByText("The room left between the wax and the rim.", { exact: false })).toBeVisible();
});
