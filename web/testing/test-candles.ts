import { type TestCandle, TRIAL, type TrialBody, type TrialEvent } from "@hearth/core";
import { v7 } from "uuid";

const ZERO = Date.UTC(2026, 2, 2, 8);
/** A moment, in minutes after a test trial was begun. */
export const atMinute = (minutes: number): string => new Date(ZERO + minutes * 60_000).toISOString();

/** Returns a test candle in a jar of 83 mm that narrows to 76. */
export const aTestCandle = (key: string, over: Partial<TestCandle> = {}): TestCandle => ({
  key,
  variant: key[0] as string,
  code: key,
  fill: "full",
  container: "vessel",
  containerId: "0190c0de-0000-7000-8000-00000000a001",
  vessel: "tapered jar",
  innerTopUm: 83_000,
  innerBottomUm: 76_000,
  heightUm: 90_000,
  fillMg: 360_000,
  wick: { wickId: "0190c0de-0000-7000-8000-00000000b001", name: "flat-braid cotton 6", kind: "flat-braid cotton", size: "6", count: 1 },
  family: "soy",
  wax: "container soy",
  scent: "rain",
  loadPpm: 80_000,
  dyed: false,
  added: [],
  formula: "Rain on slate",
  batch: { id: "0190c0de-0000-7000-8000-00000000c001", number: 7, product: "jar", taken: false },
  productId: null,
  ...over,
});

/** Returns entries as a trial has them: each at its minute. */
export const trialEvents = (entries: readonly [minute: number, body: TrialBody][]): TrialEvent[] =>
  entries.map(
    ([minute, body]) =>
      ({ id: v7(), happenedAt: atMinute(minute), arrivedAt: atMinute(minute), personId: null, instrumentId: null, corrects: null, ...body }) as TrialEvent,
  );
/** Returns what follows from them. */
export const trialFrom = (entries: readonly [minute: number, body: TrialBody][]) => TRIAL.of(trialEvents(entries));
