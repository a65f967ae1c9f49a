import table from "./defects.json" with { type: "json" };
import { EXTENT_WORDS, type Extent, type Place } from "./places";

/** C: cosmetic, P: performance, S: safety. */
export type DefectClass = "C" | "P" | "S";

export interface Defect {
  id: string;
  name: string;
  classes: DefectClass[];
  /** Whether it can be seen on a set candle, or only in the nose or the flame. */
  seen: "set" | "burning";
  /** The wax or the container that it belongs to; all if nothing is given. */
  only?: "gel" | "soy" | "mold" | "vessel";
  /** It can be mended: what stays dry at a second look may be sold. Common practice, no source. */
  recovers?: boolean;
  /** Where on a set candle it is looked for. */
  places: Place[];
}

/** Flaws; their looks and remedies stand in `remedies.json`, what causes them stands in `diagnosis/causes.json`. Common practice, no source. */
export const DEFECTS = table as unknown as readonly Defect[];

export const defectOf = (id: string): Defect | undefined => DEFECTS.find((entry) => entry.id === id);

/** The flaws that a candle of this wax in this container can have. Common practice, no source. */
export const defectsFor = (of: { family: string; container: "vessel" | "mold"; material?: string | undefined }): Defect[] =>
  DEFECTS.filter(({ id, only }) => {
    // Frosted glass hides where wax lets go of the wall.
    if (id === "wet_spot" && of.material === "frosted glass") return false;
    if (only === "gel") return of.family === "gel";
    if (only === "soy") return of.family === "soy" || of.family === "paraffin–soy" || of.family === "blend";
    if (only === "mold") return of.container === "mold";
    return only === "vessel" ? of.container === "vessel" : true;
  });

/** Returns how bad or how far, in words. */
export const howBad = (item: { severity?: string | undefined; extent?: Extent | undefined }): string =>
  item.extent ? EXTENT_WORDS[item.extent] : (item.severity ?? "");

const RENAMED: Record<string, string> = { "wick-cracks": "cracks", pale: "pale_colour", "jumping-flame": "large_flame" };
/** The id that a flaw has now, of one that an earlier version wrote. */
export const defectNow = (id: unknown): unknown => (typeof id === "string" ? (RENAMED[id] ?? id.replaceAll("-", "_")) : id);
