import { COMPONENT_KINDS } from "../formula/mix";
import { type GateName, standing } from "../heat/gate";
import type { Flaw } from "../look/defects";
import type { CentiCelsius } from "../quantity/temperature";
import type { BatchEvent, PayloadOf } from "./event";
import type { BatchPlan, Component } from "./plan";

/** One event with what became of it. */
export interface Entry {
  event: BatchEvent;
  /** The event that replaced or withdrew this one; null where it stands. */
  supersededBy: BatchEvent | null;
}

export interface Reading {
  eventId: string;
  at: string;
  gate: GateName | "watch";
  /** Shown plus the instrument's correction. */
  celsius: CentiCelsius;
  instrumentId: string | null;
}

export type Phase = "pot" | "setting" | "curing" | "ready" | "closed";

export interface Step {
  /** "weigh:<component id>", "heat", "add", "stir", "pour", "poured". */
  key: string;
  name: string;
  kind: "weigh" | "count" | GateName | "stir" | "poured";
  component: Component | null;
  done: boolean;
  /** The standing events that did it. */
  events: BatchEvent[];
}

export interface BatchState {
  plan: BatchPlan;
  startedAt: string;
  phase: Phase;
  entries: Entry[];
  steps: Step[];
  /** The step that waits for hands: the first not done after the last done, or that one while it is outside its gate. Null once poured. */
  next: Step | null;
  weighedMg: Record<string, number>;
  /** Drops and pieces counted so far, by component. */
  countedN: Record<string, number>;
  /** The load really weighed, in percent of the wax; null until both wax and fragrance are weighed. */
  weighedLoadPercent: number | null;
  readings: Reading[];
  pouredAt: string | null;
  times: CureTimes | null;
  flaws: { eventId: string; flaw: Flaw; at: string }[];
  lookedAt: string | null;
  closed: { at: string; missing: string[]; eventId: string } | null;
}

export interface CureTimes {
  /** Leave unmoved until then. */
  setAt: string;
  /** Tests before this mislead. */
  testFrom: string;
  /** Cured as recommended: fit to sell once its tests are passed. */
  sellFrom: string;
}

const later = (iso: string, seconds: number) => new Date(Date.parse(iso) + seconds * 1_000).toISOString();

/** When a poured batch has set, may be tested, may be sold, by its profile. Cure times: common practice, no source. */
export function cureTimes(pouredAt: string, profile: BatchPlan["spec"]["profile"]): CureTimes {
  return {
    setAt: later(pouredAt, profile.setSeconds),
    testFrom: later(pouredAt, Math.max(profile.leastCureSeconds, profile.setSeconds)),
    sellFrom: later(pouredAt, Math.max(profile.recommendedCureSeconds, profile.setSeconds)),
  };
}

const byTime = (a: BatchEvent, b: BatchEvent) => Date.parse(a.happenedAt) - Date.parse(b.happenedAt) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/** Marks which events stand. A correction of a correction leaves only the last; of two corrections the later arrived wins. */
function settle(events: readonly BatchEvent[]): Entry[] {
  const corrections = new Map<string, BatchEvent>();
  for (const event of [...events].sort((a, b) => Date.parse(a.arrivedAt) - Date.parse(b.arrivedAt) || (a.id < b.id ? -1 : 1))) {
    if (event.corrects) corrections.set(event.corrects, event);
  }
  return [...events].sort(byTime).map((event) => ({ event, supersededBy: corrections.get(event.id) ?? null }));
}

/** The step itself where its newest reading is outside its gate: the pot has to be brought there first. */
function stillOutside(step: Step | undefined, plan: BatchPlan): Step | null {
  if (!step || (step.kind !== "heat" && step.kind !== "add" && step.kind !== "pour")) return null;
  const newest = step.events.at(-1);
  if (newest?.kind !== "read") return null;
  return standing(newest.payload.shown + newest.payload.correction, plan.spec.profile[step.kind]).is === "inside" ? null : step;
}

