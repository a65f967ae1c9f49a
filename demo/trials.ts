import { PROTOCOLS, protocol, type TestCandle, type TrialBody, type TrialEvent, type TrialPlan, wicksOf } from "@hearth/core";
import { demoId, type Scenario, SHED } from "./workshop";

const need = <T>(value: T | undefined, what: string): T => {
  if (value === undefined) throw new Error(`The demo lacks ${what}.`);
  return value;
};

/** How one wick of the demo burns: the diameter of its pool and after how long, its depth, and other signs. Invented. */
export interface Burns {
  wick: number;
  endsMm: number;
  /** Hours after which the pool is two thirds as wide as it will be. */
  hours: number;
  deepMm: number;
  flame: "small" | "steady" | "large";
  wallC: number;
  gramsPerHour: number;
  /** Seen from this session on, at its last look. */
  sootFrom?: number;
  mushroomFrom?: number;
}

export interface DemoTrial {
  n: number;
  name: string;
  varies: TrialPlan["varies"];
  product: number;
  vessel: number;
  wax: string;
  family: string;
  scent: string;
  loadPpm: number;
  formula: string;
  dyed: boolean;
  begunDaysBefore: number;
  /** Hours before now at which each session was lit. */
  lit: readonly number[];
  variants: readonly Burns[];
  /** The numbers of the two people who ran it; the first two of the workshop where nothing is said. */
  crew?: readonly [number, number];
  /** How it ended: days before now, what each test candle got from both people in which room, and what was decided of each variant. */
  ended?: {
    daysBefore: number;
    scores: [testCandle: string, room: Room, one: number, two: number][];
    decided: { variant: string; verdict: "passed" | "failed"; why: string }[];
  };
  /** A check that nobody made: session and test candle. */
  missed?: readonly [session: number, testCandle: string];
}
type Room = "bathroom" | "bedroom" | "living room";

const TRIALS: readonly DemoTrial[] = [
  {
    n: 1,
    name: "Which wick size for Rain on slate, squat tumbler",
    varies: "wick size",
    product: 1,
    vessel: 1,
    wax: "container soy",
    family: "soy",
    scent: "rain on slate",
    loadPpm: 80_000,
    formula: "Rain on slate",
    dyed: false,
    begunDaysBefore: 34,
    lit: [32 * 24, 31 * 24, 30 * 24],
    variants: [
      { wick: 1, endsMm: 55, hours: 1.6, deepMm: 7, flame: "small", wallC: 38, gramsPerHour: 2.9 },
      { wick: 2, endsMm: 79, hours: 1.1, deepMm: 9, flame: "steady", wallC: 46, gramsPerHour: 4.1 },
    ],
    ended: {
      daysBefore: 28,
      scores: [
        ["A1", "bathroom", 6, 7],
        ["B1", "bathroom", 8, 9],
        ["A1", "bedroom", 4, 6],
        ["B1", "bedroom", 7, 8],
        ["A1", "living room", 3, 4],
        ["B1", "living room", 6, 7],
      ],
      decided: [
        { variant: "A", verdict: "failed", why: "tunnels" },
        { variant: "B", verdict: "passed", why: "" },
      ],
    },
    missed: [1, "A2"],
  },
  {
    n: 2,
    name: "Which wick kind for Hay loft, squat tumbler",
    varies: "wick kind",
    product: 6,
    vessel: 1,
    wax: "coconut blend",
    family: "coconut",
    scent: "hay loft",
    loadPpm: 90_000,
    formula: "Hay loft, coconut",
    dyed: false,
    begunDaysBefore: 4,
    lit: [3 * 24, 2 * 24, 1.87],
    variants: [
      { wick: 2, endsMm: 78, hours: 1.2, deepMm: 9, flame: "steady", wallC: 45, gramsPerHour: 4, mushroomFrom: 2 },
      { wick: 4, endsMm: 72, hours: 1.5, deepMm: 8, flame: "steady", wallC: 43, gramsPerHour: 3.6 },
      { wick: 3, endsMm: 80, hours: 0.7, deepMm: 14, flame: "large", wallC: 64, gramsPerHour: 5.4, sootFrom: 2 },
    ],
  },
];

const LETTERS = ["A", "B", "C"];
const CODES = ["K7", "M3", "R4", "T9", "V2", "X6"];

function testCandlesOf(demo: DemoTrial, { materials, products }: Scenario): TestCandle[] {
  const vessel = need(
    materials.vessels.find((vessel) => vessel.id === demoId(4, demo.vessel)),
    "a vessel",
  );
  const product = need(
    products.find((product) => product.id === demoId(0x26, demo.product)),
    "a product",
  );
  return demo.variants.flatMap((variant, index) => {
    const wick = need(
      materials.wicks.find((wick) => wick.id === demoId(0x22, variant.wick)),
      "a wick",
    );
    return [1, 2].map(
      (n): TestCandle => ({
        key: `${LETTERS[index]}${n}`,
        variant: LETTERS[index] as string,
        code: CODES[(index * 2 + n * 3) % CODES.length] as string,
        fill: "full",
        container: "vessel",
        containerId: vessel.id,
        vessel: vessel.name,
        innerTopUm: vessel.innerTopUm,
        innerBottomUm: vessel.innerBottomUm,
        heightUm: vessel.heightUm,
        fillMg: vessel.workingFillMg,
        wick: wicksOf(wick, 1),
        family: demo.family,
        wax: demo.wax,
        scent: demo.scent,
        loadPpm: demo.loadPpm,
        dyed: demo.dyed,
        added: [],
        formula: demo.formula,
        batch: null,
        productId: product.id,
      }),
    );
  });
}

