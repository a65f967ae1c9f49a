import type { FormulaSpec, Profile } from "@hearth/core";
import { READY_PROFILES } from "@hearth/core";
import table from "./batches.json" with { type: "json" };

/** The made-up workshop: a shed behind a walled garden. Every name, scent, vessel and figure here is invented. */

/** Ids that are the same at every start, so that a bookmark to a demo batch still works. */
export const demoId = (group: number, n: number): string => `0190c0de-${group.toString(16).padStart(4, "0")}-7000-8000-${n.toString(16).padStart(12, "0")}`;

export const WORKSHOP = { id: demoId(0, 1), name: "Quillfen candle shed", massUnit: "g" as const, temperatureUnit: "C" as const };

export const PEOPLE = [
  { id: demoId(1, 1), name: "Ansa" },
  { id: demoId(1, 2), name: "Brill" },
];

export const WAXES = [
  { id: demoId(2, 1), name: "container soy", family: "soy", maxLoadPpm: 100_000, remarks: "Flakes. Frosts when poured in a cold room." },
  { id: demoId(2, 2), name: "coconut blend", family: "coconut", maxLoadPpm: 120_000, remarks: "Soft; keep the lids on in summer." },
  { id: demoId(2, 3), name: "jar paraffin–soy", family: "paraffin–soy", maxLoadPpm: 120_000, remarks: "" },
];

export const FRAGRANCES = [
  { id: demoId(3, 1), name: "rain on slate", kind: "fragrance" as const, maxLoadPpm: 120_000, flashPoint: 9_100, remarks: "" },
  { id: demoId(3, 2), name: "quince and smoke", kind: "fragrance" as const, maxLoadPpm: 100_000, flashPoint: 8_200, remarks: "Browns a little: vanillin." },
  { id: demoId(3, 3), name: "hay loft", kind: "fragrance" as const, maxLoadPpm: null, flashPoint: null, remarks: "" },
  { id: demoId(3, 4), name: "garden mint", kind: "essential oil" as const, maxLoadPpm: 40_000, flashPoint: 5_600, remarks: "Start near 4 %." },
];

export const VESSELS = [
  {
    id: demoId(4, 1),
    name: "squat tumbler",
    material: "heat-safe glass",
    statedFillMg: 180_000,
    workingFillMg: 176_000,
    soldByWeight: false,
    innerTopUm: 78_000,
    innerBottomUm: 72_000,
    heightUm: 60_000,
  },
  {
    id: demoId(4, 2),
    name: "narrow tin",
    material: "metal",
    statedFillMg: 110_000,
    workingFillMg: 110_000,
    soldByWeight: false,
    innerTopUm: 58_000,
    innerBottomUm: 58_000,
    heightUm: 58_000,
  },
  {
    id: demoId(4, 3),
    name: "tealight cup",
    material: "metal",
    statedFillMg: 14_000,
    workingFillMg: 14_000,
    soldByWeight: true,
    innerTopUm: 37_500,
    innerBottomUm: 37_500,
    heightUm: 17_000,
  },
  {
    id: demoId(4, 4),
    name: "sample cup",
    material: "heat-safe glass",
    statedFillMg: 14_000,
    workingFillMg: 12_500,
    soldByWeight: false,
    innerTopUm: 34_000,
    innerBottomUm: 28_000,
    heightUm: 24_000,
  },
];

export const INSTRUMENTS = [
  { id: demoId(5, 1), name: "bench scale", kind: "scale" as const, correction: 0, resolutionUg: 1_000_000 },
  { id: demoId(5, 2), name: "fine scale", kind: "scale" as const, correction: 0, resolutionUg: 100_000 },
  { id: demoId(5, 3), name: "long probe", kind: "probe" as const, correction: -50, resolutionUg: null },
  { id: demoId(5, 4), name: "infrared pistol", kind: "infrared" as const, correction: 0, resolutionUg: null },
];

function profileOf(id: string): Profile {
  const ready = READY_PROFILES.find((one) => one.id === id);
  if (!ready) throw new Error(`The demo names a profile that does not exist: ${id}`);
  const { id: _id, families: _families, ...rest } = ready;
  return rest;
}

const spec = (wax: number, oil: number, basis: FormulaSpec["basis"], loadPpm: number, profile: string, notes = ""): FormulaSpec => ({
  waxes: [{ id: demoId(2, wax), share: 1 }],
  fragrances: [{ id: demoId(3, oil), share: 1 }],
  basis,
  loadPpm,
  profile: profileOf(profile),
  notes,
});

export const FORMULAS = [
  {
    id: demoId(6, 1),
    name: "Rain on slate, tumbler",
    versions: [
      { id: demoId(7, 1), number: 1, spec: spec(1, 1, "wax", 60_000, "soy-bind-hot") },
      { id: demoId(7, 2), number: 2, spec: spec(1, 1, "wax", 80_000, "soy-bind-hot", "6 % was too faint in the living room.") },
    ],
  },
  { id: demoId(6, 2), name: "Quince and smoke, tin", versions: [{ id: demoId(7, 3), number: 1, spec: spec(3, 2, "total", 80_000, "paraffin-bind-hot") }] },
  { id: demoId(6, 3), name: "Hay loft, coconut", versions: [{ id: demoId(7, 4), number: 1, spec: spec(2, 3, "wax", 90_000, "coconut") }] },
];

type Reading = ["heat" | "add" | "pour" | "watch", number, number, ("probe" | "infrared")?];

export interface DemoBatch {
  id: string;
  number: number;
  version: string;
  vessels: [number, number][];
  sparePpm: number;
  /** Seconds before the demo's now at which it was started. */
  startedBefore: number;
  /** Seconds after the start, and °C as shown. */
  readings: Reading[];
  weighedAt: number;
  /** What was really weighed, off from what was asked, in mg. */
  off: [number, number];
  /** A weight typed wrong at first, and corrected. */
  slip?: number;
  stirredAt?: number;
  pouredAt?: number;
  flaws?: { defect: string; place: "top" | "side" | "bottom" | "wick"; severity: "slight" | "plain" | "bad"; vessel: number; jars: number }[];
  lookedAt?: number;
  closedAt?: number;
  notes?: [number, string][];
}

/** The batches, in different states. Times are in seconds after the start, temperatures in °C as shown, weights in mg. */
export const BATCHES: DemoBatch[] = table.map(({ id, version, ...rest }) => ({
  ...(rest as unknown as DemoBatch),
  id: demoId(8, id),
  version: demoId(7, version),
}));
