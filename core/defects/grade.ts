import { defectOf } from "./defects";
import { EXTENTS, type Extent } from "./places";
import type { Flaw, GradingRules } from "./schema";

/** The grades of a jar, best first. */
export const GRADES = ["first", "second", "after a recheck", "melt again", "never sell"] as const;
export type Grade = (typeof GRADES)[number];

/** Where a workshop says nothing. Frosting and wet spots are told to buyers rather than scrapped: common practice, no source. */
export const DEFAULT_GRADES: GradingRules = {
  cosmetic: { speck: "first", patch: "first", third: "second", most: "second" },
  performance: { speck: "second", patch: "second", third: "melt again", most: "melt again" },
  own: { frosting: "first", wet_spot: "first" },
};

/** How far a flaw goes where an earlier record says only how bad it is. */
const LIKE: Record<"slight" | "clear" | "severe", Extent> = { slight: "patch", clear: "third", severe: "most" };

const worse = (a: Grade, b: Grade): Grade => (GRADES.indexOf(a) >= GRADES.indexOf(b) ? a : b);

/** Returns the grade of a jar by what it shows: the worst of its flaws decides. */
export function gradeOf(flaws: readonly Pick<Flaw, "defect" | "extent" | "severity">[], rules: GradingRules = DEFAULT_GRADES): Grade {
  return flaws.reduce<Grade>((sofar, flaw) => {
    const classes = defectOf(flaw.defect)?.classes ?? [];
    if (classes.includes("S")) return worse(sofar, defectOf(flaw.defect)?.recovers ? "after a recheck" : "never sell");
    const extent = flaw.extent ?? (flaw.severity ? LIKE[flaw.severity] : (EXTENTS.at(-1) as Extent));
    return worse(sofar, rules.own[flaw.defect] ?? rules[classes.includes("P") ? "performance" : "cosmetic"][extent]);
  }, "first");
}
