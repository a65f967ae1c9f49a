"use client";

import {
  bad,
  COMPONENT_KINDS,
  good,
  type Parsed,
  type Process,
  parseCount,
  parseDuration,
  parsePercent,
  parseProduct,
  parseRange,
  STEP_TYPES,
  type Step,
  type StepField,
  stepTypeOf,
  type TemperatureRange,
  valueOfField,
  writeDuration,
  writeNumber,
  writePercent,
  writeProduct,
} from "@hearth/core";
import type { Formats } from "@/ui/units";
import { Field, type FieldRule, named, untouched, type useFields, words } from "./fields";
import { temperatureRule } from "./rules";

const SECONDS_OF = { min: 60, h: 3_600, d: 86_400 } as const;
const UNIT_WORD = { min: "min", h: "h", d: "days" } as const;

/** A duration as its field would have it typed: in the field's own unit where it is whole there. */
const durationText = (seconds: number, unit: "min" | "h" | "d") =>
  seconds % SECONDS_OF[unit] === 0 ? `${seconds / SECONDS_OF[unit]} ${UNIT_WORD[unit]}` : writeDuration(seconds);

/** A range without its unit, which stands in the label. */
export const bareRange = (range: TemperatureRange, units: Formats) => units.range(range).replace(/ °[CF]$/, "");

function textOf(value: unknown, field: StepField, units: Formats): string {
  if (value === undefined || value === null) return "";
  if (field.is === "range") return bareRange(value as TemperatureRange, units);
  if (field.is === "duration") return durationText(value as number, field.unit ?? "min");
  if (field.is === "percent") return writeNumber((value as number) / 10_000, 2);
  if (field.is === "components") return (value as string[]).join(", ");
  if (field.is === "product") return writeProduct(value as number | string);
  if (field.is === "pot") return String((value as number) + 1);
  return String(value);
}

const parseComponents = (text: string): Parsed<string[]> => {
  const names = text
    .split(/[,;]/)
    .map((text) => text.trim().toLowerCase())
    .filter(Boolean);
  const unknown = names.find((name) => !(COMPONENT_KINDS as readonly string[]).includes(name));
  return unknown === undefined ? good([...new Set(names)]) : bad("unknown", `“${unknown}” is none of ${COMPONENT_KINDS.join(", ")}.`);
};

/** Returns what was understood, where it can differ from what was typed. */
function echoOf(field: StepField, value: unknown, units: Formats): string {
  if (field.is === "duration") return writeDuration(value as number);
  if (field.is === "range") return units.range(value as TemperatureRange);
  return field.is === "percent" ? writePercent(value as number) : "";
}

function ruleOf(step: Step, field: StepField, units: Formats): FieldRule<unknown> {
  const value = valueOfField(step, field);
  const parse = (text: string): Parsed<unknown> => {
    if (text.trim() === "" && field.optional) return good(undefined);
    switch (field.is) {
      case "range":
        return parseRange(text, units.temperature);
      case "duration":
        return parseDuration(text, field.unit ?? "min");
      case "percent":
        return parsePercent(text, { least: 0.1, most: 100, name: "a share" });
      case "count":
        return parseCount(text, { least: 1, most: 200, name: "pieces" });
      case "product":
        return parseProduct(text);
      case "pot": {
        const read = parseCount(text, { least: 1, most: 7, name: "the pot" });
        return read.ok ? good(read.value - 1) : read;
      }
      case "degrees":
        return parseCount(text, { least: 0, most: 60, name: "degrees" });
      case "components":
        return parseComponents(text);
      default:
        return text.trim() === ""
          ? bad("empty", `Say ${field.label.toLowerCase()} what.`)
          : text.length > 200
            ? bad("too-long", "At most 200 letters fit here.")
            : good(text.trim());
    }
  };
  const rule: FieldRule<unknown> = {
    initial: textOf(value, field, units),
    parse,
    echo: (value) => (value === undefined ? "" : echoOf(field, value, units)),
  };
  return value === undefined ? rule : untouched(rule, value);
}

/** Returns the name of the field that holds one parameter of a step. */
export const stepFieldName = (step: Pick<Step, "id">, field: Pick<StepField, "key">) => `act:${step.id}:${field.key}`;

/** Returns the rules of every field of a process: its head and what each step says. */
export function processRules(process: Process, units: Formats): Record<string, FieldRule<unknown>> {
  return {
    processName: named("the process", process.name),
    ceiling: untouched<unknown>(temperatureRule(units, units.tParts(process.ceiling).figure) as FieldRule<unknown>, process.ceiling),
    reason: words(process.reason, 600),
    ...Object.fromEntries(
      process.steps.flatMap((step) => stepTypeOf(step.kind).fields.map((field) => [stepFieldName(step, field), ruleOf(step, field, units)])),
    ),
  };
}

/** Returns what the fields of a process say when another is chosen. */
export const processTexts = (process: Process, units: Formats): Record<string, string> =>
  Object.fromEntries(Object.entries(processRules(process, units)).map(([name, rule]) => [name, rule.initial]));

/** Returns a step as its fields say; null where one that it needs cannot be read. */
function stepFromFields(step: Step, values: Readonly<Record<string, unknown>>): Step | null {
  const next: Record<string, unknown> = { ...step };
  for (const field of stepTypeOf(step.kind).fields) {
    const value = values[stepFieldName(step, field)];
    if (value === undefined && !field.optional) return null;
    if (value === undefined) delete next[field.key];
    else next[field.key] = value;
  }
  return next as unknown as Step;
}

/** Returns the process that the fields of a form describe, with a name in place of one that is not typed yet; null where a field it needs cannot be read. */
export function processFromFields(process: Process, values: Readonly<Record<string, unknown>>, unnamed?: string): Process | null {
  const { ceiling, reason, processName: name = unnamed } = values;
  const steps = process.steps.flatMap((step) => stepFromFields(step, values) ?? []);
  if (typeof name !== "string" || typeof ceiling !== "number" || steps.length < process.steps.length) return null;
  return { ...process, name, ceiling, reason: typeof reason === "string" ? reason : "", steps };
}

/** Returns a process that this device kept as text; null where it is none, or one of an earlier version that lacks what its steps need. */
export function keptProcessOf(text: string | undefined): Process | null {
  const kept = JSON.parse(text ?? "null") as Partial<Process> | null;
  const isWhole = (step: Step) => {
    const type = STEP_TYPES.find((each) => each.kind === step.kind);
    return type?.fields.every((field) => field.optional || valueOfField(step, field) !== undefined) ?? false;
  };
  return kept?.steps?.every(isWhole) ? (kept as Process) : null;
}

/** The fields of one step, side by side. */
export function StepFields({
  step,
  fields,
  units,
  number,
  optional = true,
}: {
  step: Step;
  fields: Pick<ReturnType<typeof useFields>, "bind">;
  units: Formats;
  /** Set where several steps of a kind need telling apart. */
  number?: number;
  optional?: boolean;
}) {
  return stepTypeOf(step.kind)
    .fields.filter((field) => optional || !field.optional || valueOfField(step, field) !== undefined)
    .map((field) => {
      const unit =
        field.is === "range" ? `°${units.temperature}` : field.is === "percent" ? "%" : field.is === "duration" ? UNIT_WORD[field.unit ?? "min"] : undefined;
      return (
        <Field
          key={field.key}
          label={field.label}
          {...(number ? { of: String(number) } : {})}
          {...(unit ? { unit } : {})}
          {...fields.bind(stepFieldName(step, field))}
          hint={optional ? field.hint : undefined}
          narrow={!optional}
        />
      );
    });
}
