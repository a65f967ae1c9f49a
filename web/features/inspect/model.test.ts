import { DEFECTS, PLACES } from "@hearth/core";
import { describe, expect, it } from "vitest";
import { EMPTY_HAND, flawsAt, withFlaw } from "./model";

describe("the jar in the hand", () => {
  it("keeps a flaw once for each spot, with its newest extent", () => {
    const wet = { defect: "wet_spot", place: "side" as const, wall: { side: "left" as const, height: "low" as const }, extent: "speck" as const };
    const hand = [wet, { ...wet, extent: "most" as const }, { ...wet, wall: { side: "right" as const, height: "low" as const } }].reduce(withFlaw, EMPTY_HAND);
    expect(hand.flaws.map((flaw) => [flaw.wall?.side, flaw.extent])).toEqual([
      ["left", "most"],
      ["right", "speck"],
    ]);
  });

  it("offers at every place some flaws first, and all others of a set candle too; none of burning", () => {
    for (const place of PLACES)
      for (const family of ["soy", "paraffin", "gel"])
        for (const container of ["vessel", "mold"] as const) {
          const { here, elsewhere } = flawsAt(place, { family, container });
          expect(here.length).toBeGreaterThan(0);
          const ids = [...here, ...elsewhere].map((defect) => defect.id);
          // Those of gel in gel only, those of molds in molds only.
          expect(ids.includes("cloudy_gel"), family).toBe(family === "gel");
          expect(ids.includes("leaking_mould"), container).toBe(container === "mold");
          expect(ids.includes("cracked_glass"), container).toBe(container === "vessel");
          expect(ids).toContain("rough_top");
        }
    // Each stands at one place at least, so that none has to be looked for.
    expect(DEFECTS.filter((defect) => defect.seen === "set" && defect.places.length === 0)).toEqual([]);
  });
});
