import type { FormulaSpec, NoteSubject, Process } from "@hearth/core";
import { doseFromShown, PRESET_PROCESSES, processFrom, testedOf } from "@hearth/core";
import table from "./batches.json" with { type: "json" };
import { DEMO_MATERIALS, type DemoMaterials, demoId } from "./materials";

export { demoId, LOTS } from "./materials";

/** The made-up workshop: a shed behind a walled garden. Every name, scent, vessel and figure here is invented. */

export const WORKSHOP = { id: demoId(0, 1), name: "Quillfen candle shed", massUnit: "g" as const, temperatureUnit: "C" as const };

export const PEOPLE: { id: string; name: string; archived?: boolean }[] = [
  { id: demoId(1, 1), name: "Ansa" },
  { id: demoId(1, 2), name: "Brill" },
];

export const {
  waxes: WAXES,
  fragrances: FRAGRANCES,
  vessels: VESSELS,
  dyes: DYES,
  additives: ADDITIVES,
  wicks: WICKS,
  molds: MOLDS,
  embeds: EMBEDS,
  packs: PACKS,
} = DEMO_MATERIALS;

export const INSTRUMENTS = [
  { id: demoId(5, 1), name: "bench scale", kind: "scale" as const, correction: 0, resolutionUg: 1_000_000, capacityMg: 5_000_000 },
  { id: demoId(5, 2), name: "fine scale", kind: "scale" as const, correction: 0, resolutionUg: 100_000, capacityMg: 500_000 },
  { id: demoId(5, 3), name: "long probe", kind: "probe" as const, correction: -50, resolutionUg: null },
  { id: demoId(5, 4), name: "infrared pistol", kind: "infrared" as const, correction: 0, resolutionUg: null },
];

function processOf(id: string): Process {
  const ready = PRESET_PROCESSES.find((preset) => preset.id === id);
  if (!ready) throw new Error(`The demo names a process that does not exist: ${id}`);
  return processFrom(ready);
}

/** Returns what a formula of one wax and one oil says; the load in millionths of the wax or of the total. */
export const simpleSpec = (wax: number, oil: number, basis: FormulaSpec["basis"], loadPpm: number, process: string, notes = ""): FormulaSpec => ({
  waxes: [{ id: demoId(2, wax), share: 1 }],
  fragrances: [{ id: demoId(3, oil), share: 1 }],
  basis,
  loadPpm,
  process: processOf(process),
  notes,
});

export interface DemoFormula {
  id: string;
  name: string;
  archived?: boolean;
  /** Versions, each with the days before the demo's now on which it was written; 40 for the first and 16 for a later one where nothing is said. */
  versions: { id: string; number: number; spec: FormulaSpec; daysBefore?: number }[];
}

export const FORMULAS: DemoFormula[] = [
  {
    id: demoId(6, 1),
    name: "Rain on slate, tumbler",
    versions: [
      { id: demoId(7, 1), number: 1, spec: simpleSpec(1, 1, "wax", 60_000, "soy-bind-hot") },
      { id: demoId(7, 2), number: 2, spec: simpleSpec(1, 1, "wax", 80_000, "soy-bind-hot", "6 % was too faint in the living room.") },
    ],
  },
  {
    id: demoId(6, 2),
    name: "Quince and smoke, tin",
    versions: [{ id: demoId(7, 3), number: 1, spec: simpleSpec(3, 2, "total", 80_000, "paraffin-bind-hot") }],
  },
  { id: demoId(6, 3), name: "Hay loft, coconut", versions: [{ id: demoId(7, 4), number: 1, spec: simpleSpec(2, 3, "wax", 90_000, "coconut") }] },
  {
    id: demoId(6, 4),
    name: "Walled garden, bowl",
    versions: [
      {
        id: demoId(7, 5),
        number: 1,
        spec: {
          ...simpleSpec(1, 1, "wax", 70_000, "soy-bind-hot", "Three wicks. Green as in the first week of April."),
          waxes: [
            { id: demoId(2, 1), share: 75 },
            { id: demoId(2, 2), share: 25 },
          ],
          fragrances: [
            { id: demoId(3, 1), share: 12 },
            { id: demoId(3, 4), share: 10 },
          ],
          additives: [{ id: demoId(0x21, 1), ppm: 20_000 }],
          dyes: [{ id: demoId(0x20, 1), by: "drops" as const, amount: doseFromShown("drops", 13, "g") }],
        },
      },
    ],
  },
  { id: demoId(6, 5), name: "Quince and smoke, pillar", versions: [{ id: demoId(7, 6), number: 1, spec: simpleSpec(5, 2, "wax", 40_000, "pillar-glossy") }] },
  { id: demoId(6, 6), name: "Rain on slate, melts", versions: [{ id: demoId(7, 7), number: 1, spec: simpleSpec(1, 1, "wax", 100_000, "melts") }] },
];

