import { describe, expect, it } from "vitest";
import { READY_PROFILES } from "../heat/profile";
import { anId, aPlan } from "../testing/batch";
import { difference } from "./difference";
import { formulaSpec } from "./spec";

const ids = { wax: anId(), oil: anId(), vessel: anId() };
const { spec } = aPlan(ids);

describe("what differs between two versions", () => {
  it("says it in a maker's words and units", () => {
    const after = { ...spec, loadPpm: 80_000, profile: { ...spec.profile, pour: { low: 5_400, high: 6_000 } } };
    expect(difference(spec, after, (id) => id, "C")).toEqual([
      { what: "load", from: "10 % of wax", to: "8 % of wax" },
      { what: "pour gate", from: "57–63 °C", to: "54–60 °C" },
    ]);
    expect(difference(spec, after, (id) => id, "F")[1]?.to).toBe("129.2–140 °F");
    expect(difference(spec, structuredClone(spec), (id) => id, "C")).toEqual([]);
  });
});

describe("what a formula may say", () => {
  it("holds every ready-made profile to its own schema, with gates below the ceiling", () => {
    for (const { id: _id, families: _families, ...profile } of READY_PROFILES) {
      expect(formulaSpec.safeParse({ ...spec, profile }).success).toBe(true);
      for (const gate of [profile.heat, profile.add, profile.pour]) expect(gate.high).toBeLessThanOrEqual(profile.ceiling);
    }
  });

  it("refuses a load without a fragrance, a load of most of the total, and a cure upside down", () => {
    expect(formulaSpec.safeParse({ ...spec, fragrances: [] }).success).toBe(false);
    expect(formulaSpec.safeParse({ ...spec, fragrances: [], loadPpm: 0 }).success).toBe(true);
    expect(formulaSpec.safeParse({ ...spec, basis: "total", loadPpm: 600_000 }).success).toBe(false);
    expect(formulaSpec.safeParse({ ...spec, profile: { ...spec.profile, leastCureSeconds: 3e6 } }).success).toBe(false);
  });
});
