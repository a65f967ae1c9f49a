import { z } from "zod";
import { HOTTEST } from "../units/temperature";
import { isDivided, potsOf, poursOf, type Step } from "./process";
import { SHAPES, stepHead } from "./shapes";
import { STEP_TYPES, stepTypeOf } from "./steps";

const schemas = STEP_TYPES.map((stepType) => stepType.params(SHAPES).extend({ ...stepHead, kind: z.literal(stepType.kind) }));
/** One step with its parameters. Temperatures in hundredths of °C, times in seconds, shares in millionths. */
export const step = z.discriminatedUnion("kind", schemas as never) as unknown as z.ZodType<Step>;

const isFirstPour = (step: Step) => stepTypeOf(step.kind).pours === "first";

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
    const say = (message: string, path: (string | number)[] = ["steps"]) => context.addIssue({ code: "custom", path, message });
    const ids = new Set<string>();
    for (const [index, step] of value.steps.entries()) {
      if (ids.has(step.id)) say(`Two steps are called “${step.id}”.`, ["steps", index, "id"]);
      ids.add(step.id);
      const fault = stepTypeOf(step.kind).fault?.(step);
      if (fault) say(fault.says, ["steps", index, fault.at]);
      if (step.only && stepTypeOf(step.kind).pours) say("A pour is limited to a product by its name, not to vessels or molds.", ["steps", index, "only"]);
    }
    if (!value.steps.some(isFirstPour)) say("A process pours at least once.");
    for (let pot = 0; pot < potsOf(value.steps); pot++) {
      if (!value.steps.some((step) => stepTypeOf(step.kind).weighs && (step.pot ?? 0) === pot)) say(`Pot ${pot + 1} is never weighed.`);
    }
    for (const [index, step] of value.steps.entries())
      if (stepTypeOf(step.kind).restOf && value.steps.slice(0, index).some((other) => (other.pot ?? 0) === (step.pot ?? 0)))
        say("What is taken from another pot comes before every other step of its pot.", ["steps", index]);
    const shares = poursOf(value.steps).reduce((sum, pouring) => sum + pouring.share, 0);
    const perProduct = isDivided(value.steps) || poursOf(value.steps).some((pour) => isFirstPour(pour) && pour.product !== undefined);
    if (!perProduct && value.steps.some(isFirstPour) && Math.abs(shares - 1_000_000) > 1_000)
      say(`The pours come to ${Math.round(shares / 1_000) / 10} % of the fill: together they must be 100 %.`);
  });
export type Process = z.output<typeof process>;
