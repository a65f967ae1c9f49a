import { describe, expect, it } from "vitest";
import { aBatch, anId, at } from "../testing/batch";
import { BATCH, batchOf, refusal } from "./batch";
import { CHECKED_BATCH } from "./checked";
import { jarStatusesOf, looseOf } from "./jars";

const DAY = 1_440;
type Body = Parameters<ReturnType<typeof aBatch>["draft"]>[0];

/** A batch of ten cups, poured, inspected on the twentieth day with so many cracked, and released unless it is asked otherwise. */
function cured(cracked = 0, released = true) {
  const batch = aBatch();
  batch.pourAll();
  const product = batch.vessel;
  const put = (body: Body, minute: number) => batch.add(body, { happenedAt: at(minute), arrivedAt: at(minute) });
  const flaw = { defect: "cracked_glass", place: "side" as const, extent: "third" as const };
  if (cracked > 0) put({ kind: "jarsInspected", payload: { product, jars: cracked, flaws: [flaw] } }, 20 * DAY);
  if (cracked < 10) put({ kind: "jarsInspected", payload: { product, jars: 10 - cracked, flaws: [] } }, 20 * DAY + 1);
  put({ kind: "inspected", payload: { jars: 10 } }, 20 * DAY + 2);
  if (released) put({ kind: "released", payload: { note: "" } }, 20 * DAY + 3);
  const stateNow = () => batchOf(batch.events);
  const packed = (jars: number, over: object = {}): Body => ({
    kind: "packed",
    payload: { packRun: anId(), of: "Cups by two", product, jars, packs: Math.max(1, Math.floor(jars / 2)), parts: [], ...over },
  });
  const asked = (body: Body, minute = 21 * DAY) => refusal(stateNow(), batch.draft(body, { happenedAt: at(minute) }));
  const left = () => {
    const { plan, state } = stateNow();
    return looseOf(plan, state, product);
  };
  return { batch, product, put, packed, asked, state: stateNow, left };
}

describe("pieces that go into packs", () => {
  it("are released ones alone, no more than stand loose, and none that safety stops", () => {
    expect(cured(0, false).asked(cured().packed(1))?.message).toMatch(/no such product|not released/);
    const early = cured(0, false);
    expect(early.asked(early.packed(2))?.message).toMatch(/not released for sale yet/);
    const { asked, packed, left, put, product } = cured(3);
    expect(left()).toBe(7);
    expect(asked(packed(8))?.message).toBe("7 pieces of it may be packed now. Pack fewer, or release more.");
    expect(asked(packed(7))).toBeNull();
    put({ kind: "statusChanged", payload: { product, jars: 5, from: "rack", to: "sold", whom: "" } }, 20 * DAY + 10);
    expect(asked(packed(3))?.message).toBe("2 pieces of it may be packed now. Pack fewer, or release more.");
    expect(asked({ ...packed(1), payload: { ...packed(1).payload, product: "another" } } as Body)?.message).toMatch(/no such product/);
  });

  it("leave the rack, add up with all others, and come back when the packing is taken back", () => {
    const { batch, put, packed, product, state: stateNow, left } = cured();
    const entry = put(packed(6), 21 * DAY);
    const counts = () => {
      const { plan, state } = stateNow();
      return jarStatusesOf(plan, state, product).counts;
    };
    expect(counts()).toMatchObject({ rack: 4, packed: 6 });
    expect(Object.values(counts()).reduce((a, b) => a + b, 0)).toBe(10);
    batch.add({ kind: "withdrawn", payload: { why: "unpacked", mode: "delete" } }, { happenedAt: at(21 * DAY + 1), corrects: entry.id });
    expect(counts()).toMatchObject({ rack: 10, packed: 0 });
    expect(left()).toBe(10);
  });

  it("draw boxes and labels from the shelf once, with the batch that says them", () => {
    const [box, label] = [anId(), anId()];
    const { put, packed, state: stateNow } = cured();
    const before = stateNow().state.drawn;
    put(
      packed(4, {
        parts: [
          { id: box, count: 2 },
          { id: label, count: 4 },
        ],
      }),
      21 * DAY,
    );
    put(packed(2, { parts: [{ id: box, count: 1 }] }), 22 * DAY);
    const { drawn } = stateNow().state;
    expect(drawn[box]?.amount).toBe(3);
    expect(drawn[label]?.amount).toBe(4);
    expect(Object.keys(drawn)).toHaveLength(Object.keys(before).length + 2);
  });

  it("cannot be said by hand: what is packed is said by packing it, with what the packs are", () => {
    const { product, batch } = cured();
    const read = (body: object) => CHECKED_BATCH.body.safeParse(body).success;
    const fated = (to: string) => ({ kind: "statusChanged", payload: { product, jars: 1, from: "rack", to, whom: "" } });
    expect(read(fated("broken"))).toBe(true);
    expect(read(fated("packed"))).toBe(false);
    const payload = { packRun: anId(), of: "Cups by two", product, jars: 2, packs: 1, parts: [] };
    expect(read({ kind: "packed", payload })).toBe(true);
    expect(read({ kind: "packed", payload: { ...payload, packRun: "mine" } })).toBe(false);
    expect(read({ kind: "packed", payload: { ...payload, parts: [{ id: anId(), count: 0 }] } })).toBe(false);
    const description = BATCH.tell(batch.draft({ kind: "packed", payload } as Body), batchOf(batch.events).plan, {} as never, "");
    expect(description).toMatchObject({ what: "packed 2 × cup", figure: "1 × Cups by two" });
  });
});
