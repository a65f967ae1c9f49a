import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { UNREADABLE } from "../log/events/unreadable";
import { anId } from "../testing/batch";
import { CHECKED_ORDER } from "./checked";
import { ORDER, type OrderBody, type OrderEvent } from "./order";
import type { OrderPlan } from "./plan";
import { linesNow, outOf, stillOut, WENT } from "./state";

const RAIN = anId();
const FERN = anId();
const at = (minute: number) => new Date(Date.UTC(2026, 2, 2, 8, minute)).toISOString();
const PLAN: OrderPlan = {
  format: 1,
  what: "market",
  name: "Fern market",
  whom: "",
  wantedOn: "2026-03-14",
  lines: [{ sellable: RAIN, name: "Rain", packs: 8, price: 1_000 }],
};

/** A market day to which entries are added, each a minute later. */
function aMarket() {
  const events: OrderEvent[] = [];
  const draft = (body: OrderBody, over: Partial<OrderEvent> = {}): OrderEvent =>
    ({
      id: anId(),
      happenedAt: at(events.length),
      arrivedAt: at(events.length),
      personId: null,
      instrumentId: null,
      corrects: null,
      ...body,
      ...over,
    }) as OrderEvent;
  const now = () => ORDER.of(events);
  const asked = (body: OrderBody, over: Partial<OrderEvent> = {}) => {
    const event = draft(body, over);
    const { plan, state, entries } = now();
    const target = entries.find((entry) => entry.event.id === over.corrects) ?? null;
    return ORDER.refusal({ plan, state }, event, target as never) ?? (over.corrects ? ORDER.conflict(events, event) : null);
  };
  const add = (body: OrderBody, over: Partial<OrderEvent> = {}) => {
    const event = draft(body, over);
    events.push(event);
    return event.id;
  };
  add({ kind: "started", payload: { plan: PLAN } });
  const packRuns = { old: anId(), fresh: anId() };
  const takeOut = (old: number, fresh: number) =>
    add({
      kind: "shipped",
      payload: {
        finishedGoods: [
          { packRun: packRuns.fresh, sellable: RAIN, name: "Rain", price: 1_000, pouredAt: at(20), packs: fresh },
          { packRun: packRuns.old, sellable: RAIN, name: "Rain", price: 1_000, pouredAt: at(10), packs: old },
        ],
      },
    });
  const went = (packs: number, to: (typeof WENT)[number], each: number | null = null): OrderBody => ({
    kind: "packsResolved",
    payload: { sellable: RAIN, name: "Rain", packs, to, each, why: "" },
  });
  return { events, now, asked, add, takeOut, went, packRuns };
}

