import { fillsProduct, poursOf } from "../process/process";
import { promptsOf } from "../process/prompts";
import type { Prompt } from "../process/step-type";
import type { EventBody } from "./batch";
import type { PastBatch } from "./past-batch-schema";
import type { BatchPlan } from "./plan";

/** One entry of a past batch, and the field of the form that it comes from. */
export interface PastEntry {
  field: string;
  happenedAt: string;
  instrumentId: string | null;
  body: EventBody;
}

/** Returns the prompts that a past batch is asked for: those that somebody does. What only the clock does is left out. */
export const notedPrompts = (plan: BatchPlan): Prompt[] => promptsOf(plan).filter((prompt) => prompt.entry !== null);

/** Returns which products a pouring step fills, with how many of each, as they were noted. */
function filledAt(plan: BatchPlan, step: string, filled: PastBatch["filled"]): PastBatch["filled"] {
  const pouring = poursOf(plan.process.steps).find((pour) => pour.id === step);
  return plan.products
    .filter((_product, index) => fillsProduct(pouring, index))
    .map(({ key, count }) => ({ product: key, count: filled.find((line) => line.product === key)?.count ?? count }));
}

/**
 * Returns the entries that a past batch is recorded by, in order of time. What has no time of its own has that of the step before
 * it; a reading without one is marked `untimed`, so that no cooling is learned from it.
 * @param correction what is added to a reading of the thermometer, in hundredths of °C
 */
export function pastEntries(plan: BatchPlan, past: PastBatch, startedAt: string, correction: number): PastEntry[] {
  const entries: PastEntry[] = [];
  let at = startedAt;
  let poured = 0;
  for (const prompt of notedPrompts(plan)) {
    const noted = past.steps.find((step) => step.prompt === prompt.key);
    if (!noted) continue;
    at = noted.at ?? at;
    const body = eventBodyOf(plan, past, prompt, noted, { correction, isFirstPour: poured === 0 });
    if (!body) continue;
    if (body.kind === "poured") poured += 1;
    const instrumentId = body.kind === "read" ? past.thermometerId : body.kind === "weighed" ? (prompt.component?.scale.id ?? null) : null;
    entries.push({ field: prompt.key, happenedAt: at, instrumentId, body });
  }
  const last = entries.reduce((latest, entry) => (Date.parse(entry.happenedAt) > Date.parse(latest) ? entry.happenedAt : latest), startedAt);
  const after = (field: string, happenedAt: string, body: EventBody) => entries.push({ field, happenedAt, instrumentId: null, body });
  if (past.inspection) {
    const seenAt = past.inspection.at ?? last;
    for (const [index, seen] of past.inspection.flaws.entries()) after(`flaw:${index}`, seenAt, { kind: "flaw", payload: seen });
    const jars = past.filled.reduce((sum, line) => sum + line.count, 0);
    if (jars > 0) after("inspected", seenAt, { kind: "inspected", payload: { jars } });
  }
  if (past.remark) after("remark", last, { kind: "note", payload: { text: past.remark } });
  return entries.sort((a, b) => Date.parse(a.happenedAt) - Date.parse(b.happenedAt));
}

/** Returns the entry of one step; null where its value is missing. */
function eventBodyOf(
  plan: BatchPlan,
  past: PastBatch,
  prompt: Prompt,
  { at, value }: PastBatch["steps"][number],
  { correction, isFirstPour }: { correction: number; isFirstPour: boolean },
): EventBody | null {
  const { step, pot, component } = prompt;
  if (prompt.entry === "split") return { kind: "split", payload: { step, mg: value } };
  if (prompt.entry === "stepDone") return { kind: "stepDone", payload: { step } };
  if (prompt.entry === "poured")
    return {
      kind: "poured",
      payload: {
        step,
        filled: filledAt(plan, step, past.filled),
        leftMg: isFirstPour ? past.leftMg : null,
        roomCelsius: isFirstPour ? past.roomCelsius : null,
        warmed: isFirstPour ? past.warmed : null,
      },
    };
  if (value === null) return null;
  if (prompt.entry === "read") return { kind: "read", payload: { step, shown: value, correction, ...(at === null ? { untimed: true } : {}) } };
  if (prompt.entry === "stirred") return { kind: "stirred", payload: { step, seconds: value } };
  if (!component) return null;
  return prompt.entry === "counted"
    ? { kind: "counted", payload: { pot, componentId: component.id, n: value } }
    : { kind: "weighed", payload: { pot, componentId: component.id, mg: value } };
}