/**
 * The state of a batch: a pure function of its events and the time now. The order in which the events arrive does not
 * matter; the same event given twice counts once.
 * @throws Error where the events hold no "started".
 */
export function batchState(all: readonly BatchEvent[], now: string): BatchState {
  const events = [...new Map(all.map((event) => [event.id, event])).values()];
  const entries = settle(events);
  const valid = entries.filter((entry) => !entry.supersededBy && entry.event.kind !== "withdrawn").map((entry) => entry.event);
  const of = <K extends BatchEvent["kind"]>(kind: K) => valid.filter((event) => event.kind === kind) as (BatchEvent & { kind: K; payload: PayloadOf<K> })[];

  const started = of("started")[0];
  if (!started) throw new Error("A batch without its “started” event cannot be read.");
  const { plan } = started.payload;

  const weighedMg: Record<string, number> = {};
  for (const event of of("weighed")) {
    weighedMg[event.payload.componentId] = (weighedMg[event.payload.componentId] ?? 0) + event.payload.mg;
  }
  const countedN: Record<string, number> = {};
  for (const event of of("counted")) countedN[event.payload.componentId] = (countedN[event.payload.componentId] ?? 0) + event.payload.n;
  const sum = (kind: Component["kind"]) => plan.components.filter((part) => part.kind === kind).reduce((total, part) => total + (weighedMg[part.id] ?? 0), 0);
  const wax = sum("wax");
  const fragrance = sum("fragrance");

  const reads = of("read");
  const poured = of("poured").at(-1) ?? null;
  const gateStep = (gate: GateName, name: string): Step => {
    const at = reads.filter((event) => event.payload.gate === gate);
    return { key: gate, name, kind: gate, component: null, done: at.length > 0, events: at };
  };
  const weighSteps = (kind: Component["kind"]): Step[] =>
    plan.components
      .filter((part) => part.kind === kind)
      .map((part): Step => {
        if (part.count) {
          const drops = of("counted").filter((event) => event.payload.componentId === part.id);
          return {
            key: `weigh:${part.id}`,
            name: `count ${part.name}`,
            kind: "count",
            component: part,
            done: (countedN[part.id] ?? 0) >= part.count.n,
            events: drops,
          };
        }
        const at = of("weighed").filter((event) => event.payload.componentId === part.id);
        // Weighed in parts on a small scale: done once within half a percent, or 1 g, of what was asked.
        const enough = (weighedMg[part.id] ?? 0) >= part.mg - Math.max(part.mg * 0.005, Math.min(1_000, part.mg * 0.05));
        return { key: `weigh:${part.id}`, name: `weigh ${part.name}`, kind: "weigh", component: part, done: at.length > 0 && enough, events: at };
      });
  const stirs = of("stirred");
  const steps: Step[] = [
    ...COMPONENT_KINDS.flatMap(weighSteps),
    gateStep("heat", "heat"),
    gateStep("add", plan.components.some((part) => part.kind === "fragrance") ? "add fragrance" : "add reading"),
    { key: "stir", name: "stir", kind: "stir", component: null, done: stirs.length > 0, events: stirs },
    gateStep("pour", "pour reading"),
    { key: "poured", name: "pour", kind: "poured", component: null, done: poured !== null, events: poured ? [poured] : [] },
  ];
  const lastDone = steps.reduce((last, step, index) => (step.done ? index : last), -1);
  const next = poured ? null : (stillOutside(steps[lastDone], plan) ?? steps.slice(lastDone + 1).find((step) => !step.done) ?? null);

  const times = poured ? cureTimes(poured.happenedAt, plan.spec.profile) : null;
  const closed = of("closed").at(-1) ?? null;
  const looked = of("looked").at(-1) ?? null;
  const at = Date.parse(now);
  const phase: Phase = closed ? "closed" : !times ? "pot" : at < Date.parse(times.setAt) ? "setting" : at < Date.parse(times.sellFrom) ? "curing" : "ready";

  return {
    plan,
    startedAt: started.happenedAt,
    phase,
    entries,
    steps,
    next,
    weighedMg,
    countedN,
    weighedLoadPercent: wax > 0 && fragrance > 0 ? (fragrance / wax) * 100 : null,
    readings: reads.map((event) => ({
      eventId: event.id,
      at: event.happenedAt,
      gate: event.payload.gate,
      celsius: event.payload.shown + event.payload.correction,
      instrumentId: event.instrumentId,
    })),
    pouredAt: poured?.happenedAt ?? null,
    times,
    flaws: of("flaw").map((event) => ({ eventId: event.id, flaw: event.payload, at: event.happenedAt })),
    lookedAt: looked?.happenedAt ?? null,
    closed: closed ? { at: closed.happenedAt, missing: closed.payload.missing, eventId: closed.id } : null,
  };
}

