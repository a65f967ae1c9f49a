import { readFileSync } from "node:fs";
import { expect, it } from "vitest";

const css = readFileSync(new URL("../app/look.css", import.meta.url), "utf8");
const colorsAfter = (start: string): string[] => {
  const from = css.indexOf(start);
  expect(from, start).toBeGreaterThan(0);
  return (css.slice(from, css.indexOf("}", from)).match(/--color-[\w-]+: #[0-9a-f]+/g) ?? []).sort();
};

it("dark mode has the same colors whether it was chosen or the device asks for it", () => {
  const chosen = colorsAfter('[data-light="evening"] {\n  --color');
  expect(chosen.length).toBeGreaterThan(10);
  expect(colorsAfter("html:not([data-light]) {")).toEqual(chosen);
});
