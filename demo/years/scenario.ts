import { wickOfWidth } from "../events";
import { demoId, demoNumber, MATERIAL_GROUP, YEARS_MATERIALS } from "../materials";
import { KINDS, type Kind } from "../past";
import {
  type DemoFormula,
  type DemoNote,
  type DemoProduct,
  FORMULAS,
  NOTES,
  PEOPLE,
  PRODUCTS,
  packagingOf,
  productFrom,
  type Scenario,
  simpleSpec,
} from "../workshop";
import table from "./formulas.json" with { type: "json" };

/** A workshop that is years old: what it has now, what it gave up, and what it made when. */
export interface YearsScenario extends Scenario {
  years: number;
  days: number;
  kinds: Kind[];
}

/** How a formula is processed, which preset that is, and as which of the demo's kinds it goes. */
const PROCESSES = {
  soy: { preset: "soy-bind-hot", basis: "wax", like: demoId(7, 2) },
  jar: { preset: "paraffin-bind-hot", basis: "total", like: demoId(7, 3) },
  coconut: { preset: "coconut", basis: "wax", like: demoId(7, 4) },
  pillar: { preset: "pillar-glossy", basis: "wax", like: demoId(7, 6) },
  melts: { preset: "melts", basis: "wax", like: demoId(7, 7) },
} as const;

/** A formula of the years: its load in percent, and from when until when it was made as shares of the whole time before now. */
interface FormulaRow {
  n: number;
  name: string;
  process: keyof typeof PROCESSES;
  wax: number;
  oil: number;
  percent: number;
  container: "vessel" | "mold";
  containerN: number;
  from: number;
  until: number;
  /** Of one pack, in cents; null if it never was a product. */
  price: number | null;
}
const FORMULA_ROWS = table.map(
  ([name, process, wax, oil, percent, container, containerN, from, until, price], index) =>
    ({ n: FORMULAS.length + 1 + index, name, process, wax, oil, percent, container, containerN, from, until, price }) as FormulaRow,
);
/** What was made for this long, as a share of the whole time, got a second version. */
const SECOND_VERSION_AFTER = 0.25;

/** What is poured at one time, by container: pieces before they are multiplied for a busy workshop. */
const BATCH_SIZES: Record<FormulaRow["container"], Record<number, number[]>> = {
  vessel: { 1: [8, 12], 2: [12, 18], 3: [36], 4: [12], 7: [6, 10], 8: [8, 12], 9: [8, 12], 10: [8, 12] },
  mold: { 1: [3, 5], 2: [24], 3: [4, 6] },
};

/** What a pack takes beside what is in it, by container. */
const PACKAGINGS: Record<FormulaRow["container"], Record<number, [box: number | null, parts: [number, number][]]>> = {
  vessel: {
    1: [
      2,
      [
        [4, 1],
        [5, 1],
        [6, 1],
      ],
    ],
    2: [
      null,
      [
        [5, 1],
        [6, 1],
      ],
    ],
    3: [
      1,
      [
        [5, 6],
        [6, 1],
        [7, 1],
      ],
    ],
    7: [
      9,
      [
        [5, 1],
        [6, 1],
      ],
    ],
    8: [
      10,
      [
        [5, 1],
        [6, 1],
      ],
    ],
    9: [
      null,
      [
        [5, 1],
        [6, 1],
      ],
    ],
    10: [
      2,
      [
        [5, 1],
        [6, 1],
      ],
    ],
  },
  mold: { 1: [null, [[6, 1]]], 2: [8, [[6, 1]]], 3: [null, [[6, 1]]] },
};
const packSize = (row: FormulaRow) => (row.container === "mold" && row.containerN === 2 ? 4 : row.containerN === 3 && row.container === "vessel" ? 6 : 1);

/** People beside those of today, by their numbers. */
const FORMER_PEOPLE = [
  { id: demoId(1, 3), name: "Dorrin", archived: true },
  { id: demoId(1, 4), name: "Wess", archived: true },
  { id: demoId(1, 5), name: "Petrel" },
  { id: demoId(1, 6), name: "Issa", archived: true },
];

/** Returns the numbers of who poured and who helped, `share` of the whole time before now. */
export function crewAt(share: number, n: number): readonly [number, number] {
  const helper = share > 0.62 ? 4 : share > 0.3 ? 3 : 2;
  const pourer = n % 7 === 3 && share > 0.08 && share < 0.18 ? 6 : n % 3 === 0 && share < 0.45 ? 5 : 1;
  return [pourer, helper];
}

function formulaFrom(row: FormulaRow, days: number): DemoFormula {
  const { preset, basis } = PROCESSES[row.process];
  const spec = (percent: number, notes: string) => simpleSpec(row.wax, row.oil, basis, percent * 10_000, preset, notes);
  const version = (number: number, share: number, percent: number, notes = "") => ({
    id: demoId(7, row.n * 10 + number),
    number,
    spec: spec(percent, notes),
    daysBefore: Math.ceil(share * days) + 2,
  });
  const isLong = row.from - row.until > SECOND_VERSION_AFTER;
  return {
    id: demoId(6, row.n),
    name: row.name,
    archived: row.until > 0.05,
    versions: isLong
      ? [version(1, row.from, row.percent - 1), version(2, changedAt(row), row.percent, "A little stronger.")]
      : [version(1, row.from, row.percent)],
  };
}
const changedAt = ({ from, until }: FormulaRow) => from - (from - until) * 0.4;

