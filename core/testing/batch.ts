import type { BatchEvent, EventBody } from "../batch/event";
import { type BatchPlan, planBatch } from "../batch/plan";
import { batchState } from "../batch/state";
import { READY_PROFILES } from "../heat/profile";

/** A moment, in minutes after the test batch was started. */
export const at = (minutes: number): string => new Date(Date.UTC(2026, 1, 2, 9) + minutes * 60_000).toISOString();

let count = 0;
/** Ids that sort in the order they are made. */
export const anId = (): string => `0190c0de-0000-7000-8000-${(++count).toString(16).padStart(12, "0")}`;

/** A plan for ten cups of 14 g at 10 % of the wax: 127 + 13. */
export function aPlan(ids: { wax: string; oil: string; vessel: string }): BatchPlan {
  const { id: _id, families: _families, ...profile } = READY_PROFILES[0] as (typeof READY_PROFILES)[number];
  const spec = { waxes: [{ id: ids.wax, share: 1 }], fragrances: [{ id: ids.oil, share: 1 }], basis: "wax" as const, loadPpm: 100_000, profile, notes: "" };
  const shelf = {
    waxes: [{ id: ids.wax, name: "soy", family: "soy", maxLoadPpm: 120_000 }],
    fragrances: [{ id: ids.oil, name: "rain", maxLoadPpm: null, flashPoint: null }],
  };
  const cup = { id: ids.vessel, name: "cup", statedFillMg: 14_000, workingFillMg: 14_000, soldByWeight: true, innerTopUm: 38_000, innerBottomUm: 38_000 };
  return planBatch({ name: "Test formula", number: 1, spec }, shelf, {
    vessels: [{ ...cup, heightUm: 17_000, count: 10 }],
    sparePpm: 0,
    resolutionUg: 1_000_000,
  });
}

/** A batch to which events are added a minute apart, for tests. */
export function aBatch(more: { personId?: string | null; wax?: string; oil?: string; vessel?: string } = {}) {
  const wax = more.wax ?? anId();
  const oil = more.oil ?? anId();
  const vessel = more.vessel ?? anId();
  const events: BatchEvent[] = [];
  const draft = (body: EventBody, over: Partial<BatchEvent> = {}): BatchEvent => {
    const when = at(events.length);
    return {
      id: anId(),
      happenedAt: when,
      arrivedAt: when,
      personId: more.personId ?? null,
      instrumentId: null,
      corrects: null,
      ...body,
      ...over,
    } as BatchEvent;
  };
  const add = (body: EventBody, over: Partial<BatchEvent> = {}): BatchEvent => {
    const event = draft(body, over);
    events.push(event);
    return event;
  };
  const weigh = (componentId: string, mg: number) => add({ kind: "weighed", payload: { componentId, mg } });
  const read = (gate: "heat" | "add" | "pour" | "watch", shown: number, correction = 0) => add({ kind: "read", payload: { gate, shown, correction } });
  add({ kind: "started", payload: { plan: aPlan({ wax, oil, vessel }) } });
  return {
    wax,
    oil,
    vessel,
    events,
    draft,
    add,
    weigh,
    read,
    state: (now: string) => batchState(events, now),
    pourAll: () => {
      weigh(wax, 127_000);
      weigh(oil, 13_000);
      read("heat", 8_500);
      read("add", 8_500);
      add({ kind: "stirred", payload: { seconds: 120 } });
      read("pour", 6_000);
      add({ kind: "poured", payload: { warmedJars: null } });
    },
  };
}
