import {
  type BatchPlan,
  bad,
  EXTENTS,
  type Flaw,
  good,
  notedPrompts,
  type PastBatch,
  PLACES,
  type Prompt,
  SECONDS,
  timeOn,
  typedUnit,
  type Warmed,
} from "@hearth/core";
import { type FieldRule, orNothing, words } from "@/forms/fields";
import { clockRule, countRule, durationRule, massRule, pastDayRule, stepTimeRule, temperatureRule } from "@/forms/rules";
import { type StepTime, stepMoment } from "@/forms/when";
import type { Formats } from "@/ui/units";

type Rules = Record<string, FieldRule<unknown>>;
type Values = Readonly<Record<string, unknown>>;

/** What is filled in of a step beside its time: a figure, only that it was done, or nothing. */
export const valueKind = ({ entry }: Prompt): "figure" | "done" | null => (entry === "poured" ? null : entry === "stepDone" ? "done" : "figure");

/** Returns how the figure of a step is read; null where nobody noted it. */
function valueRule({ entry, component }: Prompt, units: Formats): FieldRule<unknown> {
  if (entry === "weighed" && component) return orNothing(massRule(units, { unit: typedUnit(component.scale) })) as FieldRule<unknown>;
  if (entry === "counted") return orNothing(countRule({ least: 1, most: 100_000, name: component?.count?.of ?? "drops" })) as FieldRule<unknown>;
  if (entry === "read") return orNothing(temperatureRule(units)) as FieldRule<unknown>;
  if (entry === "stirred") return orNothing(durationRule(SECONDS.h)) as FieldRule<unknown>;
  return choice;
}
const choice: FieldRule<unknown> = { initial: "", parse: (text) => good(text || null) };
const needed = (initial: string, message: string): FieldRule<unknown> => ({ initial, parse: (text) => (text ? good(text) : bad("empty", message)) });

/** Returns the figure of a step as the plan has it, as it may be typed; empty for readings, which only the maker knows. */
export function plannedText(prompt: Prompt, units: Formats): string {
  const { entry, component } = prompt;
  if (entry === "weighed" && component) return units.onScale(component.mg, component.scale);
  if (entry === "counted") return String(component?.count?.n ?? "");
  if (entry === "stirred" && prompt.seconds) return `${prompt.seconds} s`;
  return entry === "stepDone" ? "done" : "";
}

/** Returns the rules of the fields of a past batch. `flaws`: the ids of the lines of flaws. */
export function pastRules(plan: BatchPlan | null, flaws: readonly number[], { now, units }: { now: string; units: Formats }): Rules {
  const products = plan?.products ?? [];
  const only = products.length === 1 ? (products[0]?.key ?? "") : "";
  return {
    day: pastDayRule(units.isoDay(now), units) as FieldRule<unknown>,
    begun: orNothing(clockRule(units)) as FieldRule<unknown>,
    thermometer: choice,
    room: orNothing(temperatureRule(units)) as FieldRule<unknown>,
    left: orNothing(massRule(units, { zero: true })) as FieldRule<unknown>,
    warmed: choice,
    seen: choice,
    seenAt: stepTimeRule(now, units) as FieldRule<unknown>,
    remark: words() as FieldRule<unknown>,
    ...Object.fromEntries(
      (plan ? notedPrompts(plan) : []).flatMap((prompt) => [
        [`value:${prompt.key}`, valueRule(prompt, units)],
        [`time:${prompt.key}`, stepTimeRule(now, units) as FieldRule<unknown>],
      ]),
    ),
    ...Object.fromEntries(
      products.map((product) => [
        `filled:${product.key}`,
        countRule({ least: 0, most: product.count * 2 + 20, name: "filled" }, String(product.count)) as FieldRule<unknown>,
      ]),
    ),
    ...Object.fromEntries(
      flaws.flatMap((id) => [
        [`flaw:${id}:defect`, needed("", "Choose the flaw.")],
        [`flaw:${id}:place`, needed("top", "Choose where it is.")],
        [`flaw:${id}:extent`, needed("patch", "Choose its extent.")],
        [`flaw:${id}:product`, needed(only, "Choose the vessel.")],
        [`flaw:${id}:jars`, countRule({ least: 1, most: 100_000, name: "jars" }, "") as FieldRule<unknown>],
      ]),
    ),
  };
}

