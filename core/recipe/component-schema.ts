import { z } from "zod";
import { exactResolution, SCALE_UNITS } from "../units/mass";
import { COMPONENT_KINDS } from "./component";

const mg = z.number().int().min(0);

/** The scale that something is weighed on. */
export const weighedOn = z.object({
  id: z.uuid().nullable(),
  name: z.string(),
  /** In micrograms. A record of an earlier version has it cut to whole ones. */
  resolutionUg: z.number().positive().overwrite(exactResolution),
  unit: z.enum(SCALE_UNITS).optional(),
});

/** One material of a pot. */
export const component = z.object({
  kind: z.enum(COMPONENT_KINDS),
  id: z.uuid(),
  name: z.string(),
  /** What to weigh, on a mark of its scale; 0 for a dye that is counted. */
  mg,
  /** Drops or pieces to count instead, and the weight of one where it is known. */
  count: z.object({ n: mg, of: z.enum(["drops", "pieces"]), eachMg: mg.nullable() }).optional(),
  scale: weighedOn,
});
export type Component = z.output<typeof component>;
