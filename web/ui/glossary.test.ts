import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { SHELF_FIELDS, STEP_TYPES } from "@hearth/core";
import { describe, expect, it } from "vitest";
import { GLOSSARY } from "./glossary";
import { LABELS, wordAt } from "./word-labels";

const WEB = new URL("..", import.meta.url).pathname;
const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((dirent) => {
    if (dirent.name === ".next" || dirent.name === "node_modules") return [];
    const path = join(folder, dirent.name);
    return dirent.isDirectory() ? sources(path) : /\.tsx$/.test(dirent.name) && !dirent.name.includes(".test.") ? [readFileSync(path, "utf8")] : [];
  });

describe("the trade's words", () => {
  it("are each explained once, in a sentence that ends", () => {
    const names = GLOSSARY.map((word) => word.name);
    expect(new Set(names).size).toBe(names.length);
    for (const { name, says } of GLOSSARY) {
      expect(says.length, name).toBeGreaterThan(30);
      expect(says, name).toMatch(/^[A-Z].*\.$/s);
    }
  });

  it("stand at labels that there are: none explains a field that was renamed", () => {
    const all = sources(WEB).join("\n");
    const fields = [...Object.values(SHELF_FIELDS).flat(), ...STEP_TYPES.flatMap((step) => step.fields)].map((field) =>
      (field.label.split(" · ")[0] as string).toLowerCase(),
    );
    for (const [word, labels] of Object.entries(LABELS)) {
      expect(
        GLOSSARY.some((item) => item.name === word),
        word,
      ).toBe(true);
      for (const label of labels) {
        const written = all.includes(`label="${label}"`) || all.includes(`"${label}"`);
        expect(written || fields.includes(label.toLowerCase()), `${word}: ${label}`).toBe(true);
        expect(wordAt(label)).toBe(word);
      }
    }
  });

  it("are found whatever unit follows the label, and not where a label only begins alike", () => {
    expect(wordAt("Load · %")).toBe("fragrance load");
    expect(wordAt("Maximum fragrance load · % of the wax")).toBe("fragrance load");
    expect(wordAt("FILL WEIGHT")).toBe("fill weight");
    expect(wordAt("Loaded by")).toBeNull();
    expect(wordAt("")).toBeNull();
  });
});
