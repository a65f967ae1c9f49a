import { readdirSync } from "node:fs";
import { ACTS } from "@hearth/core";
import { expect, it } from "vitest";

it("every kind of act has its view at the bench, and no view is of no act", () => {
  const views = readdirSync(new URL(".", import.meta.url))
    .filter((file) => file.endsWith(".tsx"))
    .map((file) => file.replace(".tsx", ""));
  expect(views.sort()).toEqual(ACTS.map((act) => act.kind).sort());
});
