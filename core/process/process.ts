import type { z } from "zod";
import type { TemperatureRange } from "../heat/range";
import { bad, good, type Parsed } from "../units/parsed";
import { isForContainer } from "./container-kind";
import type { AfterPour, StepField, StepHead, StepRecord } from "./step-type";
import { type STEP_TYPES, type StepName, stepTypeOf } from "./steps";

type OneStep<T> = T extends { kind: infer K extends string; params: (shapes: never) => z.ZodType<infer P> }
  ? StepHead & { kind: K } & ([P] extends [Record<string, never>] ? unknown : P)
  : never;
/** One step with its parameters. Temperatures in hundredths of °C, times in seconds, shares in millionths. */
export type Step = OneStep<(typeof STEP_TYPES)[number]>;
export type StepNamed<K extends StepName> = Extract<Step, { kind: K }>;

/** Returns how many pots a process works. */
export const potsOf = (steps: readonly { pot?: number | undefined }[]): number => steps.reduce((most, item) => Math.max(most, (item.pot ?? 0) + 1), 1);

/** Returns the pot that a pot is the rest of; undefined where it is melted by itself. */
export const restOf = (steps: readonly Step[], pot: number): number | undefined => {
  const split = steps.find((step) => (step.pot ?? 0) === pot && stepTypeOf(step.kind).restOf !== undefined);
  return split && stepTypeOf(split.kind).restOf?.(split);
};

/** Returns which product of a plan a pour fills, as a maker reads it: its name, or its place counted from 1. */
export const writeProduct = (product: number | string): string => (typeof product === "number" ? String(product + 1) : product);
export const saidProduct = (product: number | string): string => (typeof product === "number" ? `product ${product + 1}` : `“${product}”`);
/** Reads it: a whole number is a place, anything else a name. */
export function parseProduct(text: string): Parsed<number | string> {
  const typed = text.trim();
  if (!/^\d+$/.test(typed)) return typed.length > 120 ? bad("too-long", "A name has at most 120 letters.") : good(typed);
  const index = Number(typed);
  return index >= 1 && index <= 200 ? good(index - 1) : bad("out-of-range", "The places in a plan are counted from 1, up to 200.");
}

export type Pouring = StepNamed<"pour"> | StepNamed<"pour-again">;
export const isPouring = (step: Step): step is Pouring => stepTypeOf(step.kind).pours !== undefined;
export const poursOf = (steps: readonly Step[]): Pouring[] => steps.filter(isPouring);
/** Returns the pour that fills what has shrunk; undefined where a process has none. */
export const secondPourOf = (steps: readonly Step[]): Pouring | undefined => poursOf(steps).find((pour) => stepTypeOf(pour.kind).pours === "again");
/** Returns the second pour of a process that pours just twice, which what is kept back is for; undefined where it pours otherwise. */
export const reservePourOf = (steps: readonly Step[]): Pouring | undefined => (poursOf(steps).length === 2 ? secondPourOf(steps) : undefined);
/** Returns whether a pour fills the product at a place of the plan: all of them where it names none. */
export const fillsProduct = (pour: Pick<Pouring, "product" | "products"> | undefined, index: number): boolean =>
  pour?.products ? pour.products.includes(index) : pour?.product === undefined || pour.product === index;

/** Returns whether a pot of a process is divided: one is the rest of another. */
export const isDivided = (steps: readonly Step[]): boolean => steps.some((step) => stepTypeOf(step.kind).restOf !== undefined);

/** Returns whether a step says how long a candle cures. */
export const isCuring = (step: Step): step is StepNamed<"cure"> => stepTypeOf(step.kind).records === "cure_days";

/** Returns what a step has in one of its fields; undefined if that is left empty. */
export const valueOfField = (step: Step, field: Pick<StepField, "key">): unknown => Object.entries(step).find(([key]) => key === field.key)?.[1];

/** A step with a range of temperatures. */
export type Ranged = Extract<Step, { range: TemperatureRange }>;
/** The steps of a pot (of all where none is named) that leave this value in the record of a batch. */
export const recordedBy = (steps: readonly Step[], value: StepRecord, pot?: number): Step[] =>
  steps.filter((step) => stepTypeOf(step.kind).records === value && (pot === undefined || (step.pot ?? 0) === pot));
/**
 * Returns the step that says this value of a batch: of several of one pot the first; for the temperature of the pour, the last. It is of the
 * first pot that has one; undefined if none has.
 */
export function recorderOf(steps: readonly Step[], value: StepRecord): Step | undefined {
  const [first] = recordedBy(steps, value);
  return first && recordedBy(steps, value, first.pot ?? 0).at(value === "pour_c" ? -1 : 0);
}
/** Returns whether a step, or a prompt of one, brings its pot up to its range on the burner. */
export const isOnBurner = ({ kind }: { kind: string }): boolean => stepTypeOf(kind).heat?.isOnBurner === true;
/** The range of a step; undefined if it has none. */
export const rangeOfStep = (step: Step): TemperatureRange | undefined => ("range" in step ? step.range : undefined);

/**
 * Returns the times after the last pour, in seconds, of what is in a kind of container; the longest where none is named. Zero where a process does not
 * say.
 */
export function timesOf(of: { steps: readonly Step[] }, container?: "vessel" | "mold"): { set: number; leastCure: number; recommendedCure: number } {
  if (!container) {
    const [jars, molded] = [timesOf(of, "vessel"), timesOf(of, "mold")];
    return {
      set: Math.max(jars.set, molded.set),
      leastCure: Math.max(jars.leastCure, molded.leastCure),
      recommendedCure: Math.max(jars.recommendedCure, molded.recommendedCure),
    };
  }
  const said = of.steps.filter((step) => isForContainer(step.only, container)).map((step) => stepTypeOf(step.kind).afterPour?.(step) ?? {});
  const first = (of: keyof AfterPour) => said.find((afterPour) => afterPour[of] !== undefined)?.[of] ?? 0;
  return { set: first("set"), leastCure: first("leastCure"), recommendedCure: first("recommendedCure") };
}

/** One range of a process, as it is drawn and spoken of: "heat", "add", "pour". */
export interface Band {
  step: string;
  name: string;
  range: TemperatureRange;
}

/** Returns what the range of a step is called: "heat", "add", "pour". */
export const rangeName = ({ kind }: { kind: string }): string => stepTypeOf(kind).heat?.range ?? kind;

/** Returns every range of a process in its order. */
export const bandsOf = (of: { steps: readonly Step[] }): Band[] =>
  of.steps.flatMap((step): Band[] => {
    const range = rangeOfStep(step);
    return range ? [{ step: step.id, name: rangeName(step), range }] : [];
  });

/** Returns what the moment that a step was done is called in a picture: "stirred"; its id where its kind has no word for it. */
export function doneName(steps: readonly Step[], id: string): string {
  const step = steps.find((step) => step.id === id);
  return (step && stepTypeOf(step.kind).done) ?? id;
}
