import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cubicMmOf } from "../units/density";
import { estimateVessel, parseVesselMeasure } from "./quick-vessel";
import { levelFor } from "./section";

const read = (text: string, unit: "g" | "oz" = "g") => {
  const parsed = parseVesselMeasure(text, unit);
  return parsed.ok ? parsed.value : parsed.code;
};

describe("a vessel that was never measured", () => {
  it("is known by the weight of its water, or by the volume that it is sold as", () => {
    expect(read("200")).toEqual({ is: "water", waterMg: 200_000 });
    expect(read("8 oz", "oz")).toEqual({ is: "water", waterMg: 226_796 });
    expect(read("20 cl")).toEqual({ is: "nominal", ml: 200 });
    // NIST Special Publication 811, appendix B (from memory): 1 US fl oz = 29.573 53 ml.
    expect(read("8 fl oz", "oz")).toMatchObject({ is: "nominal", ml: expect.closeTo(236.588, 2) });
    expect(read("some")).toBe("not-understood");
  });

  it("takes 0.73 to 0.75 g a nominal milliliter: 20 cl about 150 g, 30 cl about 220 g (common practice, no source)", () => {
    expect(estimateVessel({ is: "nominal", ml: 200 }).fillMg / 1_000).toBeCloseTo(148, 0);
    expect(estimateVessel({ is: "nominal", ml: 300 }).fillMg / 1_000).toBeCloseTo(222, 0);
  });

  it("is drawn so that its wax stands at its fill line, whatever it holds", () => {
    fc.assert(
      fc.property(fc.integer({ min: 20_000, max: 2_000_000 }), fc.boolean(), (mg, isWater) => {
        const vessel = estimateVessel(isWater ? { is: "water", waterMg: mg } : { is: "nominal", ml: mg / 1_000 });
        const inner = { top: vessel.diameterUm / 1_000, bottom: vessel.diameterUm / 1_000, height: vessel.heightUm / 1_000 };
        const level = levelFor(inner, cubicMmOf(vessel.fillMg, 900_000));
        expect(level).toBeCloseTo(inner.height - vessel.headspaceUm / 1_000, 0);
      }),
    );
  });
});
