import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import retired from "./lint/retired-words.json" with { type: "json" };
import { ROOT } from "./root";

/** A retired word as a regular expression, what to use instead, and paths that may still name it because something published or stored does. */
interface RetiredWord {
  word: string;
  use: string;
  allow?: string;
}
const RETIRED: readonly RetiredWord[] = retired;

/** Generated, stored and historical files keep the words of their time. */
const EXCLUDED = /node_modules|\.next|\.hearth|\.git\/|migrations|fixtures|screenshots|CHANGELOG|docs\/decisions|retired-words|vocabulary\.test|package-lock/;

const files = ["core", "web", "demo", "e2e", "tools", "docs", "README.md", "CONTRIBUTING.md", "hearth"].flatMap((top) =>
  /^(README|CONTRIBUTING|hearth)/.test(top)
    ? [top]
    : readdirSync(join(ROOT, top), { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile() && /\.(ts|tsx|css|json|md|sh)$/.test(entry.name))
        .map((entry) => join(entry.parentPath, entry.name).slice(ROOT.length))
        .filter((file) => !EXCLUDED.test(file)),
);

it("no file name, identifier, comment or document uses a retired word", () => {
  expect(files.length).toBeGreaterThan(600);
  const found: string[] = [];
  for (const file of files) {
    const lines = [file, ...readFileSync(join(ROOT, file), "utf8").split("\n")];
    for (const { word, use, allow } of RETIRED) {
      if (allow && new RegExp(allow).test(file)) continue;
      const retiredWord = new RegExp(word);
      for (const [index, line] of lines.entries()) {
        const match = retiredWord.exec(line);
        if (match) found.push(`${file}:${index} “${match[0]}”: use ${use}`);
      }
    }
  }
  expect(found).toEqual([]);
});

it("every retired word is a valid pattern with a replacement, and every exception names a file", () => {
  for (const { word, use, allow } of RETIRED) {
    expect(() => new RegExp(word)).not.toThrow();
    expect(use).not.toBe("");
    if (allow)
      for (const path of allow.split("|"))
        expect(
          files.some((file) => new RegExp(path).test(file)),
          path,
        ).toBe(true);
  }
});
