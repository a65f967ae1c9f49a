import type { FormulaSpec, Profile } from "@hearth/core";
import { READY_PROFILES } from "@hearth/core";

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

const MINUTE = 60;
const HOUR = 3_600;
const DAY = 86_400;

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

export const BATCHES: DemoBatch[] = [
  {
    id: demoId(8, 1),
    number: 11,
    version: demoId(7, 1),
    vessels: [[1, 6]],
    sparePpm: 50_000,
    startedBefore: 33 * DAY,
    weighedAt: 6 * MINUTE,
    off: [0, 0],
    readings: [
      ["watch", 20 * MINUTE, 62.5],
      ["heat", 38 * MINUTE, 85.9],
      ["add", 41 * MINUTE, 84.8],
      ["watch", 60 * MINUTE, 71.2],
      ["pour", 82 * MINUTE, 61.6],
    ],
    stirredAt: 44 * MINUTE,
    pouredAt: 84 * MINUTE,
    lookedAt: 1.3 * DAY,
    closedAt: 18 * DAY,
    notes: [[17 * DAY, "Faint in the living room at 2 m. Try 8 %."]],
  },
  {
    id: demoId(8, 2),
    number: 12,
    version: demoId(7, 2),
    vessels: [
      [1, 8],
      [4, 4],
    ],
    sparePpm: 50_000,
    startedBefore: 7 * DAY,
    weighedAt: 8 * MINUTE,
    off: [1_000, 0],
    slip: 121_000,
    readings: [
      ["watch", 18 * MINUTE, 58],
      ["heat", 35 * MINUTE, 86.2],
      ["add", 38 * MINUTE, 85.4],
      ["pour", 55 * MINUTE, 72.5],
    ],
    stirredAt: 40 * MINUTE,
    pouredAt: 57 * MINUTE,
    flaws: [
      { defect: "rough-top", place: "top", severity: "bad", vessel: 1, jars: 7 },
      { defect: "sinkhole", place: "wick", severity: "plain", vessel: 1, jars: 2 },
      { defect: "wet-spot", place: "side", severity: "slight", vessel: 1, jars: 3 },
    ],
    lookedAt: 1.4 * DAY,
    notes: [[56 * MINUTE, "Both pots ready at once; poured this one without waiting."]],
  },
  {
    id: demoId(8, 3),
    number: 13,
    version: demoId(7, 3),
    vessels: [[2, 12]],
    sparePpm: 40_000,
    startedBefore: 1.6 * DAY,
    weighedAt: 5 * MINUTE,
    off: [0, 500],
    readings: [
      ["heat", 31 * MINUTE, 85.1],
      ["add", 33 * MINUTE, 84.9],
      ["watch", 38 * MINUTE, 79.4, "infrared"],
      ["pour", 46 * MINUTE, 75.2],
    ],
    stirredAt: 35 * MINUTE,
    pouredAt: 48 * MINUTE,
  },
  {
    id: demoId(8, 4),
    number: 14,
    version: demoId(7, 4),
    vessels: [
      [1, 4],
      [3, 24],
    ],
    sparePpm: 60_000,
    startedBefore: 3.4 * HOUR,
    weighedAt: 7 * MINUTE,
    off: [0, 0],
    readings: [
      ["heat", 26 * MINUTE, 71.3],
      ["watch", 34 * MINUTE, 66.4],
      ["add", 44 * MINUTE, 61],
      ["pour", 49 * MINUTE, 60.2],
    ],
    stirredAt: 47 * MINUTE,
    pouredAt: 51 * MINUTE,
  },
  {
    id: demoId(8, 5),
    number: 15,
    version: demoId(7, 2),
    vessels: [
      [1, 5],
      [3, 20],
    ],
    sparePpm: 50_000,
    startedBefore: 68 * MINUTE,
    weighedAt: 6 * MINUTE,
    off: [0, 0],
    readings: [
      ["watch", 18 * MINUTE, 54.2],
      ["watch", 28 * MINUTE, 73.5],
      ["heat", 37 * MINUTE, 85.6],
      ["add", 41 * MINUTE, 84.7],
      ["watch", 52 * MINUTE, 74.6],
      ["pour", 65 * MINUTE, 67],
    ],
    stirredAt: 44 * MINUTE,
  },
  {
    id: demoId(8, 6),
    number: 16,
    version: demoId(7, 3),
    vessels: [[2, 6]],
    sparePpm: 40_000,
    startedBefore: 9 * MINUTE,
    weighedAt: 4 * MINUTE,
    off: [0, 0],
    readings: [],
  },
];
