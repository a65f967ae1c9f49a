import { PROTOCOLS, protocol, type Tester, TRIAL, type TrialBody, type TrialEvent, type TrialPlan } from "@hearth/core";
import fc from "fast-check";
import { renderToStaticMarkup } from "react-dom/server";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { PoolChart } from "./pool-chart";
import { FromAbove, FromSide } from "./pool-picture";

const tester = (key: string, over: Partial<Tester> = {}): Tester => ({
  key,
  option: key[0] as string,
  code: key,
  fill: "full",
  body: "vessel",
  bodyId: "0190c0de-0000-7000-8000-00000000a001",
  vessel: "jar",
  innerTopUm: 78_000,
  innerBottomUm: 72_000,
  heightUm: 60_000,
  fillMg: 176_000,
  wick: { wickId: "0190c0de-0000-7000-8000-00000000b001", name: "flat-braid cotton 6", kind: "flat-braid cotton", size: "6", count: 1 },
  family: "soy",
  wax: "container soy",
  scent: "rain",
  loadPpm: 80_000,
  dyed: false,
  added: [],
  formula: "Rain on slate",
  batch: null,
  productId: null,
  ...over,
});
const at = (minutes: number) => new Date(Date.UTC(2026, 2, 2, 8) + minutes * 60_000).toISOString();
function trial(testers: number) {
  const keys = Array.from({ length: testers }, (_, n) => `${String.fromCharCode(65 + Math.floor(n / 2))}${(n % 2) + 1}`);
  const plan: TrialPlan = { format: 1, name: "t", varies: "wick size", protocol: protocol.parse(PROTOCOLS[0]), testers: keys.map((key) => tester(key)) };
  const entries: [number, TrialBody][] = [
    [0, { kind: "started", payload: { plan } }],
    ...keys.flatMap((key, n): [number, TrialBody][] => [
      [1, { kind: "lit", payload: { tester: key, trimUm: null, air: [], early: "" } }],
      [76, { kind: "looked", payload: { tester: key, poolUm: 40_000 + n * 100 } }],
      [181, { kind: "looked", payload: { tester: key, poolUm: 70_000 + n * 100, depthUm: 8_000 } }],
    ]),
  ];
  const events = entries.map(
    ([minute, body]) =>
      ({ id: v7(), happenedAt: at(minute), arrivedAt: at(minute), personId: null, instrumentId: null, corrects: null, ...body }) as TrialEvent,
  );
  return TRIAL.of(events);
}
const drawn = (testers: number, what: "pool" | "depth", session: number | null) => {
  const { plan, facts } = trial(testers);
  return renderToStaticMarkup(<PoolChart plan={plan} facts={facts} what={what} session={session} />);
};

describe("pools against time", () => {
  it("has a line an option, told apart by its dashes, a dot a look, and each tester's name", () => {
    const svg = drawn(4, "pool", 1);
    expect(svg).toContain('aria-label="Melt pool against time, 4 testers"');
    expect(svg.match(/stroke-dasharray/g)).toHaveLength(2);
    expect(svg.match(/h0/g)).toHaveLength(8);
    for (const key of ["A1", "A2", "B1", "B2"]) expect(svg).toContain(`>${key}</text>`);
    expect(svg).toContain("the wall");
    expect(drawn(4, "depth", null)).toContain("A1·1");
    expect(drawn(4, "pool", 2)).toContain("0 testers");
  });

  it("moves names that would lie on one another apart, and leaves them out where there are too many", () => {
    const places = [...drawn(12, "pool", 1).matchAll(/<text x="([\d.]+)" y="([\d.]+)"[^>]*font-weight="600"[^>]*>/g)]
      .map((one) => Number(one[2]))
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
        const svg = renderToStaticMarkup(<FromAbove tester={tester("A1")} widthUm={widthUm} poolUm={poolUm} />);
        const radii = [...svg.matchAll(/<circle[^>]* r="([\d.]+)"/g)].map((one) => Number(one[1]));
        expect(Math.max(...radii)).toBe(72);
      }),
      { numRuns: 40 },
    );
    expect(renderToStaticMarkup(<FromAbove tester={tester("A1")} widthUm={76_000} poolUm={undefined} />)).toContain("the pool is not measured");
  });

  it("stands its wicks where they are, and the wax where it has burned down to", () => {
    const three = tester("A1", { wick: { ...(tester("A1").wick as NonNullable<Tester["wick"]>), count: 3 } });
    expect(renderToStaticMarkup(<FromAbove tester={three} widthUm={76_000} poolUm={undefined} />).match(/r="4"/g)).toHaveLength(3);
    const level = (left: number) => {
      const svg = renderToStaticMarkup(<FromSide tester={tester("A1")} left={left} poolUm={60_000} depthUm={6_000} />);
      return Number(/<line x1="[\d.]+" x2="[\d.]+" y1="([\d.]+)"/.exec(svg)?.[1]);
    };
    // Lower on the screen is a larger y.
    expect(level(0.3)).toBeGreaterThan(level(1));
    expect(renderToStaticMarkup(<FromSide tester={tester("A1", { shape: "bowl" })} left={1} poolUm={undefined} depthUm={undefined} />)).toContain(
      "not measured",
    );
  });
});
