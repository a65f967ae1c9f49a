import { expect, it } from "vitest";
import families from "../recipe/families.json" with { type: "json" };
import { WAX_FAMILIES } from "./fields";

it("every family of wax has its usual and its largest load, and no other has; of a blend that follows from its waxes, of another nothing is known", () => {
  expect(Object.keys(families).sort()).toEqual(WAX_FAMILIES.filter((waxFamily) => waxFamily !== "blend" && waxFamily !== "other").sort());
  for (const [name, { usual, largest }] of Object.entries(families)) {
    expect(usual[0], name).toBeLessThanOrEqual(usual[1] as number);
    expect(usual[1], name).toBeLessThanOrEqual(largest);
  }
});
