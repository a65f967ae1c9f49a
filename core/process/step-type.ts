import type { z } from "zod";
import type { TemperatureRange } from "../heat/range";
import type { Component } from "../recipe/component-schema";
import type { ContainerKind } from "./container-kind";
import type { StepShapes } from "./shapes";

/** What one step of a process asks for at the bench: a weight, a reading, a time, or only that it was done. */
export type PromptEntry = "weighed" | "counted" | "read" | "stirred" | "poured" | "split" | "stepDone";

/** One thing to do at the bench. A step gives one, or, where it weighs, one for each component. */
export interface Prompt {
  /** Unique within a batch: the step's id, with the component's where there are several. */
  key: string;
  step: string;
  kind: string;
  /** Which pot of the batch it belongs to, counted from 0. */
  pot: number;
  /** "weigh container soy", "heat", "pour again". */
  name: string;
  /** The event type that does it; null if only the clock does. */
  entry: PromptEntry | null;
  /** Done only for the products in these containers; for all where it is absent. */
  only?: ContainerKind;
  component?: Component;
  range?: TemperatureRange;
  /** How long it takes by the clock: stirring, resting. Seconds. */
  seconds?: number;
  /** The wait that it is: at least, at most. Seconds after the step before it. */
  least?: number;
  most?: number;
  /** What it pours, as a share of each fill in millionths. */
  share?: number;
  /** A pour of molds alone. */
  molds?: true;
  /** What else the bench shows large: "12 stones", "30°". */
  figure?: string;
}

/** What steps need to know of the batch they are part of. */
export interface StepContext {
  pots: { components: Component[]; totalMg: number }[];
  products: { count: number; container?: "vessel" | "mold" }[];
}

/** Returns how many pieces a batch fills. */
export const piecesOf = (batch: Pick<StepContext, "products">): number => batch.products.reduce((sum, item) => sum + item.count, 0);

/** How a maker edits one parameter of a step. */
export interface StepField {
  key: string;
  label: string;
  is: "range" | "duration" | "percent" | "count" | "degrees" | "words" | "components" | "product" | "pot";
  /** For durations: what a number without a unit means. */
  unit?: "min" | "h" | "d";
  optional?: boolean;
  hint?: string;
}

/** How a step bears on the heat of its pot. */
export interface StepHeat {
  /** What its range is called: "heat", "add", "pour". */
  range: string;
  /** It brings the pot up to its range on the burner. Every other step waits until the pot has fallen to its own. */
  isOnBurner?: true;
  /** What is poured next is poured at its range. */
  isForPour?: true;
  /** It is kept inside its range for a time: how it cools meanwhile tells nothing of how pots cool. */
  isHeld?: true;
  /** °C of a pot after it, of what the pot had when it began; the same if nothing is given. */
  after?(celsius: number): number;
}

/** What becomes of the record of a batch by a step: the name of the value, as causes of flaws name it. */
export type StepRecord = "heat_c" | "add_c" | "pour_c" | "stir_minutes" | "cure_days" | "pierced" | "mica";

/** Times after the last pour, in seconds, that a step sets. */
export interface AfterPour {
  set?: number;
  leastCure?: number;
  recommendedCure?: number;
}

/** What a step needs while it is done. Waits between steps need none of it. */
export type Need = "hands" | "burner" | "pitcher" | "table";

/**
 * A type of step: its parameters, what it asks for at the bench, its words and cautions, how long it takes and what it
 * needs. One file a kind in `steps/`, one line in its list, one view at the bench.
 */
export interface StepType<K extends string = string, P extends object = object> {
  kind: K;
  /** What it is called: a verb. */
  verb: string;
  params: (shapes: StepShapes) => z.ZodObject<z.ZodRawShape> & z.ZodType<P>;
  fields: readonly StepField[];
  /** What a new one begins with. */
  first: P;
  prompts(step: StepOf<K, P>, plan: StepContext): Prompt[];
  /** What stands in the margin beside it. */
  why: string;
  /** A caution that stands where the step is. It defers to supplier sheets and local codes. */
  caution?: string;
  /** How it bears on the heat of the pot; nothing where it does not. Its range is the parameter `range`. */
  heat?: StepHeat;
  /** What it leaves in the record of a batch. */
  records?: StepRecord;
  /** The same step, set to a value of what it records. */
  withValue?(step: StepOf<K, P>, value: number): StepOf<K, P>;
  /** It weighs: all parts of the pot, or only some of them. */
  weighs?(step: StepOf<K, P>): "all" | "some";
  /** It fills the containers: for the first time, or what has shrunk. */
  pours?: "first" | "again";
  /** The pot whose rest it takes as a pot of its own. */
  restOf?(step: StepOf<K, P>): number;
  /** It takes candles out of their molds. */
  unmolds?: true;
  /** It lays into the candles what is shown in them. */
  laysIn?: true;
  /** Kinds of step that are one thing for the people with it, where they follow at once. */
  joins?: readonly string[];
  /** Nothing is done in it but wait. */
  isIdle?: true;
  /** The most seconds that it may last; nothing where it may last longer. */
  longest?(step: StepOf<K, P>): number | undefined;
  /** What it says of the time after the last pour; it then stands at the end of a process. */
  afterPour?(step: StepOf<K, P>): AfterPour;
  /** What is wrong with its parameters together, and at which. */
  fault?(step: StepOf<K, P>): { at: string; says: string } | null;
  /** What the moment it was done is called in a picture: "stirred". */
  done?: string;
  /** Minutes of work, and what it needs meanwhile: common practice, no source; replaced by the workshop's own times as they are known. */
  takes(step: StepOf<K, P>, plan: StepContext): { minutes: number; needs: readonly Need[] };
}

/** What every step has. */
export interface StepHead {
  /** Unique within its process. Entries name it. */
  id: string;
  /** Which pot, where a process works several. */
  pot?: number | undefined;
  /** Only the products in these containers; all where it is absent. */
  only?: ContainerKind | undefined;
}
export type StepOf<K extends string, P> = StepHead & { kind: K } & P;

/** Declares a kind; the schema's output gives the parameters their type. */
export const stepType = <K extends string, S extends z.ZodRawShape>(
  kind: Omit<StepType<K, z.output<z.ZodObject<S>>>, "params" | "first"> & {
    params: (shapes: StepShapes) => z.ZodObject<S>;
    first: z.output<z.ZodObject<S>>;
  },
) => kind;

/** Returns the prompt that most steps give: one, named by the verb. */
export const oneStep = (step: StepHead & { kind: string }, name: string, entry: PromptEntry | null, more: Partial<Prompt> = {}): Prompt[] => [
  { key: step.id, step: step.id, kind: step.kind, pot: step.pot ?? 0, name, entry, ...(step.only ? { only: step.only } : {}), ...more },
];