/** Returns when the batch was begun: at noon of its day where the hour was not noted; null until the day is entered. */
export function begunAt(values: Values, now: string, zone: string): string | null {
  if (typeof values.day !== "string") return null;
  const at = timeOn(values.day, (values.begun as number | null) ?? 12 * 60, zone);
  // Of today, the hour not noted, it is not ahead of now.
  return new Date(values.begun == null ? Math.min(at, Date.parse(now)) : at).toISOString();
}

/** Returns the moments of the steps by their prompts, null where none was noted, and of the inspection; with what is wrong with one, by its field. */
export function momentsOfSteps(
  prompts: readonly Prompt[],
  values: Values,
  begun: string | null,
  now: string,
  units: Formats,
): { at: Record<string, string | null>; faults: Record<string, string> } {
  const at: Record<string, string | null> = {};
  const faults: Record<string, string> = {};
  let before = begun;
  for (const { key, field } of [...prompts.map(({ key }) => ({ key, field: `time:${key}` })), { key: "seen", field: "seenAt" }]) {
    const time = values[field] as StepTime | null | undefined;
    at[key] = null;
    if (!time || before === null) continue;
    const moment = stepMoment(time, before, now, units.zone, units.locale);
    if (!moment.ok) faults[field] = moment.message;
    else {
      at[key] = moment.value;
      before = moment.value;
    }
  }
  return { at, faults };
}

/** Returns what is missing where a time was noted, as messages by their fields: a step's figure, or what was found at the inspection. */
export function missingBesideTimes(prompts: readonly Prompt[], flaws: readonly number[], values: Values): Record<string, string[]> {
  const figures = prompts.filter((prompt) => valueKind(prompt) === "figure" && values[`time:${prompt.key}`] != null && values[`value:${prompt.key}`] == null);
  return {
    ...Object.fromEntries(figures.map((prompt) => [`value:${prompt.key}`, ["Enter it, or clear its time."]])),
    ...(values.seenAt != null && values.seen == null && flaws.length === 0 ? { seen: ["Choose it, add a flaw, or clear its time."] } : {}),
  };
}

/** Returns what was noted, as the server takes it. */
export function pastOf(plan: BatchPlan, flaws: readonly number[], values: Values, at: Record<string, string | null>): PastBatch {
  const of = (id: number, name: string) => values[`flaw:${id}:${name}`];
  return {
    steps: notedPrompts(plan).flatMap((prompt): PastBatch["steps"] => {
      const value = values[`value:${prompt.key}`];
      const kind = valueKind(prompt);
      const moment = at[prompt.key] ?? null;
      // Whoever notes when a step was done says that it was.
      const isNoted = kind === null || (kind === "done" ? value === "done" || moment !== null : typeof value === "number");
      return isNoted ? [{ prompt: prompt.key, at: moment, value: typeof value === "number" ? value : null }] : [];
    }),
    filled: plan.products.map(({ key }) => ({ product: key, count: values[`filled:${key}`] as number })),
    thermometerId: (values.thermometer as string | null) || null,
    leftMg: (values.left as number | null) ?? null,
    roomCelsius: (values.room as number | null) ?? null,
    warmed: (values.warmed as Warmed | null) || null,
    inspection:
      values.seen === "yes" || flaws.length > 0
        ? {
            at: at.seen ?? null,
            flaws: flaws.map(
              (id): Flaw => ({
                defect: of(id, "defect") as string,
                place: PLACES.find((place) => place === of(id, "place")) ?? "top",
                extent: EXTENTS.find((extent) => extent === of(id, "extent")) ?? "patch",
                product: of(id, "product") as string,
                jars: of(id, "jars") as number,
              }),
            ),
          }
        : null,
    remark: (values.remark as string) ?? "",
  };
}
