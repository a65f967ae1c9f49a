import type { BatchPlan } from "../batch/plan";
import { isForContainer } from "./container-kind";
import type { Prompt } from "./step-type";
import { stepTypeOf } from "./steps";

/** Returns the prompts of a batch, in order: what each step of its process asks for. A step for containers that are not in the plan is left out. */
export const promptsOf = (plan: BatchPlan): Prompt[] =>
  plan.process.steps
    .filter((step) => plan.products.some((product) => isForContainer(step.only, product.container)))
    .flatMap((step) => stepTypeOf(step.kind).prompts(step, plan));
