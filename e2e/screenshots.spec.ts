import { WORKSHOP } from "../demo/workshop";
import { SHOTS } from "../tools/shots";
import { expect, listens, testInProfile } from "./support";

// A change of looks is always meant: `./hearth shots` takes the pictures anew, and their difference is seen in the commit.
// They are of the demo itself, which no other test works in.
for (const shot of SHOTS) {
  testInProfile(`${shot.name} looks as its picture in the documents`, async ({ page }) => {
    await page.setViewportSize(shot.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 });
    await page.goto(`/w/${WORKSHOP.id}${shot.path === "/" ? "" : shot.path}`);
    await listens(page);
    await shot.prepare?.(page);
    await page.evaluate(() => document.fonts.ready);
    // Letters are drawn a little differently from machine to machine; what moves, wraps or is gone changes far more.
    await expect(page).toHaveScreenshot(`${shot.name}.png`, { maxDiffPixelRatio: 0.02, threshold: 0.3 });
  });
}