type Reading = ["heat" | "add" | "pour" | "watch", number, number, ("probe" | "infrared")?];

export interface DemoBatch {
  id: string;
  number: number;
  version: string;
  /** By number: how many of which vessel, and of which mold. */
  vessels: [number, number][];
  molds?: [number, number][];
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
  flaws?: { defect: string; place: "top" | "side" | "bottom" | "wick"; severity: "slight" | "clear" | "severe"; vessel: number; jars: number }[];
  lookedAt?: number;
  closedAt?: number;
  /** When it was abandoned, and the wax thrown away. */
  abandonedAt?: number;
  /** Of the room while it was poured, in °C, and how the jars were warmed. */
  room?: number;
  warmed?: "no" | "heat gun";
  notes?: [number, string][];
  /** The numbers of the two people who made it; the first two of the workshop where nothing is said. */
  crew?: readonly [number, number];
  /** What became of its jars after the release; some are sold at the door where nothing is said. */
  jarsGone?: JarsGone[];
}

/** Jars of a batch that were packed, or sold without a pack. */
export interface JarsGone {
  /** Seconds after the start of the batch. */
  at: number;
  containerId: string;
  jars: number;
  /** The packs that they went into; null where they were sold as they stood. */
  packRun: { id: string; of: string; packs: number; parts: { id: string; count: number }[] } | null;
  /** To whom, where they were sold as they stood; and whether as seconds. */
  whom: string;
  isSecond?: boolean;
}

/** The batches, in different states. Times are in seconds after the start, temperatures in °C as shown, weights in mg. */
export const BATCHES: DemoBatch[] = table.map(({ id, version, ...rest }) => ({
  ...(rest as unknown as DemoBatch),
  id: demoId(8, id),
  version: demoId(7, version),
}));

/** What one pack of each product takes, by its place: a box or none, and parts by number and count. */
const PACKAGING: Record<number, [box: number | null, parts: [number, number][]]> = {
  1: [
    2,
    [
      [4, 1],
      [5, 1],
      [6, 1],
    ],
  ],
  2: [null, [[6, 1]]],
  3: [8, [[6, 1]]],
  4: [
    null,
    [
      [5, 1],
      [6, 1],
    ],
  ],
  6: [
    2,
    [
      [4, 1],
      [5, 1],
      [6, 1],
    ],
  ],
  7: [
    1,
    [
      [5, 6],
      [6, 1],
      [7, 1],
    ],
  ],
};
export const packagingOf = (of: (typeof PACKAGING)[number] | undefined) =>
  of ? { boxId: of[0] === null ? null : demoId(0x2c, of[0]), parts: of[1].map(([n, count]) => ({ id: demoId(0x2c, n), count })) } : null;

/** What is sold: a formula by its number in a container with its wicks, at a price in cents. */
interface ProductRow {
  n: number;
  name: string;
  formulaId: string;
  container: "vessel" | "mold";
  containerN: number;
  /** By its number; none for melts. */
  wick: number | null;
  wicks: number;
  price: number;
  pack: number;
  wickTest: "tested" | "test due" | "failed";
  /** The formula as it was when the wick was tested. */
  testedSpec: FormulaSpec | null;
  packaging: ReturnType<typeof packagingOf>;
  archived?: boolean;
}
export function productFrom({ n, containerN, wick, testedSpec, ...row }: ProductRow) {
  const containerId = demoId(row.container === "vessel" ? 4 : 0x24, containerN);
  const wickId = wick === null ? null : demoId(0x22, wick);
  return {
    ...row,
    id: demoId(0x26, n),
    containerId,
    wickId,
    packCost: null,
    soldBy: row.name.includes("tealight") ? ("weight" as const) : ("piece" as const),
    labelContainer: row.name.includes("tealight") ? ("tealight" as const) : null,
    handsSeconds: 240,
    heatSeconds: null,
    testedAs: testedSpec && row.wickTest !== "test due" ? testedOf(testedSpec, { containerId, wickId, wicks: row.wicks }) : null,
  };
}
export type DemoProduct = ReturnType<typeof productFrom>;

