import { expect, type Page } from "@playwright/test";
import { demoId } from "../demo/workshop";

/** The demo's pot that has been weighed and waits for heat. */
export const POT = `/bench/${demoId(8, 6)}`;

/** Types a reading at the pot. */
export async function read(page: Page, shown: string): Promise<void> {
  await page.getByLabel("Thermometer shows").fill(shown);
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Thermometer shows")).toHaveValue("");
}