/** Returns the entries of one demo trial, hung on `now`. */
function entriesOf(demo: DemoTrial, now: Date, scenario: Scenario): TrialEvent[] {
  const testCandles = testCandlesOf(demo, scenario);
  const plan: TrialPlan = { format: 2, name: demo.name, varies: demo.varies, protocol: protocol.parse(PROTOCOLS[0]), testCandles };
  const events: TrialEvent[] = [];
  const add = (ms: number, body: TrialBody, who = 1) => {
    if (ms > now.getTime()) return;
    const at = new Date(ms).toISOString();
    events.push({
      id: demoId(0x40 + demo.n, events.length + 1),
      happenedAt: at,
      arrivedAt: at,
      personId: demoId(1, demo.crew?.[who - 1] ?? who),
      instrumentId: null,
      corrects: null,
      ...body,
    } as TrialEvent);
  };
  add(now.getTime() - demo.begunDaysBefore * 86_400_000, { kind: "started", payload: { plan } });
  const HOUR = 3_600_000;
  const gone = new Map<string, number>();
  const stopped = new Set<string>();
  for (const [session, hoursBefore] of demo.lit.entries()) {
    const asked = plan.protocol.sessions[session] ?? need(plan.protocol.sessions.at(-1), "a session");
    for (const [position, testCandle] of testCandles.entries()) {
      if (stopped.has(testCandle.key)) continue;
      const burns = need(demo.variants[LETTERS.indexOf(testCandle.variant)], "an option");
      // Two of a kind differ a little, as they do.
      const twin = testCandle.key.endsWith("2") ? 0.97 : 1;
      const lit = now.getTime() - hoursBefore * HOUR + position * 90_000;
      const before = 412_000 + position * 700 - (gone.get(testCandle.key) ?? 0);
      add(lit, { kind: "lit", payload: { testCandle: testCandle.key, trimUm: 5_000, air: session === 1 ? ["window open"] : [], early: "" } });
      add(lit, { kind: "weighed", payload: { testCandle: testCandle.key, session: session + 1, when: "before", mg: before } });
      let end = lit + (asked.minutes + 4) * 60_000;
      for (const [index, minute] of asked.checks.entries()) {
        const grown = 1 - Math.exp(-((minute / 60) * (1 + session * 0.08)) / burns.hours);
        const last = index === asked.checks.length - 1;
        const soot = burns.sootFrom !== undefined && session + 1 >= burns.sootFrom && last;
        const hot = burns.wallC > 60 && session > 0 && last;
        if (demo.missed?.[0] === session && demo.missed[1] === testCandle.key) continue;
        add(lit + (minute + (position % 3)) * 60_000, {
          kind: "checked",
          payload: {
            testCandle: testCandle.key,
            poolUm: Math.round(burns.endsMm * twin * grown) * 1_000,
            depthUm: Math.round(burns.deepMm * grown) * 1_000,
            flame: burns.flame === "large" && !last ? "steady" : burns.flame === "large" && session === 0 ? "steady" : burns.flame,
            mushroom: burns.mushroomFrom !== undefined && session + 1 >= burns.mushroomFrom ? "small" : "none",
            soot: soot ? "gray" : "none",
            ...(soot ? { sootAt: "rim" as const } : {}),
            wall: Math.round((hot ? burns.wallC : Math.min(burns.wallC, 58)) * 100 * (0.9 + 0.1 * grown)),
            ...(last ? { onWall: burns.endsMm < 70 ? ("thick" as const) : ("none" as const) } : {}),
          },
        });
        if (soot) {
          end = lit + (minute + 2 + (position % 3)) * 60_000;
          add(end, { kind: "extinguished", payload: { testCandle: testCandle.key, why: "safety", sign: "soot on the rim, the flame large" } });
          add(end + HOUR, { kind: "stopped", payload: { testCandle: testCandle.key, why: "no more is needed" } });
          stopped.add(testCandle.key);
        }
      }
      if (!stopped.has(testCandle.key)) add(end, { kind: "extinguished", payload: { testCandle: testCandle.key, why: "protocol", sign: "" } });
      // No two sessions burn quite alike.
      const burned = Math.round(burns.gramsPerHour * twin * ((end - lit) / HOUR) * (1 + ((session * 5 + position * 3) % 7) / 100 - 0.03) * 10) * 100;
      gone.set(testCandle.key, (gone.get(testCandle.key) ?? 0) + burned);
      if (end < now.getTime())
        add(end + 2 * HOUR, { kind: "weighed", payload: { testCandle: testCandle.key, session: session + 1, when: "after", mg: before - burned } });
    }
  }
  if (demo.ended) {
    const day = now.getTime() - demo.ended.daysBefore * 86_400_000;
    for (const [index, [testCandle, room, score, two]] of demo.ended.scores.entries()) {
      add(day + index * HOUR, { kind: "throwScored", payload: { testCandle, throw: "hot", room, score: score, window: false } }, 1);
      add(day + index * HOUR + 600_000, { kind: "throwScored", payload: { testCandle, throw: "hot", room, score: two, window: false } }, 2);
    }
    add(day + 10 * HOUR, { kind: "codesRevealed", payload: {} });
    for (const decided of demo.ended.decided) add(day + 11 * HOUR, { kind: "decided", payload: decided });
    add(day + 12 * HOUR, { kind: "closed", payload: {} });
  }
  return events.sort((a, b) => Date.parse(a.happenedAt) - Date.parse(b.happenedAt));
}

/** Returns the demo's trials, or others of a workshop, each with its number and entries; numbered by time. */
export const demoTrials = (now: Date, scenario: Scenario = SHED, before: readonly DemoTrial[] = []): { id: string; number: number; events: TrialEvent[] }[] =>
  [...before, ...TRIALS].map((demo, index) => ({ id: demoId(0x3f, demo.n), number: index + 1, events: entriesOf(demo, now, scenario) }));
