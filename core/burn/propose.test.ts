import { describe, expect, it } from "vitest";
import { bySize } from "../product/wicks";
import { anId } from "../testing/batch";
import { proposeWicks, type ShelfWick, shareUm, wicksFor } from "./propose";

const wick = (kind: string, size: string, from: number | null, to: number | null, families: string[] | null = null): ShelfWick => ({
  id: anId(),
  name: `${kind} ${size}`,
  kind,
  size,
  fromUm: from === null ? null : from * 1_000,
  toUm: to === null ? null : to * 1_000,
  families,
});
const COTTON = [
  wick("flat-braid cotton", "4", 50, 62),
  wick("flat-braid cotton", "6", 62, 72),
  wick("flat-braid cotton", "8", 72, 84),
  wick("flat-braid cotton", "10", 84, 95),
];
const SHELF = [
  ...COTTON,
  wick("cotton with paper core", "44", 60, 74),
  wick("cotton with paper core", "51", 74, 86),
  wick("wooden", "13", 70, 90, ["coconut"]),
  wick("zinc core", "36", 55, 70),
  wick("zinc core", "51", 70, 82),
  wick("zinc core", "60", 82, 92),
];
const named = (more: Partial<Parameters<typeof proposeWicks>[1]>, passed: Parameters<typeof proposeWicks>[2] = [], shelf = SHELF) =>
  proposeWicks(
    shelf,
    { widthUm: 80_000, bottomUm: 80_000, family: "paraffin", loadPpm: 60_000, pillar: false, now: null, varies: "wick kind", ...more },
    passed,
  );
const nameOf = (list: ReturnType<typeof named>) => list.map((proposal) => proposal.wick.name);

