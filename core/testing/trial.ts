import type { TrialPlan } from "../burn/plan";
import { PROTOCOLS } from "../burn/protocol";
import { protocol } from "../burn/schema";
import { TRIAL, type TrialBody, type TrialEvent } from "../burn/trial";
import { anId } from "./batch";

const ZERO = Date.UTC(2026, 2, 2, 8);
/** A moment, in minutes after the test trial was begun. */
export const atMinute = (minutes: number): string => new Date(ZERO + minutes * 60_000).toISOString();

type TestCandle = TrialPlan["testCandles"][number];
/** Returns a test candle in a jar of 83 mm that narrows to 76, for tests. */
export const aTestCandle = (key: string, over: Partial<TestCandle> = {}): TestCandle => ({
  key,
  variant: key[0] as string,
  code: `X${key}`,
  fill: "full",
  container: "vessel",
  containerId: "0190c0de-0000-7000-8000-00000000a001",
  vessel: "tapered jar",
  innerTopUm: 83_000,
  innerBottomUm: 76_000,
  heightUm: 90_000,
  fillMg: 360_000,
  wick: { wickId: anId(), name: `flat-braid cotton ${key[0]}`, kind: "flat-braid cotton", size: key[0] as string, count: 1 },
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

export const aTrialPlan = (testCandles: TestCandle[], over: Partial<TrialPlan> = {}): TrialPlan => ({
  format: 2,
  name: "Which wick for the tapered jar",
  varies: "wick size",
  protocol: protocol.parse(PROTOCOLS[0]),
  testCandles,
  ...over,
});

/** A trial to which entries are added at minutes after its beginning. */
export function aTrial(plan: TrialPlan, person: string | null = null) {
  const events: TrialEvent[] = [];
  const draft = (minute: number, body: TrialBody, over: Partial<TrialEvent> = {}): TrialEvent => {
    const when = atMinute(minute);
    return { id: anId(), happenedAt: when, arrivedAt: when, personId: person, instrumentId: null, corrects: null, ...body, ...over } as TrialEvent;
  };
  const add = (minute: number, body: TrialBody, over: Partial<TrialEvent> = {}): string => {
    const event = draft(minute, body, over);
    events.push(event);
    return event.id;
  };
  add(0, { kind: "started", payload: { plan } });
  return { events, draft, add, now: () => TRIAL.of(events) };
}
export type ATrial = ReturnType<typeof aTrial>;

interface Seen {
  [minute: number]: Omit<Extract<TrialBody, { kind: "checked" }>["payload"], "testCandle">;
}
/** Adds one burn session of a test candle: lit, checked, extinguished after so many minutes, and weighed where grams are given. */
export function burnOnce(trial: ATrial, testCandle: string, from: number, minutes: number, seen: Seen, grams?: [before: number, after: number]): void {
  trial.add(from, { kind: "lit", payload: { testCandle, trimUm: 5_000, air: [], early: "" } });
  const session = trial.now().state.testCandles[testCandle]?.sessions.length ?? 1;
  if (grams) trial.add(from, { kind: "weighed", payload: { testCandle, session, when: "before", mg: Math.round(grams[0] * 1_000) } });
  for (const [minute, item] of Object.entries(seen)) trial.add(from + Number(minute), { kind: "checked", payload: { testCandle, ...item } });
  trial.add(from + minutes, { kind: "extinguished", payload: { testCandle, why: "protocol", sign: "" } });
  if (grams) trial.add(from + minutes + 60, { kind: "weighed", payload: { testCandle, session, when: "after", mg: Math.round(grams[1] * 1_000) } });
}