/** What the workshop sells. */
export const PRODUCTS: DemoProduct[] = (
  [
    ["Rain on slate, squat tumbler", 1, "vessel", 1, 2, 1, 1_650, 1, "tested", 2],
    ["Rain on slate, sample cup", 1, "vessel", 4, 1, 1, 350, 1, "tested", 2],
    ["Rain on slate, melts by four", 6, "mold", 2, null, 1, 650, 4, "test due", 7],
    ["Quince and smoke, narrow tin", 2, "vessel", 2, 1, 1, 1_150, 1, "tested", 3],
    ["Quince and smoke, pillar", 5, "mold", 1, 4, 1, 1_900, 1, "failed", 6],
    ["Hay loft, squat tumbler", 3, "vessel", 1, 2, 1, 1_750, 1, "test due", null],
    ["Hay loft, tealights by six", 3, "vessel", 3, 5, 1, 780, 6, "tested", 4],
    ["Walled garden, wide bowl", 4, "vessel", 6, 3, 3, 3_400, 1, "test due", null],
  ] as const
).map(([name, formula, container, containerN, wick, wicks, price, pack, wickTest, tested], index) =>
  productFrom({
    n: index + 1,
    name,
    formulaId: demoId(6, formula),
    container,
    containerN,
    wick,
    wicks,
    price,
    pack,
    wickTest,
    testedSpec: FORMULAS.flatMap((formula) => formula.versions).find((item) => item.id === demoId(7, tested ?? 0))?.spec ?? null,
    packaging: packagingOf(PACKAGING[index + 1]),
  }),
);

/** What is wanted: a market in four weeks, two orders, and stock to keep. */
export const WANTED = (
  [
    [1, 24, 28, "town market"],
    [4, 18, 28, "town market"],
    [2, 30, 28, "town market"],
    [6, 8, 19, "shop on the quay"],
    [7, 36, 19, "shop on the quay"],
    [8, 4, 9, "a wedding table"],
    [3, 16, null, "melts for the window"],
  ] as const
).map(([product, count, inDays, note], index) => ({ id: demoId(0x2a, index + 1), productId: demoId(0x26, product), count, inDays, note }));

/** Colors as this workshop makes them. */
export const COLORS = [
  {
    id: demoId(0x28, 1),
    name: "Moss of the wall",
    recipe: { waxId: demoId(2, 1), fragranceId: demoId(3, 4), dyes: [{ id: demoId(0x20, 1), by: "drops" as const, amount: doseFromShown("drops", 13, "g") }] },
    daysBefore: 41,
  },
  {
    id: demoId(0x28, 2),
    name: "Plum dusk",
    recipe: { waxId: demoId(2, 3), fragranceId: demoId(3, 2), dyes: [{ id: demoId(0x20, 2), by: "pieces" as const, amount: doseFromShown("pieces", 2, "g") }] },
    daysBefore: 30,
  },
];

export interface DemoNote {
  id: string;
  kind: NoteSubject;
  ofId: string;
  text: string;
  daysBefore: number;
  personId: string;
}
/** Notes of the demo workshop. */
export const NOTES: DemoNote[] = [
  {
    id: demoId(0x29, 1),
    kind: "formula" as const,
    ofId: demoId(6, 1),
    text: "8 % fills the living room by the second burn. At 6 % it stayed in the corner.",
    daysBefore: 12,
    personId: demoId(1, 1),
  },
  {
    id: demoId(0x29, 2),
    kind: "wax" as const,
    ofId: demoId(2, 1),
    text: "This delivery sets softer than the last. Pour at the low end of the range, and give the shed an hour of heating first.",
    daysBefore: 9,
    personId: demoId(1, 1),
  },
  {
    id: demoId(0x29, 3),
    kind: "batch" as const,
    ofId: demoId(8, 2),
    text: "The two nearest the door frosted, the others did not. Keep that end of the table empty.",
    daysBefore: 5,
    personId: demoId(1, 2),
  },
];

/** What a made-up workshop works with. */
export interface Scenario {
  people: typeof PEOPLE;
  materials: DemoMaterials;
  formulas: DemoFormula[];
  products: DemoProduct[];
  notes: DemoNote[];
}
/** The demo's own. */
export const SHED: Scenario = { people: PEOPLE, materials: DEMO_MATERIALS, formulas: FORMULAS, products: PRODUCTS, notes: NOTES };
