import { z } from "zod";
import table from "./defects.json" with { type: "json" };

/** C: cosmetic, P: performance, S: safety. */
export type DefectClass = "C" | "P" | "S";

export interface Defect {
  id: string;
  name: string;
  classes: DefectClass[];
  /** How it looks, to tell it from its neighbours. */
  looks: string;
  /** Likely causes, most likely first. Only a record and one change at a time settle which. */
  causes: string[];
  remedy: string;
  nextBatch: string;
  /** Whether it can be seen on a set candle, or only in the nose or the flame. */
  seen: "set" | "burning";
}

/** Flaws of container candles. Looks, causes and remedies: common practice, no source. */
export const DEFECTS = table as readonly Defect[];

export const defectOf = (id: string): Defect | undefined => DEFECTS.find((entry) => entry.id === id);

export const PLACES = ["top", "side", "bottom", "wick"] as const;
export type Place = (typeof PLACES)[number];
export const SEVERITIES = ["slight", "clear", "severe"] as const;
export type Severity = (typeof SEVERITIES)[number];

/** One flaw as it was seen: which, where, how bad, on how many of which jars. */
export const flaw = z.object({
  defect: z.enum(DEFECTS.map((entry) => entry.id) as [string, ...string[]], { error: "Choose the flaw." }),
  place: z.enum(PLACES, { error: "Say where it is: top, side, bottom or wick." }),
  severity: z.enum(SEVERITIES, { error: "Say how bad it is." }),
  product: z.string().min(1).max(60).describe("its key within the batch"),
  jars: z.number().int().min(1, "At least 1 jar."),
});
export type Flaw = z.output<typeof flaw>;
