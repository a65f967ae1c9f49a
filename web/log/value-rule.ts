import { bad, type CorrectableField, type EntryFields, type EventOf, writeDuration } from "@hearth/core";
import { type FieldRule, words } from "@/forms/fields";
import { countRule, durationRule, massRule, temperatureRule } from "@/forms/rules";
import type { Formats } from "@/ui/units";
import type { Correctable } from "./correction";

/** Writes a stored value as it is typed into its field. */
function typedText({ is }: CorrectableField, value: unknown, units: Formats): string {
  if (is === "mass") return units.typed.g(value as number);
  if (is === "temperature") return units.t(value as number);
  return is === "duration" ? writeDuration(value as number) : String(value);
}

/** Returns the rule that reads a field, which begins with `initial`. */
function ruleOf({ is, of = "" }: CorrectableField, initial: string, units: Formats): FieldRule<unknown> {
  switch (is) {
    case "mass":
      return massRule(units, { initial });
    case "temperature":
      return temperatureRule(units, initial);
    case "duration":
      return durationRule(3_600, initial);
    case "count":
      return countRule({ least: 1, most: 100_000, name: of }, initial);
    default:
      return words(initial);
  }
}

/** Returns what of an entry can be typed anew, as its kind says; null if it can only be deleted. */
export function valueRule(
  how: CorrectableField | null | undefined,
  event: Pick<EventOf, "kind" | "payload" | "instrumentId">,
  units: Formats,
): Correctable | null {
  if (how === undefined) return null;
  const payload = event.payload as Record<string, unknown>;
  const { kind, instrumentId } = event;
  // Only when it was can be typed anew.
  if (how === null) return { label: "", rule: { initial: "", parse: () => ({ ok: true, value: null }) }, body: () => ({ kind, payload }) };
  return {
    label: how.label,
    rule: ruleOf(how, typedText(how, payload[how.field], units), units),
    body: (value: unknown) => ({ kind, payload: { ...payload, [how.field]: value }, instrumentId }),
  };
}

/** The empty field of a new entry, which must be filled in, and the entry that its value makes. */
export function entryRule(kind: string, asks: EntryFields, units: Formats): Correctable {
  const { parse } = ruleOf(asks, "", units);
  return {
    label: asks.label,
    rule: { initial: "", parse: (text) => (text.trim() === "" ? bad("empty", "Write something.") : parse(text)) },
    body: (value: unknown) => ({ kind, payload: { [asks.field]: value } }),
  };
}
