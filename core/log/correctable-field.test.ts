import { expect, it } from "vitest";
import { z } from "zod";
import { BATCH } from "../batch/batch";
import { BATCH_EVENTS } from "../batch/events";
import { TRIAL_EVENTS } from "../burn/events";
import { ORDER_EVENTS } from "../sales/events";
import type { AnyEventType } from "./log";

it("what a event type says can be typed anew is a field of its payload, and the words of one kind of log agree with the others", () => {
  const kinds = [...BATCH_EVENTS, ...TRIAL_EVENTS, ...ORDER_EVENTS] as unknown as AnyEventType<never, never>[];
  const correctableField = kinds.filter((kind) => kind.correctableField);
  expect(correctableField.length).toBeGreaterThan(7);
  const labels = new Map<string, string>();
  for (const kind of correctableField) {
    const { field, label } = kind.correctableField as NonNullable<typeof kind.correctableField>;
    const { shape } = kind.payload({ z } as never) as z.ZodObject;
    expect(Object.keys(shape), kind.kind).toContain(field);
    expect(labels.get(kind.kind) ?? label, kind.kind).toBe(label);
    labels.set(kind.kind, label);
  }
});

it("an event type with a form of its own fields takes what the form asks, and nothing else", () => {
  const kinds = [...BATCH_EVENTS, ...TRIAL_EVENTS, ...ORDER_EVENTS] as unknown as AnyEventType<never, never>[];
  const entered = kinds.filter((kind) => kind.entered);
  expect(entered.length).toBeGreaterThan(0);
  for (const kind of entered) {
    const { shape } = kind.payload({ z } as never) as z.ZodObject;
    expect(Object.keys(shape), kind.kind).toEqual([kind.correctableField?.field]);
  }
  expect(() => BATCH.enteredBy("poured")).toThrow(/no form/);
});
