import { z } from "zod";
import { HOTTEST } from "../units/temperature";
import { processFaults } from "./faults";
import type { Step } from "./process";
import { SHAPES, stepHead } from "./shapes";
import { STEP_TYPES } from "./steps";

const schemas = STEP_TYPES.map((stepType) => stepType.params(SHAPES).extend({ ...stepHead, kind: z.literal(stepType.kind) }));
/** One step with its parameters. Temperatures in hundredths of °C, times in seconds, shares in millionths. */
export const step = z.discriminatedUnion("kind", schemas as never) as unknown as z.ZodType<Step>;

/** How a wax is worked: a list of steps in order, under a ceiling. All temperatures are wax temperatures. */
export const process = z
  .object({
    name: z.string().trim().min(1, "Enter a name for the process.").max(120),
    reason: z.string().max(600).default(""),
    /** Kept above this for long, the wax scorches. */
    ceiling: z.number().int().max(HOTTEST),
    steps: z.array(step).min(1, "A process has at least one step.").max(80, "At most 80 steps."),
    /** The process of the workshop that it was taken from, and its version. */
    from: z.object({ id: z.uuid(), number: z.number().int().min(1) }).optional(),
  })
  .superRefine((value, context) => {
    for (const { path, message } of processFaults(value.steps)) context.addIssue({ code: "custom", path, message });
  });
export type Process = z.output<typeof process>;
