import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boxesFor, fitInBox, packedContainerOf } from "./box";
import { packagingDraw, packagingPerPiece, packsFrom, takeFirst } from "./pack";
import { packContents } from "./pack-schema";
import { dayWants, marginOfSold, toPour } from "./sales";
import { readOrderRows } from "./sheet";

const box = (length: number, width: number, height: number) => ({ lengthUm: length * 1_000, widthUm: width * 1_000, heightUm: height * 1_000 });
const tealights = (count: number) => ({ name: "tealight", widthUm: 39_000, heightUm: 17_000, count });

describe("a box by its inner size", () => {
  it("holds six tealights of 39 mm in 3 × 2 with what is over said on each side", () => {
    expect(fitInBox([tealights(6)], box(120, 81, 19))).toMatchObject({ verdict: "fits", clearance: { length: 3_000, width: 3_000, height: 2_000 }, layers: 1 });
    // Turned, or in two layers, where that is how they go in.
    expect(fitInBox([tealights(6)], box(81, 120, 19))?.verdict).toBe("fits");
    expect(fitInBox([tealights(6)], box(120, 42, 37))).toMatchObject({ verdict: "fits", layers: 2 });
  });

  it("says when they rattle, are forced, or do not go in", () => {
    expect(fitInBox([tealights(6)], box(130, 81, 19))?.verdict).toBe("loose");
    expect(fitInBox([tealights(6)], box(117.5, 79, 19))?.verdict).toBe("tight");
    expect(fitInBox([tealights(6)], box(116, 79, 19))).toMatchObject({ verdict: "too small", clearance: { length: -1_000 } });
    expect(fitInBox([tealights(0)], box(100, 100, 100))).toBeNull();
  });

  it("never lays two containers on one another, and what it says goes in lies within the walls", () => {
    const container = fc.record({
      name: fc.constantFrom("a", "b"),
      widthUm: fc.integer({ min: 20_000, max: 90_000 }),
      heightUm: fc.integer({ min: 10_000, max: 90_000 }),
      count: fc.integer({ min: 1, max: 7 }),
    });
    fc.assert(
      fc.property(
        fc.array(container, { minLength: 1, maxLength: 2 }),
        fc.integer({ min: 40, max: 300 }),
        fc.integer({ min: 40, max: 300 }),
        (containers, length, width) => {
          const inner = box(length, width, 200);
          const fit = fitInBox(containers, inner);
          if (!fit) throw new Error("nothing was packed");
          expect(fit.stood).toHaveLength(containers.reduce((sum, item) => sum + item.count, 0));
          fit.stood.forEach((item, index) => {
            if (fit.verdict !== "too small") {
              expect(item.xUm + item.widthUm).toBeLessThanOrEqual(inner.lengthUm);
              expect(item.yUm + item.widthUm).toBeLessThanOrEqual(inner.widthUm);
            }
            for (const other of fit.stood.slice(index + 1)) {
              const apart =
                item.xUm + item.widthUm <= other.xUm ||
                other.xUm + other.widthUm <= item.xUm ||
                item.yUm + item.widthUm <= other.yUm ||
                other.yUm + other.widthUm <= item.yUm;
              expect(apart || item.layer !== other.layer).toBe(true);
            }
          });
        },
      ),
      { numRuns: 80 },
    );
  });

  it("is chosen so that it fits with the least to rattle; a vessel that nobody measured outside gets a wall", () => {
    const boxes = [box(140, 100, 19), box(120, 81, 19), box(100, 70, 19)].map((item, n) => ({ ...item, n }));
    expect(boxesFor([tealights(6)], boxes).map((box) => [box.box.n, box.fit.verdict])).toEqual([
      [1, "fits"],
      [0, "loose"],
      [2, "too small"],
    ]);
    const jar = { name: "jar", innerTopUm: 78_000, innerBottomUm: 72_000, heightUm: 60_000 };
    expect(packedContainerOf(jar, 1)).toMatchObject({ widthUm: 84_000, heightUm: 63_000, guessed: true });
    expect(packedContainerOf({ ...jar, outerUm: 82_000, outerHeightUm: 71_000 }, 2)).toMatchObject({
      widthUm: 82_000,
      heightUm: 71_000,
      count: 2,
      guessed: false,
    });
    expect(packedContainerOf({ ...jar, container: "mold" }, 1)).toMatchObject({ widthUm: 78_000, guessed: false });
  });
});

const id = (n: number) => `0190c0de-0000-7000-8000-${String(n).padStart(12, "0")}`;

