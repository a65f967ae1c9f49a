import type { BatchPlan } from "../batch/plan";
import type { Prompt } from "./step-type";
import { stepTypeOf } from "./steps";

/** Returns the prompts of a batch, in order: what each step of its process asks for. */
export const promptsOf = (plan: BatchPlan): Prompt[] => plan.process.steps.flatMap((step) => stepTypeOf(step.kind).prompts(step, plan));
