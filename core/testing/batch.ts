import { type BatchEvent, batchOf, type EventBody } from "../batch/batch";
import { missingToClose, phaseAt, progress } from "../batch/phase";
import type { BatchPlan } from "../batch/plan";
import { planBatch } from "../batch/planning";
import { PRESET_PROCESSES, type PresetProcess, processFrom } from "../process/presets/ready";
import { isDivided, potsOf, restOf } from "../process/process";
import type { Process } from "../process/schema";

/** Returns the moment so many minutes after the test batch was started, as ISO text. */
export const at = (minutes: number): string => new Date(Date.UTC(2026, 1, 2, 9) + minutes * 60_000).toISOString();

let count = 0;
/** Returns ids that sort in the order they are made. */
export const anId = (): string => `0190c0de-0000-7000-8000-${(++count).toString(16).padStart(12, "0")}`;

export const presetProcess = (id: string): Process => processFrom(PRESET_PROCESSES.find((preset) => preset.id === id) as PresetProcess);

/** One scale of one gram. */
export const GRAM_SCALE = { id: null, name: "bench scale", resolutionUg: 1_000_000 };
export const GRAMS = { wax: GRAM_SCALE, oil: GRAM_SCALE };

/** Returns a plan for ten cups of 14 g at 10 % of the wax: 127 + 13. */
export function aPlan(ids: { wax: string; oil: string; vessel: string; process?: string; pots?: number; wick?: string }): BatchPlan {
  const spec = { waxes: [{ id: ids.wax, share: 1 }], fragrances: [{ id: ids.oil, share: 1 }], basis: "wax" as const, loadPpm: 100_000, notes: "" };
  const shelf = {
    waxes: [{ id: ids.wax, name: "soy", family: "soy", maxLoadPpm: 120_000 }],
    fragrances: [{ id: ids.oil, name: "rain", maxLoadPpm: null, flashPoint: null }],
  };
  const cup = { id: ids.vessel, name: "cup", statedFillMg: 14_000, workingFillMg: 14_000, soldByWeight: true, innerTopUm: 38_000, innerBottomUm: 38_000 };
  const wicks = ids.wick ? { wickId: ids.wick, name: "flat-braid cotton 4", kind: "flat-braid cotton", size: "4", count: 1 } : null;
  const process = presetProcess(ids.process ?? "soy-bind-hot");
  // A pot that is divided fills one product from each part; what is the rest of another pot is loaded one point further.
  const products = isDivided(process.steps) ? potsOf(process.steps) : 1;
  const specOf = (pot: number) => ({ ...spec, loadPpm: spec.loadPpm + (restOf(process.steps, pot) === undefined ? 0 : 10_000 * pot) });
  return planBatch(
    {
      process,
      pots: Array.from({ length: ids.pots ?? 1 }, (_, pot) => ({ name: "Test formula", number: 1, spec: specOf(pot) })),
      products: Array.from({ length: products }, (_, pot) => ({ ...cup, pot, heightUm: 17_000, count: 10, chosenWicks: wicks })),
      sparePpm: 0,
      scales: GRAMS,
    },
    shelf,
  );
}

/** A batch to which entries are added a minute apart, for tests. */
export function aBatch(more: { personId?: string | null; wax?: string; oil?: string; vessel?: string; process?: string; pots?: number; wick?: string } = {}) {
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
  const weigh = (componentId: string, mg: number, pot = 0) => add({ kind: "weighed", payload: { pot, componentId, mg } });
  const read = (step: string | null, shown: number, correction = 0) => add({ kind: "read", payload: { step, shown, correction } });
  const pour = (step = "pour", filled: { product: string; count: number }[] = []) =>
    add({ kind: "poured", payload: { step, filled, leftMg: null, roomCelsius: null, warmed: null } });
  add({ kind: "started", payload: { plan: aPlan({ ...more, wax, oil, vessel }) } });
  return {
    wax,
    oil,
    vessel,
    events,
    draft,
    add,
    weigh,
    read,
    pour,
    /** Everything that is asked of a batch at a moment. */
    state: (now: string) => {
      const { plan, state, entries } = batchOf(events);
      return { plan, state, entries, ...progress(plan, state), ...phaseAt(plan, state, now), missing: missingToClose(plan, state, now) };
    },
    pourAll: () => {
      weigh(wax, 127_000);
      weigh(oil, 13_000);
      read("heat", 8_500);
      read("add", 8_500);
      add({ kind: "stirred", payload: { step: "stir", seconds: 120 } });
      read("cool", 6_000);
      pour();
    },
  };
}
