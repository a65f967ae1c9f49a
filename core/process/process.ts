import type { z } from "zod";
import type { TemperatureRange } from "../heat/range";
import { bad, good, type Parsed } from "../units/parsed";
import type { ACTS, ActName } from "./acts";
import type { ActHead } from "./kind";
import type { process } from "./schema";

type OneAct<T> = T extends { kind: infer K extends string; params: (shapes: never) => z.ZodType<infer P> }
  ? ActHead & { kind: K } & ([P] extends [Record<string, never>] ? unknown : P)
  : never;
/** One act with its parameters. Temperatures in hundredths of °C, times in seconds, shares in millionths. */
export type Act = OneAct<(typeof ACTS)[number]>;
export type ActCalled<K extends ActName> = Extract<Act, { kind: K }>;

/** How a wax is worked: a list of acts in order, under a ceiling. */
export type Process = z.output<typeof process>;

/** How many pots a process works. */
export const potsOf = (acts: readonly { pot?: number | undefined }[]): number => acts.reduce((most, one) => Math.max(most, (one.pot ?? 0) + 1), 1);

/** Which product of a plan a pour fills, as a maker reads it: its name, or its place counted from 1. */
export const writeProduct = (product: number | string): string => (typeof product === "number" ? String(product + 1) : product);
export const saidProduct = (product: number | string): string => (typeof product === "number" ? `product ${product + 1}` : `“${product}”`);
/** Reads it: a whole number is a place, anything else a name. */
export function parseProduct(text: string): Parsed<number | string> {
  const typed = text.trim();
  if (!/^\d+$/.test(typed)) return typed.length > 120 ? bad("too-long", "A name has at most 120 letters.") : good(typed);
  const place = Number(typed);
  return place >= 1 && place <= 200 ? good(place - 1) : bad("out-of-range", "The places in a plan are counted from 1, up to 200.");
}

export type Pouring = ActCalled<"pour"> | ActCalled<"pour-again">;
export const poursOf = (acts: readonly Act[]): Pouring[] => acts.filter((one): one is Pouring => one.kind === "pour" || one.kind === "pour-again");

const firstOf = <K extends ActName>(acts: readonly Act[], kind: K): ActCalled<K> | null =>
  (acts.find((one) => one.kind === kind) as ActCalled<K> | undefined) ?? null;

/** The times after the last pour, in seconds; nothing where a process does not say. */
export function timesOf(of: Pick<Process, "acts">): { set: number; leastCure: number; recommendedCure: number } {
  const cure = firstOf(of.acts, "cure");
  return { set: firstOf(of.acts, "set")?.seconds ?? 0, leastCure: cure?.least ?? 0, recommendedCure: cure?.recommended ?? 0 };
}

/** One range of a process, as it is drawn and spoken of: "heat", "add", "pour". */
export interface Band {
  act: string;
  name: string;
  range: TemperatureRange;
}

export const RANGE_NAMES = { heat: "heat", add: "add", cool: "pour", "pour-again": "second pour" } as const;

/** Every range of a process in its order. */
export const bandsOf = (of: Pick<Process, "acts">): Band[] =>
  of.acts.flatMap((one): Band[] =>
    "range" in one && one.range ? [{ act: one.id, name: RANGE_NAMES[one.kind as keyof typeof RANGE_NAMES] ?? one.kind, range: one.range }] : [],
  );
