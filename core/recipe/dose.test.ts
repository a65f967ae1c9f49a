import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { doseFromShown, doseShown, writeDose } from "./dose";

const by = fc.constantFrom("drops" as const, "pieces" as const, "percent" as const);
const unit = fc.constantFrom("g" as const, "oz" as const);

describe("a dose of dye", () => {
  it("is shown as it was typed, and kept as it was where nothing was typed", () => {
    fc.assert(
      fc.property(by, unit, fc.integer({ min: 1, max: 100_000 }), (by, unit, thousandths) => {
        const amount = thousandths / 1_000;
        expect(doseShown({ by, amount: doseFromShown(by, amount, unit) }, unit)).toBe(amount);
        expect(doseFromShown(by, doseShown({ by, amount }, unit), unit)).toBe(amount);
      }),
    );
  });

  it("is counted per kilogram where grams are weighed: 1 lb = 453.592 37 g exactly (NIST Special Publication 811, appendix B)", () => {
    expect(writeDose({ by: "drops", amount: 6 }, "oz")).toBe("6 drops per lb of");
    expect(writeDose({ by: "drops", amount: 6 }, "g")).toBe("13.228 drops per kg of");
    expect(writeDose({ by: "pieces", amount: 1 }, "oz")).toBe("1 piece per lb of");
    expect(writeDose({ by: "percent", amount: 0.2 }, "g")).toBe("0.2 %");
  });
});