describe("a market day", () => {
  it("sells what was poured first, and what comes back is of the last", () => {
    const { now, add, takeOut, went, packRuns } = aMarket();
    takeOut(3, 5);
    add(went(4, "sold"));
    add(went(2, "back"));
    const finishedGoods = Object.fromEntries(now().state.finishedGoods.map((stocked) => [stocked.packRun, stocked]));
    expect(finishedGoods[packRuns.old]).toMatchObject({ out: 3, sold: 3, back: 0 });
    expect(finishedGoods[packRuns.fresh]).toMatchObject({ out: 5, sold: 1, back: 2, money: 1_000 });
    expect(linesNow(now().state)).toMatchObject([{ asked: 8, out: 8, sold: 4, back: 2, there: 2, money: 4_000, shortage: 2 }]);
  });

  it("counts no more than is out, is not closed while something is, and says what lacks", () => {
    const { asked, add, takeOut, went, now } = aMarket();
    expect(asked(went(1, "sold"))?.message).toBe("No Rain is out.");
    takeOut(2, 0 + 1);
    expect(asked(went(4, "sold"))?.message).toBe("3 × Rain are out: no more can be counted.");
    expect(asked({ kind: "closed", payload: {} })?.message).toMatch(/3 packs are still out/);
    add(went(2, "sold", 800));
    add(went(1, "given"));
    expect(asked({ kind: "closed", payload: {} })).toBeNull();
    add({ kind: "closed", payload: {} });
    expect(asked(went(1, "sold"))?.message).toMatch(/closed/);
    expect(linesNow(now().state)).toMatchObject([{ sold: 2, given: 1, money: 1_600, there: 0, shortage: 5 }]);
  });

  it("takes a correction of what was counted, up to what was out, and an undo", () => {
    const { asked, add, takeOut, went, now } = aMarket();
    takeOut(2, 2);
    const first = add(went(3, "sold"));
    expect(asked(went(4, "sold"), { corrects: first })).toBeNull();
    expect(asked(went(5, "sold"), { corrects: first })?.message).toMatch(/4 × Rain are out/);
    const second = add(went(1, "sold"), { corrects: first });
    expect(outOf(now().state, RAIN)).toBe(3);
    add({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: second });
    expect(outOf(now().state, RAIN)).toBe(4);
  });

  it("asks for something else where that is said, with a thing that went out unasked beside it", () => {
    const { add, now, takeOut } = aMarket();
    takeOut(1, 0 + 1);
    add({
      kind: "asked",
      payload: { name: "Moss market", whom: "by the well", wantedOn: null, lines: [{ sellable: FERN, name: "Fern", packs: 3, price: null }] },
    });
    expect(now().state).toMatchObject({ name: "Moss market", wantedOn: null });
    expect(linesNow(now().state)).toMatchObject([
      { name: "Fern", asked: 3, out: 0, shortage: 3 },
      { name: "Rain", asked: 0, out: 2, shortage: 0 },
    ]);
  });

  it("always adds up: what is out is sold, given, back or still there, whatever is entered in whatever order it arrives", () => {
    fc.assert(
      fc.property(fc.array(fc.record({ packs: fc.integer({ min: 1, max: 6 }), to: fc.constantFrom(...WENT, "out") }), { maxLength: 20 }), (moves) => {
        const { events, now, asked, add, takeOut, went } = aMarket();
        for (const { packs, to } of moves) {
          if (to === "out") takeOut(packs, 1);
          else if (!asked(went(packs, to as "sold"))) add(went(packs, to as "sold"));
        }
        const { state } = now();
        for (const stocked of state.finishedGoods) {
          expect(stillOut(stocked)).toBeGreaterThanOrEqual(0);
          expect(stocked.money).toBe((stocked.sold + stocked.second) * 1_000);
        }
        expect(state.unplaced).toEqual({});
        expect(ORDER.of([...events].reverse()).state.finishedGoods).toEqual(state.finishedGoods);
      }),
      { numRuns: 60 },
    );
  });
});

describe("what its entries say", () => {
  const SAY = { g: String, t: String, len: String, tShown: String, tDifference: String, range: String, temperature: "C" } as never;
  it("is told as one would say it, and stands in its columns", () => {
    const { events, add, takeOut, went, now } = aMarket();
    takeOut(2, 1);
    add({ ...went(2, "second"), payload: { ...(went(2, "second") as { payload: object }).payload, why: "lid dented" } } as OrderBody);
    add({ kind: "note", payload: { text: "rain from noon" } });
    const { plan } = now();
    const description = events.map((event) => ORDER.tell(event, plan, SAY, ""));
    expect(description.map((item) => [item.what, item.figure])).toEqual([
      ["market day planned", "Fern market"],
      ["went out", "1 × Rain, 2 × Rain"],
      ["2 × Rain sold as seconds", "lid dented"],
      ["“rain from noon”", ""],
    ]);
    const columns = events.map((event) => ORDER.eventTypes.get(event.kind)?.columns(event.payload, plan));
    expect(columns.map((column) => column?.what)).toEqual([
      "Fern market: 8 × Rain",
      "1 × Rain, 2 × Rain",
      "2 × Rain sold as seconds; lid dented",
      "rain from noon",
    ]);
  });

  it("is read as it was written, and nothing that is no entry of an order is", () => {
    const { events } = aMarket();
    for (const event of events) expect(CHECKED_ORDER.read({ ...event, v: ORDER.versionOf(event.kind) })).toEqual(event);
    const read = (kind: string, payload: unknown) => CHECKED_ORDER.body.safeParse({ kind, payload }).success;
    expect(read("asked", { name: "", whom: "", wantedOn: null, lines: [] })).toBe(false);
    expect(read("asked", { name: "Fern", whom: "", wantedOn: "14 March", lines: [] })).toBe(false);
    const twice = { sellable: RAIN, name: "Rain", packs: 1, price: null };
    expect(read("asked", { name: "Fern", whom: "", wantedOn: null, lines: [twice, twice] })).toBe(false);
    expect(read("asked", { name: "Fern", whom: "", wantedOn: null, lines: [twice] })).toBe(true);
    expect(read("shipped", { finishedGoods: [] })).toBe(false);
    expect(read("poured", {})).toBe(false);
    expect(CHECKED_ORDER.read({ ...(events[0] as OrderEvent), kind: "invented" } as never)).toMatchObject({ kind: UNREADABLE });
  });
});
