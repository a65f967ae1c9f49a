import fc from "fast-check";
import { fraction } from "mathjs";
import { describe, expect, it } from "vitest";
import { answerScale, fieldErrors, scaleRequest } from "./api";
import { WeighOutError } from "./contract";
import { shareMg } from "./increments";
import { splitIntoPitchers } from "./pitchers";

const answer = (body: unknown) => answerScale(scaleRequest.parse(body));
const refused = (body: unknown) => {
  const parsed = scaleRequest.safeParse(body);
  if (!parsed.success) return fieldErrors(parsed.error);
  try {
    return answerScale(parsed.data);
  } catch (error) {
    if (error instanceof WeighOutError) return fieldErrors(error);
    throw error;
  }
};
const mg = (g: number) => Math.round(g * 1_000);
const grams = (list: { name: string; g: number }[]) => Object.fromEntries(list.map((item) => [item.name, item.g]));
const old = { basis: "wax", load_percent: 10, max_load_percent: 12, vessels: [{ fill_g: 14, count: 10 }], spare_percent: 0, scale_resolution_g: 1 };

describe("sharing a weight out", () => {
  const shares = fc.array(fc.integer({ min: 1, max: 1_000 }), { minLength: 1, maxLength: 9 });
  const step = fc.constantFrom(1_000, 100_000, 1_000_000, 2_834_952);

  it("loses nothing, and keeps every part but the largest within a step of its exact share (fractions of mathjs)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5_000_000 }), shares, step, (total, parts, resolutionUg) => {
        const out = shareMg(total, parts, resolutionUg);
        expect(out.reduce((sum, value) => sum + value, 0)).toBe(total);
        const sum = parts.reduce((all, value) => all + value, 0);
        const largest = parts.indexOf(Math.max(...parts));
        out.forEach((value, index) => {
          const exact = fraction(total).mul(fraction(parts[index] ?? 0, sum));
          const off = Math.abs(Number(exact.sub(value).valueOf()));
          // Less than a step by the rounding, and its share of what is less than a step in the whole; to the largest goes all of that.
          const most = index === largest ? 2 : 1 + (parts[index] ?? 0) / sum;
          expect(off).toBeLessThanOrEqual((most * resolutionUg) / 1_000 + parts.length);
          expect(value).toBeGreaterThanOrEqual(0);
        });
      }),
      { numRuns: 500 },
    );
  });

  it("shares blends as makers do: common practice, no source", () => {
    expect(shareMg(400_000, [75, 25], 1_000_000)).toEqual([300_000, 100_000]);
    // 12 g + 10 g of 22 g.
    expect(shareMg(22_000, [12, 10], 1_000_000)).toEqual([12_000, 10_000]);
    // 66/19/11 with the rest made up: the shares are taken as they stand to one another.
    expect(shareMg(960_000, [66, 19, 11], 1_000_000)).toEqual([660_000, 190_000, 110_000]);
    expect(shareMg(100_000, [1, 1, 1], 1_000_000)).toEqual([34_000, 33_000, 33_000]);
  });
});

