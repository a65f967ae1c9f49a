import { z } from "zod";
import { DEFECTS } from "./defects";
import { EXTENTS, PLACES, SEVERITIES, WALL_HEIGHTS, WALL_SIDES } from "./places";

const wall = z.object({ side: z.enum(WALL_SIDES), height: z.enum(WALL_HEIGHTS) });

const defect = z.enum(DEFECTS.map((entry) => entry.id) as [string, ...string[]], { error: "Choose the flaw." });
const place = z.enum(PLACES, { error: "Choose where it is: top, side, bottom or wick." });

/** One flaw of a jar that was looked at: which, where, how far it goes. */
export const seenFlaw = z.object({ defect, place, wall: wall.optional(), extent: z.enum(EXTENTS, { error: "Choose its extent." }) });

export type SeenFlaw = z.output<typeof seenFlaw>;
export type WallSpot = NonNullable<SeenFlaw["wall"]>;

/** One flaw of several jars: which, where, how bad or how far, on how many of which. Earlier records say how bad, newer ones how far. */
export const flaw = z
  .object({
    defect,
    place,
    wall: wall.optional(),
    severity: z.enum(SEVERITIES, { error: "Choose its severity." }).optional(),
    extent: z.enum(EXTENTS).optional(),
    product: z.string().min(1).max(60).describe("its key within the batch"),
    jars: z.number().int().min(1, "At least 1 jar.").max(100_000),
  })
  .refine((item) => item.severity !== undefined || item.extent !== undefined, { path: ["severity"], message: "Choose its severity." });
export type Flaw = z.output<typeof flaw>;

/** What a workshop may say of a flaw that is no safety matter. */
const grade = z.enum(["first", "second", "melt again"]);
const byExtent = z.object({ speck: grade, patch: grade, third: grade, most: grade });
/** By which rules a workshop grades; what is a safety matter is never sold, whatever they say. */
export const gradingRulesSchema = z.object({
  cosmetic: byExtent,
  performance: byExtent,
  /** Flaws that are graded otherwise, whatever their extent. */
  own: z.record(z.enum(DEFECTS.map((defect) => defect.id) as [string, ...string[]]), grade.optional()).default({}),
});
export type GradingRules = z.output<typeof gradingRulesSchema>;
