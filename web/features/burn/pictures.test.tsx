import { PROTOCOLS, protocol, type TestCandle, type TrialBody, type TrialPlan } from "@hearth/core";
import fc from "fast-check";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { aTestCandle, trialFrom } from "@/testing/test-candles";
import { PoolChart } from "./pool-chart";
import { FromAbove, FromSide } from "./pool-picture";

function trial(testCandles: number) {
  const keys = Array.from({ length: testCandles }, (_, n) => `${String.fromCharCode(65 + Math.floor(n / 2))}${(n % 2) + 1}`);
  const plan: TrialPlan = {
    format: 2,
    name: "t",
    varies: "wick size",
    protocol: protocol.parse(PROTOCOLS[0]),
    testCandles: keys.map((key) => aTestCandle(key)),
  };
  const entries: [number, TrialBody][] = [
    [0, { kind: "started", payload: { plan } }],
    ...keys.flatMap((key, n): [number, TrialBody][] => [
      [1, { kind: "lit", payload: { testCandle: key, trimUm: null, air: [], early: "" } }],
      [76, { kind: "checked", payload: { testCandle: key, poolUm: 40_000 + n * 100 } }],
      [181, { kind: "checked", payload: { testCandle: key, poolUm: 70_000 + n * 100, depthUm: 8_000 } }],
    ]),
  ];
  return trialFrom(entries);
}
const drawn = (testCandles: number, what: "pool" | "depth", session: number | null) => {
  const { plan, state } = trial(testCandles);
  return renderToStaticMarkup(<PoolChart plan={plan} state={state} what={what} session={session} />);
};

describe("pools against time", () => {
  it("has a line a variant, told apart by its dashes, a dot a look, and each test candle's name", () => {
    const svg = drawn(4, "pool", 1);
    expect(svg).toContain('aria-label="Melt pool against time, 4 test candles"');
    expect(svg.match(/stroke-dasharray/g)).toHaveLength(2);
    expect(svg.match(/h0/g)).toHaveLength(8);
    for (const key of ["A1", "A2", "B1", "B2"]) expect(svg).toContain(`>${key}</text>`);
    expect(svg).toContain("the wall");
    expect(drawn(4, "depth", null)).toContain("A1·1");
    expect(drawn(4, "pool", 2)).toContain("0 test candles");
  });

  it("moves names that would lie on one another apart, and leaves them out where there are too many", () => {
    const places = [...drawn(12, "pool", 1).matchAll(/<text x="([\d.]+)" y="([\d.]+)"[^>]*font-weight="600"[^>]*>/g)]
      .map((match) => Number(match[2]))
      .sort((a, b) => a - b);
    expect(places).toHaveLength(12);
    for (const [n, y] of places.slice(1).entries()) expect(y - (places[n] as number)).toBeGreaterThan(14.9);
    expect(drawn(40, "pool", 1)).toContain(">A1</text>");
    expect(drawn(50, "pool", null)).not.toContain(">A1·1</text>");
  });
});

describe("the jar in the hand", () => {
  it("never draws a pool beyond its wall, and says what is measured", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 200_000 }), fc.integer({ min: 40_000, max: 130_000 }), (poolUm, widthUm) => {
        const svg = renderToStaticMarkup(<FromAbove testCandle={aTestCandle("A1")} widthUm={widthUm} poolUm={poolUm} />);
        const radii = [...svg.matchAll(/<circle[^>]* r="([\d.]+)"/g)].map((match) => Number(match[1]));
        expect(Math.max(...radii)).toBe(72);
      }),
      { numRuns: 40 },
    );
    expect(renderToStaticMarkup(<FromAbove testCandle={aTestCandle("A1")} widthUm={76_000} poolUm={undefined} />)).toContain("the pool is not measured");
  });

  it("stands its wicks where they are, and the wax where it has burned down to", () => {
    const three = aTestCandle("A1", { wick: { ...(aTestCandle("A1").wick as NonNullable<TestCandle["wick"]>), count: 3 } });
    expect(renderToStaticMarkup(<FromAbove testCandle={three} widthUm={76_000} poolUm={undefined} />).match(/r="4"/g)).toHaveLength(3);
    const level = (left: number) => {
      const svg = renderToStaticMarkup(<FromSide testCandle={aTestCandle("A1")} left={left} poolUm={60_000} depthUm={6_000} />);
      return Number(/<line x1="[\d.]+" x2="[\d.]+" y1="([\d.]+)"/.exec(svg)?.[1]);
    };
    // Lower on the screen is a larger y.
    expect(level(0.3)).toBeGreaterThan(level(1));
    expect(renderToStaticMarkup(<FromSide testCandle={aTestCandle("A1", { shape: "bowl" })} left={1} poolUm={undefined} depthUm={undefined} />)).toContain(
      "not measured",
    );
  });
});