describe("several components from one request", () => {
  it("puts each wax of a blend on a mark of its scale, wherever it is begun from", () => {
    const from = fc.oneof(
      fc.record({ start: fc.record({ wax_g: fc.integer({ min: 200, max: 30_000 }).map((n) => n / 10) }) }),
      fc.record({ start: fc.record({ total_g: fc.integer({ min: 200, max: 30_000 }).map((n) => n / 10) }) }),
      fc.record({
        vessels: fc.array(fc.record({ fill_g: fc.integer({ min: 100, max: 3_000 }).map((n) => n / 10), count: fc.integer({ min: 1, max: 20 }) }), {
          minLength: 1,
          maxLength: 3,
        }),
      }),
    );
    const shares = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 2, maxLength: 4 });
    fc.assert(
      fc.property(from, shares, fc.constantFrom(1, 0.1, 28.349523125, 2.8349523125), fc.integer({ min: 0, max: 120 }), (begun, parts, step, load) => {
        const waxes = parts.map((share, index) => ({ name: `wax ${index}`, share }));
        const out = answer({ basis: "wax", load_percent: load / 10, ...begun, waxes, scale_resolution_g: step });
        fc.pre(!out.warnings.some((warning) => warning.code === "scale-too-coarse"));
        const sum = out.components.reduce((all, item) => all + item.g, 0);
        expect(sum).toBeCloseTo(out.total_g, 6);
        // To the milligram, in which an ounce is no whole number.
        for (const component of out.components)
          expect(Math.abs(component.g - Math.round(component.g / step) * step), `${component.name} ${component.g}`).toBeLessThanOrEqual(0.0005 + 1e-9);
      }),
      { numRuns: 500 },
    );
    expect(
      answer({
        basis: "wax",
        load_percent: 10,
        start: { wax_g: 1020.4 },
        waxes: [
          { name: "a", share: 1 },
          { name: "b", share: 1 },
        ],
        scale_resolution_g: 1,
      }).components,
    ).toMatchObject([{ g: 510 }, { g: 510 }, {}]);
  });

  it("answers an old request as before, with its components beside", () => {
    const now = answer(old);
    expect(now).toMatchObject({ total_g: 140, wax_g: 127, fragrance_g: 13, load_percent_of_wax: 10.236, load_percent_of_total: 9.286 });
    expect(now.components).toEqual([
      { name: "wax", kind: "wax", g: 127 },
      { name: "fragrance", kind: "fragrance", g: 13 },
    ]);
    expect(now).not.toHaveProperty("pitchers");
  });

  it("starts from a weight of wax: 204 g at 8 % is 16.3 g on a fine scale, 16 g on a coarse one (common practice, no source)", () => {
    const start = { basis: "wax", load_percent: 8, start: { wax_g: 204 } };
    expect(answer({ ...start, scale_resolution_g: 0.1 })).toMatchObject({ wax_g: 204, fragrance_g: 16.3, total_g: 220.3 });
    expect(answer(start)).toMatchObject({ wax_g: 204, fragrance_g: 16, total_g: 220 });
    // 393 g with 32 g of fragrance is 425 g and 8.14 %: three half-filled jars of about 141 g.
    const jars = answer({ basis: "wax", load_percent: 8.14, start: { wax_g: 393 } });
    expect(jars).toMatchObject({ fragrance_g: 32, total_g: 425, load_percent_of_wax: 8.142 });
    expect(jars.total_g / 3).toBeCloseTo(141.67, 2);
    expect(answer({ basis: "total", load_percent: 10, start: { wax_g: 126 } })).toMatchObject({ fragrance_g: 14, total_g: 140 });
    expect(answer({ basis: "total", load_percent: 10, start: { total_g: 140 } })).toMatchObject({ wax_g: 126, fragrance_g: 14 });
  });

  it("works out blends, additives and dye together", () => {
    const whole = answer({
      ...old,
      vessels: [{ fill_g: 170, count: 6 }],
      waxes: [
        { name: "soft", share: 75 },
        { name: "hard", share: 25 },
      ],
      fragrances: [
        { name: "x", share: 12 },
        { name: "y", share: 10 },
      ],
      additives: [{ name: "s", percent_of_wax: 2 }],
      dye: { drops_per_lb: 6 },
    });
    // 1020 ÷ 1.12 = 910.71 g of wax; 2 % of it are 18.2 g; the rest is fragrance.
    expect(whole).toMatchObject({ total_g: 1_020, wax_g: 911, fragrance_g: 91, load_percent_of_total: 8.922 });
    expect(grams(whole.components)).toEqual({ soft: 683, hard: 228, x: 50, y: 41, s: 18, dye: 0 });
    // 911 g are 2.008 lb: 12 drops.
    expect(whole.components.at(-1)).toEqual({ name: "dye", kind: "dye", g: 0, drops: 12 });
    expect(answer({ ...old, dye: { drops_per_lb: 14 } }).warnings.map((warning) => warning.code)).toContain("much-dye");
  });

  it.each([
    ["start", { ...old, start: { wax_g: 100 } }],
    ["vessels", { ...old, vessels: undefined }],
    ["start", { ...old, vessels: undefined, start: { wax_g: -1 } }],
    ["start", { ...old, vessels: undefined, start: { wax_g: 1, total_g: 2 } }],
    ["waxes.0.share", { ...old, waxes: [{ name: "a", share: 0 }] }],
    ["fragrances", { ...old, fragrances: [] }],
    ["additives.0.percent_of_wax", { ...old, additives: [{ name: "s", percent_of_wax: 80 }] }],
    ["dye.drops_per_lb", { ...old, dye: { drops_per_lb: -1 } }],
    ["pitcher_capacity_g", { ...old, pitcher_capacity_g: 0 }],
    ["pitcher_capacity_g", { ...old, vessels: [{ fill_g: 100_000, count: 9 }], pitcher_capacity_g: 1 }],
  ])("tells a fault at %s", (field, body) => {
    expect(refused(body)).toHaveProperty([field]);
  });
});

