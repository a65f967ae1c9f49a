import { linesNow, ORDER, type OrderBody, type OrderEvent, type OrderPlan, type Sellable } from "@hearth/core";
import fc from "fast-check";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { orderState, piecesShort } from "./order-model";

const [RAIN, SET] = [v7(), v7()];
const [JAR, TIN] = [v7(), v7()];
const PACKING = v7();
const thing = (id: string, name: string, contents: Sellable["contents"]): Sellable => ({
  id,
  name,
  kind: contents.length > 1 ? "set" : "product",
  contents,
  packaging: { boxId: null, parts: [] } as unknown as Sellable["packaging"],
  price: 1_000,
});
const SELLABLES = [
  thing(RAIN, "Rain", [{ productId: JAR, name: "jar", count: 1 }]),
  thing(SET, "Rain and fern", [
    { productId: JAR, name: "jar", count: 2 },
    { productId: TIN, name: "tin", count: 1 },
  ]),
];
const DAY = "2026-03-14";

/** An order of so many of each, to which entries are added a minute apart. */
function anOrder(what: OrderPlan["what"], rain: number, set: number) {
  const plan: OrderPlan = {
    format: 1,
    what,
    name: "Fern market",
    whom: "",
    wantedOn: DAY,
    lines: [
      { sellable: RAIN, name: "Rain", packs: rain, price: 1_000 },
      { sellable: SET, name: "Rain and fern", packs: set, price: 2_500 },
    ],
  };
  const events: OrderEvent[] = [];
  const add = (body: OrderBody) => {
    const at = new Date(Date.UTC(2026, 2, 2, 8, events.length)).toISOString();
    events.push({ id: v7(), happenedAt: at, arrivedAt: at, personId: null, instrumentId: null, corrects: null, ...body } as OrderEvent);
  };
  add({ kind: "started", payload: { plan } });
  return { plan, add, state: () => structuredClone(ORDER.of(events).state) };
}

describe("what an order asks of its maker", () => {
  const packs = fc.integer({ min: 0, max: 9 });
  it("shares what is asked between what can go out and what is short, whatever went out since the stock was read", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("order" as const, "market" as const),
        packs,
        packs,
        packs,
        packs,
        packs,
        packs,
        (what, rain, set, packed, loose, out, planned) => {
          const { plan, add, state } = anOrder(what, rain, set);
          const there = { [RAIN]: { packed, loose }, [SET]: { packed: loose, loose: 0 } };
          const supplies = { sellables: SELLABLES, there, planned: { [JAR]: planned, [TIN]: planned }, read: state() };
          const stateNow = (today = DAY) => orderState(plan, state(), linesNow(state(), what), supplies, today);
          const taken = Math.min(out, packed + loose);
          if (taken > 0)
            add({
              kind: "shipped",
              payload: { finishedGoods: [{ packRun: PACKING, sellable: RAIN, name: "Rain", price: 1_000, pouredAt: state().startedAt, packs: taken }] },
            });
          const now = stateNow();
          expect(now.stock[RAIN]).toBe(packed + loose - taken);
          for (const line of linesNow(state(), what)) {
            const going = now.going.find((item) => item.line.sellable === line.sellable)?.packs ?? 0;
            const short = now.shortage.find((item) => item.line.sellable === line.sellable);
            expect(going + (short?.short ?? 0)).toBe(line.shortage);
            expect(going).toBeLessThanOrEqual(now.stock[line.sellable] ?? 0);
            if (short) expect(short.planned).toBe(line.sellable === RAIN ? planned : Math.floor(planned / 2));
          }
          expect(now.out).toBe(taken);
          expect(now.next).toBe(now.going.length > 0 ? "take" : taken > 0 ? "count" : null);
          // Of one product there is one line on the plan, for all things that hold it.
          const shortOf = (id: string) => now.shortage.find((line) => line.line.sellable === id)?.short ?? 0;
          expect(piecesShort(SELLABLES, now.shortage, SET)).toEqual([
            { productId: JAR, count: shortOf(RAIN) + 2 * shortOf(SET) },
            { productId: TIN, count: shortOf(SET) },
          ]);
          // A market day that is over is short of nothing; an order still is.
          expect(stateNow("2026-03-15").shortage.length).toBe(what === "market" ? 0 : now.shortage.length);
          if (taken > 0) {
            add({ kind: "packsResolved", payload: { sellable: RAIN, name: "Rain", packs: taken, to: "sold", each: null, why: "" } });
            expect(stateNow().money).toBe(taken * 1_000);
            add({ kind: "closed", payload: {} });
            expect(stateNow()).toMatchObject({ isClosed: true, next: null, out: 0 });
          }
        },
      ),
      { numRuns: 80 },
    );
  });
});
