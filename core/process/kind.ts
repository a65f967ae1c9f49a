import type { z } from "zod";
import type { Component } from "../batch/plan";
import type { TemperatureRange } from "../heat/range";
import type { ActShapes } from "./shapes";

/** What one act of a process asks for at the bench: a weight, a reading, a time, or only that it was done. */
export type Entry = "weighed" | "counted" | "read" | "stirred" | "poured" | "did";

/** One thing to do at the bench. An act gives one, or, where it weighs, one for each component. */
export interface Step {
  /** Unique within a batch: the act's id, with the component's where there are several. */
  key: string;
  act: string;
  kind: string;
  /** Which pot of the batch it belongs to, counted from 0. */
  pot: number;
  /** "weigh container soy", "heat", "pour again". */
  name: string;
  /** The kind of entry that does it; null where only the clock does. */
  entry: Entry | null;
  component?: Component;
  range?: TemperatureRange;
  /** How long it takes by the clock: stirring, resting. Seconds. */
  seconds?: number;
  /** The wait that it is: at least, at most. Seconds after the step before it. */
  least?: number;
  most?: number;
  /** What it pours, as a share of each fill in millionths. */
  share?: number;
  /** What else the bench shows large: "12 stones", "30°". */
  figure?: string;
}

/** What acts need to know of the batch they are part of. */
export interface ActPlan {
  pots: { components: Component[]; totalMg: number }[];
  products: { count: number }[];
}

/** How a maker edits one parameter of an act. */
export interface ActField {
  key: string;
  label: string;
  is: "range" | "duration" | "percent" | "count" | "degrees" | "words" | "components" | "product";
  /** For durations: what a number without a unit means. */
  unit?: "min" | "h" | "d";
  optional?: boolean;
  hint?: string;
}

/** What an act needs while it is done. Waits between acts need none of it. */
export type Need = "hands" | "burner" | "pitcher" | "table";

/**
 * A kind of act: its parameters, what it asks for at the bench, its words and cautions, how long it takes and what it
 * needs. One file a kind in `acts/`, one line in its list, one view at the bench.
 */
export interface ActKind<K extends string = string, P extends object = object> {
  kind: K;
  /** What it is called: a verb. */
  verb: string;
  params: (shapes: ActShapes) => z.ZodObject<z.ZodRawShape> & z.ZodType<P>;
  fields: readonly ActField[];
  /** What a new one begins with. */
  first: P;
  steps(act: ActOf<K, P>, plan: ActPlan): Step[];
  /** What stands in the margin beside it. */
  why: string;
  /** A caution that stands where the act is. It defers to supplier sheets and local codes. */
  caution?: string;
  /** Minutes of work, and what it needs meanwhile: common practice, no source; replaced by the workshop's own times as they are known. */
  takes(act: ActOf<K, P>, plan: ActPlan): { minutes: number; needs: readonly Need[] };
}

/** What every act has. */
export interface ActHead {
  /** Unique within its process. Entries name it. */
  id: string;
  /** Which pot, where a process works several. */
  pot?: number | undefined;
}
export type ActOf<K extends string, P> = ActHead & { kind: K } & P;

/** Declares a kind; the schema's output gives the parameters their type. */
export const actKind = <K extends string, S extends z.ZodRawShape>(
  kind: Omit<ActKind<K, z.output<z.ZodObject<S>>>, "params" | "first" | "steps" | "takes"> & {
    params: (shapes: ActShapes) => z.ZodObject<S>;
    first: z.output<z.ZodObject<S>>;
    steps(act: ActOf<K, z.output<z.ZodObject<S>>>, plan: ActPlan): Step[];
    takes(act: ActOf<K, z.output<z.ZodObject<S>>>, plan: ActPlan): { minutes: number; needs: readonly Need[] };
  },
) => kind;

/** A step as most acts give it: one, named by its verb. */
export const oneStep = (act: ActHead & { kind: string }, name: string, entry: Entry | null, more: Partial<Step> = {}): Step[] => [
  { key: act.id, act: act.id, kind: act.kind, pot: act.pot ?? 0, name, entry, ...more },
];
