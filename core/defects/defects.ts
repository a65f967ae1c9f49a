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
  remedy: string;
  nextBatch: string;
  /** Whether it can be seen on a set candle, or only in the nose or the flame. */
  seen: "set" | "burning";
  /** Where on a set candle it is looked for. */
  places: Place[];
}

/** Flaws, their looks and remedies; what causes them stands in `diagnosis/causes.json`. Common practice, no source. */
export const DEFECTS = table as unknown as readonly Defect[];

export const defectOf = (id: string): Defect | undefined => DEFECTS.find((entry) => entry.id === id);

export const PLACES = ["top", "side", "bottom", "wick"] as const;
export type Place = (typeof PLACES)[number];
export const SEVERITIES = ["slight", "clear", "severe"] as const;
export type Severity = (typeof SEVERITIES)[number];

/** How far over its place a flaw goes, as a share of the area. */
export const EXTENTS = ["speck", "patch", "third", "most"] as const;
export type Extent = (typeof EXTENTS)[number];
export const EXTENT_WORDS: Record<Extent, string> = { speck: "a speck", patch: "up to a tenth", third: "up to a third", most: "more than a third" };

export const WALL_SIDES = ["left", "right"] as const;
export const WALL_HEIGHTS = ["high", "middle", "low"] as const;
const wall = z.object({ side: z.enum(WALL_SIDES), height: z.enum(WALL_HEIGHTS) });
export type WallSpot = z.output<typeof wall>;

const defect = z.enum(DEFECTS.map((entry) => entry.id) as [string, ...string[]], { error: "Choose the flaw." });
const place = z.enum(PLACES, { error: "Say where it is: top, side, bottom or wick." });

/** One flaw of a jar that was looked at: which, where, how far it goes. */
export const seenFlaw = z.object({ defect, place, wall: wall.optional(), extent: z.enum(EXTENTS, { error: "Say how far it goes." }) });
export type SeenFlaw = z.output<typeof seenFlaw>;

/** One flaw of several jars: which, where, how bad or how far, on how many of which. Earlier records say how bad, newer ones how far. */
export const flaw = z
  .object({
    defect,
    place,
    wall: wall.optional(),
    severity: z.enum(SEVERITIES, { error: "Say how bad it is." }).optional(),
    extent: z.enum(EXTENTS).optional(),
    product: z.string().min(1).max(60).describe("its key within the batch"),
    jars: z.number().int().min(1, "At least 1 jar."),
  })
  .refine((one) => one.severity !== undefined || one.extent !== undefined, { path: ["severity"], message: "Say how bad it is." });
export type Flaw = z.output<typeof flaw>;

/** How bad or how far, in words. */
export const howBad = (one: Pick<Flaw, "severity" | "extent">): string => (one.extent ? EXTENT_WORDS[one.extent] : (one.severity ?? ""));

const RENAMED: Record<string, string> = { "wick-cracks": "cracks", pale: "pale_colour", "jumping-flame": "large_flame" };
/** The id that a flaw has now, of one that an earlier version wrote. */
export const defectNow = (id: unknown): unknown => (typeof id === "string" ? (RENAMED[id] ?? id.replaceAll("-", "_")) : id);