const request = fc.record({
  basis: fc.constantFrom("wax", "total"),
  load_percent: fc.integer({ min: 0, max: 160 }).map((tenths) => tenths / 10),
  max_load_percent: fc.constantFrom(8, 12, 20),
  vessels: fc.array(fc.record({ fill_g: fc.integer({ min: 20, max: 4_000 }).map((tenths) => tenths / 10), count: fc.integer({ min: 1, max: 24 }) }), {
    minLength: 1,
    maxLength: 3,
  }),
  spare_percent: fc.constantFrom(0, 5, 7.5),
  scale_resolution_g: fc.constantFrom(0.01, 0.1, 1),
  waxes: fc.array(fc.record({ name: fc.constant("w"), share: fc.integer({ min: 1, max: 90 }) }), { minLength: 1, maxLength: 4 }),
  fragrances: fc.array(fc.record({ name: fc.constant("f"), share: fc.integer({ min: 1, max: 90 }) }), { minLength: 1, maxLength: 4 }),
  additives: fc.array(fc.record({ name: fc.constant("a"), percent_of_wax: fc.integer({ min: 1, max: 50 }).map((tenths) => tenths / 10) }), { maxLength: 2 }),
  pitcher_capacity_g: fc.constantFrom(900, 2_500),
});
const sum = (list: { g: number }[]) => list.reduce((all, item) => all + mg(item.g), 0);

describe("properties of components and pitchers", () => {
  it("sum exactly, keep the limit in the whole and in every pitcher, and keep every pitcher within its capacity", () => {
    fc.assert(
      fc.property(request, (body) => {
        const out = answer(body);
        if (out.warnings.some((warning) => warning.code === "scale-too-coarse")) return;
        expect(sum(out.components)).toBe(mg(out.total_g));
        expect(sum(out.components.filter((component) => component.kind === "wax"))).toBe(mg(out.wax_g));
        for (const component of out.components) expect(component.g).toBeGreaterThanOrEqual(0);
        const asked = (body.basis === "wax" ? body.load_percent : (100 * body.load_percent) / (100 - body.load_percent)) * (1 + 0.1);
        const kept = asked <= body.max_load_percent;
        const load = (list: typeof out.components) => sum(list.filter((item) => item.kind === "fragrance")) / sum(list.filter((item) => item.kind === "wax"));
        if (kept) expect(load(out.components) * 100).toBeLessThanOrEqual(body.max_load_percent + 1e-9);
        const pitchers = out.pitchers ?? [];
        expect(pitchers.length).toBeGreaterThanOrEqual(Math.ceil(out.total_g / body.pitcher_capacity_g));
        out.components.forEach((component, index) => {
          expect(pitchers.reduce((all, pitcher) => all + mg(pitcher.components[index]?.g ?? 0), 0)).toBe(mg(component.g));
        });
        for (const pitcher of pitchers) {
          expect(sum(pitcher.components)).toBe(mg(pitcher.total_g));
          expect(pitcher.total_g).toBeLessThanOrEqual(body.pitcher_capacity_g);
          // One load in all of them, to within a mark of the oil's scale for each oil.
          const wax = pitcher.components.filter((component) => component.kind === "wax").reduce((all, item) => all + item.g, 0);
          const oil = pitcher.components.filter((component) => component.kind === "fragrance").reduce((all, item) => all + item.g, 0);
          const marks = body.scale_resolution_g * (body.fragrances.length + body.waxes.length * load(out.components)) + 1e-6;
          expect(Math.abs(oil - wax * load(out.components))).toBeLessThanOrEqual(marks);
        }
      }),
      { numRuns: 400 },
    );
  });
});

