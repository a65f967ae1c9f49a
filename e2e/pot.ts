import { expect, type Page } from "@playwright/test";
import { demoId } from "../demo/workshop";

/** The demo's pot that has been weighed and waits for heat. */
export const POT = `/bench/${demoId(8, 6)}`;

/** Returns the weight of a component as the plan shows it, to be typed at the pot. */
export const plannedWeight = async (page: Page, of: string): Promise<string> =>
  /^[\d.]+/.exec(await page.getByRole("button", { name: `${of}: show the calculation` }).innerText())?.[0] ?? "";

/** Types a reading at the pot. */
export async function read(page: Page, shown: string): Promise<void> {
  await page.getByLabel("Thermometer shows").fill(shown);
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Thermometer shows")).toHaveValue("");
}
