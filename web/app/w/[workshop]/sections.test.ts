import { readdirSync } from "node:fs";
import { areaOfPath } from "@hearth/core";
import { expect, it } from "vitest";
import { SECTIONS } from "./sections";

const FOLDER = new URL(".", import.meta.url).pathname;

it("every page of a workshop belongs to a part that rights are given for: one without would be the owner's alone", () => {
  const folders = readdirSync(decodeURIComponent(FOLDER), { withFileTypes: true }).flatMap((dirent) => (dirent.isDirectory() ? [dirent.name] : []));
  expect(folders.length).toBeGreaterThan(12);
  for (const folder of folders.filter((folder) => folder !== "people")) expect(areaOfPath(`/${folder}`), folder).not.toBe("people");
});

it("sections have names, paths and keys of their own", () => {
  for (const of of ["name", "path", "key"] as const) expect(new Set(SECTIONS.map((section) => section[of])).size, of).toBe(SECTIONS.length);
  for (const { path } of SECTIONS) expect(areaOfPath(path), path).not.toBe("people");
});