/** Returns what was made by each version of a formula, and when. */
function kindsOf(row: FormulaRow, { versions }: DemoFormula, days: number): Kind[] {
  const like = KINDS.find((kind) => kind.version === PROCESSES[row.process].like);
  if (!like) throw new Error(`No kind of the demo is processed as ${row.process}.`);
  const made = (BATCH_SIZES[row.container][row.containerN] ?? []).map((count) =>
    row.container === "vessel"
      ? { vessels: [[row.containerN, count]] as [number, number][] }
      : { vessels: [], molds: [[row.containerN, count]] as [number, number][] },
  );
  return versions.map(({ id }, index) => ({
    ...like,
    made,
    version: id,
    from: (index === 0 ? row.from : changedAt(row)) * days,
    until: (index === versions.length - 1 ? row.until : changedAt(row)) * days,
    weight: row.price === null ? 1 : like.weight,
  }));
}

function productsOf(row: FormulaRow, formula: DemoFormula): DemoProduct[] {
  if (row.price === null) return [];
  const family = YEARS_MATERIALS.waxes.find((wax) => wax.id === demoId(MATERIAL_GROUP.wax, row.wax))?.family ?? "";
  const list = row.container === "vessel" ? YEARS_MATERIALS.vessels : YEARS_MATERIALS.molds;
  const container = list.find((item) => item.id === demoId(MATERIAL_GROUP[row.container], row.containerN));
  // Of a tin whose wax no wick is made for, the smallest that fits was tried and found right.
  const wick = packSize(row) === 4 || !container ? undefined : (wickOfWidth(YEARS_MATERIALS.wicks, container, family) ?? YEARS_MATERIALS.wicks[0]);
  const isRecent = row.from < 0.16;
  return [
    productFrom({
      n: row.n + 20,
      name: packSize(row) === 6 ? `${row.name} by six` : packSize(row) === 4 ? `${row.name} by four` : row.name,
      formulaId: formula.id,
      container: row.container,
      containerN: row.containerN,
      wick: wick ? demoNumber(wick.id) : null,
      wicks: 1,
      price: row.price,
      pack: packSize(row),
      wickTest: wick && !isRecent ? "tested" : "test due",
      testedSpec: formula.versions.at(-1)?.spec ?? null,
      packaging: packagingOf(PACKAGINGS[row.container][row.containerN]),
      archived: formula.archived === true,
    }),
  ];
}

/** What the notes of the years are about. */
type Remarked = Extract<DemoNote["kind"], "formula" | "product" | "wax" | "fragrance" | "vessel" | "wick">;
/** What is noted again and again, by what it is about; a note every few weeks. */
const REMARKS: [kind: Remarked, text: string][] = [
  ["wax", "The new sack smells faintly of the warehouse. Kept one scoop aside to compare."],
  ["formula", "Asked for at the fair by three people. Pour more before the next one."],
  ["fragrance", "This bottle is darker than the last. Same lot label, so asked the supplier."],
  ["vessel", "Two of this box had a chip at the rim. Put aside, not for filling."],
  ["wick", "Tabs sit loose on this spool; press each one before setting it."],
  ["product", "The lid sticks when the shop is warm. Leave it off until the wax is cold."],
  ["formula", "Throw is better after three weeks than after two. Tell the shops."],
  ["wax", "Melts a few minutes faster since the ring was changed."],
];
const NOTES_A_YEAR = 30;

function notesOf(years: number, days: number, { materials, formulas, products }: Pick<Scenario, "materials" | "formulas" | "products">): DemoNote[] {
  const subjectsOf: Record<Remarked, readonly { id: string }[]> = {
    formula: formulas,
    product: products,
    wax: materials.waxes,
    fragrance: materials.fragrances,
    vessel: materials.vessels,
    wick: materials.wicks,
  };
  return Array.from({ length: years * NOTES_A_YEAR }, (_, index): DemoNote => {
    const share = 0.99 - (index / (years * NOTES_A_YEAR)) * 0.97;
    const [kind, text] = REMARKS[index % REMARKS.length] as (typeof REMARKS)[number];
    const subjects = subjectsOf[kind];
    return {
      id: demoId(0x29, NOTES.length + 1 + index),
      kind,
      ofId: subjects[(index * 7) % subjects.length]?.id ?? "",
      text,
      daysBefore: share * days,
      personId: demoId(1, crewAt(share, index)[index % 2] ?? 1),
    };
  });
}

/** Returns a made-up workshop of so many years: forty formulas and more than thirty products, some of them given up. */
export function yearsScenario(years: number): YearsScenario {
  const days = years * 365;
  const added = FORMULA_ROWS.map((row) => ({ row, formula: formulaFrom(row, days) }));
  const formulas = [...FORMULAS, ...added.map(({ formula }) => formula)];
  const products = [...PRODUCTS, ...added.flatMap(({ row, formula }) => productsOf(row, formula))];
  // The melts of today were made from the start.
  const ownKinds = KINDS.map((kind) => (kind.version === demoId(7, 7) ? { ...kind, from: Number.POSITIVE_INFINITY } : kind));
  return {
    years,
    days,
    people: [...PEOPLE, ...FORMER_PEOPLE],
    materials: YEARS_MATERIALS,
    formulas,
    products,
    notes: [...NOTES, ...notesOf(years, days, { materials: YEARS_MATERIALS, formulas, products })],
    kinds: [...ownKinds, ...added.flatMap(({ row, formula }) => kindsOf(row, formula, days))],
  };
}
