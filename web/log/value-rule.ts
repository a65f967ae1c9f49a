import { type BatchEvent, type SentEvent, writeDuration } from "@hearth/core";
import { type FieldRule, words } from "@/forms/fields";
import { countRule, durationRule, massRule, temperatureRule } from "@/forms/rules";
import type { Writers } from "@/ui/units";
import type { Entered } from "./use-batch";

/** What of an entry can be typed anew. */
export function valueRule(event: BatchEvent | SentEvent, units: Writers): { label: string; rule: FieldRule<unknown>; body: (value: never) => Entered } | null {
  switch (event.kind) {
    case "weighed":
      return {
        label: "What it weighed",
        rule: massRule(units, { initial: units.typed.g(event.payload.mg) }) as FieldRule<unknown>,
        body: (mg: number) => ({ kind: "weighed", payload: { ...event.payload, mg } }),
      };
    case "counted":
      return {
        label: "How many",
        rule: countRule({ least: 1, most: 100_000, name: "drops or pieces" }, String(event.payload.n)) as FieldRule<unknown>,
        body: (n: number) => ({ kind: "counted", payload: { ...event.payload, n } }),
      };
    case "read":
      return {
        label: "What the instrument showed",
        rule: temperatureRule(units, units.t(event.payload.shown)) as FieldRule<unknown>,
        body: (shown: number) => ({ kind: "read", payload: { ...event.payload, shown }, instrumentId: event.instrumentId }),
      };
    case "stirred":
      return {
        label: "How long",
        rule: durationRule(3_600, writeDuration(event.payload.seconds)) as FieldRule<unknown>,
        body: (seconds: number) => ({ kind: "stirred", payload: { ...event.payload, seconds } }),
      };
    case "note":
      return { label: "Note", rule: words(event.payload.text), body: (text: string) => ({ kind: "note", payload: { text } }) };
    case "poured":
    case "did":
    case "heated":
      // Only when it was can be typed anew.
      return {
        label: "",
        rule: { initial: "", parse: () => ({ ok: true, value: null }) },
        body: () => ({ kind: event.kind, payload: event.payload }) as Entered,
      };
    default:
      return null;
  }
}