describe("pitchers", () => {
  it("keep the wax's limit each, near it and at it, over many of them, with blends on unlike scales", () => {
    const part = fc.integer({ min: 1, max: 9 });
    fc.assert(
      fc.property(
        fc.record({
          start: fc.record({ total_g: fc.integer({ min: 900, max: 11_000 }) }),
          load_percent: fc.constantFrom(6, 9.7, 9.95, 10),
          waxes: fc.array(part, { minLength: 1, maxLength: 2 }).map((list) => list.map((share, index) => ({ name: `wax ${index}`, share }))),
          fragrances: fc.array(part, { minLength: 1, maxLength: 3 }).map((list) => list.map((share, index) => ({ name: `oil ${index}`, share }))),
          fragrance_resolution_g: fc.constantFrom(0.01, 0.1, 1),
          pitcher_capacity_g: fc.constantFrom(500, 1_200),
        }),
        (body) => {
          const out = answer({ basis: "wax", max_load_percent: 10, spare_percent: 0, scale_resolution_g: 1, ...body });
          fc.pre(!out.warnings.some((warning) => warning.code === "scale-too-coarse"));
          for (const pitcher of out.pitchers ?? []) {
            const of = (kind: string) => sum(pitcher.components.filter((each) => each.kind === kind));
            expect((of("fragrance") / of("wax")) * 100).toBeLessThanOrEqual(10 + 1e-9);
          }
        },
      ),
      { numRuns: 500 },
    );
  });

  it("share a batch evenly, each with the same load to a step of the scale", () => {
    const out = answer({ ...old, vessels: [{ fill_g: 170, count: 12 }], load_percent: 8, pitcher_capacity_g: 900 });
    expect(out.pitchers?.map((pitcher) => grams(pitcher.components))).toEqual([
      { wax: 630, fragrance: 51 },
      { wax: 630, fragrance: 50 },
      { wax: 629, fragrance: 50 },
    ]);
  });

  it("refuse to be smaller than a gram", () => {
    expect(() => splitIntoPitchers([{ name: "w", kind: "wax", mg: 5_000 }], 10, 1_000, null)).toThrow(RangeError);
  });

  it("give every drop of dye to some pitcher", () => {
    const out = answer({ ...old, vessels: [{ fill_g: 170, count: 12 }], dye: { drops_per_lb: 5 }, pitcher_capacity_g: 900 });
    const drops = out.components.find((component) => component.kind === "dye")?.drops ?? 0;
    expect(drops).toBeGreaterThan(0);
    expect(out.pitchers?.reduce((all, item) => all + (item.components.find((part) => part.kind === "dye")?.drops ?? 0), 0)).toBe(drops);
  });
});

describe("a request that would hold everybody up", () => {
  it.each([
    ["hundreds of pitchers", { vessels: [{ fill_g: 100_000, count: 9 }], pitcher_capacity_g: 1_000 }],
    [
      "long lists",
      {
        waxes: Array.from({ length: 20 }, (_, n) => ({ name: `w${n}`, share: n + 1 })),
        fragrances: Array.from({ length: 50 }, (_, n) => ({ name: `f${n}`, share: 51 - n })),
        pitcher_capacity_g: 60,
      },
    ],
    [
      "a limit that can hardly be kept",
      { load_percent: 9.999, max_load_percent: 10, vessels: Array.from({ length: 500 }, () => ({ fill_g: 0.37, count: 99_999 })), scale_resolution_g: 0.001 },
    ],
  ])("with %s is answered or refused at once", (_what, over) => {
    const before = performance.now();
    refused({ ...old, ...over });
    // Counted in loops, not in time: but a request may take no second, and this one took 38.
    expect(performance.now() - before).toBeLessThan(1_000);
  });

  it("says that nobody has so many pitchers", () => {
    expect(refused({ ...old, vessels: [{ fill_g: 1_000, count: 90 }], pitcher_capacity_g: 1_000 })).toEqual({
      pitcher_capacity_g: [expect.stringContaining("60")],
    });
  });
});
