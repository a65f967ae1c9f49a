import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Box, foldedTime, hoursOf, placed, spread } from "./heat-scale";

const HOUR = 3_600_000;
const START = Date.parse("2026-03-14T09:00:00.000Z");
const times = fc.array(fc.integer({ min: 0, max: 30 * 60 }), { minLength: 1, maxLength: 12 }).map((all) => all.map((minute) => START + minute * 60_000));
const SPAN: [number, number] = [46, 600];

describe("a folded time", () => {
  it("keeps the order of everything, stays inside the picture, and is as wide for a minute before a break as after it", () => {
    fc.assert(
      fc.property(times, (all) => {
        const { x, gaps } = foldedTime(all, SPAN);
        const sorted = [...new Set(all)].sort((a, b) => a - b);
        for (const [index, value] of sorted.entries()) {
          expect(x(value)).toBeGreaterThanOrEqual(SPAN[0] - 1e-6);
          expect(x(value)).toBeLessThanOrEqual(SPAN[1] + 1e-6);
          const before = sorted[index - 1];
          if (before !== undefined) expect(x(value)).toBeGreaterThan(x(before));
        }
        // Nothing that happened lies in a break, and each break is longer than what it leaves in sight.
        for (const gap of gaps) {
          expect(gap.to).toBeGreaterThan(gap.from);
          expect(all.some((value) => value > gap.from && value < gap.to)).toBe(false);
        }
        const widths = sorted.flatMap((value, index) => {
          const next = sorted[index + 1];
          return next !== undefined && next - value <= 2 * HOUR ? [(x(next) - x(value)) / (next - value)] : [];
        });
        for (const width of widths) expect(width).toBeCloseTo(widths[0] ?? width, 9);
      }),
    );
  });

  it("writes hours that do not lie on one another, on round minutes, and none in a break", () => {
    fc.assert(
      fc.property(times, (all) => {
        const folded = foldedTime(all, SPAN);
        const hours = hoursOf(folded, 72);
        for (const [index, hour] of hours.entries()) {
          expect(hour.getTime() % 60_000).toBe(0);
          for (const gap of folded.gaps) expect(hour.getTime() > gap.from && hour.getTime() < gap.to).toBe(false);
          const before = hours[index - 1];
          if (before) expect(folded.x(hour) - folded.x(before)).toBeGreaterThanOrEqual(72 - 1e-6);
        }
      }),
    );
  });
});

describe("places that are moved apart", () => {
  const wishes = fc.array(fc.record({ at: fc.double({ min: 0, max: 200, noNaN: true }), size: fc.integer({ min: 8, max: 32 }) }), { maxLength: 6 });

  it("do not lie on one another, keep their order, and stay where they were while there is room", () => {
    fc.assert(
      fc.property(wishes, (all) => {
        const out = spread(all, [0, 240]);
        const order = all.map((item, index) => ({ ...item, to: out[index] as number })).sort((a, b) => a.at - b.at);
        for (const [index, item] of order.entries()) {
          const before = order[index - 1];
          if (before) expect(item.to - before.to).toBeGreaterThanOrEqual((item.size + before.size) / 2 - 1e-6);
          expect(item.to + item.size / 2).toBeLessThanOrEqual(240 + 1e-6);
        }
        const alone = all.length === 1 ? all[0] : null;
        if (alone && alone.at > alone.size && alone.at < 200) expect(out[0]).toBeCloseTo(alone.at, 9);
      }),
    );
  });
});

describe("labels", () => {
  const box = fc.record({
    x: fc.integer({ min: 0, max: 100 }),
    y: fc.integer({ min: 0, max: 100 }),
    width: fc.integer({ min: 1, max: 30 }),
    height: fc.integer({ min: 1, max: 20 }),
  });
  const meet = (a: Box, b: Box) => Math.min(a.x + a.width, b.x + b.width) > Math.max(a.x, b.x) && Math.min(a.y + a.height, b.y + b.height) > Math.max(a.y, b.y);

  it("take the first place where they meet nothing, or none", () => {
    fc.assert(
      fc.property(fc.array(fc.array(box, { minLength: 1, maxLength: 3 }), { maxLength: 8 }), fc.array(box, { maxLength: 3 }), (wanted, taken) => {
        const out = placed(wanted, taken);
        const shown = out.filter((box): box is Box => box !== null);
        for (const [index, box] of shown.entries()) {
          for (const other of [...taken, ...shown.slice(0, index)]) expect(meet(box, other)).toBe(false);
        }
        for (const [index, box] of out.entries()) {
          if (box) expect(wanted[index]).toContain(box);
          // Left out only where each of its places was full.
          else for (const place of wanted[index] ?? []) expect([...taken, ...shown].some((other) => meet(place, other))).toBe(true);
        }
      }),
    );
  });
});
