import { describe, expect, it } from "vitest";
import { PRESET_PROCESSES } from "../process/presets/ready";
import { potsOf } from "../process/process";
import { anId, aPlan, at, presetProcess } from "../testing/batch";
import { type BatchEvent, batchOf, refusal } from "./batch";
import { sentEvent } from "./checked";
import { notedPrompts, pastEntries } from "./past-batch";
import type { PastBatch } from "./past-batch-schema";
import { missingToClose } from "./phase";
import type { BatchPlan } from "./plan";
import { readingsOf } from "./state";

const PROBE = anId();

/** Everything that a plan asks for, noted as it was calculated, ten minutes apart. */
function allNoted(plan: BatchPlan, over: Partial<PastBatch> = {}): PastBatch {
  return {
    steps: notedPrompts(plan).map((prompt, index) => ({
      prompt: prompt.key,
      at: at((index + 1) * 10),
      value:
        prompt.entry === "weighed"
          ? (prompt.component?.mg ?? 0)
          : prompt.entry === "counted"
            ? (prompt.component?.count?.n ?? 0)
            : prompt.entry === "read"
              ? (prompt.range?.low ?? 0)
              : prompt.entry === "stirred"
                ? (prompt.seconds ?? 60)
                : null,
    })),
    filled: plan.products.map((product) => ({ product: product.key, count: product.count })),
    thermometerId: PROBE,
    leftMg: 5_000,
    roomCelsius: 2_000,
    warmed: "no",
    inspection: { at: at(10_000), flaws: [] },
    remark: "tops smooth",
    ...over,
  };
}

/** The batch that the entries make, each taken only if the state before it takes it. */
function recorded(plan: BatchPlan, past: PastBatch, correction = 0) {
  const head = { arrivedAt: at(20_000), personId: null, corrects: null };
  const events: BatchEvent[] = [
    { ...head, id: anId(), happenedAt: at(0), instrumentId: null, kind: "started", payload: { plan } } as BatchEvent,
    ...pastEntries(plan, past, at(0), correction).map(
      ({ happenedAt, instrumentId, body }) => ({ ...head, id: anId(), happenedAt, instrumentId, ...body }) as BatchEvent,
    ),
  ];
  for (const [index, event] of events.entries()) {
    if (index === 0) continue;
    expect(sentEvent.safeParse(event).error).toBeUndefined();
    const { state } = batchOf(events.slice(0, index));
    expect(refusal({ plan, state }, event, null), event.kind).toBeNull();
  }
  return { events, ...batchOf(events) };
}

describe("a batch that is already made", () => {
  it.each(PRESET_PROCESSES.map((preset) => preset.id))("has nothing missing when all was noted: %s", (process) => {
    const plan = aPlan({ wax: anId(), oil: anId(), vessel: anId(), process, pots: potsOf(presetProcess(process).steps) });
    const { state } = recorded(plan, allNoted(plan));
    expect(missingToClose(plan, state, at(1_000_000))).toEqual([]);
    expect(state.lookedAt).toBe(at(10_000));
    // What follows the last pour is of the last pour's time; the first pour has the room and what was left.
    expect(Object.values(state.pours)[0]).toMatchObject({ leftMg: 5_000, roomCelsius: 2_000, warmed: "no" });
  });

  it("takes the thermometer's correction, and learns no cooling from a reading without a time", () => {
    const plan = aPlan({ wax: anId(), oil: anId(), vessel: anId() });
    const past = allNoted(plan);
    const timed = recorded(plan, past, -150);
    expect(timed.state.reads.heat?.celsius).toBe((past.steps.find((step) => step.prompt === "heat")?.value ?? 0) - 150);
    expect(readingsOf(timed.state).length).toBe(3);
    const untimed = recorded(plan, { ...past, steps: past.steps.map((step) => ({ ...step, at: null })) });
    expect(untimed.state.reads.heat).toBeDefined();
    expect(readingsOf(untimed.state)).toEqual([]);
    // It stands at the start of the batch, since no step says when it was.
    expect(untimed.events.filter((event) => event.kind === "read").map((event) => event.happenedAt)).toEqual([at(0), at(0), at(0)]);
  });

  it("records no step that was not noted, and no reading of it is invented", () => {
    const plan = aPlan({ wax: anId(), oil: anId(), vessel: anId() });
    const past = allNoted(plan, { inspection: null, remark: "" });
    const { state, events } = recorded(plan, { ...past, steps: past.steps.filter((step) => step.prompt === "pour") });
    expect(events.map((event) => event.kind)).toEqual(["started", "poured"]);
    expect(missingToClose(plan, state, at(1_000_000))).toEqual([
      "weigh soy",
      "weigh rain",
      "heat",
      "add fragrance",
      "stir",
      "bring to the pour range",
      "inspection",
    ]);
  });

  it("counts a flaw on the jars that were filled, not on those that were planned", () => {
    const plan = aPlan({ wax: anId(), oil: anId(), vessel: anId() });
    const product = plan.products[0]?.key ?? "";
    const flaw = { defect: "wet_spot", place: "side" as const, extent: "patch" as const, product, jars: 3 };
    const { state } = recorded(plan, allNoted(plan, { filled: [{ product, count: 8 }], inspection: { at: null, flaws: [flaw] } }));
    expect(state.pours.pour?.filled).toEqual([{ product, count: 8 }]);
    expect(state.flaws.map((seen) => seen.flaw)).toEqual([flaw]);
  });

  it("puts entries into the order of their times where two pots were worked at once", () => {
    const plan = aPlan({ wax: anId(), oil: anId(), vessel: anId() });
    const past = allNoted(plan);
    const steps = past.steps.map((step, index) => ({ ...step, at: at(100 - index * 5) }));
    const times = pastEntries(plan, { ...past, steps }, at(0), 0).map((entry) => Date.parse(entry.happenedAt));
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });
});
