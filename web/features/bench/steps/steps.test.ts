import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { STEP_TYPES } from "@hearth/core";
import { expect, it } from "vitest";

const ROOT = new URL("../../../../", import.meta.url).pathname;
const NAMES = STEP_TYPES.map((step) => step.kind);

/** Where the steps of a process are worked with; what only looks alike (a set of products) stands elsewhere. */
const FOLDERS = [
  ...["batch", "day", "diagnosis", "forecast", "heat", "process", "recipe", "planning", "stock"].map((folder) => join("core", folder)),
  ...["data", "log", "ui", join("features", "bench"), join("features", "formulas"), join("features", "plan"), join("features", "records")].map((folder) =>
    join("web", folder),
  ),
];

const sourcesIn = (folder: string): string[] =>
  readdirSync(join(ROOT, folder), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name) && !/\.test\./.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name));

it("every type of step has its view at the bench, and no view is of no step", () => {
  const views = readdirSync(new URL("./", import.meta.url))
    .filter((file) => file.endsWith(".tsx"))
    .map((file) => file.replace(".tsx", ""));
  expect(views.sort()).toEqual([...NAMES].sort());
});

it("no code but a step's own asks for a type of step by name: it asks what the step says of itself", () => {
  const asks = new RegExp(`kind\\s*[!=]==\\s*"(${NAMES.join("|")})"`);
  const files = FOLDERS.flatMap(sourcesIn).filter((file) => !file.includes("/steps/"));
  expect(files.length).toBeGreaterThan(150);
  expect(files.filter((file) => asks.test(readFileSync(file, "utf8")))).toEqual([]);
});
