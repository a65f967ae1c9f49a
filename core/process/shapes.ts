import { temperatureRange } from "../heat/schema";
import { z } from "../shapes";
import { SECONDS } from "../units/duration";
import { CONTAINER_KINDS } from "./container-kind";

/** What every step has, as it is checked. */
export const stepHead = {
  id: z
    .string()
    .regex(/^[a-z][a-z0-9-]{0,39}$/, "A step's id is a short word.")
    .describe("unique within the process"),
  pot: z.number().int().min(0).max(7).optional().describe("which pot, counted from 0"),
  only: z.enum(CONTAINER_KINDS).optional().describe("only the products in these containers"),
};

const seconds = z
  .number()
  .int()
  .min(0)
  .max(400 * SECONDS.d);

/** How far one pour fills: a share of the fill by weight, or up to a share of the fill's height (for layers of equal height). */
const share = z.number().int().min(1_000).max(1_000_000).default(1_000_000).describe("millionths of the fill");

/** Only one product of the plan: its place counted from 0, or its name; all if nothing is given. */
const whichProduct = z
  .union([z.number().int().min(0).max(199), z.string().trim().min(1).max(120)])
  .optional()
  .describe("its place in the plan, counted from 0, or its name");

/** The products of a plan that a pour fills, where its pot is divided: a plan sets them. */
const filledProducts = z.array(z.number().int().min(0).max(199)).max(200).optional().describe("the places of the products in the plan, counted from 0");

/** What steps are handed to say how their parameters are checked: what only shows a process then loads nothing that checks it. */
export const SHAPES = { z, seconds, share, temperatureRange, whichProduct, filledProducts };
export type StepShapes = typeof SHAPES;
