import { type DemoBatch, demoId } from "./workshop";

/**
 * Three months behind the demo: about fifty batches, most of them good, some poured too hot, too cold or too early, one
 * scorched. Invented like everything else here, and the same at every loading: only the dates hang on the day.
 */

/** A row of numbers that is the same each time. */
function row(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296;
    return state / 4_294_967_296;
  };
}

/** A candle that the demo makes again and again, and how its batches usually turn out. */
export interface Kind {
  /** The formula's version that it is poured by. */
  version: string;
  /** The days before now between which it was made. */
  from: number;
  until: number;
  /** What is usually made of it: vessels and molds by number. */
  made: { vessels: [number, number][]; molds?: [number, number][] }[];
  heat: number;
  add: number;
  pour: number;
  /** Minutes from the start to being hot, and from adding to pouring. */
  hotAfter: number;
  coolsFor: number;
  /** How often it is made. */
  weight: number;
}

/** What the demo's shed makes; the stronger load of the tumbler came after six weeks. */
export const KINDS: readonly Kind[] = [
  {
    version: demoId(7, 1),
    from: Number.POSITIVE_INFINITY,
    until: 50,
    made: [{ vessels: [[1, 6]] }, { vessels: [[1, 8]] }],
    heat: 85.4,
    add: 84.6,
    pour: 60.5,
    hotAfter: 36,
    coolsFor: 42,
    weight: 3,
  },
  {
    version: demoId(7, 2),
    from: 50,
    until: 0,
    made: [
      { vessels: [[1, 8]] },
      { vessels: [[1, 12]] },
      {
        vessels: [
          [1, 6],
          [4, 12],
        ],
      },
    ],
    heat: 85.6,
    add: 84.8,
    pour: 61,
    hotAfter: 37,
    coolsFor: 43,
    weight: 5,
  },
  {
    version: demoId(7, 3),
    from: Number.POSITIVE_INFINITY,
    until: 0,
    made: [{ vessels: [[2, 12]] }, { vessels: [[2, 18]] }],
    heat: 85.1,
    add: 84.7,
    pour: 74.5,
    hotAfter: 31,
    coolsFor: 12,
    weight: 4,
  },
  {
    version: demoId(7, 4),
    from: Number.POSITIVE_INFINITY,
    until: 0,
    made: [{ vessels: [[1, 6]] }, { vessels: [[3, 36]] }],
    heat: 70.6,
    add: 60.4,
    pour: 59.8,
    hotAfter: 26,
    coolsFor: 9,
    weight: 3,
  },
  {
    version: demoId(7, 5),
    from: Number.POSITIVE_INFINITY,
    until: 0,
    made: [{ vessels: [[6, 3]] }, { vessels: [[6, 4]] }],
    heat: 85.2,
    add: 84.5,
    pour: 61.2,
    hotAfter: 38,
    coolsFor: 44,
    weight: 2,
  },
  {
    version: demoId(7, 6),
    from: Number.POSITIVE_INFINITY,
    until: 18,
    made: [{ vessels: [], molds: [[1, 3]] }],
    heat: 80.4,
    add: 79.3,
    pour: 79,
    hotAfter: 40,
    coolsFor: 8,
    weight: 1,
  },
  {
    version: demoId(7, 7),
    from: 70,
    until: 0,
    made: [{ vessels: [], molds: [[2, 24]] }],
    heat: 85,
    add: 84.4,
    pour: 62,
    hotAfter: 35,
    coolsFor: 38,
    weight: 2,
  },
];

/** What a batch looks like that went as meant, or not. */
type Course = "good" | "hot" | "cold" | "early" | "short" | "scorched";
const COURSES: [Course, number][] = [
  ["good", 62],
  ["hot", 14],
  ["cold", 12],
  ["early", 5],
  ["short", 5],
  ["scorched", 2],
];

const NOTES: Record<Course, string[]> = {
  good: ["Tops smooth.", "Even, no marks on the glass.", ""],
  hot: ["Poured as it was: two pots were ready at once.", "Should have waited."],
  cold: ["Shed was cold, heater off until noon.", "Glass straight from the store."],
  early: ["Burned one after two days to see. Pool was deep."],
  short: ["Last jar is short; topped up with nothing, kept for testing."],
  scorched: ["Forgot it on the ring. Yellow, smells burnt. Thrown away."],
};

const DAY = 86_400;
const FIRST_DAY = 92;
const MANY = 53;

function choose<T>(next: () => number, list: readonly (readonly [T, number])[]): T {
  let at = next() * list.reduce((sum, [, weight]) => sum + weight, 0);
  for (const [item, weight] of list) {
    at -= weight;
    if (at < 0) return item;
  }
  return (list[0] as readonly [T, number])[0];
}

/** How many batches over how many days, by how much more each makes than a shed does, and of what. */
export interface Past {
  many?: number;
  days?: number;
  times?: number;
  kinds?: readonly Kind[];
}

