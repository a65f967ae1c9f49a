import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Page } from "@playwright/test";

export const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
export const ALL = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];

interface Axe {
  run(options: { runOnly: string[]; resultTypes: string[]; preload: boolean }): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }>;
}
/** What axe-core finds in the page as it stands, with rules of these tags. */
export const finds = (page: Page, runOnly: string[]): Promise<string[]> =>
  page.evaluate(async (tags) => {
    // Only what is wrong is gathered; the rules that read style sheets from afar are none of these.
    const { violations } = await (window as unknown as { axe: Axe }).axe.run({ runOnly: tags, resultTypes: ["violations"], preload: false });
    return violations.map((violation) => `${violation.id}: ${violation.nodes[0]?.html.slice(0, 160)}`);
  }, runOnly);