describe("packs", () => {
  it("take their box and parts as often as there are packs, and a piece its share of them", () => {
    const of = {
      boxId: id(1),
      parts: [
        { id: id(2), count: 6 },
        { id: id(1), count: 1 },
      ],
    };
    expect(packagingDraw(of, 4)).toEqual([
      { id: id(1), count: 8 },
      { id: id(2), count: 24 },
    ]);
    expect(packagingPerPiece(of, 6)).toEqual([
      [id(1), 2 / 6],
      [id(2), 1],
    ]);
    expect(packagingPerPiece(null, 6)).toEqual([]);
    expect(
      packContents.safeParse([
        { productId: id(1), count: 1 },
        { productId: id(1), count: 2 },
      ]).success,
    ).toBe(false);
  });

  it("come from the lots in their order, none of them more than it holds, and what lacks is said", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 6 }), fc.integer({ min: 0, max: 40 }), (lefts, needed) => {
        const lots = lefts.map((left, n) => ({ id: String(n), left }));
        const { taken, short } = takeFirst(lots, needed);
        expect(taken.reduce((sum, item) => sum + item.count, 0) + short).toBe(needed);
        // A later lot is touched only where every earlier one is used up.
        for (const item of taken.slice(0, -1)) expect(item.count).toBe(lots[Number(item.id)]?.left);
        expect(short > 0 ? taken.every((item) => item.count === lots[Number(item.id)]?.left) : true).toBe(true);
      }),
    );
    expect(
      packsFrom(
        [
          { productId: "a", count: 2 },
          { productId: "b", count: 1 },
        ],
        new Map([
          ["a", 7],
          ["b", 9],
        ]),
      ),
    ).toBe(3);
  });
});

describe("what sold", () => {
  it("says what is left where the cost is known, and what the next day wants: more where it sold out", () => {
    expect(marginOfSold({ money: 5_000, cost: 2_000 })).toEqual({ left: 3_000, share: 0.6 });
    expect(marginOfSold({ money: 5_000, cost: null })).toBeNull();
    expect(dayWants({ markets: 0, soldOut: 0, soldThere: 0 })).toBeNull();
    expect(dayWants({ markets: 2, soldOut: 0, soldThere: 9 })).toBe(5);
    expect(dayWants({ markets: 2, soldOut: 2, soldThere: 16 })).toBe(10);
  });

  it("says what to pour: what is ordered and the next day, less what is there or planned", () => {
    const sold = { markets: 2, soldOut: 2, soldThere: 16 };
    expect(toPour(sold, { packed: 3, loose: 2, planned: 1, ordered: 4, days: 1 })).toMatchObject({ packs: 8 });
    expect(toPour(sold, { packed: 30, loose: 0, planned: 0, ordered: 4, days: 1 }).packs).toBe(0);
    expect(toPour({ markets: 0, soldOut: 0, soldThere: 0 }, { packed: 0, loose: 0, planned: 0, ordered: 2, days: 1 })).toEqual({
      packs: 2,
      why: "2 ordered; 0 there or planned",
    });
  });
});

describe("orders out of a shop's file", () => {
  const things = [{ id: id(1), name: "Cup of rain", price: 350 }];
  const day = (text: string) => (/^\d{4}-\d\d-\d\d$/.test(text) ? text : null);
  it("are put together line by line, whatever the shop calls its columns", () => {
    const read = readOrderRows(
      ["Customer", "Ship by", "SKU", "Qty", "E-mail"],
      [
        ["Ada's café", "2026-12-01", "cup of RAIN", "4", "by the door"],
        ["", "", "", "", ""],
        ["ada's café", "2026-12-01", "Cup of rain", "2", ""],
        ["Ada's café", "", "Cup of rain", "1", ""],
      ],
      things,
      day,
    );
    expect(read.faults).toEqual([]);
    expect(read.orders).toMatchObject([
      { name: "Ada's café", wantedOn: "2026-12-01", whom: "by the door", lines: [{ sellable: id(1), name: "Cup of rain", packs: 6, price: 350 }] },
      { wantedOn: null, lines: [{ packs: 1 }] },
    ]);
  });

  it("are told row by row what is wrong", () => {
    const faults = (row: string[]) => readOrderRows(["order", "date", "item", "packs"], [row], things, day).faults;
    expect(faults(["A", "2026-12-01", "Cup of snow", "1"])[0]).toEqual({ row: 2, fault: "“Cup of snow” is not sold here: no product or set is called so." });
    expect(faults(["A", "soon", "Cup of rain", "1"])[0]?.fault).toMatch(/no day/);
    expect(faults(["A", "", "Cup of rain", "1.5"])[0]?.fault).toMatch(/no number of packs/);
    expect(faults(["", "", "Cup of rain", "1"])[0]?.fault).toMatch(/Name the order/);
    expect(readOrderRows(["who", "what"], [], things, day).faults[0]?.fault).toMatch(/heads must name/);
  });
});