/** The batches of the time before, oldest first; three months of a shed where nothing is asked. Their numbers are given with those of the others, by time. */
export function pastBatches({ many = MANY, days = FIRST_DAY, times = 1, kinds: all = KINDS }: Past = {}): DemoBatch[] {
  const next = row(20_260_314);
  const between = (low: number, high: number, digits = 1) => Math.round((low + (high - low) * next()) * 10 ** digits) / 10 ** digits;
  return Array.from({ length: many }, (_, index): DemoBatch => {
    const day = days - (index * (days - 3)) / many;
    const kinds = all.filter((kind) => day <= kind.from && day > kind.until);
    // Now and then each of them in its turn, so that none is left out by chance.
    const kind =
      index % 6 === 5
        ? (kinds[Math.floor(index / 6) % kinds.length] as Kind)
        : choose(
            next,
            kinds.map((kind) => [kind, kind.weight] as const),
          );
    const course = choose(next, COURSES);
    const usual = kind.made[Math.floor(next() * kind.made.length)] as Kind["made"][number];
    const more = (list: [number, number][]): [number, number][] => list.map(([n, count]) => [n, Math.round(count * times)]);
    const made = { vessels: more(usual.vessels), ...(usual.molds ? { molds: more(usual.molds) } : {}) };
    const hot = kind.hotAfter * 60 + Math.round(between(-200, 300, 0));
    const addAt = hot + 180;
    const pourAt = addAt + kind.coolsFor * 60 * (course === "hot" ? 0.7 : 1) + Math.round(between(-60, 200, 0));
    const pour = kind.pour + (course === "hot" ? between(5, 10) : course === "cold" ? between(-4, -1) : between(-1.5, 1.5));
    const scorched = course === "scorched";
    const startedBefore = Math.round((day - between(-0.1, 0.1, 3)) * DAY);
    const jars = [...made.vessels, ...(made.molds ?? [])].reduce((sum, [, count]) => sum + count, 0);
    const first = made.vessels[0]?.[0];
    const flaw = (defect: string, place: "top" | "side" | "bottom" | "wick", severity: "slight" | "clear" | "severe", share: number) =>
      first === undefined ? [] : [{ defect, place, severity, vessel: first, jars: Math.max(1, Math.min(made.vessels[0]?.[1] ?? 1, Math.round(jars * share))) }];
    const flaws =
      course === "hot"
        ? [...flaw("rough_top", "top", next() < 0.5 ? "clear" : "severe", 0.7), ...(next() < 0.5 ? flaw("sinkhole", "wick", "clear", 0.3) : [])]
        : course === "cold"
          ? [...flaw("wet_spot", "side", "clear", 0.5), ...(next() < 0.4 ? flaw("wrinkles", "top", "slight", 0.3) : [])]
          : next() < 0.25
            ? flaw("frosting", "side", "slight", 0.3)
            : [];
    const lookedAt = pourAt + 1.15 * DAY;
    const closes = startedBefore > 16 * DAY;
    const note = NOTES[course][Math.floor(next() * NOTES[course].length)] ?? "";
    return {
      id: demoId(0x18, index + 1),
      number: 0,
      version: kind.version,
      vessels: made.vessels,
      ...(made.molds ? { molds: made.molds } : {}),
      sparePpm: course === "short" ? 0 : 50_000,
      startedBefore,
      weighedAt: 240 + Math.round(next() * 200),
      off: [next() < 0.3 ? 1_000 : 0, next() < 0.2 ? 100 : 0],
      readings: scorched
        ? [
            ["watch", Math.round(hot * 0.6), between(70, 78)],
            ["heat", hot + 900, between(101, 106)],
          ]
        : [
            ["watch", Math.round(hot * 0.55), between(52, 66)],
            ["heat", hot, kind.heat + between(-0.8, 0.9)],
            ["add", addAt, kind.add + between(-0.9, 0.4)],
            ["watch", Math.round((addAt + pourAt) / 2), Math.round((kind.add + pour) * 5) / 10],
            ["pour", Math.round(pourAt), Math.round(pour * 10) / 10],
          ],
      ...(scorched ? { abandonedAt: hot + 1_200 } : { stirredAt: addAt + 130, pouredAt: Math.round(pourAt + 140) }),
      room: course === "cold" ? between(14, 16.5) : between(19, 23),
      warmed: course === "cold" ? "no" : next() < 0.6 ? "heat gun" : "no",
      ...(scorched ? {} : { flaws, lookedAt: Math.round(lookedAt) }),
      ...(closes && !scorched ? { closedAt: Math.round(lookedAt + 13 * DAY) } : {}),
      notes: note ? [[scorched ? hot + 1_100 : Math.round(pourAt + 400), note]] : [],
    };
  });
}