/** What a record would lack if it were closed now, in a maker's words; empty where nothing is missing. */
export function missingToClose(state: BatchState, now: string): string[] {
  const missing = state.steps.filter((step) => !step.done).map((step) => step.name);
  if (state.times && Date.parse(now) < Date.parse(state.times.testFrom)) missing.push("least cure");
  if (!state.lookedAt) missing.push("look-over");
  return missing;
}

/** Why an event cannot be taken into this batch; null where it can. Names the number and what to do. */
export function refusal(
  state: BatchState,
  event: { kind: BatchEvent["kind"]; payload: unknown; corrects: string | null },
): { field: string; message: string } | null {
  if (event.corrects) {
    const target = state.entries.find((entry) => entry.event.id === event.corrects);
    if (!target) return { field: "corrects", message: "The entry to correct is not in this batch." };
    if (target.supersededBy) return { field: "corrects", message: "That entry has been corrected already. Correct the newer one." };
    if (target.event.kind === "started") return { field: "corrects", message: "The start of a batch cannot be taken back. Close the batch instead." };
    if (event.kind !== "withdrawn" && event.kind !== target.event.kind) {
      return { field: "corrects", message: `A “${target.event.kind}” entry can only be corrected by another of its kind, or withdrawn.` };
    }
  } else if (event.kind === "withdrawn") return { field: "corrects", message: "Say which entry is taken back." };
  if (event.kind === "started") return { field: "kind", message: "This batch has been started already." };
  if (state.closed && !event.corrects && event.kind !== "note") {
    return { field: "kind", message: "This batch is closed. Reopen it first, by taking the closing back." };
  }
  if (event.kind === "weighed" || event.kind === "counted") {
    const { componentId } = event.payload as PayloadOf<"weighed">;
    const part = state.plan.components.find((one) => one.id === componentId);
    if (!part) return { field: "componentId", message: "This batch has no such material." };
    if ((part.count !== undefined) !== (event.kind === "counted"))
      return {
        field: "componentId",
        message: part.count ? `${part.name} is counted in ${part.count.of}, not weighed.` : `${part.name} is weighed, not counted.`,
      };
  }
  if (event.kind === "poured" && state.pouredAt && !event.corrects)
    return { field: "kind", message: "This batch is poured already. Correct that entry to change its time." };
  if ((event.kind === "looked" || event.kind === "flaw") && !state.pouredAt)
    return { field: "kind", message: "Nothing is poured yet, so there is nothing to look over." };
  if (event.kind === "flaw") {
    const { vesselId, jars } = event.payload as PayloadOf<"flaw">;
    const vessel = state.plan.vessels.find((one) => one.vesselId === vesselId);
    if (!vessel) return { field: "vesselId", message: "This batch has no such vessel." };
    if (jars > vessel.count) return { field: "jars", message: `This batch has ${vessel.count} of ${vessel.name}, so ${jars} cannot be flawed.` };
  }
  return null;
}
