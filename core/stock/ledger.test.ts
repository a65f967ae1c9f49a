import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Count, costOf, costPerPiece, type Draw, drawing, type Lot, ledger, wouldTake } from "./ledger";

const day = (n: number) => new Date(Date.UTC(2026, 2, 1 + n)).toISOString();
const lot = (id: string, on: number, amount: number, cost: number | null = null): Lot => ({ id, receivedAt: day(on), amount, cost });
const draw = (id: string, on: number, amount: number): Draw => ({ id, at: day(on), amount });

describe("stock by lots", () => {
  const lots = [lot("b", 5, 1_000, 3_000), lot("a", 0, 500, 1_000)];

  it("draws on what was received first, and costs what those lots cost", () => {
    const book = ledger(lots, [draw("x", 6, 300), draw("y", 7, 400)], []);
    expect(book.onHand).toBe(800);
    expect(book.taken.get("x")).toEqual([{ lotId: "a", amount: 300, cost: 600 }]);
    // The last 200 of the first lot at 2 a piece, 200 of the second at 3.
    expect(book.taken.get("y")).toEqual([
      { lotId: "a", amount: 200, cost: 400 },
      { lotId: "b", amount: 200, cost: 600 },
    ]);
    expect(book.left).toEqual([{ lotId: "b", amount: 800, cost: 2_400 }]);
  });

  it("is set anew by a count, what is missing having come from the oldest lot", () => {
    const counted: Count[] = [{ at: day(7), amount: 900 }];
    const book = ledger(lots, [draw("x", 6, 300), draw("y", 8, 100)], counted);
    expect(book.onHand).toBe(800);
    // 1500 received, 900 there: the next 100 lie wholly in the second lot.
    expect(book.taken.get("y")).toEqual([{ lotId: "b", amount: 100, cost: 300 }]);
    // A draw before the count that is put right later does not move what was counted.
    expect(ledger(lots, [draw("x", 6, 50), draw("y", 8, 100)], counted).onHand).toBe(800);
    // More found than ever received has no lot and no cost.
    expect(ledger(lots, [draw("y", 8, 200)], [{ at: day(7), amount: 1_600 }]).taken.get("y")).toEqual([
      { lotId: "a", amount: 100, cost: 200 },
      { lotId: null, amount: 100, cost: null },
    ]);
  });

  it("says what no lot covers, and lets a lot written down afterwards cover it", () => {
    const short = ledger([], [draw("x", 1, 300)], []);
    expect(short).toMatchObject({ onHand: -300, left: [] });
    expect(costOf(short.taken.get("x") ?? [])).toEqual({ cost: 0, unknown: 300 });
    expect(ledger([lot("late", 2, 1_000, 500)], [draw("x", 1, 300)], []).taken.get("x")).toEqual([{ lotId: "late", amount: 300, cost: 150 }]);
  });

  it("loses nothing: what was taken and what is left are what was received, in weight and in money", () => {
    const amounts = fc.array(fc.tuple(fc.integer({ min: 1, max: 5_000_000 }), fc.integer({ min: 0, max: 90_000 })), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(amounts, fc.array(fc.integer({ min: 1, max: 900_000 }), { maxLength: 12 }), (received, drawn) => {
        const all = received.map(([amount, cost], index) => lot(`l${index}`, index, amount, cost));
        const sum = (list: { amount: number; cost: number | null; lotId: string | null }[]) => list.filter((item) => item.lotId !== null);
        const book = ledger(
          all,
          drawn.map((amount, index) => draw(`d${index}`, 20 + index, amount)),
          [],
        );
        const pieces = [...sum([...book.taken.values()].flat()), ...book.left];
        expect(pieces.reduce((total, item) => total + item.amount, 0)).toBe(all.reduce((total, lot) => total + lot.amount, 0));
        expect(pieces.reduce((total, item) => total + (item.cost ?? 0), 0)).toBeCloseTo(
          all.reduce((total, lot) => total + (lot.cost ?? 0), 0),
          4,
        );
        expect(book.onHand).toBe(all.reduce((total, lot) => total + lot.amount, 0) - drawn.reduce((total, value) => total + value, 0));
      }),
    );
  });

  it("tells beforehand what a plan would take and cost, and what it would lack", () => {
    const { left } = ledger(lots, [draw("x", 6, 400)], []);
    expect(wouldTake(left, 300)).toEqual([
      { lotId: "a", amount: 100, cost: 200 },
      { lotId: "b", amount: 200, cost: 600 },
    ]);
    expect(wouldTake(left, 1_200).at(-1)).toEqual({ lotId: null, amount: 100, cost: null });
  });

  it("shares a pot's cost over its jars by weight, spare included, each with its own vessel", () => {
    const jars = costPerPiece(
      [1_050],
      [
        { key: "large", fillsMg: [200_000], count: 3, pieceCost: 90 },
        { key: "small", fillsMg: [50_000], count: 2, pieceCost: 25 },
      ],
    );
    expect(jars).toEqual([
      { key: "large", cost: 390 },
      { key: "small", cost: 100 },
    ]);
    expect(3 * (390 - 90) + 2 * (100 - 25)).toBe(1_050);
    // A count of none costs nothing that is no number.
    expect(costPerPiece([1_050], [{ key: "none", fillsMg: [200_000], count: 0, pieceCost: 9 }])).toEqual([{ key: "none", cost: 9 }]);
  });

  it("counts the pots that filled a jar, by what they poured into it: all costs are borne, and no pot's by what it did not fill", () => {
    // A cheap pot for the plain jar, a dear one for the scented: 1.00 and 6.00, where all together would be 3.50.
    const two = costPerPiece(
      [1_000, 6_000],
      [
        { key: "plain", fillsMg: [200_000, 0], count: 10, pieceCost: 5 },
        { key: "scented", fillsMg: [0, 200_000], count: 10, pieceCost: 5 },
      ],
    );
    expect(two.map((pieceCost) => pieceCost.cost)).toEqual([105, 605]);
    const amount = fc.integer({ min: 0, max: 300_000 });
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 100_000 }), { minLength: 1, maxLength: 3 }),
        fc.array(fc.record({ fills: fc.array(amount, { minLength: 3, maxLength: 3 }), count: fc.integer({ min: 1, max: 20 }) }), {
          minLength: 1,
          maxLength: 4,
        }),
        (potCosts, made) => {
          const products = made.map((item, index) => ({ key: String(index), fillsMg: item.fills.slice(0, potCosts.length), count: item.count, pieceCost: 0 }));
          fc.pre(products.some((product) => product.fillsMg.some((mg) => mg > 0)));
          const borne = costPerPiece(potCosts, products).reduce((sum, pieceCost, at) => sum + pieceCost.cost * (products[at]?.count ?? 0), 0);
          expect(borne).toBeCloseTo(
            potCosts.reduce((sum, value) => sum + value, 0),
            4,
          );
        },
      ),
    );
  });

  it("lets two that share a lot take it in order", () => {
    const take = drawing([
      { lotId: "old", amount: 10, cost: 50 },
      { lotId: "new", amount: 10, cost: 300 },
    ]);
    expect([take(10), take(10), take(1)].map((item) => costOf(item))).toEqual([
      { cost: 50, unknown: 0 },
      { cost: 300, unknown: 0 },
      { cost: 0, unknown: 1 },
    ]);
  });
});