describe("wicks worth trying (common practice, no source)", () => {
  it("sizes by the inner diameter at the wax line, one of each kind chosen", () => {
    const list = named({});
    expect(nameOf(list)).toContain("flat-braid cotton 8");
    expect(nameOf(list)).not.toContain("flat-braid cotton 4");
    const chosen = list.filter((proposal) => proposal.chosen).map((proposal) => proposal.wick.kind);
    expect(new Set(chosen).size).toBe(chosen.length);
    expect(list.every((proposal) => proposal.why.length > 0)).toBe(true);
  });

  it("proposes a size hotter for thick natural waxes and heavy loads, and none for a light paraffin", () => {
    expect(nameOf(named({ family: "soy", varies: "wick size", now: { wickId: COTTON[2]?.id ?? "", count: 1 } }))).toContain("flat-braid cotton 10");
    expect(
      named({ family: "soy" })
        .find((proposal) => proposal.wick.name === "flat-braid cotton 10")
        ?.why.join(),
    ).toContain("thick");
    expect(
      named({ loadPpm: 90_000 })
        .find((proposal) => proposal.wick.name === "flat-braid cotton 10")
        ?.why.join(),
    ).toContain("heavy load");
    expect(nameOf(named({}))).not.toContain("flat-braid cotton 10");
  });

  it("sizes a jar that narrows for both ends: 83 mm at the top, 76 mm at the bottom is still the same; 90 to 70 is not", () => {
    const taper = named({ widthUm: 83_000, bottomUm: 70_000 });
    expect(taper.find((proposal) => proposal.wick.name === "flat-braid cotton 6")?.why.join()).toContain("narrows");
  });

  it("takes two or three for wide vessels, each for its share of the area", () => {
    expect([60_000, 89_000, 90_000, 114_000, 115_000].map(wicksFor)).toEqual([1, 1, 2, 2, 3]);
    // Two rounds of 70.7 mm have the area of one of 100 mm.
    expect(2 * shareUm(100_000, 2) ** 2).toBeCloseTo(100_000 ** 2, -6);
    const wide = named({ widthUm: 100_000, bottomUm: 100_000 });
    expect(wide[0]).toMatchObject({ count: 2 });
    expect(nameOf(wide)).toContain("flat-braid cotton 6");
  });

  it("gives gel a zinc core, one size up from paraffin, and pillars a zinc core", () => {
    const gel = named({ family: "gel" });
    expect(gel.every((proposal) => proposal.wick.kind === "zinc core")).toBe(true);
    expect(gel.find((proposal) => proposal.wick.name === "zinc core 60")?.why.join()).toContain("one size up");
    expect(named({ pillar: true }).every((proposal) => proposal.wick.kind === "zinc core")).toBe(true);
  });

  it("does what the trial before asked for: up, down, or another kind", () => {
    const now = { wickId: COTTON[1]?.id ?? "", count: 1 };
    const first = (asks: "wick_up" | "wick_down") =>
      named({ now, varies: "wick size", asks }).find((proposal) => proposal.why.join().includes("as the trial before asked"))?.wick.name;
    expect(first("wick_up")).toBe("flat-braid cotton 8");
    expect(first("wick_down")).toBe("flat-braid cotton 4");
    const kinds = named({ now, varies: "wick size", asks: "change_kind" });
    expect(new Set(kinds.map((kind) => kind.wick.kind)).size).toBeGreaterThan(2);
  });

  it("begins with what passed in this workshop in a jar as wide and a wax of the family, and with nothing that did elsewhere", () => {
    const other = SHELF[4] as ShelfWick;
    const passed = { wickId: other.id, kind: other.kind, size: other.size, count: 1, widthUm: 82_000, family: "paraffin", trial: 3 };
    expect(named({}, [passed])[0]).toMatchObject({ wick: { id: other.id }, chosen: true, why: [expect.stringContaining("trial 3")] });
    expect(nameOf(named({}, [{ ...passed, widthUm: 60_000 }]))).not.toContain(other.name);
    expect(nameOf(named({}, [{ ...passed, family: "soy" }]))).not.toContain(other.name);
  });

  it("keeps to one series for sizes, and says where it goes to another: their sizes cannot be compared", () => {
    const line = (series: string, sizes: [string, number, number][]) =>
      sizes.map(([size, from, to]) => ({ ...wick("flat-braid cotton", size, from, to), name: `${series} ${size}`, series }));
    const heron = line("heron", [
      ["2", 60, 70],
      ["4", 70, 84],
      ["6", 84, 95],
    ]);
    const plover = line("plover", [
      ["3", 66, 76],
      ["5", 76, 90],
    ]);
    const shelf = [...heron, ...plover];
    const now = { wickId: heron[1]?.id ?? "", count: 1 };
    const up = named({ varies: "wick size", now, asks: "wick_up" }, [], shelf);
    expect(nameOf(up)).toContain("heron 6");
    expect(nameOf(up.filter((proposal) => proposal.chosen)).every((name) => name.startsWith("heron"))).toBe(true);
    expect(nameOf(up)).not.toContain("plover 5");
    const other = named({ varies: "wick kind", now }, [], shelf).find((proposal) => proposal.wick.name === "plover 5");
    expect(other?.why.join()).toContain("another series");
    const passed = { wickId: plover[1]?.id ?? "", kind: "flat-braid cotton", size: "5", count: 1, widthUm: 80_000, family: "paraffin", trial: 7 };
    expect(named({ varies: "wick size", now }, [passed], shelf)[0]?.why.join()).toContain("of another series, plover");
    // Without a series all of a kind are one line, as they were before.
    expect(named({ varies: "wick size", now: { wickId: COTTON[2]?.id ?? "", count: 1 } }).some((proposal) => proposal.why.join().includes("one size up"))).toBe(
      true,
    );
  });

  it("proposes as many wicks as the vessel is made for, and what it has now as it is", () => {
    for (const proposal of named({ vesselWicks: 2, family: "soy" })) expect(proposal.count).toBe(2);
    const now = named({ widthUm: 95_000, bottomUm: 95_000, now: { wickId: COTTON[2]?.id ?? "", count: 1 } });
    expect(now.find((proposal) => proposal.why.includes("what it has now"))?.count).toBe(1);
  });

  it("proposes nothing where the shelf says nothing, and orders sizes as numbers", () => {
    expect(named({}, [], [])).toEqual([]);
    expect(bySize([wick("x", "10", null, null), wick("x", "4", null, null)]).map((wick) => wick.size)).toEqual(["4", "10"]);
  });
});
